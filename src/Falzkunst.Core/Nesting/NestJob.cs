using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>Pieces of one stock to be put on its sheets.</summary>
/// <param name="Sheets">The sheets at hand, first choice first.</param>
/// <param name="Pieces">What to place.</param>
/// <param name="SpacingMm">Least distance between two copies, mm; borders are only not entered.</param>
public sealed record NestJob(ImmutableArray<NestSheet> Sheets, ImmutableArray<NestPiece> Pieces, double SpacingMm);

/// <summary>A size of sheet and how many there are, mm.</summary>
public sealed record NestSheet(string Id, double Width, double Height, Borders Borders, int Count)
{
    public double UsableWidth => Width - Borders.Left - Borders.Right;
    public double UsableHeight => Height - Borders.Top - Borders.Bottom;
}

/// <summary>A piece by its outline in its own coordinates, and how many of it are wanted.</summary>
public sealed record NestPiece(string Id, Path Outline, int Quantity);

/// <summary>The answer to a job: sheets used in order, and what found no place.</summary>
public sealed record NestResult(ImmutableArray<NestedSheet> Sheets, ImmutableArray<NotNested> Left);

/// <summary>One sheet used; <see cref="Sheet"/> is the id of its size.</summary>
public sealed record NestedSheet(string Sheet, ImmutableArray<NestPlacement> Placements);

/// <summary>One copy; <see cref="Place"/> maps the piece's coordinates to the sheet's.</summary>
public sealed record NestPlacement(string Id, int Copy, Affine Place);

/// <summary>Copies left over and why, in a sentence with numbers.</summary>
public sealed record NotNested(string Id, int Copies, string Reason);

/// <summary>A way of putting pieces on sheets.</summary>
public interface INester
{
    NestResult Nest(NestJob job);
}
