using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>One thing that is printed on a piece, in the piece's coordinates; what is printed on the back, as one sees it there.</summary>
public abstract record PrintLayer;

/// <summary>An area of one colour.</summary>
/// <param name="Rings">What bounds it; open ones are closed by a straight way.</param>
/// <param name="EvenOdd">By the even-odd rule; else by winding.</param>
/// <param name="Colour">#rrggbb.</param>
public sealed record FillLayer(ImmutableArray<Path> Rings, bool EvenOdd, string Colour) : PrintLayer
{
    /// <summary>How its colour changes over the area; null for one colour.</summary>
    public Shading? Shading { get; init; }
}

/// <summary>Strokes of one colour.</summary>
/// <param name="Strokes">Each dash is one.</param>
/// <param name="WidthMm">How wide, mm.</param>
/// <param name="RoundEnds">They end in half circles; else square.</param>
/// <param name="Colour">#rrggbb.</param>
public sealed record StrokeLayer(ImmutableArray<Path> Strokes, double WidthMm, bool RoundEnds, string Colour) : PrintLayer;

/// <summary>A picture, or a pattern of it.</summary>
public sealed record PictureLayer(PictureItem Picture) : PrintLayer;
