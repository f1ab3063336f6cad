using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// Short ways between lines: nearest neighbour with a choice of entry, then Or-opt (Or 1976), where runs of up to three lines
/// are moved, either way round, to where they cost least, in turn with the best entries for the order so found.
/// </summary>
public static class TravelOrder
{
    /// <summary>Or-opt looks this many places to either side; lines near on paper are near in the order by then.</summary>
    private const int Window = 60;

    /// <summary>Rounds of Or-opt at most; it settles in fewer.</summary>
    private const int MostRounds = 6;

    /// <summary>How often moving lines and choosing entries take turns; later turns gain next to nothing.</summary>
    private const int Turns = 2;

    /// <summary>The lines in an order and direction of short travel from <paramref name="start"/>.</summary>
    /// <returns>For each step the index of the line and its path as it runs.</returns>
    public static List<(int Index, Path Path)> Arrange(IReadOnlyList<Path> lines, Point start)
    {
        var order = NearestNeighbour(lines, start);
        for (var turn = 0; turn < Turns && order.Count > 0; turn++)
        {
            MoveRuns(order, start);
            order = EntryChoice.Best(lines, [.. order.Select(e => e.Line)], start);
        }
        return [.. order.Select(e => (e.Line, e.Run(lines[e.Line])))];
    }

    /// <summary>Length of the ways between the ordered lines, mm, the way from <paramref name="start"/> to the first included.</summary>
    public static double TravelLength(IEnumerable<Path> ordered, Point start)
    {
        double sum = 0;
        foreach (var path in ordered)
        {
            sum += start.DistanceTo(path.Start);
            start = ExitOf(path);
        }
        return sum;
    }

    private static Point ExitOf(Path path) => path.IsClosed ? path.Start : path.End;

    private static List<LineEntry> NearestNeighbour(IReadOnlyList<Path> lines, Point at)
    {
        var entries = new EntryGrid(lines);
        var order = new List<LineEntry>(lines.Count);
        while (entries.TakeNearest(at) is { } entry)
        {
            order.Add(entry);
            at = entry.Out;
        }
        return order;
    }

    private static void MoveRuns(List<LineEntry> order, Point start)
    {
        for (var round = 0; round < MostRounds; round++)
        {
            var gained = false;
            for (var length = 1; length <= 3; length++)
            {
                for (var from = 0; from + length <= order.Count; from++) gained |= MoveRun(order, start, from, length);
            }
            if (!gained) return;
        }
    }

    private static bool MoveRun(List<LineEntry> order, Point start, int from, int length)
    {
        var before = from == 0 ? start : order[from - 1].Out;
        var (first, last) = (order[from], order[from + length - 1]);
        Point? after = from + length < order.Count ? order[from + length].At : null;
        var saved = before.DistanceTo(first.At) + To(last.Out, after) - To(before, after);
        if (saved < 1e-9) return false;
        var (best, place, turned) = (saved - 1e-9, -1, false);
        for (var to = Math.Max(0, from - Window); to <= Math.Min(order.Count, from + length + Window); to++)
        {
            if (to >= from && to <= from + length) continue;
            var left = to == 0 ? start : order[to - 1].Out;
            Point? right = to < order.Count ? order[to].At : null;
            var gap = To(left, right);
            var straight = left.DistanceTo(first.At) + To(last.Out, right) - gap;
            if (straight < best) (best, place, turned) = (straight, to, false);
            var reverse = left.DistanceTo(last.Out) + To(first.At, right) - gap;
            if (reverse < best) (best, place, turned) = (reverse, to, true);
        }
        if (place < 0) return false;
        var run = order.GetRange(from, length);
        if (turned) run = [.. run.AsEnumerable().Reverse().Select(Back)];
        order.RemoveRange(from, length);
        order.InsertRange(place > from ? place - length : place, run);
        return true;
    }

    /// <summary>The same line run backwards; closed lines begin and end in one place either way.</summary>
    private static LineEntry Back(LineEntry entry) =>
        entry.At == entry.Out ? entry : entry with { Segment = 1 - entry.Segment, At = entry.Out, Out = entry.At };

    private static double To(Point a, Point? b) => b is { } p ? a.DistanceTo(p) : 0;
}
