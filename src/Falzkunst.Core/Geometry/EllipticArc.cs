namespace Falzkunst.Core.Geometry;

/// <summary>
/// Elliptic arcs as cubics, at most 45 degrees a piece: the error is then below 5 millionths of the radius,
/// half a micrometre on a circle of 100 mm.
/// </summary>
public static class EllipticArc
{
    private const double MostSweep = Math.PI / 4;

    /// <summary>
    /// The arc from <paramref name="from"/> to <paramref name="to"/> in SVG's endpoint form (SVG 2, appendix B.2.4 and B.2.5:
    /// radii too small are scaled up, a zero radius is a straight line).
    /// </summary>
    public static IEnumerable<Segment> FromEndpoints(
        Point from, double rx, double ry, double turnDegrees, bool largeArc, bool sweep, Point to)
    {
        if (from == to) yield break;
        (rx, ry) = (Math.Abs(rx), Math.Abs(ry));
        if (!(rx > 0) || !(ry > 0))
        {
            yield return Segment.Straight(to);
            yield break;
        }
        var (sin, cos) = Math.SinCos(turnDegrees * Math.PI / 180);
        var half = (from - to) * 0.5;
        var x1 = cos * half.X + sin * half.Y;
        var y1 = -sin * half.X + cos * half.Y;
        var lambda = x1 * x1 / (rx * rx) + y1 * y1 / (ry * ry);
        if (lambda > 1) (rx, ry) = (rx * Math.Sqrt(lambda), ry * Math.Sqrt(lambda));
        var under = (rx * rx * ry * ry - rx * rx * y1 * y1 - ry * ry * x1 * x1) / (rx * rx * y1 * y1 + ry * ry * x1 * x1);
        var k = (largeArc == sweep ? -1 : 1) * Math.Sqrt(Math.Max(0, under));
        var (cx1, cy1) = (k * rx * y1 / ry, -k * ry * x1 / rx);
        var centre = new Point(cos * cx1 - sin * cy1 + (from.X + to.X) / 2, sin * cx1 + cos * cy1 + (from.Y + to.Y) / 2);
        var begin = Math.Atan2((y1 - cy1) / ry, (x1 - cx1) / rx);
        var end = Math.Atan2((-y1 - cy1) / ry, (-x1 - cx1) / rx);
        var delta = end - begin;
        if (sweep && delta < 0) delta += 2 * Math.PI;
        if (!sweep && delta > 0) delta -= 2 * Math.PI;
        var map = new Affine(rx * cos, rx * sin, -ry * sin, ry * cos, centre.X, centre.Y);
        var segments = OnUnitCircle(begin, delta, map).ToArray();
        for (var i = 0; i < segments.Length; i++)
            yield return i == segments.Length - 1 ? segments[i] with { End = to } : segments[i];
    }

    /// <summary>A whole ellipse as a closed path, beginning at its rightmost point and turning from x towards y.</summary>
    public static Path Ellipse(Point centre, double rx, double ry)
    {
        var map = new Affine(rx, 0, 0, ry, centre.X, centre.Y);
        var start = map.Apply(new Point(1, 0));
        var segments = OnUnitCircle(0, 2 * Math.PI, map).ToArray();
        segments[^1] = segments[^1] with { End = start };
        return new Path(start, [.. segments], closed: true);
    }

    /// <summary>An open arc: part of the unit circle under a map.</summary>
    /// <param name="map">From the unit circle to the plane.</param>
    /// <param name="begin">Radians from x towards y.</param>
    /// <param name="sweep">Radians, either way.</param>
    public static Path Arc(Affine map, double begin, double sweep)
    {
        var (sin, cos) = Math.SinCos(begin);
        return new Path(map.Apply(new Point(cos, sin)), [.. OnUnitCircle(begin, sweep, map)], closed: false);
    }

    private static IEnumerable<Segment> OnUnitCircle(double begin, double sweep, Affine map)
    {
        var count = Math.Max(1, (int)Math.Ceiling(Math.Abs(sweep) / MostSweep - 1e-9));
        var step = sweep / count;
        var handle = 4.0 / 3 * Math.Tan(step / 4);
        for (var i = 0; i < count; i++)
        {
            var (s0, c0) = Math.SinCos(begin + i * step);
            var (s1, c1) = Math.SinCos(begin + (i + 1) * step);
            yield return Segment.Cubic(
                map.Apply(new Point(c0 - handle * s0, s0 + handle * c0)),
                map.Apply(new Point(c1 + handle * s1, s1 - handle * c1)),
                map.Apply(new Point(c1, s1)));
        }
    }
}
