using System.Collections.Immutable;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// An area that lines and areas are clipped to. Curves are split where they cross its edge and kept as they are otherwise;
/// where the parts do not close (edges that touch or run along each other) the clip is worked on flattened shapes instead.
/// </summary>
public sealed class ClipArea
{
    /// <summary>Nearer to an edge than this is on it, mm: a shape may share its edge with what it is clipped to.</summary>
    private const double OnEdgeMm = 0.002;

    /// <summary>Ends of parts that meet at a crossing lie no farther apart than this, mm.</summary>
    private const double MeetMm = 0.05;

    /// <summary>A part that encloses less than this is a sliver of rounding, mm².</summary>
    private const double LeastArea = 1e-4;

    private readonly ImmutableArray<Path> _rings;
    private readonly bool _isEvenOdd;
    private readonly RegionIndex _index;
    private readonly Budget _budget;

    /// <param name="rings">Closed lines, mm; open ones count as closed. None hold nothing.</param>
    /// <param name="isEvenOdd">How they are read; otherwise all that is gone round is inside.</param>
    /// <param name="budget">What the work is drawn from.</param>
    public ClipArea(IEnumerable<Path> rings, bool isEvenOdd, Budget budget)
    {
        _rings = [.. rings.Select(r => r.IsClosed ? r : new Path(r.Start, r.Segments, closed: true))];
        (_isEvenOdd, _budget) = (isEvenOdd, budget);
        _index = new RegionIndex([.. _rings.Select(r => r.Flat.ToArray())]);
        budget.Work(_rings.Sum(r => (long)r.Flat.Length));
    }

    public Box Bounds => _rings.IsEmpty ? Box.Empty : _index.Bounds;

    private bool Holds(Point p)
    {
        _budget.Work(1 + _index.EdgesAt(p.Y) / 2);
        return _isEvenOdd ? _index.Contains(p) : _index.Winding(p) != 0;
    }

    private bool IsOnEdge(Point p)
    {
        _budget.Work(1 + _index.EdgesAt(p.Y));
        return _index.IsNearEdge(p, OnEdgeMm);
    }

    /// <summary>The parts of a line that lie in the area.</summary>
    public IEnumerable<Path> Line(Path line)
    {
        if (_rings.IsEmpty || !Bounds.Overlaps(line.Bounds)) return [];
        return PathClip.Parts(line, p => Holds(p) || IsOnEdge(p), Holds).Where(p => p.Inside).Select(p => p.Part);
    }

    /// <summary>What an area and this one share, as closed lines; the area's own where it lies in this one altogether.</summary>
    /// <param name="rings">The area's lines; open ones count as closed.</param>
    /// <param name="isEvenOdd">How they are read.</param>
    public IReadOnlyList<Path> Area(IReadOnlyList<Path> rings, bool isEvenOdd)
    {
        var box = rings.Aggregate(Box.Empty, (all, r) => all.Include(r.Bounds));
        if (_rings.IsEmpty || rings.Count == 0 || !Bounds.Overlaps(box)) return [];
        var subject = new ClipArea(rings, isEvenOdd, _budget);
        var mine = subject._rings.Select(r => PathClip.Parts(r, p => Holds(p) || IsOnEdge(p), Holds)).ToList();
        // Along a shared edge the area's own line is the one that stays.
        var edge = _rings.SelectMany(r => PathClip.Parts(r, p => subject.Holds(p) && !subject.IsOnEdge(p), subject.Holds)).Where(p => p.Inside).Select(p => p.Part).ToList();
        if (edge.Count == 0 && mine.TrueForAll(parts => parts.TrueForAll(p => p.Inside))) return rings;
        var inside = mine.SelectMany(parts => parts).Where(p => p.Inside).Select(p => p.Part).Concat(edge).ToList();
        return Stitched(inside) ?? Flattened(subject);
    }

    /// <summary>Open parts joined end to end into closed lines; null where some end meets no other.</summary>
    private List<Path>? Stitched(List<Path> parts)
    {
        var closed = parts.Where(p => p.IsClosed).ToList();
        var open = parts.Where(p => !p.IsClosed).ToList();
        var ends = new EndGrid(open, MeetMm);
        var used = new bool[open.Count];
        for (var first = 0; first < open.Count; first++)
        {
            if (used[first]) continue;
            used[first] = true;
            var segments = open[first].Segments.ToBuilder();
            var (start, at) = (open[first].Start, open[first].End);
            while (true)
            {
                _budget.Work(8);
                var next = ends.Nearest(at, used);
                if (next is not { } meets || at.DistanceTo(start) < meets.Distance)
                {
                    if (at.DistanceTo(start) > MeetMm) return null;
                    break;
                }
                used[meets.Part] = true;
                var part = meets.IsEnd ? open[meets.Part].Reversed() : open[meets.Part];
                segments[^1] = segments[^1] with { End = part.Start };
                segments.AddRange(part.Segments);
                at = part.End;
            }
            segments[^1] = segments[^1] with { End = start };
            var ring = new Path(start, segments.ToImmutable(), closed: true);
            if (Math.Abs(ring.SignedArea) > LeastArea) closed.Add(ring);
        }
        return closed;
    }

    private List<Path> Flattened(ClipArea other) => Outlines(Flat(this).And(Flat(other)));

    /// <summary>The lines about all of some areas together, read even-odd; flattened.</summary>
    public static IReadOnlyList<Path> Union(IEnumerable<(List<Path> Rings, bool IsEvenOdd)> areas, Budget budget) =>
        Outlines(Region.UnionOf(areas.Select(a => Flat(new ClipArea(a.Rings, a.IsEvenOdd, budget)))));

    private static List<Path> Outlines(Region region) =>
        [.. region.Rings.Where(r => Math.Abs(Polygons.SignedArea(r)) > LeastArea).Select(r => Path.Polyline(r, closed: true))];

    private static Region Flat(ClipArea area)
    {
        area._budget.Work(area._rings.Sum(r => 100L * r.Flat.Length));
        if (area._isEvenOdd) return Region.EvenOdd(area._rings);
        return Region.UnionOf(area._rings.Select(r => Region.FromRings(r.Flat.ToArray(), [])));
    }

    /// <summary>The starts and ends of lines by place.</summary>
    private sealed class EndGrid
    {
        private readonly Dictionary<(long, long), List<(Point At, int Part, bool IsEnd)>> _cells = [];
        private readonly double _reach;

        public EndGrid(List<Path> parts, double reach)
        {
            _reach = reach;
            for (var i = 0; i < parts.Count; i++)
            {
                Add(parts[i].Start, i, false);
                Add(parts[i].End, i, true);
            }
        }

        private void Add(Point at, int part, bool isEnd)
        {
            var cell = Cell(at);
            if (!_cells.TryGetValue(cell, out var here)) _cells[cell] = here = [];
            here.Add((at, part, isEnd));
        }

        private (long, long) Cell(Point p) => ((long)Math.Floor(p.X / _reach), (long)Math.Floor(p.Y / _reach));

        public (int Part, bool IsEnd, double Distance)? Nearest(Point at, bool[] used)
        {
            (int, bool, double)? best = null;
            var nearest = _reach;
            var (cx, cy) = Cell(at);
            for (var x = cx - 1; x <= cx + 1; x++)
            {
                for (var y = cy - 1; y <= cy + 1; y++)
                {
                    foreach (var (end, part, isEnd) in _cells.GetValueOrDefault((x, y)) ?? [])
                    {
                        if (used[part] || end.DistanceTo(at) > nearest) continue;
                        nearest = end.DistanceTo(at);
                        best = (part, isEnd, nearest);
                    }
                }
            }
            return best;
        }
    }
}
