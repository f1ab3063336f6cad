using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>An arrangement said in the words of its job.</summary>
internal static class NestAnswer
{
    public static NestResult FromIncumbent(NestTask task, Incumbent best)
    {
        var sheets = ImmutableArray.CreateBuilder<NestedSheet>();
        for (var b = 0; b < task.Boards.Length; b++)
        {
            var on = Enumerable.Range(0, best.Poses.Length).Where(i => best.Poses[i].Board == b).ToList();
            if (on.Count == 0) continue;
            sheets.Add(new NestedSheet(task.Boards[b].Sheet.Id, task.Boards[b].Number, [.. on.Select(i => Placement(task, i, best.Poses[i]))]));
        }
        return new NestResult(Renumbered(task.Job, sheets), [.. Left(task, best.Poses)]);
    }

    private static NestPlacement Placement(NestTask task, int copy, Pose pose)
    {
        var (kind, number, _) = task.Copies[copy];
        var orientation = kind[pose.Orientation];
        if (task.Pins[copy] is not null)
        {
            // What is pinned keeps its place to the last bit.
            var pin = task.Job.Pins.First(p => p.Piece == kind.Piece.Id && p.Copy == number);
            return new(kind.Piece.Id, number, pin.Place, orientation.Degrees, orientation.Mirrored);
        }
        return new(kind.Piece.Id, number, kind.Place(orientation, pose.X, pose.Y), orientation.Degrees, orientation.Mirrored);
    }

    /// <summary>Sheets of a kind are counted from 1 without gaps, except where pins tell their numbers.</summary>
    private static ImmutableArray<NestedSheet> Renumbered(NestJob job, IEnumerable<NestedSheet> sheets)
    {
        var kept = job.Pins.Select(p => (p.Sheet, p.Number)).ToHashSet();
        var next = new Dictionary<string, int>();
        return [.. sheets.Select(s =>
        {
            if (kept.Contains((s.Sheet, s.Number))) return s;
            var number = next.GetValueOrDefault(s.Sheet) + 1;
            while (kept.Contains((s.Sheet, number))) number++;
            next[s.Sheet] = number;
            return s with { Number = number };
        })];
    }

    private static IEnumerable<NotNested> Left(NestTask task, Pose[] poses) => Enumerable.Range(0, poses.Length)
        .Where(i => poses[i].Board < 0)
        .GroupBy(i => task.Copies[i].Kind)
        .Select(g => new NotNested(g.Key.Piece.Id, g.Count(), Reason(task, g.Key)));

    private static Unfit Reason(NestTask task, PieceKind kind)
    {
        var sheets = task.Job.Sheets.Where(s => s.Count > 0).ToList();
        if (sheets.Count == 0) return new Unfit(UnfitCode.NoSheets);
        if (Fit.WhyNot(kind.Piece, task.Job.Sheets) is { } tooLarge) return new Unfit(UnfitCode.TooLarge) { Oversize = tooLarge };
        if (kind.Piece.Together is not null) return new Unfit(UnfitCode.TogetherTooLarge);
        return new Unfit(UnfitCode.SheetsUsedUp) { Sheets = sheets.Sum(s => s.Count) };
    }
}
