namespace Falzkunst.Core.Geometry;

/// <summary>
/// One cubic through many points by least squares, its ends and its directions there given; the parameters of the points are bettered
/// by Newton's method between rounds (Schneider, "An algorithm for automatically fitting digitized curves", Graphics Gems 1990).
/// </summary>
internal static class CubicFit
{
    private const int Improvements = 4;

    /// <summary>An error so many times the tolerance is not mended by better parameters.</summary>
    private const double HopelessTimes = 6;

    /// <summary>Of the distance between a curve's ends; a half circle needs two thirds.</summary>
    private const double LongestHandle = 1.5;

    /// <summary>The curve from one point to another that keeps near to those between.</summary>
    /// <param name="points">The points.</param>
    /// <param name="from">Index of the first.</param>
    /// <param name="to">Index of the last, at least 2 more.</param>
    /// <param name="first">Direction in which it leaves the first point, of length 1.</param>
    /// <param name="last">Direction from the last point back into the curve, of length 1.</param>
    /// <param name="tolerance">Largest distance of a point from the curve.</param>
    /// <param name="worst">Where the curve strays most, between the ends.</param>
    /// <returns>null where no such curve is found.</returns>
    public static Segment? Within(List<Point> points, int from, int to, Point first, Point last, double tolerance, out int worst)
    {
        var at = ByLength(points, from, to);
        worst = from + 1;
        for (var round = 0; round <= Improvements; round++)
        {
            var curve = LeastSquares(points, from, to, at, first, last);
            (worst, var error) = Worst(points, from, to, at, curve, tolerance);
            if (error <= tolerance) return curve;
            if (error > tolerance * HopelessTimes) break;
            Improve(points, from, to, at, curve);
        }
        worst = Math.Clamp(worst, from + 1, to - 1);
        return null;
    }

    private static double[] ByLength(List<Point> points, int from, int to)
    {
        var at = new double[to - from + 1];
        for (var i = 1; i < at.Length; i++) at[i] = at[i - 1] + points[from + i].DistanceTo(points[from + i - 1]);
        for (var i = 1; i < at.Length; i++) at[i] /= at[^1];
        return at;
    }

    private static Segment LeastSquares(List<Point> points, int from, int to, double[] at, Point first, Point last)
    {
        var (p0, p3) = (points[from], points[to]);
        double c00 = 0, c01 = 0, c11 = 0, x0 = 0, x1 = 0;
        for (var i = 0; i < at.Length; i++)
        {
            var (t, u) = (at[i], 1 - at[i]);
            var (b1, b2) = (3 * t * u * u, 3 * t * t * u);
            var (a1, a2) = (first * b1, last * b2);
            c00 += a1.Dot(a1);
            c01 += a1.Dot(a2);
            c11 += a2.Dot(a2);
            var rest = points[from + i] - (p0 * (u * u * u + b1) + p3 * (b2 + t * t * t));
            x0 += a1.Dot(rest);
            x1 += a2.Dot(rest);
        }
        var det = c00 * c11 - c01 * c01;
        var chord = p0.DistanceTo(p3);
        var (one, two) = Math.Abs(det) > 1e-14 ? ((x0 * c11 - x1 * c01) / det, (c00 * x1 - c01 * x0) / det) : (0, 0);
        // Handles that point backwards or hardly at all make kinks, long ones make loops: a third of the chord is the safe choice.
        if (!(one > 1e-3 * chord && two > 1e-3 * chord && one < LongestHandle * chord && two < LongestHandle * chord)) one = two = Math.Max(chord, 1e-6) / 3;
        return Segment.Cubic(p0 + first * one, p3 + last * two, p3);
    }

    /// <summary>The point that lies farthest from the curve; where all lie near enough, the place between two points that does.</summary>
    private static (int Index, double Error) Worst(List<Point> points, int from, int to, double[] at, Segment curve, double tolerance)
    {
        var (worst, error) = ((from + to) / 2, 0.0);
        for (var i = 1; i < at.Length - 1; i++)
        {
            var off = curve.At(points[from], at[i]) - points[from + i];
            var square = off.Dot(off);
            if (square > error) (worst, error) = (from + i, square);
        }
        error = Math.Sqrt(error);
        if (error > tolerance) return (worst, error);
        // The other way round as well: between two points the curve keeps to the way from one to the other.
        for (var i = 1; i < at.Length; i++)
        {
            var e = Polygons.DistanceToStretch(curve.At(points[from], (at[i - 1] + at[i]) / 2), points[from + i - 1], points[from + i]);
            if (e > error) (worst, error) = (from + i, e);
        }
        return (worst, error);
    }

    /// <summary>One step of Newton's method towards the parameter of the curve's point nearest to each point.</summary>
    private static void Improve(List<Point> points, int from, int to, double[] at, Segment curve)
    {
        var p0 = points[from];
        Point d1 = (curve.Handle1 - p0) * 3, d2 = (curve.Handle2 - curve.Handle1) * 3, d3 = (curve.End - curve.Handle2) * 3;
        for (var i = 1; i < at.Length - 1; i++)
        {
            var (t, u) = (at[i], 1 - at[i]);
            var off = curve.At(p0, t) - points[from + i];
            var speed = d1 * (u * u) + d2 * (2 * u * t) + d3 * (t * t);
            var bend = (d2 - d1) * (2 * u) + (d3 - d2) * (2 * t);
            var slope = speed.Dot(speed) + off.Dot(bend);
            if (Math.Abs(slope) > 1e-12) at[i] = Math.Clamp(t - off.Dot(speed) / slope, 0, 1);
        }
        for (var i = 1; i < at.Length; i++) at[i] = Math.Max(at[i], at[i - 1]);
    }
}
