using System.Globalization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>What is worth pointing out about a line and the piece it was given to.</summary>
internal static class LineFindings
{
    /// <summary>A line may leave the paper by this much before anyone cares, mm.</summary>
    private const double CareMm = 0.3;

    /// <summary>How far a line runs over the edge is told to a tenth; it is measured in stretches of this, mm.</summary>
    private const double FineMm = 0.02;

    private const int MostFineSamples = 10_000;

    public static Finding OnNoPiece(ArtLine line) => new(
        "on-no-piece", Severity.Major,
        string.Create(CultureInfo.InvariantCulture,
            $"A {line.Operation.Word()} line of {line.Path.Length:0.0} mm lies on no piece ({line.Place})."),
        null, null, line.Path.Bounds.Centre);

    public static Finding? Of(PieceDraft draft, ArtLine line, string piece, string id, string name)
    {
        if (line.Operation == Operation.Aid) return null;
        if (OpenOutline(line, piece, id, name) is { } open) return open;
        var coarse = Sampling.Midpoints(line.Path, LinesOnPieces.SampleMm, LinesOnPieces.MostSamples);
        if (coarse.Append(line.Path.Start).Append(line.Path.End).All(p => draft.Locate(p) != Whereabouts.Outside)) return null;
        var samples = Sampling.Midpoints(line.Path, FineMm, MostFineSamples);
        var outside = samples.Where(p => draft.Locate(p) == Whereabouts.Outside).ToList();
        var length = line.Path.Length;
        var over = length * outside.Count / samples.Count;
        if (over <= CareMm) return null;
        return new Finding("past-edge", Severity.Minor,
            string.Create(CultureInfo.InvariantCulture,
                $"A {line.Operation.Word()} line on {name} runs {over:0.0} mm of its {length:0.0} mm past the edge."),
            piece, id, outside[0]);
    }

    private static Finding? OpenOutline(ArtLine line, string piece, string id, string name)
    {
        if (line.Path.IsClosed || line.Operation != Operation.Cut || line.Path.Segments.Length < 3) return null;
        var gap = line.Path.Start.DistanceTo(line.Path.End);
        if (gap > Assembler.MendableGapMm) return null;
        return new Finding("open-outline", Severity.Major,
            string.Create(CultureInfo.InvariantCulture, $"A cut on {name} is open by {gap:0.00} mm and will not come out."),
            piece, id, line.Path.End);
    }
}
