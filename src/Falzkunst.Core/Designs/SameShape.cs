using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Whether two pieces have the same outline, however they are turned, mirrored or drawn.</summary>
public static class SameShape
{
    private const int Samples = 96;

    /// <summary>The other outline is sampled so much finer, so that some sample of it comes near to any beginning.</summary>
    private const int Finer = 6;

    /// <summary>Areas and lengths that differ by more than this share are not compared further.</summary>
    private const double Share = 0.01;

    /// <summary>Distances from the middle agree to this share of the outline's size.</summary>
    private const double Agree = 0.02;

    /// <summary>
    /// Compares the distances of evenly spread points of both outlines from their middles, for every point to begin with and
    /// both ways round (a centroid-distance signature, as in Zhang and Lu 2004).
    /// </summary>
    public static bool Are(Piece a, Piece b)
    {
        if (a.Outline.Path.Equals(b.Outline.Path)) return true;
        var (one, two) = (a.Outline.Path, b.Outline.Path);
        if (!Alike(Math.Abs(one.SignedArea), Math.Abs(two.SignedArea)) || !Alike(one.Length, two.Length)) return false;
        var (s, t) = (Signature(one, Samples), Signature(two, Samples * Finer));
        if (t.Length != Finer * s.Length) return false;
        var slack = Agree * s.Max();
        for (var from = 0; from < t.Length; from++)
        {
            if (Fits(s, t, from, Finer, slack) || Fits(s, t, from, -Finer, slack)) return true;
        }
        return false;
    }

    private static bool Alike(double a, double b) => Math.Abs(a - b) <= Share * Math.Max(a, b);

    private static double[] Signature(Path outline, int samples)
    {
        var points = Sampling.Midpoints(outline, outline.Length / samples, samples);
        var middle = points.Aggregate(default(Point), (sum, p) => sum + p) * (1.0 / points.Count);
        return [.. points.Select(p => p.DistanceTo(middle))];
    }

    private static bool Fits(double[] s, double[] t, int from, int way, double slack)
    {
        for (var i = 0; i < s.Length; i++)
        {
            if (Math.Abs(s[i] - t[((from + way * i) % t.Length + t.Length) % t.Length]) > slack) return false;
        }
        return true;
    }
}
