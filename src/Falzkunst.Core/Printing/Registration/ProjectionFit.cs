using Falzkunst.Core.Geometry;
using MathNet.Numerics.LinearAlgebra;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>The projective map that takes points nearest to others: the normalised direct linear transform (Hartley, "In defense of the eight-point algorithm", 1997).</summary>
internal static class ProjectionFit
{
    /// <param name="from">At least four, no three on a line.</param>
    /// <param name="to">As many.</param>
    /// <returns>Null where they tell none.</returns>
    public static Projection? Of(IReadOnlyList<Point> from, IReadOnlyList<Point> to)
    {
        var (one, other) = (Normal(from), Normal(to));
        var a = Matrix<double>.Build.Dense(Math.Max(9, from.Count * 2), 9);
        for (var i = 0; i < from.Count; i++)
        {
            var (p, q) = (one.Apply(from[i]), other.Apply(to[i]));
            a.SetRow(2 * i, [p.X, p.Y, 1, 0, 0, 0, -q.X * p.X, -q.X * p.Y, -q.X]);
            a.SetRow(2 * i + 1, [0, 0, 0, p.X, p.Y, 1, -q.Y * p.X, -q.Y * p.Y, -q.Y]);
        }
        var svd = a.Svd();
        var h = svd.VT.Row(8);
        if (svd.S[7] < svd.S[0] * 1e-9 || Math.Abs(h[8]) < 1e-12) return null;
        h /= h[8];
        return Projection.From(one).Then(new Projection(h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], 1)).Then(Projection.From(other.Inverse()));
    }

    private static Affine Normal(IReadOnlyList<Point> points)
    {
        var middle = points.Aggregate(new Point(0, 0), (sum, p) => sum + p) * (1.0 / points.Count);
        var scale = Math.Sqrt(2) / Math.Max(1e-12, points.Average(p => p.DistanceTo(middle)));
        return Affine.Move(middle * -1).Then(Affine.Scale(scale, scale));
    }
}
