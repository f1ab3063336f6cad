using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Gives every line that is no outline and no opening to the piece that holds most of its length. Where several hold the
/// same share, the piece of the line's own layer wins, then the topmost painted before the line, then the topmost.
/// </summary>
internal static class LinesOnPieces
{
    /// <summary>Length that one sample stands for, mm.</summary>
    internal const double SampleMm = 1;

    /// <summary>Samples on one line at most.</summary>
    internal const int MostSamples = 400;

    /// <summary>Shares closer than this are the same share.</summary>
    private const double SameShare = 0.02;

    /// <summary>Fold lines of bought files often stop this short of the edge, mm.</summary>
    private const double FoldEndMm = 3.5;

    /// <summary>A line whose middle strays less than this from its chord is straight, mm.</summary>
    private const double StraightMm = 0.1;

    /// <summary>Attaches what it can and returns the rest.</summary>
    public static List<ArtLine> Attach(IReadOnlyList<PieceDraft> drafts, IReadOnlyList<ArtLine> lines, Budget budget)
    {
        var tree = new BoxTree([.. drafts.Select(d => d.Outline.Line.Path.Bounds.Grow(Assembler.SnapMm))]);
        var strokesOfRings = drafts
            .SelectMany(d => d.Openings.Append(d.Outline))
            .Select(r => r.Line.Look.Stroke ?? r.Line.Look.Fill)
            .ToHashSet();
        var loose = new List<ArtLine>();
        foreach (var line in lines)
        {
            if (PieceUnder(line, drafts, tree, budget) is { } draft) draft.Lines.Add(ByGeometry(line, draft, strokesOfRings));
            else loose.Add(line);
        }
        return loose;
    }

    private static PieceDraft? PieceUnder(ArtLine line, IReadOnlyList<PieceDraft> drafts, BoxTree tree, Budget budget)
    {
        var samples = Sampling.Midpoints(line.Path, SampleMm, MostSamples);
        budget.Work(20 + line.Path.Flat.Length + samples.Count);
        var shares = tree.Meeting(line.Path.Bounds)
            .Select(i => drafts[i])
            .Select(d => (Draft: d, Share: (double)samples.Count(p => d.Locate(p, budget) == Whereabouts.OnPaper) / samples.Count))
            .Where(s => s.Share > SameShare)
            .ToList();
        if (shares.Count == 0) return null;
        var most = shares.Max(s => s.Share);
        return shares
            .Where(s => s.Share >= most - SameShare)
            .OrderByDescending(s => s.Draft.Outline.Line.Group.Layer == line.Group.Layer)
            .ThenByDescending(s => s.Draft.Outline.Line.Order < line.Order)
            .ThenByDescending(s => s.Draft.Outline.Line.Order)
            .First().Draft;
    }

    /// <summary>
    /// A line that nobody spoke of and that would be cut by default: from edge to edge it would cut the piece in two, so it
    /// is a fold; in a colour that no outline has it is pen work; else it is a slit.
    /// </summary>
    private static ArtLine ByGeometry(ArtLine line, PieceDraft draft, HashSet<string?> strokesOfRings)
    {
        if (line.IsGiven || line.Path.IsClosed || line.Operation != Operation.Cut) return line;
        var reach = IsStraight(line.Path) ? FoldEndMm : MeetsEdgeMm;
        if (draft.IsNearEdge(line.Path.Start, reach) && draft.IsNearEdge(line.Path.End, reach) && line.Path.Length > 2 * reach)
            return line with { Operation = Operation.Score };
        return strokesOfRings.Contains(line.Look.Stroke) ? line : line with { Operation = Operation.Draw };
    }

    private const double MeetsEdgeMm = 0.5;

    private static bool IsStraight(Path path)
    {
        foreach (var p in path.Flat)
        {
            if (Polygons.DistanceToStretch(p, path.Start, path.End) > StraightMm) return false;
        }
        return true;
    }
}
