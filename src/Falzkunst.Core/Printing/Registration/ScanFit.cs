using Falzkunst.Core.Geometry;
using MathNet.Numerics.LinearAlgebra;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// The affine map of a scanned page, by least squares over the centre lines of all arms: a level arm says where y is on the sheet, an
/// upright one where x is, each at many dots; so the map back from the picture comes out of two linear problems of three unknowns.
/// </summary>
/// <param name="Map">From sheet mm to dots.</param>
/// <param name="SpreadOfX">Covariance of the map back's row for x, mm².</param>
/// <param name="SpreadOfY">The same for y.</param>
internal sealed record ScanFit(Affine Map, Matrix<double> SpreadOfX, Matrix<double> SpreadOfY)
{
    /// <summary>What is measured scatters by this much at least, dots: the grid of a scanner is not known better.</summary>
    private const double LeastScatterDots = 0.02;

    public static ScanFit? Of(IReadOnlyCollection<ArmReading> arms, double dotsPerMm)
    {
        if (Row([.. arms.Where(a => !a.Arm.IsLevel)], dotsPerMm) is not { } x || Row([.. arms.Where(a => a.Arm.IsLevel)], dotsPerMm) is not { } y) return null;
        var back = new Affine(x.Row[0], y.Row[0], x.Row[1], y.Row[1], x.Row[2], y.Row[2]);
        return Math.Abs(back.Determinant) < 1e-12 ? null : new ScanFit(back.Inverse(), x.Spread, y.Spread);
    }

    /// <summary>By how much the map may be off at a place of the sheet, one standard deviation, mm.</summary>
    public double ScatterAt(Point sheet)
    {
        var dots = Map.Apply(sheet);
        var at = Vector<double>.Build.DenseOfArray([dots.X, dots.Y, 1]);
        return Math.Sqrt(Math.Max(0, at * SpreadOfX * at + at * SpreadOfY * at));
    }

    private static (Vector<double> Row, Matrix<double> Spread)? Row(List<ArmReading> arms, double dotsPerMm)
    {
        var points = arms.SelectMany(a => a.Middles.Select(m => (m, a.Arm.Level))).ToList();
        if (points.Count < 6) return null;
        // About the middle of the points, in thousands of dots, so that the three unknowns are of one size.
        var middle = points.Aggregate(new Point(0, 0), (sum, p) => sum + p.m) * (1.0 / points.Count);
        const double Unit = 1000;
        var a = Matrix<double>.Build.Dense(points.Count, 3, (i, j) => j switch { 0 => (points[i].m.X - middle.X) / Unit, 1 => (points[i].m.Y - middle.Y) / Unit, _ => 1 });
        var b = Vector<double>.Build.Dense(points.Count, i => points[i].Level);
        var normal = a.TransposeThisAndMultiply(a);
        if (normal.ConditionNumber() > 1e10) return null;
        var solved = a.QR().Solve(b);
        var scatter = Math.Max(Math.Pow(LeastScatterDots / dotsPerMm, 2), (a * solved - b).DotProduct(a * solved - b) / (points.Count - 3));
        // Back to plain dots: a row r over (dots - middle) / unit is a row over dots.
        var plain = Matrix<double>.Build.DenseOfArray(new[,] { { 1 / Unit, 0, 0 }, { 0, 1 / Unit, 0 }, { -middle.X / Unit, -middle.Y / Unit, 1 } });
        return (plain * solved, plain * (normal.Inverse() * scatter) * plain.Transpose());
    }
}
