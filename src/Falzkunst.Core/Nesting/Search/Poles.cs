using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>
/// Circles inside a shape that fill most of it. Candidates are the medial balls of points along its edges, by shrinking
/// (Ma, Bae, Choi 2012), on the edges themselves, so that thin shapes have theirs as well as broad ones.
/// </summary>
internal static class Poles
{
    private const int Most = 20;

    /// <summary>No further circles once so many cover so much of the area.</summary>
    private static readonly (int Count, double Covered)[] Enough = [(6, 0.85), (10, 0.72)];

    /// <summary>Circles much smaller than the largest tell nothing about where a shape is thick.</summary>
    private const double LeastShare = 0.04;

    private const int Samples = 480;
    private const int MostShrinks = 12;

    /// <summary>The circles of a shape, the largest first; one at least.</summary>
    /// <param name="rings">Outline and openings in any direction.</param>
    public static List<(Point Centre, double Radius)> Find(IReadOnlyList<Point[]> rings)
    {
        var balls = Balls(rings);
        var poles = new List<(Point Centre, double Radius)>();
        var area = rings.Select((r, i) => Math.Abs(Polygons.SignedArea(r)) * (i == 0 ? 1 : -1)).Sum();
        double covered = 0;
        // The part of each ball that no pole covers yet: the distance from its middle to the nearest pole, at most its radius.
        var free = balls.Select(b => b.Radius).ToArray();
        while (poles.Count < Most && balls.Count > 0)
        {
            var best = 0;
            for (var i = 1; i < balls.Count; i++) if (free[i] > free[best]) best = i;
            if (poles.Count > 0 && free[best] < LeastShare * poles[0].Radius) break;
            var pole = poles.Count == 0 ? balls[best] : (balls[best].Centre, Radius: free[best]);
            poles.Add(pole);
            covered += Math.PI * pole.Radius * pole.Radius;
            if (Enough.Any(e => poles.Count >= e.Count && covered > e.Covered * area)) break;
            for (var i = 0; i < balls.Count; i++)
            {
                free[i] = Math.Min(free[i], balls[i].Centre.DistanceTo(pole.Centre) - pole.Radius);
            }
        }
        if (poles.Count == 0) poles.Add((Polygons.InteriorPoint(rings[0]) ?? rings[0][0], 1e-4));
        return poles;
    }

    private static List<(Point Centre, double Radius)> Balls(IReadOnlyList<Point[]> rings)
    {
        var balls = new List<(Point Centre, double Radius)>();
        var box = Box.Around(rings[0]);
        var most = Math.Min(box.Width, box.Height) / 2 + 1e-9;
        var length = rings.Sum(r => r.Select((p, i) => p.DistanceTo(r[(i + 1) % r.Length])).Sum());
        var step = length / Samples;
        for (var ring = 0; ring < rings.Count; ring++)
        {
            var r = rings[ring];
            var inward = IsInwardLeft(rings, r) ? 1 : -1;
            for (int i = 0, j = r.Length - 1; i < r.Length; j = i++)
            {
                var along = r[i] - r[j];
                if (along.Length < 1e-9) continue;
                var normal = new Point(-along.Y, along.X) * (inward / along.Length);
                var pieces = Math.Clamp((int)(along.Length / step), 1, Samples);
                for (var k = 0; k < pieces; k++)
                {
                    if (Ball(rings, Point.Lerp(r[j], r[i], (k + 0.5) / pieces), normal, most) is { } ball) balls.Add(ball);
                }
            }
        }
        AddGrid(rings, box, balls);
        return balls;
    }

    /// <summary>The material of a ring's edges lies where their direction turned from x towards y points.</summary>
    private static bool IsInwardLeft(IReadOnlyList<Point[]> rings, Point[] ring)
    {
        var (from, to) = ring.Select((p, i) => (p, To: ring[(i + 1) % ring.Length])).MaxBy(e => e.p.DistanceTo(e.To));
        var along = to - from;
        return along.Length > 0 && Polygons.Contains(rings, Point.Lerp(from, to, 0.5) + new Point(-along.Y, along.X) * (1e-5 / along.Length));
    }

    private static (Point Centre, double Radius)? Ball(IReadOnlyList<Point[]> rings, Point p, Point normal, double most)
    {
        var radius = most;
        for (var k = 0; k < MostShrinks; k++)
        {
            var centre = p + normal * radius;
            var near = Nearest(rings, centre);
            if (near.Distance >= radius * (1 - 1e-6)) break;
            var d = near.Point - p;
            var depth = d.Dot(normal);
            if (depth <= 1e-9) return null;
            radius = Math.Min(radius, d.Dot(d) / (2 * depth));
        }
        var middle = p + normal * radius;
        var clear = Nearest(rings, middle).Distance;
        return clear > 1e-4 && clear > radius * 0.5 ? (middle, clear * (1 - 1e-6)) : null;
    }

    /// <summary>Balls about points of a coarse grid, since the poles that fill corners up are no medial balls.</summary>
    private static void AddGrid(IReadOnlyList<Point[]> rings, Box box, List<(Point Centre, double Radius)> balls)
    {
        const int Cells = 24;
        for (var row = 0; row < Cells; row++)
        {
            for (var column = 0; column < Cells; column++)
            {
                var p = new Point(box.MinX + box.Width * (column + 0.5) / Cells, box.MinY + box.Height * (row + 0.5) / Cells);
                if (!Polygons.Contains(rings, p)) continue;
                var clear = Nearest(rings, p).Distance;
                if (clear > 1e-4) balls.Add((p, clear * (1 - 1e-6)));
            }
        }
    }

    private static (Point Point, double Distance) Nearest(IReadOnlyList<Point[]> rings, Point p)
    {
        var (best, at) = (double.PositiveInfinity, p);
        foreach (var ring in rings)
        {
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            {
                var along = ring[i] - ring[j];
                var t = along.Dot(along) is > 0 and var length2 ? Math.Clamp((p - ring[j]).Dot(along) / length2, 0, 1) : 0;
                var q = new Point(ring[j].X + along.X * t, ring[j].Y + along.Y * t);
                var (dx, dy) = (p.X - q.X, p.Y - q.Y);
                var distance2 = dx * dx + dy * dy;
                if (distance2 < best) (best, at) = (distance2, q);
            }
        }
        return (at, Math.Sqrt(best));
    }
}
