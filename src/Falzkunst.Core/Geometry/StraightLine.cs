namespace Falzkunst.Core.Geometry;

/// <summary>A line through points by least squares of the distances from it.</summary>
/// <param name="Middle">The mean of the points.</param>
/// <param name="Way">Its direction, from the first point towards the last, of length 1.</param>
internal readonly record struct StraightLine(Point Middle, Point Way)
{
    /// <summary>The line through two or more points.</summary>
    public static StraightLine Through(ReadOnlySpan<Point> points)
    {
        Point sum = default;
        foreach (var p in points) sum += p;
        var middle = sum * (1.0 / points.Length);
        double xx = 0, xy = 0, yy = 0;
        foreach (var p in points)
        {
            var d = p - middle;
            (xx, xy, yy) = (xx + d.X * d.X, xy + d.X * d.Y, yy + d.Y * d.Y);
        }
        var angle = Math.Atan2(2 * xy, xx - yy) / 2;
        var way = new Point(Math.Cos(angle), Math.Sin(angle));
        return new(middle, way.Dot(points[^1] - points[0]) < 0 ? way * -1 : way);
    }

    /// <summary>How far a point lies from it.</summary>
    public double DistanceTo(Point p) => Math.Abs((p - Middle).Cross(Way));

    /// <summary>Its point nearest to one.</summary>
    public Point Onto(Point p) => Middle + Way * (p - Middle).Dot(Way);
}
