namespace Falzkunst.Core.Geometry;

/// <summary>
/// A closed line so thin that it was drawn for a stroke, such as the outline of a fold line: its middle. A straight one is measured
/// by the narrowest rectangle about it (rotating calipers; Freeman and Shapira 1975), a bent one by the two ends between which its
/// sides lie closest when they are walked together.
/// </summary>
public static class ThinLoop
{
    /// <summary>Wider than this nobody draws a line as an area, mm.</summary>
    public const double MostWidthMm = 1;

    /// <summary>So many times longer than wide a loop must be; a shorter one has no direction to speak of.</summary>
    private const double LeastRatio = 4;

    /// <summary>A loop in its narrowest rectangle is about twice as long as that; one that is longer by this share winds in it.</summary>
    private const double MostExcess = 0.1;

    /// <summary>Distance of points along a bent loop, mm, and how many there are at most: folding takes their square.</summary>
    private const double StepMm = 0.25;
    private const int MostPoints = 1024;
    private const int LeastPoints = 64;

    /// <summary>Ends are looked for at every so many points, and pairs of points compared for each choice, first coarsely.</summary>
    private const int CoarseSteps = 6;
    private const double FineStep = 0.5;
    private const int CoarsePairs = 24;
    private const int FinePairs = 64;

    /// <summary>Pairs lie askew by a little, mm.</summary>
    private const double SlackMm = 0.05;

    /// <summary>The middle of a bent loop runs no farther from the points between its sides than this, mm.</summary>
    private const double FitMm = 0.02;

    /// <summary>
    /// The loop may be a thin one, told by what goes round it and its area alone: the mean width of a band is its area by half of what
    /// goes round it. Cheap; what it lets through is looked at closely.
    /// </summary>
    public static bool MayBeThin(Path loop, double mostWidthMm = MostWidthMm)
    {
        if (!loop.IsClosed || loop.Flat.Length < 3) return false;
        var (around, width) = (loop.Length, MeanWidth(loop));
        return around > 0 && width <= mostWidthMm + 1e-6 && around / 2 - width >= LeastRatio * width;
    }

    private static double MeanWidth(Path loop) => 2 * Math.Abs(loop.SignedArea) / loop.Length;

    /// <summary>The open line along the middle of a closed one, from end to end; null where the loop is wider or has no length.</summary>
    /// <param name="loop">Any path; an open one has no middle.</param>
    /// <param name="mostWidthMm">The loop is nowhere wider.</param>
    public static Path? Middle(Path loop, double mostWidthMm = MostWidthMm) =>
        MayBeThin(loop, mostWidthMm) ? Straight(loop, loop.Length, mostWidthMm) ?? Bent(loop, loop.Length, mostWidthMm) : null;

    private static Path? Straight(Path loop, double around, double most)
    {
        var hull = Polygons.ConvexHull(loop.Flat);
        var (width, best) = (double.PositiveInfinity, default((Point From, Point To)));
        for (var i = 0; i < hull.Length; i++)
        {
            var side = hull[(i + 1) % hull.Length] - hull[i];
            if (side.Length < 1e-9) continue;
            var along = side * (1 / side.Length);
            var across = new Point(-along.Y, along.X);
            var (low, high, near, far) = (double.PositiveInfinity, double.NegativeInfinity, double.PositiveInfinity, double.NegativeInfinity);
            foreach (var p in hull)
            {
                var (a, c) = (p.Dot(along), p.Dot(across));
                (low, high) = (Math.Min(low, a), Math.Max(high, a));
                (near, far) = (Math.Min(near, c), Math.Max(far, c));
            }
            if (far - near >= width || high - low < LeastRatio * (far - near)) continue;
            width = far - near;
            var middle = across * ((near + far) / 2);
            best = (middle + along * low, middle + along * high);
        }
        if (width > most + 1e-6) return null;
        var length = best.From.DistanceTo(best.To);
        return around <= 2 * (length + width) * (1 + MostExcess) ? Path.Polyline([best.From, best.To], closed: false) : null;
    }

    private static Path? Bent(Path loop, double around, double most)
    {
        var count = Math.Clamp((int)(around / StepMm), LeastPoints, MostPoints);
        var points = Sampling.Midpoints(loop, around / count, count);
        count = points.Count;
        // The two ends: coarsely among all, then about the best.
        var (from, to) = (0.0, count / 2.0);
        var least = double.PositiveInfinity;
        for (var a = 0; a < count; a += CoarseSteps)
        {
            for (var b = count / 2 - count / 8; b <= count / 2 + count / 8; b += CoarseSteps) Try(a, a + b, CoarsePairs);
        }
        var (nearA, nearB) = (from, to);
        least = double.PositiveInfinity;
        for (var a = nearA - CoarseSteps; a <= nearA + CoarseSteps; a += FineStep)
        {
            for (var b = nearB - CoarseSteps; b <= nearB + CoarseSteps; b += FineStep) Try(a, b, FinePairs);
        }
        var pairs = Pairs(points, from, to, (int)Math.Max(to - from, count - (to - from))).ToList();
        var width = pairs.Max(p => p.A.DistanceTo(p.B));
        if (width > most + SlackMm) return null;
        var middle = pairs.Select(p => Point.Lerp(p.A, p.B, 0.5)).ToArray();
        var path = new Path(middle[0], CurveFit.Open(middle, FitMm, window: 4 * StepMm), closed: false);
        // A middle that is much shorter than a side cut off what winds.
        return path.Length >= LeastRatio * width && path.Length * (1 + MostExcess) + most >= around / 2 ? path : null;

        void Try(double a, double b, int many)
        {
            var sum = 0.0;
            foreach (var (p, q) in Pairs(points, a, b, many))
            {
                sum += p.DistanceTo(q);
                if (sum >= least) return;
            }
            (from, to, least) = (a, b, sum);
        }
    }

    /// <summary>Points of the two sides between two ends, paired by their share of the way, as bows are longer outside than inside.</summary>
    private static IEnumerable<(Point A, Point B)> Pairs(List<Point> points, double from, double to, int many)
    {
        var (one, other) = (to - from, points.Count - (to - from));
        for (var t = 0; t <= many; t++) yield return (At(from + one * t / many), At(from - other * t / many));

        Point At(double index)
        {
            var low = (int)Math.Floor(index);
            return Point.Lerp(points[Around(low)], points[Around(low + 1)], index - low);
        }

        int Around(int i) => ((i % points.Count) + points.Count) % points.Count;
    }
}
