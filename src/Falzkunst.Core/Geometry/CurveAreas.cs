namespace Falzkunst.Core.Geometry;

/// <summary>Areas of closed lines with curves, without flattening them.</summary>
public static class CurveAreas
{
    /// <summary>
    /// The signed area in mm², positive when the path turns from x towards y; 0 for open paths. Green's theorem: half the integral of
    /// x dy − y dx along the line, which for a cubic Bézier is a sum of cross products of its points.
    /// </summary>
    public static double Signed(Path path)
    {
        if (!path.IsClosed) return 0;
        // From the start of the path, so that numbers far from the origin lose nothing.
        var origin = path.Start;
        double twice = 0;
        var from = default(Point);
        foreach (var segment in path.Segments)
        {
            var to = segment.End - origin;
            twice += segment.IsCubic ? Cubic(from, segment.Handle1 - origin, segment.Handle2 - origin, to) : from.Cross(to);
            from = to;
        }
        // The straight way back to the start passes through the origin, and adds nothing.
        return twice / 2;
    }

    private static double Cubic(Point a, Point b, Point c, Point d) =>
        (6 * a.Cross(b) + 3 * a.Cross(c) + a.Cross(d) + 3 * b.Cross(c) + 3 * b.Cross(d) + 6 * c.Cross(d)) / 10;
}
