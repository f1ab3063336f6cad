using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>Middle lines brought from dots to half way between the edges of their stroke.</summary>
internal static class StrokeMiddle
{
    private const double Probe = 0.25;

    /// <summary>Puts each point half way between the edges that are seen across the line, and measures the stroke.</summary>
    public static void Refine(Branch branch, InkRaster raster, double threshold, Func<Point, double> radiusAt)
    {
        var closed = branch.From == Branch.Loop;
        if (branch.Points.Count < 3) return;
        var points = Smoothed(branch.Points, closed);
        var widths = new List<double>();
        var made = new List<Point>(points.Count);
        for (var i = 0; i < points.Count; i++)
        {
            var (a, b) = (Near(points, i - 3, closed), Near(points, i + 3, closed));
            var along = b - a;
            if (along.Length < 1e-9)
            {
                made.Add(points[i]);
                continue;
            }
            var side = new Point(-along.Y, along.X) * (1 / along.Length);
            var reach = radiusAt(points[i]) * 1.6 + 2;
            if (Edge(raster, threshold, points[i], side, reach) is { } one && Edge(raster, threshold, points[i], side * -1, reach) is { } other)
            {
                widths.Add(one + other);
                made.Add(points[i] + side * ((one - other) / 2));
            }
            else
            {
                made.Add(points[i]);
            }
        }
        if (widths.Count > 0)
        {
            widths.Sort();
            branch.Width = widths[widths.Count / 2];
        }
        branch.Points = Smoothed(made, closed);
        if (branch.From == Branch.Free) End(branch, raster, threshold, atStart: true);
        if (branch.To == Branch.Free) End(branch, raster, threshold, atStart: false);
    }

    /// <summary>A free end lies half a stroke's width before the end of the ink, as that of a pen does; thinning bends the last bit, which is drawn straight on.</summary>
    private static void End(Branch branch, InkRaster raster, double threshold, bool atStart)
    {
        var radius = branch.Width / 2;
        if (branch.Width <= 0 || branch.Length < 4 * radius) return;
        if (atStart) branch.Points.Reverse();
        var end = branch.Points[^1];
        while (branch.Points.Count > 4 && branch.Points[^1].DistanceTo(end) < radius) branch.Points.RemoveAt(branch.Points.Count - 1);
        var way = BranchEnd.Way(branch, atStart: false, radius);
        if (Edge(raster, threshold, branch.Points[^1], way, radius * 5 + 4) is { } left && left - radius > 0.3) branch.Points.Add(branch.Points[^1] + way * (left - radius));
        if (atStart) branch.Points.Reverse();
    }

    /// <summary>How far it is to the edge of the ink; null where it is farther than is looked.</summary>
    private static double? Edge(InkRaster raster, double threshold, Point from, Point way, double reach)
    {
        var before = raster.At(from.X, from.Y);
        if (before < threshold) return 0;
        for (var t = Probe; t <= reach; t += Probe)
        {
            var ink = raster.At(from.X + way.X * t, from.Y + way.Y * t);
            if (ink < threshold) return t - Probe * (threshold - ink) / (before - ink);
            before = ink;
        }
        return null;
    }

    private static Point Near(List<Point> points, int i, bool closed) => closed ? points[(i % points.Count + points.Count) % points.Count] : points[Math.Clamp(i, 0, points.Count - 1)];

    private static List<Point> Smoothed(List<Point> points, bool closed)
    {
        double[] weights = [0.36, 0.24, 0.08];
        var made = new List<Point>(points.Count);
        for (var i = 0; i < points.Count; i++)
        {
            // An open line keeps its ends.
            var reach = closed ? 2 : Math.Min(2, Math.Min(i, points.Count - 1 - i));
            var (sum, weight) = (points[i] * weights[0], weights[0]);
            for (var k = 1; k <= reach; k++) (sum, weight) = (sum + (Near(points, i - k, closed) + Near(points, i + k, closed)) * weights[k], weight + 2 * weights[k]);
            made.Add(sum * (1 / weight));
        }
        return made;
    }
}
