using Falzkunst.Core.Budgets;
using NetTopologySuite.Geometries;
using NetTopologySuite.Noding;
using NetTopologySuite.Noding.Snapround;
using NetTopologySuite.Operation.Polygonize;
using Flat = NetTopologySuite.Geometries.Geometry;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// The area inside an odd number of rings, n log n however many there are. Stages: corners on a grid; rings gathered whose edges
/// meet (<see cref="Meeting"/>); of those alone all edges noded at once, what is there twice left out, and the faces kept that lie
/// inside an odd number (<see cref="RingsOf"/>); all that is left nested (<see cref="RingNesting"/>), every second level an opening.
/// Most lines of art meet no other.
/// </summary>
internal static class EvenOddAreas
{
    /// <summary>Corners are rounded to a hundred thousandth of a millimetre, on which overlays never fail.</summary>
    private static readonly PrecisionModel Grid = new(1e5);

    /// <summary>A ring that is no wider than the grid on the mean is what rounding left between two edges, mm.</summary>
    private const double SliverMm = 1e-5;

    /// <summary>And one smaller than this is what it left in a corner, mm²: a thousandth of a millimetre each way.</summary>
    private const double SpeckMm2 = 1e-6;

    /// <summary>Steps of a budget (some 28 ns each where this was measured) that a corner takes of a ring that meets no other.</summary>
    private const long StepsOfACorner = 40;

    /// <summary>And where rings meet, noding and faces together: 28 µs with 5,000 circles in chains.</summary>
    private const long StepsOfAMeetingCorner = 1000;

    /// <exception cref="BudgetSpent">The rings cross more often than can be mended, or the budget is used up.</exception>
    public static MultiPolygon Of(IEnumerable<Path> rings, Budget budget)
    {
        var flat = new List<Point[]>();
        foreach (var ring in rings)
        {
            budget.Work(ring.Flat.Length);
            if (Rounded(ring.Flat) is { Length: > 2 } corners) flat.Add(corners);
        }
        var groups = Meeting(flat, budget).ToList();
        var found = new IReadOnlyList<Point[]>[groups.Count];
        budget.Look();
        for (var i = 0; i < groups.Count; i++) found[i] = RingsOf(groups[i], budget);
        return Nested([.. found.SelectMany(r => r)]);
    }

    private static Point[] Rounded(ReadOnlySpan<Point> ring)
    {
        var corners = new List<Point>(ring.Length);
        foreach (var p in ring)
        {
            var corner = new Point(Grid.MakePrecise(p.X), Grid.MakePrecise(p.Y));
            if (corners.Count == 0 || corners[^1] != corner) corners.Add(corner);
        }
        if (corners.Count > 1 && corners[^1] == corners[0]) corners.RemoveAt(corners.Count - 1);
        return [.. corners];
    }

    /// <summary>Rings in groups: those whose edges touch or cross hang together, whichever lies in which.</summary>
    private static IEnumerable<List<Point[]>> Meeting(List<Point[]> rings, Budget budget)
    {
        if (rings.Count == 0) return [];
        Crossings.DemandFewMeetings(rings);
        var sets = new DisjointSets(rings.Count);
        var boxes = rings.Select(r => Box.Around(r)).ToList();
        // Edges that lie in no other ring's box meet none; of most art that leaves nothing to compare.
        var near = new BoxTree(boxes);
        var edges = new List<(Point A, Point B, int Ring)>();
        for (var k = 0; k < rings.Count; k++)
        {
            var others = near.Meeting(boxes[k]);
            budget.Work(others.Count);
            if (others.Count < 2) continue;
            var ring = rings[k];
            for (var i = 0; i < ring.Length; i++) edges.Add((ring[i], ring[(i + 1) % ring.Length], k));
        }
        var tree = new BoxTree([.. edges.Select(e => BoxOf(e.A, e.B))]);
        for (var i = 0; i < edges.Count; i++)
        {
            var e = edges[i];
            foreach (var j in tree.Meeting(BoxOf(e.A, e.B)))
            {
                budget.Work();
                if (j > i && edges[j].Ring != e.Ring && !sets.AreOne(edges[j].Ring, e.Ring) && Touch(e.A, e.B, edges[j].A, edges[j].B)) sets.Join(edges[j].Ring, e.Ring);
            }
        }
        return Enumerable.Range(0, rings.Count).GroupBy(sets.Find).Select(g => g.Select(k => rings[k]).ToList());
    }

    private static Box BoxOf(Point a, Point b) => Box.Empty.Include(a).Include(b);

    private static bool Touch(Point a, Point b, Point c, Point d) =>
        (b - a).Cross(c - a) * (b - a).Cross(d - a) <= 0 && (d - c).Cross(a - c) * (d - c).Cross(b - c) <= 0;

    /// <summary>The rings of a group's own area; a sound ring alone is its own.</summary>
    private static IReadOnlyList<Point[]> RingsOf(List<Point[]> group, Budget budget)
    {
        var corners = group.Sum(r => r.Length);
        budget.Work(corners * StepsOfACorner);
        if (group is [var alone] && (IsConvex(alone) || Polygon(alone).IsValid)) return [alone];
        budget.Work(corners * StepsOfAMeetingCorner);
        Crossings.DemandFew(group);
        return [.. Boundaries(Odd(Noded(group)), new RegionIndex(group))];
    }

    /// <summary>All turns to one side, and once round: a circle, a rectangle, most of what is picked by the hundred.</summary>
    private static bool IsConvex(Point[] ring)
    {
        var (turns, round) = (0, 0.0);
        for (var i = 0; i < ring.Length; i++)
        {
            var (a, b) = (ring[(i + 1) % ring.Length] - ring[i], ring[(i + 2) % ring.Length] - ring[(i + 1) % ring.Length]);
            var turn = Math.Atan2(a.Cross(b), a.X * b.X + a.Y * b.Y);
            if (turn == 0 || (turns != 0 && Math.Sign(turn) != turns)) return false;
            turns = Math.Sign(turn);
            round += turn;
        }
        return Math.Abs(round) < 2 * Math.PI + 1;
    }

    /// <summary>
    /// All rings parted where they meet, at once, in stretches from node to node. By snap rounding (Hobby 1999): overlaps thinner than
    /// the grid, as uniting letters leaves them, become edges that two rings share and part nothing.
    /// </summary>
    private static IList<ISegmentString> Noded(List<Point[]> group)
    {
        var noder = new SnapRoundingNoder(Grid);
        noder.ComputeNodes([.. group.Select(r => (ISegmentString)new NodedSegmentString(Region.Closed(r).Coordinates, null))]);
        return noder.GetNodedSubstrings();
    }

    /// <summary>
    /// A stretch that an even number of rings run along has the same on both sides, and bounds nothing. Two that begin alike are the
    /// same, since they would have been parted where they are not.
    /// </summary>
    private static List<Coordinate[]> Odd(IEnumerable<ISegmentString> stretches)
    {
        var odd = new Dictionary<(Coordinate, Coordinate), Coordinate[]>();
        foreach (var stretch in stretches.Select(s => s.Coordinates).Where(c => c.Length > 1))
        {
            var isForward = CoordinateArrays.IncreasingDirection(stretch) > 0;
            var key = isForward ? (stretch[0], stretch[1]) : (stretch[^1], stretch[^2]);
            if (!odd.Remove(key)) odd.Add(key, stretch);
        }
        return [.. odd.Values];
    }

    /// <summary>The rings of those faces between the stretches that lie inside an odd number of rings.</summary>
    private static IEnumerable<Point[]> Boundaries(List<Coordinate[]> stretches, RegionIndex rings)
    {
        var faces = new Polygonizer();
        faces.Add([.. stretches.Select(s => (Flat)GeometryFactory.Default.CreateLineString(s))]);
        return faces.GetPolygons().Cast<Polygon>().Where(f => f.InteriorPoint is var p && rings.Contains(new Point(p.X, p.Y))).SelectMany(Region.RingsOf)
            .Where(r => Math.Abs(Polygons.SignedArea(r)) > Math.Max(SpeckMm2, SliverMm * Polygons.Perimeter(r)));
    }

    private static MultiPolygon Nested(List<Point[]> rings)
    {
        var parents = RingNesting.Parents(rings);
        var depths = new int?[rings.Count];
        int Depth(int k)
        {
            var way = new List<int>();
            for (; k >= 0 && depths[k] is null; k = parents[k]) way.Add(k);
            var depth = k < 0 ? -1 : depths[k]!.Value;
            for (var i = way.Count - 1; i >= 0; i--) depths[way[i]] = ++depth;
            return depth;
        }
        for (var k = 0; k < rings.Count; k++) Depth(k);
        var openings = Enumerable.Range(0, rings.Count).Where(k => depths[k] % 2 == 1).ToLookup(k => parents[k]);
        return GeometryFactory.Default.CreateMultiPolygon([.. Enumerable.Range(0, rings.Count).Where(k => depths[k] % 2 == 0)
            .Select(k => GeometryFactory.Default.CreatePolygon(Region.Closed(rings[k]), [.. openings[k].Select(o => Region.Closed(rings[o]))]))]);
    }

    private static Polygon Polygon(Point[] ring) => GeometryFactory.Default.CreatePolygon(Region.Closed(ring));
}
