using Falzkunst.Core.Budgets;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Utilities;
using NetTopologySuite.Operation.Buffer;
using NetTopologySuite.Operation.Overlay;
using NetTopologySuite.Operation.OverlayNG;
using NetTopologySuite.Simplify;
using Flat = NetTopologySuite.Geometries.Geometry;

namespace Falzkunst.Core.Geometry;

/// <summary>How the corners of a grown region look.</summary>
public enum Corners
{
    /// <summary>Arcs about the old corners; with few edges they cut a little off the true arc.</summary>
    Round,

    /// <summary>Tangents round the arcs about the old corners: nothing of the true shape is cut off, and edges move by the distance to a thousandth of it.</summary>
    Tangent,

    /// <summary>The edges run on until they meet, up to five times the distance.</summary>
    Sharp,
}

/// <summary>
/// An area in the plane with straight edges, mm: polygons with openings. Immutable. Unions and differences are worked on the
/// exact coordinates first, so that corners that take no part in them stay as they are to the last bit; where rounding would
/// make that fail, on slightly rounded ones (Davis's OverlayNG in NetTopologySuite).
/// </summary>
public sealed class Region
{
    private const double MitreLimit = 5;

    /// <summary>Lines that begin in a tile so many radii wide are grown together.</summary>
    private const double TileOfRadii = 100;

    /// <summary>Length of an edge that is there for its direction alone, mm.</summary>
    private const double TinyEdge = 1e-5;

    /// <summary>Fewer areas than this are joined at once.</summary>
    private const int FewAreas = 6;

    private readonly Flat _area;

    private Region(Flat area, bool isMended = false) => (_area, IsMended) = (area, isMended);

    public static readonly Region Empty = new(GeometryFactory.Default.CreatePolygon());

    public bool IsEmpty => _area.IsEmpty;

    /// <summary>The rings that it was made of crossed or touched, and its own are others.</summary>
    public bool IsMended { get; }

    /// <summary>Area, mm².</summary>
    public double Area => _area.Area;

    /// <summary>Its connected parts: for each the outer ring and the rings of its openings, the first corner not repeated.</summary>
    public IEnumerable<(Point[] Outer, List<Point[]> Openings)> Parts =>
        Polygons.Select(p => (Ring(p.ExteriorRing), p.InteriorRings.Select(Ring).ToList()));

    /// <summary>All rings, outer ones and openings alike.</summary>
    public IEnumerable<Point[]> Rings => RingsOf(_area);

    /// <summary>The rings of a geometry's areas.</summary>
    internal static IEnumerable<Point[]> RingsOf(Flat area) =>
        PolygonExtracter.GetPolygons(area).Cast<Polygon>().Where(p => !p.IsEmpty).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing)).Select(Ring);

    /// <summary>Each of its connected parts as a region of its own.</summary>
    public IEnumerable<Region> EachPart() => Polygons.Select(p => new Region(p, IsMended));

    /// <summary>Corners of all rings.</summary>
    public int CornerCount => _area.NumPoints;

    public int PartCount => _area.NumGeometries;

    public int OpeningCount => Polygons.Sum(p => p.NumInteriorRings);

    private IEnumerable<Polygon> Polygons => PolygonExtracter.GetPolygons(_area).Cast<Polygon>().Where(p => !p.IsEmpty);

    /// <summary>The area inside an outline and outside its openings. Crossing rings are mended, with their coordinates kept where they can be.</summary>
    /// <exception cref="BudgetSpent">They cross more often than can be mended.</exception>
    public static Region FromRings(Point[] outline, IReadOnlyList<Point[]> openings)
    {
        if (outline.Length < 3) return Empty;
        var rings = openings.Where(o => o.Length > 2).Select(Closed).ToArray();
        Crossings.DemandFewMeetings([outline, .. openings]);
        var whole = GeometryFactory.Default.CreatePolygon(Closed(outline), rings);
        if (whole.IsValid) return new Region(whole);
        Crossings.DemandFew([outline, .. openings]);
        var area = GeometryFixer.Fix(GeometryFactory.Default.CreatePolygon(Closed(outline)));
        var gone = rings.Select(r => GeometryFixer.Fix(GeometryFactory.Default.CreatePolygon(r))).Where(g => !g.IsEmpty).ToList();
        var outer = new Region(AreasAlone(area));
        var left = gone.Count == 0 ? outer : outer.Minus(new Region(AreasAlone(OverlayNGRobust.Union(GeometryFactory.Default.BuildGeometry(gone)))));
        return new Region(left._area, isMended: true);
    }

    /// <summary>The area of a box.</summary>
    public static Region FromBox(Box box) => FromRings([box.Min, new(box.MaxX, box.MinY), new(box.MaxX, box.MaxY), new(box.MinX, box.MaxY)], []);

    /// <summary>The area inside an odd number of rings.</summary>
    /// <param name="rings">Closed lines; they may cross, touch and repeat each other.</param>
    /// <param name="budget">What it may take; null for as long as it takes.</param>
    /// <exception cref="BudgetSpent">They cross more often than can be mended, or the budget is used up.</exception>
    public static Region EvenOdd(IEnumerable<Path> rings, Budget? budget = null) => new(EvenOddAreas.Of(rings, budget ?? Budget.Unlimited));

    /// <summary>Everything within a distance of some lines.</summary>
    /// <param name="lines">Lines of one point or more.</param>
    /// <param name="radius">The distance, mm.</param>
    /// <param name="quarterEdges">Edges of an arc of 90 degrees.</param>
    /// <param name="flatEnds">Lines end square instead of round; single points then have no area.</param>
    public static Region Around(IEnumerable<IReadOnlyList<Point>> lines, double radius, int quarterEdges, bool flatEnds = false)
    {
        // Those near each other are grown as one; tiles on all cores, and what of them meets is joined in the end.
        var tile = TileOfRadii * radius;
        var tiles = lines.Where(l => l.Count > 1 || !flatEnds)
            .GroupBy(l => (Math.Floor(l[0].X / tile), Math.Floor(l[0].Y / tile)))
            .OrderBy(g => g.Key).Select(g => g.ToList()).ToList();
        var grown = new Flat[tiles.Count];
        Parallel.For(0, tiles.Count, OnAllCores.OfCaller, i => grown[i] = AreasAlone(OverlayNGRobust.Union(GeometryFactory.Default.BuildGeometry(tiles[i].Select(Grown).ToList()))));
        return Joined([.. grown.Where(g => !g.IsEmpty)]);

        Flat Grown(IReadOnlyList<Point> line) => line.Count <= 2
            ? GeometryFactory.Default.CreatePolygon(Closed(Capsule(line[0], line[^1], radius, quarterEdges, flatEnds)))
            : GeometryFactory.Default.CreateLineString([.. line.Select(p => new Coordinate(p.X, p.Y))])
                .Buffer(radius, new BufferParameters(quarterEdges, flatEnds ? EndCapStyle.Flat : EndCapStyle.Round));
    }

    /// <summary>What lies within a distance of the way between two points, which may be one; most lines that are grown are so short.</summary>
    private static Point[] Capsule(Point from, Point to, double radius, int quarterEdges, bool flatEnds)
    {
        var along = to - from;
        var start = along.Length < 1e-12 ? 0 : Math.Atan2(along.Y, along.X);
        var steps = flatEnds ? 1 : 2 * quarterEdges;
        var corners = new Point[2 * (steps + 1)];
        for (var k = 0; k <= steps; k++)
        {
            var (sin, cos) = Math.SinCos(start + Math.PI * ((double)k / steps - 0.5));
            corners[k] = new Point(to.X + radius * cos, to.Y + radius * sin);
            corners[steps + 1 + k] = new Point(from.X - radius * cos, from.Y - radius * sin);
        }
        return corners;
    }

    /// <summary>The union of areas that lie in the order of their places: halves on all cores, so that only the last joins wait for each other.</summary>
    private static Region Joined(List<Flat> areas)
    {
        if (areas.Count == 0) return Empty;
        return new Region(Union(areas, 0, areas.Count));

        static MultiPolygon Union(List<Flat> all, int from, int to)
        {
            if (to - from <= FewAreas) return AreasAlone(OverlayNGRobust.Union(GeometryFactory.Default.BuildGeometry(all.GetRange(from, to - from))));
            var middle = (from + to) / 2;
            Flat one = null!, other = null!;
            Parallel.Invoke(OnAllCores.OfCaller, () => one = Union(all, from, middle), () => other = Union(all, middle, to));
            return AreasAlone(OverlayNGRobust.Overlay(one, other, SpatialFunction.Union));
        }
    }

    /// <summary>Larger by a distance all round, or smaller where it is negative.</summary>
    /// <param name="by">The distance, mm.</param>
    /// <param name="corners">What becomes of corners.</param>
    /// <param name="quarterEdges">Edges of an arc of 90 degrees.</param>
    public Region Grow(double by, Corners corners, int quarterEdges)
    {
        if (by == 0) return this;
        var way = new BufferParameters(quarterEdges, EndCapStyle.Round, corners == Corners.Round ? JoinStyle.Round : JoinStyle.Mitre, MitreLimit);
        if (corners == Corners.Tangent) way.SimplifyFactor = 0;
        var grown = AreasAlone((corners == Corners.Tangent ? Split(quarterEdges) : _area).Buffer(by, way));
        // Now and then a shrinking ring turns inside out beyond the area, which is no part of it.
        return by > 0 ? new Region(grown) : new Region(GeometryFactory.Default.CreateMultiPolygon([.. PolygonExtracter.GetPolygons(grown).Cast<Polygon>().Where(p => Contains(p.InteriorPoint))]));
    }

    /// <summary>
    /// Each corner as a run of tiny edges that turn by no more than an arc's edge does, so that edges which run on until they
    /// meet go round its arc as tangents.
    /// </summary>
    private MultiPolygon Split(int quarterEdges)
    {
        var most = Math.PI / 2 / quarterEdges;
        return GeometryFactory.Default.CreateMultiPolygon([.. Polygons.Select(p => GeometryFactory.Default.CreatePolygon(
            Closed(Split(Ring(p.ExteriorRing), most)), [.. p.InteriorRings.Select(r => Closed(Split(Ring(r), most)))]))]);
    }

    private static Point[] Split(Point[] ring, double most)
    {
        var split = new List<Point>(ring.Length * 2);
        for (var i = 0; i < ring.Length; i++)
        {
            var (before, after) = (ring[i] - ring[(i + ring.Length - 1) % ring.Length], ring[(i + 1) % ring.Length] - ring[i]);
            var turn = Math.Atan2(before.Cross(after), before.X * after.X + before.Y * after.Y);
            var parts = (int)Math.Ceiling(Math.Abs(turn) / most - 1e-9);
            var at = ring[i];
            split.Add(at);
            var heading = Math.Atan2(before.Y, before.X);
            for (var k = 1; k < parts; k++)
            {
                var (sin, cos) = Math.SinCos(heading + turn * k / parts);
                split.Add(at += new Point(cos, sin) * TinyEdge);
            }
        }
        return [.. split];
    }

    /// <summary>Larger to single sides: what a box with these sides covers whose origin goes all over it (Minkowski's sum); smaller where a side is negative.</summary>
    /// <param name="left">How far to the left, mm.</param>
    /// <param name="top">How far upwards.</param>
    /// <param name="right">How far to the right.</param>
    /// <param name="bottom">How far downwards.</param>
    public Region GrowSides(double left, double top, double right, double bottom) =>
        ToSide(new(-1, 0), left).ToSide(new(1, 0), right).ToSide(new(0, -1), top).ToSide(new(0, 1), bottom);

    private Region ToSide(Point direction, double by)
    {
        if (by == 0 || IsEmpty) return this;
        if (by > 0) return Swept(direction * by);
        // What is inside but for what the air around sweeps over, coming from that side.
        var around = Box.Around(Rings.SelectMany(r => r)).Grow(-2 * by + 1);
        return Minus(FromBox(around).Minus(this).Swept(direction * by));
    }

    /// <summary>All places that it covers on a straight way.</summary>
    private Region Swept(Point way)
    {
        var areas = new List<Region> { this, new(AffineTransformation.TranslationInstance(way.X, way.Y).Transform(_area)) };
        foreach (var ring in Rings)
        {
            for (var i = 0; i < ring.Length; i++)
            {
                var (p, q) = (ring[i], ring[(i + 1) % ring.Length]);
                if ((q - p).Cross(way) != 0) areas.Add(new(GeometryFactory.Default.CreatePolygon(Closed([p, q, q + way, p + way]))));
            }
        }
        return UnionOf(areas);
    }

    /// <summary>With fewer corners, none of the new edges farther from the old than a tolerance, mm; parts and openings as they were.</summary>
    public Region Simplified(double tolerance) => new(AreasAlone(TopologyPreservingSimplifier.Simplify(_area, tolerance)), IsMended);

    /// <summary>The corners of its convex hull in order; two or fewer where it has no area.</summary>
    public Point[] Hull() => _area.ConvexHull() is Polygon hull ? Ring(hull.ExteriorRing) : [];

    /// <summary>The union of any number of areas, neighbours first (cascaded union).</summary>
    public static Region UnionOf(IEnumerable<Region> areas)
    {
        List<Flat> some = [.. areas.Where(a => !a.IsEmpty).Select(a => a._area)];
        return some.Count == 0 ? Empty : new Region(AreasAlone(OverlayNGRobust.Union(GeometryFactory.Default.BuildGeometry(some))));
    }

    public Region Union(Region other) => Overlay(other, SpatialFunction.Union);
    public Region Minus(Region other) => Overlay(other, SpatialFunction.Difference);
    public Region And(Region other) => Overlay(other, SpatialFunction.Intersection);

    /// <summary>The region without parts, or with no openings, for which something holds.</summary>
    public Region Where(Func<Region, bool> keepPart, Func<Region, bool> keepOpening)
    {
        var kept = Polygons
            .Select(p => GeometryFactory.Default.CreatePolygon(
                (LinearRing)p.ExteriorRing,
                [.. p.InteriorRings.Cast<LinearRing>().Where(h => keepOpening(new Region(GeometryFactory.Default.CreatePolygon(h))))]))
            .Where(p => keepPart(new Region(p)));
        return new Region(GeometryFactory.Default.CreateMultiPolygon([.. kept]), IsMended);
    }

    /// <summary>A point lies in it or on its edge.</summary>
    public bool Contains(Point p) => Contains(GeometryFactory.Default.CreatePoint(new Coordinate(p.X, p.Y)));

    private bool Contains(NetTopologySuite.Geometries.Point p) => SimplePointInAreaLocator.Locate(p.Coordinate, _area) != Location.Exterior;

    private Region Overlay(Region other, SpatialFunction operation)
    {
        if (IsEmpty || other.IsEmpty) return operation switch
        {
            SpatialFunction.Intersection => Empty,
            SpatialFunction.Union => IsEmpty ? other : this,
            _ => this,
        };
        return new Region(AreasAlone(OverlayNGRobust.Overlay(_area, other._area, operation)));
    }

    /// <summary>Without the lines and points that an overlay leaves where areas touch.</summary>
    internal static MultiPolygon AreasAlone(Flat mixed) =>
        GeometryFactory.Default.CreateMultiPolygon([.. PolygonExtracter.GetPolygons(mixed).Cast<Polygon>().Where(p => !p.IsEmpty)]);

    internal static LinearRing Closed(Point[] ring)
    {
        var corners = new Coordinate[ring.Length + 1];
        for (var i = 0; i < ring.Length; i++) corners[i] = new Coordinate(ring[i].X, ring[i].Y);
        corners[^1] = corners[0].Copy();
        return GeometryFactory.Default.CreateLinearRing(corners);
    }

    private static Point[] Ring(LineString ring)
    {
        var points = new Point[ring.NumPoints - 1];
        for (var i = 0; i < points.Length; i++)
        {
            var c = ring.GetCoordinateN(i);
            points[i] = new Point(c.X, c.Y);
        }
        return points;
    }
}
