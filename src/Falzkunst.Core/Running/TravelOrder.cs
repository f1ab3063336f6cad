using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// Short ways between lines: nearest neighbour with a choice of entry (either end of an open line, any corner of a closed
/// one), then Or-opt (Or 1976): runs of up to three lines are moved, either way round, to where they cost least, until nothing gains.
/// </summary>
public static class TravelOrder
{
    /// <summary>Closed lines are entered at one of at most this many corners.</summary>
    private const int MostEntries = 24;

    /// <summary>Or-opt looks this many places to either side; lines near on paper are near in the order by then.</summary>
    private const int Window = 60;

    /// <summary>Rounds of Or-opt at most; it settles in fewer.</summary>
    private const int MostRounds = 6;

    /// <summary>The lines in an order and direction of short travel from <paramref name="start"/>.</summary>
    /// <returns>For each step the index of the line and its path as it runs.</returns>
    public static List<(int Index, Path Path)> Arrange(IReadOnlyList<Path> lines, Point start)
    {
        var order = NearestNeighbour(lines, start);
        Improve(order, start);
        return [.. order.Select(v => (v.Index, v.Path))];
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

    private readonly record struct Visit(int Index, Path Path)
    {
        public Point In => Path.Start;
        public Point Out => ExitOf(Path);
        public Visit Back() => Path.IsClosed ? this : new(Index, Path.Reversed());
    }

    private static List<Visit> NearestNeighbour(IReadOnlyList<Path> lines, Point at)
    {
        var entries = new EntryGrid(lines);
        var order = new List<Visit>(lines.Count);
        while (entries.TakeNearest(at) is { } entry)
        {
            var line = lines[entry.Line];
            var path = line.IsClosed ? line.StartingAt(entry.Segment) : entry.Segment == 0 ? line : line.Reversed();
            order.Add(new Visit(entry.Line, path));
            at = order[^1].Out;
        }
        return order;
    }

    private static void Improve(List<Visit> order, Point start)
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

    private static bool MoveRun(List<Visit> order, Point start, int from, int length)
    {
        var before = from == 0 ? start : order[from - 1].Out;
        var (first, last) = (order[from], order[from + length - 1]);
        Point? after = from + length < order.Count ? order[from + length].In : null;
        var saved = before.DistanceTo(first.In) + To(last.Out, after) - To(before, after);
        if (saved < 1e-9) return false;
        var (best, place, turned) = (saved - 1e-9, -1, false);
        for (var to = Math.Max(0, from - Window); to <= Math.Min(order.Count, from + length + Window); to++)
        {
            if (to >= from && to <= from + length) continue;
            var left = to == 0 ? start : order[to - 1].Out;
            Point? right = to < order.Count ? order[to].In : null;
            var gap = To(left, right);
            var straight = left.DistanceTo(first.In) + To(last.Out, right) - gap;
            if (straight < best) (best, place, turned) = (straight, to, false);
            var reverse = left.DistanceTo(last.Back().In) + To(first.Back().Out, right) - gap;
            if (reverse < best) (best, place, turned) = (reverse, to, true);
        }
        if (place < 0) return false;
        var run = order.GetRange(from, length);
        if (turned) run = [.. run.AsEnumerable().Reverse().Select(v => v.Back())];
        order.RemoveRange(from, length);
        order.InsertRange(place > from ? place - length : place, run);
        return true;
    }

    private static double To(Point a, Point? b) => b is { } p ? a.DistanceTo(p) : 0;

    /// <summary>Entries of lines not yet taken, in square cells, asked for the nearest.</summary>
    private sealed class EntryGrid
    {
        private readonly Dictionary<(int X, int Y), List<Entry>> _cells = [];
        private readonly bool[] _taken;
        private readonly double _cell;
        private readonly Box _bounds = Box.Empty;
        private int _left;

        public readonly record struct Entry(int Line, int Segment, Point At);

        public EntryGrid(IReadOnlyList<Path> lines)
        {
            _taken = new bool[lines.Count];
            _left = lines.Count;
            var entries = lines.SelectMany(EntriesOf).ToList();
            foreach (var e in entries) _bounds = _bounds.Include(e.At);
            _cell = Math.Max(Math.Sqrt(Math.Max(_bounds.Area, 1) / Math.Max(1, entries.Count)) * 1.5, 0.05);
            _cell = Math.Max(_cell, Math.Max(_bounds.Width, _bounds.Height) / 4000);
            foreach (var e in entries)
            {
                if (!_cells.TryGetValue(CellOf(e.At), out var cell)) _cells[CellOf(e.At)] = cell = [];
                cell.Add(e);
            }
        }

        private static IEnumerable<Entry> EntriesOf(Path path, int line)
        {
            yield return new Entry(line, 0, path.Start);
            if (!path.IsClosed)
            {
                yield return new Entry(line, 1, path.End);
                yield break;
            }
            var stride = Math.Max(1, path.Segments.Length / MostEntries);
            for (var i = stride; i < path.Segments.Length; i += stride) yield return new Entry(line, i, path.Segments[i - 1].End);
        }

        private (int X, int Y) CellOf(Point p) => ((int)Math.Floor((p.X - _bounds.MinX) / _cell), (int)Math.Floor((p.Y - _bounds.MinY) / _cell));

        public Entry? TakeNearest(Point from)
        {
            if (_left == 0) return null;
            var clamped = new Point(Math.Clamp(from.X, _bounds.MinX, _bounds.MaxX), Math.Clamp(from.Y, _bounds.MinY, _bounds.MaxY));
            var (cx, cy) = CellOf(clamped);
            Entry? best = null;
            var nearest = double.PositiveInfinity;
            var most = Math.Max(CellOf(new Point(_bounds.MaxX, 0)).X, CellOf(new Point(0, _bounds.MaxY)).Y) + 1;
            for (var ring = 0; ring <= most; ring++)
            {
                // The clamped point is the nearest of the whole box, so what is far from it is at least as far from here.
                if (best is not null && (ring - 1) * _cell > nearest) break;
                foreach (var cell in Ring(cx, cy, ring)) Look(cell);
            }
            _taken[best!.Value.Line] = true;
            _left--;
            return best;

            void Look((int, int) key)
            {
                if (!_cells.TryGetValue(key, out var cell)) return;
                cell.RemoveAll(e => _taken[e.Line]);
                if (cell.Count == 0) _cells.Remove(key);
                foreach (var e in cell)
                {
                    var d = e.At.DistanceTo(from);
                    if (d < nearest) (nearest, best) = (d, e);
                }
            }
        }

        private static IEnumerable<(int, int)> Ring(int cx, int cy, int ring)
        {
            if (ring == 0)
            {
                yield return (cx, cy);
                yield break;
            }
            for (var x = cx - ring; x <= cx + ring; x++)
            {
                yield return (x, cy - ring);
                yield return (x, cy + ring);
            }
            for (var y = cy - ring + 1; y < cy + ring; y++)
            {
                yield return (cx - ring, y);
                yield return (cx + ring, y);
            }
        }
    }
}
