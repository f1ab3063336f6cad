using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Folds drawn as thin areas: many programs turn a stroke into the outline of a rectangle a fraction of a millimetre wide. Each is one
/// line along its middle, whether the file says that it is a score or its place on a piece does.
/// </summary>
internal static class ThinFolds
{
    /// <summary>Steps of looking for the middle of what may be a thin loop.</summary>
    private const int WorkOfThin = 20_000;

    /// <summary>A closed line that is to be scored or perforated, as the line along its middle where it is a thin loop.</summary>
    public static ArtLine AlongMiddle(ArtLine line, Budget budget)
    {
        if (line is not { Path.IsClosed: true, Operation: Operation.Score or Operation.Perforate } || !ThinLoop.MayBeThin(line.Path)) return line;
        budget.Work(WorkOfThin);
        return ThinLoop.Middle(line.Path) is { } middle ? Opened(line, middle) : line;
    }

    /// <summary>
    /// Takes out of the pieces what is a fold: thin openings, and thin pieces without openings that lie on another one, which run from
    /// edge to edge there and of which neither file nor rule says that they are cut.
    /// </summary>
    /// <returns>The folds, to be given to the pieces they lie on.</returns>
    public static List<ArtLine> TakeOut(List<PieceDraft> drafts, Budget budget)
    {
        var folds = new List<ArtLine>();
        foreach (var draft in drafts)
        {
            foreach (var opening in draft.Openings.ToList())
            {
                if (FoldOn(draft, opening.Line, budget) is not { } fold) continue;
                draft.Remove(opening);
                folds.Add(fold);
            }
        }
        var tree = new BoxTree([.. drafts.Select(d => d.Outline.Line.Path.Bounds)]);
        var gone = new HashSet<PieceDraft>();
        foreach (var draft in drafts.Where(d => d.Openings.Count == 0))
        {
            if (Middle(draft.Outline.Line, budget) is not { } middle) continue;
            foreach (var host in tree.Meeting(middle.Bounds).Select(i => drafts[i]).Where(d => d != draft && !gone.Contains(d)))
            {
                if (host.Outline.Area <= draft.Outline.Area || !LiesOn(host, middle, budget) || !FoldsByPlace.IsFold(middle, host.IsNearEdge)) continue;
                folds.Add(Opened(draft.Outline.Line, middle));
                gone.Add(draft);
                break;
            }
        }
        drafts.RemoveAll(gone.Contains);
        return folds;
    }

    private static ArtLine? FoldOn(PieceDraft draft, ArtLine line, Budget budget) =>
        Middle(line, budget) is { } middle && FoldsByPlace.IsFold(middle, (p, reach) => draft.Outline.Region.IsNearEdge(p, reach)) ? Opened(line, middle) : null;

    private static Path? Middle(ArtLine line, Budget budget)
    {
        if (line.IsGiven) return null;
        budget.Work(20 + line.Path.Flat.Length);
        if (!ThinLoop.MayBeThin(line.Path)) return null;
        budget.Work(WorkOfThin);
        return ThinLoop.Middle(line.Path);
    }

    private static bool LiesOn(PieceDraft draft, Path middle, Budget budget) =>
        Sampling.Midpoints(middle, LinesOnPieces.SampleMm, 16).TrueForAll(p => draft.Locate(p, budget) == Whereabouts.OnPaper);

    private static ArtLine Opened(ArtLine line, Path middle) => line with
    {
        Path = middle,
        Look = line.Look with { Closed = false },
        Operation = line.Operation == Operation.Cut ? Operation.Score : line.Operation,
    };
}
