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
        if (FoldsByPlace.IsFold(line.Path, draft.IsNearEdge)) return line with { Operation = Operation.Score };
        return strokesOfRings.Contains(line.Look.Stroke) ? line : line with { Operation = Operation.Draw };
    }
}
