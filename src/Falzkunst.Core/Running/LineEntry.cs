using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>A place at which a line may begin.</summary>
/// <param name="Line">Index of the line.</param>
/// <param name="Segment">Open lines: 0 as drawn, 1 the other way round. Closed lines: the segment that runs first.</param>
/// <param name="At">Where it begins.</param>
/// <param name="Out">Where it ends then.</param>
internal readonly record struct LineEntry(int Line, int Segment, Point At, Point Out)
{
    /// <summary>Closed lines are entered at one of at most about this many corners.</summary>
    private const int MostEntries = 24;

    /// <summary>Either end of an open line; corners of a closed one.</summary>
    public static IEnumerable<LineEntry> Choices(Path path, int line)
    {
        if (!path.IsClosed)
        {
            yield return new LineEntry(line, 0, path.Start, path.End);
            yield return new LineEntry(line, 1, path.End, path.Start);
            yield break;
        }
        yield return new LineEntry(line, 0, path.Start, path.Start);
        var stride = Math.Max(1, path.Segments.Length / MostEntries);
        for (var i = stride; i < path.Segments.Length; i += stride)
            yield return new LineEntry(line, i, path.Segments[i - 1].End, path.Segments[i - 1].End);
    }

    /// <summary>The line as it runs when entered here.</summary>
    public Path Run(Path line) => line.IsClosed ? line.StartingAt(Segment) : Segment == 0 ? line : line.Reversed();
}
