namespace Falzkunst.Core.Geometry;

/// <summary>
/// Curves as polylines. A cubic is cut into n equal steps of its parameter with n from the bound on its second
/// difference (Wang's formula): n = sqrt(3/4 · max|Δ²P| / tolerance), which never exceeds the tolerance.
/// </summary>
public static class Flattening
{
    /// <summary>Millimetres; a tenth of the step that any of the machines can make.</summary>
    public const double DefaultTolerance = 0.01;

    /// <summary>A cubic is never cut finer than this, whatever the tolerance asks.</summary>
    private const int MostSteps = 4096;

    /// <summary>The corners of the path as a polyline; a closed path does not repeat its start, equal neighbours are dropped.</summary>
    /// <param name="path">The path.</param>
    /// <param name="tolerance">Largest distance between curve and polyline, mm, above 0.</param>
    public static Point[] Flatten(Path path, double tolerance)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(tolerance);
        var points = new List<Point>(path.Segments.Length + 1) { path.Start };
        var from = path.Start;
        foreach (var s in path.Segments)
        {
            if (s.IsCubic)
            {
                var steps = Steps(from, s, tolerance);
                for (var i = 1; i < steps; i++) Add(points, s.At(from, (double)i / steps));
            }
            Add(points, s.End);
            from = s.End;
        }
        if (path.IsClosed && points.Count > 1 && points[^1] == points[0]) points.RemoveAt(points.Count - 1);
        return [.. points];
    }

    /// <summary>As <see cref="Flatten"/>, with the segment and the parameter on it that each corner comes from.</summary>
    /// <param name="path">The path; a closed one has its way back written out (<see cref="PathNodes.WrittenOut"/>).</param>
    /// <param name="tolerance">Largest distance between curve and polyline, mm, above 0.</param>
    public static (Point[] Points, PathPlace[] Places) Trace(Path path, double tolerance)
    {
        var points = new List<Point>(path.Segments.Length + 1) { path.Start };
        var places = new List<PathPlace>(path.Segments.Length + 1) { new(0, 0) };
        var from = path.Start;
        for (var k = 0; k < path.Segments.Length; k++)
        {
            var s = path.Segments[k];
            var steps = s.IsCubic ? Steps(from, s, tolerance) : 1;
            for (var i = 1; i <= steps; i++)
            {
                var p = i == steps ? s.End : s.At(from, (double)i / steps);
                if (p == points[^1]) continue;
                points.Add(p);
                places.Add(i == steps ? new PathPlace(k + 1, 0) : new PathPlace(k, (double)i / steps));
            }
            from = s.End;
        }
        if (path.IsClosed && points.Count > 1 && points[^1] == points[0])
        {
            points.RemoveAt(points.Count - 1);
            places.RemoveAt(places.Count - 1);
        }
        return ([.. points], [.. places]);
    }

    private static void Add(List<Point> points, Point p)
    {
        if (points[^1] != p) points.Add(p);
    }

    private static int Steps(Point from, Segment s, double tolerance)
    {
        var d1 = (from - s.Handle1 * 2 + s.Handle2).Length;
        var d2 = (s.Handle1 - s.Handle2 * 2 + s.End).Length;
        var n = Math.Sqrt(0.75 * Math.Max(d1, d2) / tolerance);
        return double.IsFinite(n) ? Math.Clamp((int)Math.Ceiling(n), 1, MostSteps) : 1;
    }
}
