using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>A line as it lies on a sheet, with all that decides when it runs.</summary>
/// <param name="Stage">When it runs, by the law of paper.</param>
/// <param name="Operation">Its operation.</param>
/// <param name="Ink">Pen or foil, null for others.</param>
/// <param name="Piece">Id of its piece.</param>
/// <param name="Copy">Which copy of the piece.</param>
/// <param name="Line">Id of the line within the piece.</param>
/// <param name="Path">In the sheet's coordinates, seen from the front.</param>
/// <param name="Work">How it is worked.</param>
public sealed record SheetLine(Stage Stage, Operation Operation, string? Ink, string Piece, int Copy, string Line, Path Path, LineWork Work = default);

/// <summary>What of a line's settings a pass must know: lines that differ in it run in different passes.</summary>
/// <param name="TipMm">Width of the tip; null for the usual one.</param>
/// <param name="HalfCut">Through the top layer only.</param>
/// <param name="FromBack">With the sheet face down.</param>
/// <param name="Dashes">Of a perforation; null for the usual ones.</param>
/// <param name="Settings">Where settings differ from the stock's.</param>
public readonly record struct LineWork(double? TipMm, bool HalfCut, bool FromBack, PerforationDashes? Dashes, ToolSettingsChange? Settings)
{
    public static LineWork FromLine(Line line) => line.Settings is { } m ? new(m.TipMm, m.HalfCut, m.FromBack, m.Dashes, m.Tool) : default;
}

/// <summary>The lines of sheets and pieces that a machine runs.</summary>
public static class SheetLines
{
    /// <summary>All lines of a sheet that a tool runs, in piece order; printed lines, aids and lines left out of this run are not among them.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="design">Its pieces.</param>
    /// <param name="scoreClearance">How far scores stop short of every cut, mm.</param>
    public static List<SheetLine> Collect(SheetLayout sheet, Design design, double scoreClearance)
    {
        var lines = new List<SheetLine>();
        var fitted = new Dictionary<string, IReadOnlyDictionary<string, ImmutableArray<Path>>>(StringComparer.Ordinal);
        foreach (var placement in sheet.Placements)
        {
            if (design.Find(placement.Piece) is not { } piece) continue;
            if (!fitted.TryGetValue(piece.Id, out var scores)) fitted[piece.Id] = scores = ScoreEnds.Fit(piece, scoreClearance);
            lines.AddRange(Collect(piece, placement.Copy, placement.Place, scores));
        }
        return lines;
    }

    /// <summary>The lines of one piece at a place, as drawn but for the scores given.</summary>
    public static IEnumerable<SheetLine> Collect(
        Piece piece, int copy, Affine place, IReadOnlyDictionary<string, ImmutableArray<Path>>? scores = null)
    {
        var fills = AreaFills.Strokes(piece);
        foreach (var lines in piece.Drawn.GroupBy(l => l.Id))
        {
            var line = lines.First();
            if (LawOfPaper.StageOf(line, piece.RoleOf(line) == LineRole.Outline) is not { } stage) continue;
            var work = LineWork.FromLine(line);
            var runs = scores is not null && scores.TryGetValue(line.Id, out var fitted) ? fitted : lines.SelectMany(l => HeldCuts.Runs(l).AsEnumerable());
            foreach (var run in runs.Concat(fills.GetValueOrDefault(line.Id, [])))
                yield return new SheetLine(stage, line.Operation, line.Ink, piece.Id, copy, line.Id, run.Map(place), work);
        }
    }
}
