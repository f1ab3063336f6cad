using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>How a traced line runs away from a corner: a parabola over a straight direction, by least squares over some dots.</summary>
/// <param name="Origin">Where lengths along it are counted from.</param>
/// <param name="Way">Direction away from the corner, of length 1.</param>
/// <param name="Offset">How far to the side it lies at the origin.</param>
/// <param name="Slope">To the side, by length.</param>
/// <param name="Bend">To the side, by length squared.</param>
internal readonly record struct Arm(Point Origin, Point Way, double Offset, double Slope, double Bend)
{
    /// <summary>An arm that strays from a straight line by less is one, dots.</summary>
    private const double Straight = 0.12;

    private const double Length = 6;

    private Point Side => new(-Way.Y, Way.X);

    private Point At(double t) => Origin + Way * t + Side * (Offset + Slope * t + Bend * t * t);

    private Point Along(double t) => (Way + Side * (Slope + 2 * Bend * t)) is var d ? d * (1 / d.Length) : default;

    public static Arm Fit(Course course, int corner, int way, int room, double near, double scale)
    {
        var from = Math.Min(course.Paces(near), Math.Max(1, room / 4));
        // Of the way to the next corner only the nearer half, so that its rounding does not count.
        var to = Math.Max(from + 1, Math.Min(course.Paces(near + Length * scale), Math.Max(from + 2, room - from)));
        var (a, b) = (course.At(corner + way * from), course.At(corner + way * to));
        var chord = b - a;
        if (chord.Length < 1e-9) return new Arm(a, new Point(1, 0), 0, 0, 0);
        var ahead = chord * (1 / chord.Length);
        var side = new Point(-ahead.Y, ahead.X);
        double n = 0, t1 = 0, t2 = 0, t3 = 0, t4 = 0, v0 = 0, v1 = 0, v2 = 0;
        for (var k = from; k <= to; k++)
        {
            var p = course.At(corner + way * k) - a;
            var (t, v) = (p.Dot(ahead), p.Dot(side));
            (n, t1, t2, t3, t4) = (n + 1, t1 + t, t2 + t * t, t3 + t * t * t, t4 + t * t * t * t);
            (v0, v1, v2) = (v0 + v, v1 + v * t, v2 + v * t * t);
        }
        var det = n * t2 - t1 * t1;
        var (slope, offset) = Math.Abs(det) > 1e-9 ? ((n * v1 - t1 * v0) / det, (v0 * t2 - v1 * t1) / det) : (0, v0 / n);
        var line = new Arm(a, ahead, offset, slope, 0);
        if (to - from < 6 || line.WorstOf(course, corner, way, from, to) < Straight * scale) return line;
        // Cramer's rule on the normal equations of the parabola.
        var d = Det(n, t1, t2, t1, t2, t3, t2, t3, t4);
        if (Math.Abs(d) < 1e-9) return line;
        return new Arm(a, ahead, Det(v0, t1, t2, v1, t2, t3, v2, t3, t4) / d, Det(n, v0, t2, t1, v1, t3, t2, v2, t4) / d, Det(n, t1, v0, t1, t2, v1, t2, t3, v2) / d);
    }

    /// <summary>Where two arms meet before their beginning, and the directions there, both away from the corner; null where they do not.</summary>
    public static (Point At, Point Before, Point After)? Meet(Arm one, Arm other)
    {
        var (t, u) = (0.0, 0.0);
        for (var round = 0; round < 12; round++)
        {
            var (d, e) = (one.Way + one.Side * (one.Slope + 2 * one.Bend * t), other.Way + other.Side * (other.Slope + 2 * other.Bend * u));
            var det = d.Cross(e);
            if (Math.Abs(det) < 0.08) return null;
            var gap = other.At(u) - one.At(t);
            var (dt, du) = (gap.Cross(e) / det, gap.Cross(d) / det);
            (t, u) = (t + dt, u + du);
            if (Math.Abs(t) > 30 || Math.Abs(u) > 30) return null;
            if (Math.Abs(dt) + Math.Abs(du) < 1e-6) return (one.At(t), one.Along(t), other.Along(u));
        }
        return null;
    }

    private double WorstOf(Course course, int corner, int way, int from, int to)
    {
        double worst = 0;
        for (var k = from; k <= to; k++)
        {
            var p = course.At(corner + way * k) - Origin;
            var t = p.Dot(Way);
            worst = Math.Max(worst, Math.Abs(p.Dot(Side) - Offset - Slope * t));
        }
        return worst;
    }

    private static double Det(double a, double b, double c, double d, double e, double f, double g, double h, double i) =>
        a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
}
