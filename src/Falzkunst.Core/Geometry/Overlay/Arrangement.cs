using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>A closed line of one of the areas.</summary>
/// <param name="Path">As it came.</param>
/// <param name="Area">Number of its area.</param>
/// <param name="IsOpening">Paper lies outside it.</param>
/// <param name="First">Number of its first curve.</param>
/// <param name="Count">How many curves it has, its way back included.</param>
internal sealed record OverlayRing(Path Path, int Area, bool IsOpening, int First, int Count);

/// <summary>A stretch of a curve between two nodes.</summary>
/// <param name="Curve">Number of the curve.</param>
/// <param name="From">Parameter at its beginning.</param>
/// <param name="To">Parameter at its end.</param>
/// <param name="Begin">Node at its beginning.</param>
/// <param name="End">Node at its end.</param>
internal readonly record struct Stretch(int Curve, double From, double To, int Begin, int End);

/// <summary>
/// Closed lines split where they meet: nodes, and stretches between them that meet nowhere else. Stretches of several lines that lie on
/// each other are one, with all those lines on record.
/// </summary>
internal sealed class Arrangement
{
    /// <summary>Points nearer than this are one node, mm.</summary>
    private const double NodeReach = 2 * CurveCrossings.Snap;

    /// <summary>Steps of comparing two curves whose boxes meet.</summary>
    private const int WorkOfPair = 60;

    private readonly List<Point> _nodes = [];
    private readonly Dictionary<(long, long), List<int>> _cells = [];

    public List<OverlayRing> Rings { get; } = [];
    public List<Curve> Curves { get; } = [];

    /// <summary>Number of the ring of each curve.</summary>
    public List<int> RingOf { get; } = [];

    /// <summary>Parts of all curves that run one way in x and y: curve, from, to.</summary>
    public List<(int Curve, double From, double To)> Parts { get; } = [];

    /// <summary>Stretches that lie on each other, the first of them that of the first area.</summary>
    public List<List<Stretch>> Edges { get; } = [];

    public IReadOnlyList<Point> Nodes => _nodes;

    /// <exception cref="BudgetSpent">There are more pairs of curves than can be looked at.</exception>
    public Arrangement(IReadOnlyList<AreaRings> areas, Budget budget)
    {
        for (var a = 0; a < areas.Count; a++)
        {
            foreach (var path in areas[a].Outlines) AddRing(path, a, isOpening: false);
            foreach (var path in areas[a].Openings) AddRing(path, a, isOpening: true);
        }
        var splits = Split(budget);
        AddStretches(splits);
    }

    private void AddRing(Path path, int area, bool isOpening)
    {
        var whole = PathNodes.WrittenOut(path);
        var first = Curves.Count;
        var at = whole.Start;
        foreach (var segment in whole.Segments)
        {
            if (HasLength(at, segment))
            {
                Curves.Add(new Curve(at, segment));
                RingOf.Add(Rings.Count);
            }
            at = segment.End;
        }
        if (Curves.Count > first) Rings.Add(new OverlayRing(path, area, isOpening, first, Curves.Count - first));
    }

    private static bool HasLength(Point at, Segment s) => s.End != at || (s.IsCubic && (s.Handle1 != at || s.Handle2 != at));

    /// <summary>Where each curve is to be split, its ends included.</summary>
    private List<double>[] Split(Budget budget)
    {
        var splits = new List<double>[Curves.Count];
        var boxes = new List<Box>();
        for (var c = 0; c < Curves.Count; c++)
        {
            splits[c] = [0, 1];
            var cuts = Curves[c].MonotoneCuts();
            for (var i = 1; i < cuts.Count; i++)
            {
                Parts.Add((c, cuts[i - 1], cuts[i]));
                boxes.Add(Box.Empty.Include(Curves[c].At(cuts[i - 1])).Include(Curves[c].At(cuts[i])));
            }
        }
        var tree = new BoxTree(boxes);
        var found = new List<(double T, double U)>();
        var crossings = new CurveCrossings(found);
        for (var i = 0; i < Parts.Count; i++)
        {
            foreach (var k in tree.Meeting(boxes[i].Grow(CurveCrossings.Snap)))
            {
                if (k <= i || (Parts[k].Curve == Parts[i].Curve && Parts[k].From == Parts[i].To)) continue;
                budget.Work(WorkOfPair);
                var ((c, a0, a1), (d, b0, b1)) = (Parts[i], Parts[k]);
                if (MeetOnlyAtTheirJoint(c, d)) continue;
                found.Clear();
                crossings.Find(Curves[c], a0, a1, Curves[d], b0, b1);
                foreach (var (t, u) in found)
                {
                    splits[c].Add(t);
                    splits[d].Add(u);
                }
            }
        }
        return splits;
    }

    /// <summary>Two straight neighbours on one line that do not fold back on each other meet where they join and nowhere else.</summary>
    private bool MeetOnlyAtTheirJoint(int c, int d)
    {
        if (c == d) return false;
        var (one, other) = (Curves[c], Curves[d]);
        if (one.Segment.IsCubic || other.Segment.IsCubic) return false;
        var (a, b) = one.End == other.Start ? (one.End - one.Start, other.End - other.Start) : other.End == one.Start ? (other.End - other.Start, one.End - one.Start) : default;
        return (a.Cross(b) != 0 || a.Dot(b) > 0) && a != default && b != default && one.Start != other.End | one.End != other.Start;
    }

    private void AddStretches(List<double>[] splits)
    {
        var byEnds = new Dictionary<(int, int), List<int>>();
        for (var c = 0; c < Curves.Count; c++)
        {
            var curve = Curves[c];
            splits[c].Sort();
            var (t, node) = (0.0, NodeAt(curve.Start));
            for (var i = 1; i < splits[c].Count; i++)
            {
                var next = splits[c][i];
                if (next <= t) continue;
                var to = NodeAt(curve.At(next));
                // A stretch that comes back to where it began goes round something, or is none.
                if (to == node && IsShort(curve, t, next))
                {
                    if (next >= 1) Lengthen(c, node);
                    continue;
                }
                if (i < splits[c].Count - 1 && next > 1 - 1e-12) continue;
                AddStretch(new Stretch(c, t, next, node, to), byEnds);
                (t, node) = (next, to);
            }
        }
    }

    /// <summary>The last stretch of a curve ends where the curve does.</summary>
    private void Lengthen(int curve, int node)
    {
        for (var e = Edges.Count - 1; e >= 0; e--)
        {
            var at = Edges[e].FindIndex(s => s.Curve == curve);
            if (at < 0) continue;
            if (Edges[e][at].End == node) Edges[e][at] = Edges[e][at] with { To = 1 };
            return;
        }
    }

    private static bool IsShort(Curve curve, double from, double to) =>
        curve.At(from).DistanceTo(curve.At((from + to) / 2)) < 8 * CurveCrossings.Snap && curve.At(from).DistanceTo(curve.At(from + (to - from) * 0.3)) < 8 * CurveCrossings.Snap;

    private void AddStretch(Stretch stretch, Dictionary<(int, int), List<int>> byEnds)
    {
        var key = (Math.Min(stretch.Begin, stretch.End), Math.Max(stretch.Begin, stretch.End));
        if (!byEnds.TryGetValue(key, out var same)) byEnds[key] = same = [];
        foreach (var e in same)
        {
            if (!LieOnEachOther(Edges[e][0], stretch)) continue;
            Edges[e].Add(stretch);
            return;
        }
        same.Add(Edges.Count);
        Edges.Add([stretch]);
    }

    private bool LieOnEachOther(Stretch a, Stretch b)
    {
        var (one, other) = (Curves[a.Curve], Curves[b.Curve]);
        foreach (var share in (ReadOnlySpan<double>)[0.5, 0.21])
        {
            if (other.Nearest(one.At(a.From + (a.To - a.From) * share), b.From, b.To).Distance > 2 * NodeReach) return false;
        }
        return true;
    }

    private int NodeAt(Point p)
    {
        var (x, y) = ((long)Math.Floor(p.X / NodeReach), (long)Math.Floor(p.Y / NodeReach));
        for (var dx = -1; dx <= 1; dx++)
        {
            for (var dy = -1; dy <= 1; dy++)
            {
                if (!_cells.TryGetValue((x + dx, y + dy), out var near)) continue;
                foreach (var n in near)
                {
                    if (_nodes[n].DistanceTo(p) < NodeReach) return n;
                }
            }
        }
        _nodes.Add(p);
        if (!_cells.TryGetValue((x, y), out var cell)) _cells[(x, y)] = cell = [];
        cell.Add(_nodes.Count - 1);
        return _nodes.Count - 1;
    }
}
