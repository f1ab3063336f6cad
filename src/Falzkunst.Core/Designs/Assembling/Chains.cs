using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Outlines drawn as separate strokes: open lines of one look whose ends meet, two at every meeting, become one closed line.
/// Strokes that do not close, or meet in threes, stay as they were.
/// </summary>
internal static class Chains
{
    public static List<ArtLine> Join(IReadOnlyList<ArtLine> lines, Budget budget)
    {
        var result = new List<ArtLine>(lines.Count);
        foreach (var group in lines.GroupBy(l => (l.Look, l.Operation, l.Group, Loose: l.Path.IsClosed || l.Operation != Operation.Cut)))
        {
            if (group.Key.Loose) result.AddRange(group);
            else result.AddRange(CloseAlike([.. group], budget));
        }
        return [.. result.OrderBy(l => l.Order)];
    }

    private static IEnumerable<ArtLine> CloseAlike(List<ArtLine> lines, Budget budget)
    {
        var corners = new Corners();
        var ends = lines.Select(l => (From: corners.At(l.Path.Start), To: corners.At(l.Path.End))).ToList();
        var touching = new List<int>[corners.Count];
        for (var i = 0; i < touching.Length; i++) touching[i] = [];
        for (var i = 0; i < ends.Count; i++)
        {
            budget.Work(20);
            touching[ends[i].From].Add(i);
            touching[ends[i].To].Add(i);
        }
        var used = new bool[lines.Count];
        for (var first = 0; first < lines.Count; first++)
        {
            if (used[first]) continue;
            var (steps, closes) = Walk(first);
            // A course that ends in the open, or where three meet, closes from none of its lines.
            foreach (var (line, _) in steps) used[line] = true;
            if (closes)
            {
                yield return lines[first] with
                {
                    Path = Join(steps.Select(step => step.Back ? lines[step.Line].Path.Reversed() : lines[step.Line].Path)),
                    Look = lines[first].Look with { Closed = true },
                };
            }
            else
            {
                foreach (var (line, _) in steps) yield return lines[line];
            }
        }

        (List<(int Line, bool Back)> Steps, bool Closes) Walk(int first)
        {
            var steps = new List<(int Line, bool Back)> { (first, false) };
            var (home, at) = (ends[first].From, ends[first].To);
            while (at != home)
            {
                budget.Work(4);
                var here = touching[at];
                if (here.Count != 2) return (steps, false);
                var next = here[0] == steps[^1].Line ? here[1] : here[0];
                if (used[next] || next == steps[^1].Line) return (steps, false);
                var back = ends[next].To == at;
                steps.Add((next, back));
                at = back ? ends[next].From : ends[next].To;
            }
            return (steps, touching[home].Count == 2 && steps.Count > 1);
        }
    }

    private static Path Join(IEnumerable<Path> paths)
    {
        Path? first = null;
        var segments = ImmutableArray.CreateBuilder<Segment>();
        foreach (var path in paths)
        {
            first ??= path;
            segments.AddRange(path.Segments);
        }
        segments[^1] = segments[^1] with { End = first!.Start };
        return new Path(first.Start, segments.ToImmutable(), closed: true);
    }

    /// <summary>Numbers for places; places closer than <see cref="Assembler.SnapMm"/> get the same number.</summary>
    private sealed class Corners
    {
        private readonly Dictionary<(long, long), List<(Point Point, int Number)>> _cells = [];

        /// <summary>How many places there are.</summary>
        public int Count { get; private set; }

        public int At(Point p)
        {
            var (cx, cy) = ((long)Math.Floor(p.X / Assembler.SnapMm), (long)Math.Floor(p.Y / Assembler.SnapMm));
            for (var x = cx - 1; x <= cx + 1; x++)
            {
                for (var y = cy - 1; y <= cy + 1; y++)
                {
                    if (!_cells.TryGetValue((x, y), out var here)) continue;
                    foreach (var (point, number) in here)
                    {
                        if (point.DistanceTo(p) <= Assembler.SnapMm) return number;
                    }
                }
            }
            if (!_cells.TryGetValue((cx, cy), out var cell)) _cells[(cx, cy)] = cell = [];
            cell.Add((p, Count));
            return Count++;
        }
    }
}
