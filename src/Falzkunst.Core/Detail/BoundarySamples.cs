using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// Points along the cuts of a piece with the direction into the material, and a grid over them.
/// </summary>
internal sealed class BoundarySamples
{
    private readonly Dictionary<(int, int), List<int>> _cells;
    private readonly double _cell;

    /// <summary>Largest distance between two samples of a straight edge, mm.</summary>
    public double Step { get; }

    /// <summary>Where each sample lies.</summary>
    public List<Point> At { get; } = [];

    /// <summary>Unit direction into the material.</summary>
    public List<Point> Inward { get; } = [];

    /// <summary>Which ring it is on.</summary>
    public List<int> Ring { get; } = [];

    /// <summary>The stretch of the cut that it stands for.</summary>
    public List<(Point A, Point B)> Edge { get; } = [];

    /// <summary>Index of the first sample of each ring, and one past the last ring's last.</summary>
    public List<int> Starts { get; } = [0];

    /// <summary>Samples the rings.</summary>
    /// <param name="rings">Flat rings; even-odd tells which side is material.</param>
    /// <param name="step">Largest distance between two samples, mm.</param>
    /// <param name="reach">Nearest points are asked for within about this distance, mm.</param>
    /// <param name="fromAir">Seen from the air instead: "into the material" is away from it.</param>
    public BoundarySamples(IReadOnlyList<Point[]> rings, double step, double reach, bool fromAir)
    {
        _cells = [];
        Step = step;
        _cell = Math.Max(step, reach / 2);
        var region = new RegionIndex([.. rings]);
        for (var r = 0; r < rings.Count; r++)
        {
            var ring = rings[r];
            var side = SideOfMaterial(ring, region) * (fromAir ? -1 : 1);
            var corners = WithoutRepeats(ring);
            for (var i = 0; i < corners.Count && corners.Count > 1; i++)
            {
                var (a, b, c) = (corners[i], corners[(i + 1) % corners.Count], corners[(i + 2) % corners.Count]);
                var (inward, next) = (Normal(a, b) * side, Normal(b, c) * side);
                var count = Math.Max(1, (int)Math.Ceiling(a.DistanceTo(b) / step));
                for (var k = 0; k < count; k++)
                    Add(Point.Lerp(a, b, (k + 0.5) / count), inward, r, (Point.Lerp(a, b, (double)k / count), Point.Lerp(a, b, (k + 1.0) / count)));
                foreach (var between in Fan(inward, next, side)) Add(b, between, r, (b, b));
            }
            Starts.Add(At.Count);
        }
    }

    /// <summary>Which way round a ring has material on the side that y is from x: seen at its longest edge, just off it.</summary>
    private static double SideOfMaterial(Point[] ring, RegionIndex region)
    {
        var best = 0;
        double longest = 0;
        for (var i = 0; i < ring.Length; i++)
        {
            var length = ring[i].DistanceTo(ring[(i + 1) % ring.Length]);
            if (length > longest) (best, longest) = (i, length);
        }
        var (a, b) = (ring[best], ring[(best + 1) % ring.Length]);
        var off = new Point(-(b - a).Y, (b - a).X) * (Math.Min(1e-4, longest / 100) / Math.Max(longest, 1e-12));
        return region.Contains(Point.Lerp(a, b, 0.5) + off) ? 1 : -1;
    }

    private static List<Point> WithoutRepeats(Point[] ring) => [.. ring.Where((p, i) => p.DistanceTo(ring[(i + 1) % ring.Length]) >= 1e-9)];

    private static Point Normal(Point a, Point b) => new Point(-(b - a).Y, (b - a).X) * (1 / a.DistanceTo(b));

    /// <summary>
    /// At a corner that juts into the material: the directions between those of its edges, since a ball may touch the corner
    /// itself, as where two discs just overlap.
    /// </summary>
    private static IEnumerable<Point> Fan(Point from, Point to, double side)
    {
        var turn = Math.Atan2(from.Cross(to), from.Dot(to));
        if (turn * side > 0) yield break;
        var count = (int)Math.Ceiling(Math.Abs(turn) / FanStep) - 1;
        for (var k = 1; k <= count; k++)
        {
            var (sin, cos) = Math.SinCos(turn * k / (count + 1));
            yield return new Point(from.X * cos - from.Y * sin, from.X * sin + from.Y * cos);
        }
    }

    private const double FanStep = 15 * Math.PI / 180;

    private void Add(Point at, Point inward, int ring, (Point, Point) edge)
    {
        var key = ((int)Math.Floor(at.X / _cell), (int)Math.Floor(at.Y / _cell));
        if (!_cells.TryGetValue(key, out var cell)) _cells[key] = cell = [];
        cell.Add(At.Count);
        At.Add(at);
        Inward.Add(inward);
        Ring.Add(ring);
        Edge.Add(edge);
    }

    /// <summary>Edges whose directions into the material point away from each other by at least this (as a dot product) face each other.</summary>
    private const double Facing = -0.17;

    /// <summary>The point nearest to a place on an edge that faces a sample's edge, within a distance; null where none is.</summary>
    public (int Sample, Point Point, double Distance)? NearestFacing(Point p, double within, int sample)
    {
        (int, Point, double)? best = null;
        var least = within;
        var (x0, x1) = ((int)Math.Floor((p.X - within - _cell) / _cell), (int)Math.Floor((p.X + within + _cell) / _cell));
        var (y0, y1) = ((int)Math.Floor((p.Y - within - _cell) / _cell), (int)Math.Floor((p.Y + within + _cell) / _cell));
        for (var x = x0; x <= x1; x++)
        {
            for (var y = y0; y <= y1; y++)
            {
                if (!_cells.TryGetValue((x, y), out var cell)) continue;
                foreach (var i in cell)
                {
                    if (Inward[i].Dot(Inward[sample]) > Facing) continue;
                    var q = OnEdge(p, Edge[i]);
                    var distance = p.DistanceTo(q);
                    if (distance < least) (best, least) = ((i, q, distance), distance);
                }
            }
        }
        return best;
    }

    private static Point OnEdge(Point p, (Point A, Point B) edge)
    {
        var along = edge.B - edge.A;
        if (along == default) return edge.A;
        var t = Math.Clamp((p - edge.A).Dot(along) / along.Dot(along), 0, 1);
        return Point.Lerp(edge.A, edge.B, t);
    }
}
