using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// Noise across a traced line is averaged along it: each point is taken from the parabola that fits best through those around it (Savitzky
/// and Golay, "Smoothing and differentiation of data by simplified least squares procedures", 1964), which keeps bends that are wider than
/// what is averaged over. At the ends of an open line the parabola of the last whole window goes on.
/// </summary>
internal static class NoiseAlong
{
    /// <summary>The points without the noise.</summary>
    /// <param name="points">At even distances.</param>
    /// <param name="half">Points to each side that are averaged over.</param>
    /// <param name="closed">The last is followed by the first.</param>
    public static Point[] Averaged(IReadOnlyList<Point> points, int half, bool closed)
    {
        var count = points.Count;
        if (half < 2 || count < 2 * half + 1) return [.. points];
        var made = new Point[count];
        for (var i = 0; i < count; i++)
        {
            var middle = closed ? i : Math.Clamp(i, half, count - 1 - half);
            made[i] = Parabola(points, middle, half, i - middle);
        }
        return made;
    }

    /// <summary>At so many points from the middle, the parabola through a window round it.</summary>
    private static Point Parabola(IReadOnlyList<Point> points, int middle, int half, int at)
    {
        // Sums of powers of k from -half to half; those of odd powers are 0.
        double h = half, n = 2 * h + 1, s2 = h * (h + 1) * (2 * h + 1) / 3, s4 = s2 * (3 * h * h + 3 * h - 1) / 5;
        Point sum = default, byK = default, bySquare = default;
        for (var k = -half; k <= half; k++)
        {
            var p = points[((middle + k) % points.Count + points.Count) % points.Count];
            (sum, byK, bySquare) = (sum + p, byK + p * k, bySquare + p * ((double)k * k));
        }
        var det = n * s4 - s2 * s2;
        var level = (sum * s4 - bySquare * s2) * (1 / det);
        var bend = (bySquare * n - sum * s2) * (1 / det);
        return level + byK * (at / s2) + bend * ((double)at * at);
    }
}
