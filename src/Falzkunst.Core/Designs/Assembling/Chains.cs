using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Outlines drawn as separate strokes: open lines of one look whose ends meet, two at every meeting, become one closed line.
/// Strokes that do not close, or meet in threes, stay as they were.
/// </summary>
internal static class Chains
{
    public static List<ArtLine> Close(IReadOnlyList<ArtLine> lines)
    {
        var result = new List<ArtLine>(lines.Count);
        foreach (var group in lines.GroupBy(l => (l.Look, l.Operation, l.Group, Loose: l.Path.IsClosed || l.Operation != Operation.Cut)))
        {
            if (group.Key.Loose) result.AddRange(group);
            else result.AddRange(CloseAlike([.. group]));
        }
        return [.. result.OrderBy(l => l.Order)];
    }

    private static IEnumerable<ArtLine> CloseAlike(List<ArtLine> lines)
    {
        var corners = new Corners();
        var ends = lines.Select(l => (From: corners.At(l.Path.Start), To: corners.At(l.Path.End))).ToList();
        var touching = ends
            .SelectMany((e, i) => new[] { (Corner: e.From, Line: i), (Corner: e.To, Line: i) })
            .ToLookup(t => t.Corner, t => t.Line);
        var used = new bool[lines.Count];
        for (var first = 0; first < lines.Count; first++)
        {
            if (used[first]) continue;
            if (Walk(first) is { } ring)
            {
                foreach (var (line, _) in ring) used[line] = true;
                yield return lines[first] with
                {
                    Path = Join(ring.Select(step => step.Back ? lines[step.Line].Path.Reversed() : lines[step.Line].Path)),
                    Look = lines[first].Look with { Closed = true },
                };
            }
            else
            {
                used[first] = true;
                yield return lines[first];
            }
        }

        List<(int Line, bool Back)>? Walk(int first)
        {
            var steps = new List<(int Line, bool Back)> { (first, false) };
            var (home, at) = (ends[first].From, ends[first].To);
            if (home == at) return null;
            while (at != home)
            {
                var here = touching[at].ToList();
                if (here.Count != 2) return null;
                var next = here[0] == steps[^1].Line ? here[1] : here[0];
                if (used[next] || next == steps[^1].Line) return null;
                var back = ends[next].To == at;
                steps.Add((next, back));
                at = back ? ends[next].From : ends[next].To;
                if (steps.Count > lines.Count) return null;
            }
            return touching[home].Count() == 2 && steps.Count > 1 ? steps : null;
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
        private int _count;

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
            cell.Add((p, _count));
            return _count++;
        }
    }
}
