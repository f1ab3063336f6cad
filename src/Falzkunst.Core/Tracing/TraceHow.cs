using System.Collections.Immutable;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tracing;

/// <summary>What is traced of a picture.</summary>
public enum TraceMode
{
    /// <summary>The outer edges alone.</summary>
    Rim,

    /// <summary>Everything inked, with the holes in it.</summary>
    Areas,

    /// <summary>The middle of strokes.</summary>
    MiddleLines,

    /// <summary>Every patch of one colour.</summary>
    Colours,
}

/// <summary>How a picture is traced; lengths in its dots.</summary>
/// <param name="Mode">What is traced.</param>
public sealed record TraceHow(TraceMode Mode)
{
    /// <summary>Curves keep so near to what is seen where nothing else is said, dots.</summary>
    public const double UsualTolerance = 0.3;

    /// <summary>From how much ink, 0 to 1, a dot counts as inked; null finds it.</summary>
    public double? Threshold { get; init; }

    /// <summary>What has less area, in dots, is left out.</summary>
    public double LeastArea { get; init; } = 6;

    /// <summary>How near curves keep to what is seen, dots.</summary>
    public double Tolerance { get; init; } = UsualTolerance;

    /// <summary>Corners that are rounded within so many dots are sharp; a picture's dots round them within one, so that it is 1 or more.</summary>
    public double Corner { get; init; } = 1;

    /// <summary>At most so many colours.</summary>
    public int Colours { get; init; } = 8;

    public const int MostColours = 32;
}

/// <summary>An area that was traced.</summary>
/// <param name="Outline">Closed, its area above 0.</param>
/// <param name="Openings">Closed, in it.</param>
/// <param name="Colour">#rrggbb.</param>
public sealed record TracedArea(Path Outline, ImmutableArray<Path> Openings, string Colour);

/// <summary>The middle of a stroke.</summary>
/// <param name="Path">Where it runs.</param>
/// <param name="Width">How wide the stroke is, dots.</param>
public sealed record TracedLine(Path Path, double Width);

/// <summary>What was traced, in dots of the picture.</summary>
/// <param name="Areas">Areas, lower ones first.</param>
/// <param name="Lines">Middle lines.</param>
/// <param name="Threshold">From how much ink a dot counted as inked, 0 to 1.</param>
/// <param name="Specks">How many were too small.</param>
public sealed record Traced(
    ImmutableArray<TracedArea> Areas, ImmutableArray<TracedLine> Lines, double Threshold, int Specks)
{
    /// <summary>All its paths.</summary>
    public IEnumerable<Path> Paths => Areas.SelectMany(a => a.Openings.Prepend(a.Outline)).Concat(Lines.Select(l => l.Path));

    /// <summary>How many segments they have.</summary>
    public int Segments => Paths.Sum(p => p.Segments.Length);
}
