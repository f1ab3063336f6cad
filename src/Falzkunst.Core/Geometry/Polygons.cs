namespace Falzkunst.Core.Geometry;

/// <summary>Areas and containment of flat rings. A ring is its corners in order, the first not repeated.</summary>
public static class Polygons
{
    /// <summary>Signed area in mm² (shoelace); positive when the ring turns from x towards y.</summary>
    public static double SignedArea(ReadOnlySpan<Point> ring)
    {
        if (ring.Length < 3) return 0;
        var origin = ring[0];
        double twice = 0;
        for (var i = 2; i < ring.Length; i++) twice += (ring[i - 1] - origin).Cross(ring[i] - origin);
        return twice / 2;
    }

    /// <summary>Length of the ring, mm.</summary>
    public static double Perimeter(ReadOnlySpan<Point> ring)
    {
        double sum = 0;
        for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++) sum += ring[i].DistanceTo(ring[j]);
        return sum;
    }

    /// <summary>Even-odd containment by a ray to the right; a point on the ring itself may answer either way.</summary>
    public static bool Contains(ReadOnlySpan<Point> ring, Point p)
    {
        var inside = false;
        for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
        {
            var (a, b) = (ring[i], ring[j]);
            if (a.Y > p.Y != b.Y > p.Y && p.X < (b.X - a.X) * (p.Y - a.Y) / (b.Y - a.Y) + a.X) inside = !inside;
        }
        return inside;
    }

    /// <summary>Even-odd containment in several rings, an outline and its openings say.</summary>
    public static bool Contains(IEnumerable<Point[]> rings, Point p)
    {
        var inside = false;
        foreach (var ring in rings) inside ^= Contains(ring, p);
        return inside;
    }

    /// <summary>
    /// A point well inside the ring (even-odd): the middle of the widest stretch that lies inside, over a few level scan
    /// lines between corners. Null for rings without area.
    /// </summary>
    public static Point? InteriorPoint(ReadOnlySpan<Point> ring)
    {
        if (ring.Length < 3) return null;
        var (low, high) = (double.PositiveInfinity, double.NegativeInfinity);
        foreach (var p in ring) (low, high) = (Math.Min(low, p.Y), Math.Max(high, p.Y));
        if (!(high > low)) return null;
        Point? best = null;
        double widest = 0;
        var crossings = new List<double>();
        foreach (var share in ScanShares)
        {
            var y = low + (high - low) * share;
            crossings.Clear();
            AddCrossings(ring, y, crossings);
            crossings.Sort();
            for (var i = 0; i + 1 < crossings.Count; i += 2)
            {
                var width = crossings[i + 1] - crossings[i];
                if (width > widest) (widest, best) = (width, new Point((crossings[i] + crossings[i + 1]) / 2, y));
            }
        }
        return best;
    }

    /// <summary>Adds where a level line crosses the edges of a ring: x of each crossing, in the ring's order.</summary>
    public static void AddCrossings(ReadOnlySpan<Point> ring, double y, List<double> crossings)
    {
        for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
        {
            var (a, b) = (ring[i], ring[j]);
            if (a.Y > y != b.Y > y) crossings.Add((b.X - a.X) * (y - a.Y) / (b.Y - a.Y) + a.X);
        }
    }

    // Irrational-looking shares, so that a scan line does not run along corners of neatly drawn art.
    private static readonly double[] ScanShares = [0.4871, 0.2637, 0.7419, 0.1093, 0.8887, 0.3719, 0.6183, 0.0217, 0.9803];

    /// <summary>Distance from <paramref name="p"/> to the straight stretch from <paramref name="a"/> to <paramref name="b"/>, mm.</summary>
    public static double DistanceToStretch(Point p, Point a, Point b)
    {
        var along = b - a;
        var length2 = along.Dot(along);
        if (length2 == 0) return p.DistanceTo(a);
        var t = Math.Clamp((p - a).Dot(along) / length2, 0, 1);
        return p.DistanceTo(Point.Lerp(a, b, t));
    }

    /// <summary>Distance from <paramref name="p"/> to the nearest edge of the ring, mm.</summary>
    public static double DistanceToRing(ReadOnlySpan<Point> ring, Point p)
    {
        var nearest = double.PositiveInfinity;
        for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            nearest = Math.Min(nearest, DistanceToStretch(p, ring[j], ring[i]));
        return nearest;
    }

    /// <summary>The points of two rings that do not cross which lie nearest to each other; one of them is a corner.</summary>
    public static (Point OnOne, Point OnOther) NearestPoints(ReadOnlySpan<Point> one, ReadOnlySpan<Point> other)
    {
        var (best, least) = ((one[0], other[0]), double.MaxValue);
        Look(one, other, swap: false, ref best, ref least);
        Look(other, one, swap: true, ref best, ref least);
        return best;

        static void Look(ReadOnlySpan<Point> corners, ReadOnlySpan<Point> ring, bool swap, ref (Point, Point) best, ref double least)
        {
            foreach (var p in corners)
            {
                for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
                {
                    var along = ring[i] - ring[j];
                    var t = along.Dot(along) > 0 ? Math.Clamp((p - ring[j]).Dot(along) / along.Dot(along), 0, 1) : 0;
                    var on = Point.Lerp(ring[j], ring[i], t);
                    if (p.DistanceTo(on) >= least) continue;
                    (best, least) = (swap ? (on, p) : (p, on), p.DistanceTo(on));
                }
            }
        }
    }

    /// <summary>The corners of the convex hull of some points, anticlockwise where y points up (Andrew's monotone chain, 1979); collinear ones are left out.</summary>
    public static Point[] ConvexHull(ReadOnlySpan<Point> points)
    {
        var sorted = points.ToArray();
        Array.Sort(sorted, (a, b) => a.X != b.X ? a.X.CompareTo(b.X) : a.Y.CompareTo(b.Y));
        if (sorted.Length < 3) return sorted;
        var hull = new List<Point>();
        void Add(Point p, int floor)
        {
            while (hull.Count > floor + 1 && (hull[^1] - hull[^2]).Cross(p - hull[^2]) <= 0) hull.RemoveAt(hull.Count - 1);
            hull.Add(p);
        }
        foreach (var p in sorted) Add(p, 0);
        var lower = hull.Count - 1;
        for (var i = sorted.Length - 2; i >= 0; i--) Add(sorted[i], lower);
        hull.RemoveAt(hull.Count - 1);
        return [.. hull];
    }

    /// <summary>The least distance of two straight stretches that do not cross: it is taken at an end of one of them.</summary>
    public static double DistanceBetween(Point a, Point b, Point c, Point d) => Math.Min(
        Math.Min(DistanceToStretch(a, c, d), DistanceToStretch(b, c, d)), Math.Min(DistanceToStretch(c, a, b), DistanceToStretch(d, a, b)));
}
