using Falzkunst.Core.Geometry;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.Optimization;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// The projective map of a photographed page, and how far its lens may have bent it. By Levenberg and Marquardt's method over the
/// centre lines and ends of all arms: the eight numbers of the map from dots to the sheet, and one of radial distortion about the
/// picture's middle (Brown, "Decentering distortion of lenses", 1966, first term), which is held near nothing where the marks do not
/// tell it. What the nine leave open is said as uncertainty.
/// </summary>
/// <param name="Map">From sheet mm to dots.</param>
/// <param name="Nearest">The projective map nearest to it.</param>
/// <param name="UncertainMm">Twice and a half the standard deviation at the worst place, mm.</param>
/// <param name="NearestOffMm">What the nearest projective map cannot follow of the bend, mm.</param>
internal sealed record PhotoFit(PictureMap Map, Projection Nearest, double UncertainMm, double NearestOffMm)
{
    /// <summary>By how much lenses bend the corner of a picture, one standard deviation, as a share of half its diagonal; cameras of telephones correct most of it.</summary>
    private const double UsualBend = 0.02;

    /// <summary>Ends of arms lie on dots that spread and blur; they count for this much less than a stretch of an edge.</summary>
    private const double EndWeight = 0.25;

    private const int Unknowns = 9, Bend = 8;

    /// <param name="arms">What was read of the arms.</param>
    /// <param name="layout">Where they are on the sheet.</param>
    /// <param name="start">From sheet mm to dots, as far as it is known.</param>
    /// <param name="width">Of the picture, dots.</param>
    /// <param name="height">Of the picture, dots.</param>
    /// <param name="spreadMm">How far ink has spread past the edges of a line, mm.</param>
    public static PhotoFit? Of(IReadOnlyCollection<ArmReading> arms, MarkLayout layout, Projection start, int width, int height, double spreadMm)
    {
        var lens = new Lens(new Point(width / 2.0, height / 2.0), new Point(width, height).Length / 2);
        List<(Point At, Point Normal, double Value, double Weight)> seen =
        [
            .. arms.SelectMany(a => a.Middles.Select(m => (m, Axis(a.Arm.IsLevel), a.Arm.Level, 1.0))),
            .. arms.SelectMany(a => a.Ends.Select(e => (e.At, Axis(!a.Arm.IsLevel), EndLevel(a.Arm, e.IsFar, spreadMm), EndWeight))),
        ];
        if (seen.Count < Unknowns * 2) return null;
        var back = Projection.From(Affine.Scale(1 / lens.Half, 1 / lens.Half)).Inverse().Then(Projection.From(Affine.Move(lens.Middle))).Then(start.Inverse());
        var first = Vector<double>.Build.DenseOfArray([back.A / back.I, back.B / back.I, back.C / back.I, back.D / back.I, back.E / back.I, back.F / back.I, back.G / back.I, back.H / back.I, 0]);
        // The bend is held by one more observation, in mm like the others, which counts as much as the scatter of an edge.
        var scatter = 0.02;
        NonlinearMinimizationResult? found = null;
        try
        {
            // The first round with a guess of the scatter, the second with what it left.
            for (var round = 0; round < 2; round++)
            {
                var held = scatter / UsualBend;
                var model = ObjectiveFunction.NonlinearModel(
                    (p, x) => Vector<double>.Build.Dense(seen.Count + 1, i => i == seen.Count ? p[Bend] * held : seen[i].Weight * (Back(p, lens, seen[i].At).Dot(seen[i].Normal) - seen[i].Value)),
                    Vector<double>.Build.Dense(seen.Count + 1, i => i), Vector<double>.Build.Dense(seen.Count + 1), accuracyOrder: 4);
                found = new LevenbergMarquardtMinimizer(gradientTolerance: 1e-14, stepTolerance: 1e-14, functionTolerance: 1e-14, maximumIterations: 200).FindMinimum(model, found?.MinimizingPoint ?? first);
                scatter = Math.Max(0.002, Math.Sqrt(found.ModelInfoAtMinimum.Value * 2 / Math.Max(1, seen.Count - Unknowns)));
            }
        }
        catch (Exception e) when (e is MathNet.Numerics.Optimization.OptimizationException or ArithmeticException or ArgumentException or InvalidOperationException)
        {
            return null;
        }
        var solved = found!.MinimizingPoint;
        return Told(solved, lens, layout, seen, scatter);
    }

    private static PhotoFit? Told(Vector<double> solved, Lens lens, MarkLayout layout, List<(Point At, Point Normal, double Value, double Weight)> seen, double scatter)
    {
        var held = scatter / UsualBend;
        var jacobian = Matrix<double>.Build.Dense(seen.Count + 1, Unknowns);
        for (var j = 0; j < Unknowns; j++)
        {
            var (up, down, h) = Nudged(solved, j);
            for (var i = 0; i < seen.Count; i++) jacobian[i, j] = seen[i].Weight * (Back(up, lens, seen[i].At) - Back(down, lens, seen[i].At)).Dot(seen[i].Normal) / (2 * h);
            jacobian[seen.Count, j] = j == Bend ? held : 0;
        }
        var normal = jacobian.TransposeThisAndMultiply(jacobian);
        var spread = normal.PseudoInverse() * (scatter * scatter);
        // Numbers of the map back are over dots from the picture's middle, in halves of its diagonal.
        var toUnits = Projection.From(Affine.Move(lens.Middle * -1).Then(Affine.Scale(1 / lens.Half, 1 / lens.Half)));
        var back = toUnits.Then(new Projection(solved[0], solved[1], solved[2], solved[3], solved[4], solved[5], solved[6], solved[7], 1));
        if (!(back.ScaleAt(lens.Middle) > 1e-9)) return null;
        var map = new PictureMap(back.Inverse().Positive(layout.Centre), solved[Bend], lens.Middle, lens.Half);
        var sheet = new List<Point>();
        for (var j = 0; j <= 6; j++) for (var i = 0; i <= 6; i++) sheet.Add(new Point(layout.Width * i / 6, layout.Height * j / 6));
        var dots = sheet.Select(map.Apply).ToList();
        if (dots.Any(p => !p.IsFinite) || ProjectionFit.Of(sheet, dots) is not { } nearest) return null;
        nearest = nearest.Positive(layout.Centre);
        var uncertain = sheet.Zip(dots).Max(p =>
        {
            var change = Matrix<double>.Build.Dense(2, Unknowns);
            for (var j = 0; j < Unknowns; j++)
            {
                var (up, down, h) = Nudged(solved, j);
                var by = (Back(up, lens, p.Second) - Back(down, lens, p.Second)) * (1 / (2 * h));
                (change[0, j], change[1, j]) = (by.X, by.Y);
            }
            return ReadingChecks.Deviations * Math.Sqrt(Math.Max(0, (change * spread * change.Transpose()).Trace()));
        });
        var off = sheet.Zip(dots).Max(p => nearest.Apply(p.First).DistanceTo(p.Second) / map.ScaleAt(p.First));
        return double.IsFinite(uncertain) && double.IsFinite(off) ? new PhotoFit(map, nearest, uncertain, off) : null;
    }

    private static (Vector<double> Up, Vector<double> Down, double By) Nudged(Vector<double> p, int j)
    {
        var h = Math.Max(1e-7, Math.Abs(p[j]) * 1e-6);
        var (up, down) = (p.Clone(), p.Clone());
        (up[j], down[j]) = (p[j] + h, p[j] - h);
        return (up, down, h);
    }

    /// <summary>From a dot to the sheet.</summary>
    private static Point Back(Vector<double> p, Lens lens, Point dot)
    {
        var at = (PictureMap.Straightened(dot, p[Bend], lens.Middle, lens.Half) - lens.Middle) * (1 / lens.Half);
        var by = p[6] * at.X + p[7] * at.Y + 1;
        return new((p[0] * at.X + p[1] * at.Y + p[2]) / by, (p[3] * at.X + p[4] * at.Y + p[5]) / by);
    }

    private static Point Axis(bool isY) => isY ? new(0, 1) : new(1, 0);

    private static double EndLevel(LayoutArm arm, bool isFar, double spread) =>
        arm.At(isFar ? arm.Mark.ArmMm + spread : -spread, 0) is var p && arm.IsLevel ? p.X : p.Y;

    /// <summary>The middle of the picture and half its diagonal, dots.</summary>
    private sealed record Lens(Point Middle, double Half);
}
