namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// A straight line y = <paramref name="Mean"/> + <paramref name="Slope"/> (x - <paramref name="Middle"/>) through points of which some
/// are wrong: the Theil-Sen slope to begin with, then least squares again and again with Tukey's biweight (Huber, "Robust
/// Statistics", 1981).
/// </summary>
/// <param name="Slope">Rise by run.</param>
/// <param name="Mean">Height at the middle.</param>
/// <param name="Middle">Mean run of the points.</param>
/// <param name="IsIn">Which points it goes by.</param>
internal sealed record RobustLine(double Slope, double Mean, double Middle, bool[] IsIn)
{
    /// <summary>Tukey's constant: with it an undisturbed normal sample loses 5 % of its efficiency.</summary>
    private const double Tukey = 4.685;

    private const int Rounds = 6;

    public double At(double x) => Mean + Slope * (x - Middle);

    /// <param name="points">At least two, with different x.</param>
    /// <param name="leastScatter">Scatter below this is taken as this, so that points that fit are not thrown out over nothing.</param>
    public static RobustLine Fit(ReadOnlySpan<(double X, double Y)> points, double leastScatter)
    {
        var (slope, mean, middle) = Start(points);
        var weights = new double[points.Length];
        for (var round = 0; round < Rounds; round++)
        {
            var off = new double[points.Length];
            for (var i = 0; i < off.Length; i++) off[i] = Math.Abs(points[i].Y - mean - slope * (points[i].X - middle));
            // The median of absolute values of a normal distribution is 0.6745 of its deviation.
            var limit = Tukey * Math.Max(leastScatter, off.Order().ElementAt(off.Length / 2) / 0.6745);
            for (var i = 0; i < off.Length; i++) weights[i] = off[i] < limit ? Math.Pow(1 - off[i] * off[i] / (limit * limit), 2) : 0;
            double w = 0, wx = 0, wy = 0;
            for (var i = 0; i < off.Length; i++) (w, wx, wy) = (w + weights[i], wx + weights[i] * points[i].X, wy + weights[i] * points[i].Y);
            if (w < 2) break;
            (middle, mean) = (wx / w, wy / w);
            double xx = 0, xy = 0;
            for (var i = 0; i < off.Length; i++) (xx, xy) = (xx + weights[i] * (points[i].X - middle) * (points[i].X - middle), xy + weights[i] * (points[i].X - middle) * (points[i].Y - mean));
            if (xx > 0) slope = xy / xx;
        }
        return new RobustLine(slope, mean, middle, [.. weights.Select(v => v > 0)]);
    }

    /// <summary>Medians of the slopes between points half the sample apart, and of what they leave.</summary>
    private static (double Slope, double Mean, double Middle) Start(ReadOnlySpan<(double X, double Y)> points)
    {
        var apart = points.Length / 2;
        var slopes = new List<double>();
        for (var i = 0; i + apart < points.Length; i++) slopes.Add((points[i + apart].Y - points[i].Y) / (points[i + apart].X - points[i].X));
        slopes.Sort();
        var slope = slopes[slopes.Count / 2];
        double middle = 0;
        foreach (var (x, _) in points) middle += x / points.Length;
        var heights = new List<double>();
        foreach (var (x, y) in points) heights.Add(y - slope * (x - middle));
        heights.Sort();
        return (slope, heights[heights.Count / 2], middle);
    }
}
