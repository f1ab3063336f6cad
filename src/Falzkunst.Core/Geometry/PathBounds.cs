namespace Falzkunst.Core.Geometry;

/// <summary>Tight boxes: the extremes of a cubic lie where its derivative, a quadratic, is zero.</summary>
internal static class PathBounds
{
    public static Box Compute(Path path)
    {
        var box = Box.Empty.Include(path.Start);
        var from = path.Start;
        foreach (var s in path.Segments)
        {
            box = box.Include(s.End);
            if (s.IsCubic && !(box.Contains(s.Handle1) && box.Contains(s.Handle2)))
            {
                foreach (var t in Extremes(from.X, s.Handle1.X, s.Handle2.X, s.End.X)) box = box.Include(s.At(from, t));
                foreach (var t in Extremes(from.Y, s.Handle1.Y, s.Handle2.Y, s.End.Y)) box = box.Include(s.At(from, t));
            }
            from = s.End;
        }
        return box;
    }

    private static IEnumerable<double> Extremes(double p0, double p1, double p2, double p3)
    {
        var a = -p0 + 3 * p1 - 3 * p2 + p3;
        var b = 2 * (p0 - 2 * p1 + p2);
        var c = p1 - p0;
        if (Math.Abs(a) < 1e-12)
        {
            if (Math.Abs(b) > 1e-12 && -c / b is > 0 and < 1) yield return -c / b;
            yield break;
        }
        var disc = b * b - 4 * a * c;
        if (disc < 0) yield break;
        var q = -0.5 * (b + (b < 0 ? -1 : 1) * Math.Sqrt(disc));
        if (q / a is > 0 and < 1) yield return q / a;
        if (q != 0 && c / q is > 0 and < 1) yield return c / q;
    }
}
