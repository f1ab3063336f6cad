using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using MathNet.Numerics.LinearAlgebra;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>What is read of one vernier.</summary>
/// <param name="Place">Which place of the page, from 0.</param>
/// <param name="IsAcross">It measures along x; otherwise along y.</param>
/// <param name="Mm">How far the cut lies beyond the print, mm.</param>
public sealed record VernierReading(int Place, bool IsAcross, double Mm);

/// <summary>What a page of verniers tells of a machine.</summary>
/// <param name="Error">From where the blade is sent to where it lands, mm of the sheet.</param>
/// <param name="UncertainMm">What is not known of it at the worst place, in 95 of 100 cases, mm.</param>
/// <param name="WorstMm">How far off the blade is at the worst place of the page, mm.</param>
public sealed record VernierResult(Affine Error, double UncertainMm, double WorstMm);

/// <summary>
/// A page with verniers on both axes at five places: printed ticks two millimetres apart, and hairlines that the machine cuts beside
/// them 1.9 mm apart. The tick that a hairline meets says how far the cut lies beyond the print, in tenths of a millimetre.
/// </summary>
public static class VernierPage
{
    /// <summary>Ticks to each side of the middle one, and how far ticks and hairlines are apart, mm.</summary>
    public const int Side = 10;
    public const double PitchMm = 2, CutPitchMm = 1.9;

    /// <summary>Printed ticks and cut lines are so long and so wide, and their rows overlap by so much, mm.</summary>
    public const double TickMm = 5, TickWidthMm = 0.2, HairMm = 0.1, OverlapMm = 1.5;

    /// <summary>A vernier that is read by eye is known to half a tenth; its pair of one place and axis by scan to this, one standard deviation, mm.</summary>
    public const double ByEyeMm = 0.04, ByScanMm = 0.015;

    /// <summary>What scale and turn of a machine usually are where they were not measured, one standard deviation, mm to the mm.</summary>
    private const double UsualSlope = 0.0006;

    public static readonly ImmutableArray<string> PlaceNames = ["middle", "upper left", "upper right", "lower left", "lower right"];

    /// <summary>The middles of the five places on a page, mm; the middle one first.</summary>
    public static ImmutableArray<Point> Places(double width, double height) =>
    [
        new(width / 2, height / 2), new(width * 0.28, height * 0.25), new(width * 0.72, height * 0.25), new(width * 0.28, height * 0.75), new(width * 0.72, height * 0.75),
    ];

    /// <summary>The printed ticks.</summary>
    public static IEnumerable<Box> Ticks(double width, double height) => Verniers(width, height).SelectMany(v => Enumerable.Range(-Side, 2 * Side + 1).Select(i => Line(v.Zero, v.IsAcross, i * PitchMm, -TickMm * (i % 5 == 0 ? 1.3 : 1), 0, TickWidthMm)));

    /// <summary>The hairlines that the machine cuts, each by both its ends, mm.</summary>
    public static IEnumerable<(Point From, Point To)> Hairs(double width, double height) => Verniers(width, height).SelectMany(v => Enumerable.Range(-Side, 2 * Side + 1)
        .Select(i => (On(v.Zero, v.IsAcross, i * CutPitchMm, -OverlapMm), On(v.Zero, v.IsAcross, i * CutPitchMm, TickMm))));

    /// <summary>Every vernier: its place, its axis, and the middle of its zero tick's inner end.</summary>
    public static IEnumerable<(int Place, bool IsAcross, Point Zero)> Verniers(double width, double height) =>
        Places(width, height).SelectMany((p, i) => new[] { (i, true, p + new Point(0, -14)), (i, false, p + new Point(-14, 14)) });

    /// <summary>A place of a vernier by its distance along the measured axis and from the ticks' inner ends.</summary>
    private static Point On(Point zero, bool isAcross, double along, double off) => isAcross ? zero + new Point(along, off) : zero + new Point(off, along);

    private static Box Line(Point zero, bool isAcross, double along, double from, double to, double width) =>
        Box.Around([On(zero, isAcross, along - width / 2, from), On(zero, isAcross, along + width / 2, to)]);

    /// <summary>Least squares for offset, scale, turn and shear; for the offset alone where too few places were read to tell them.</summary>
    /// <param name="readings">At least one of each axis.</param>
    /// <param name="width">Of the page, mm.</param>
    /// <param name="height">Of the page, mm.</param>
    /// <param name="scatterMm">How well one vernier was read, one standard deviation, mm.</param>
    public static VernierResult? Solve(IReadOnlyCollection<VernierReading> readings, double width, double height, double scatterMm)
    {
        var places = Places(width, height);
        if (Row([.. readings.Where(r => r.IsAcross)], places, scatterMm) is not { } x || Row([.. readings.Where(r => !r.IsAcross)], places, scatterMm) is not { } y) return null;
        // Rows are over places from the page's middle.
        var about = Affine.Move(places[0] * -1).Then(new Affine(1 + x.Row[1], y.Row[1], x.Row[2], 1 + y.Row[2], x.Row[0], y.Row[0])).Then(Affine.Move(places[0]));
        var corners = new[] { new Point(0, 0), new(width, 0), new(0, height), new(width, height) }.Select(p => Point.Lerp(places[0], p, 0.85)).ToList();
        double Spread(Point p)
        {
            var at = Vector<double>.Build.DenseOfArray([1, p.X - places[0].X, p.Y - places[0].Y]);
            return ReadingChecks.Deviations * Math.Sqrt(at * x.Spread * at + at * y.Spread * at);
        }
        return new VernierResult(about, corners.Max(Spread), corners.Max(p => about.Apply(p).DistanceTo(p)));
    }

    private static (Vector<double> Row, Matrix<double> Spread)? Row(List<VernierReading> readings, ImmutableArray<Point> places, double scatter)
    {
        if (readings.Count == 0) return null;
        // What was not measured is held near nothing by what machines usually do.
        var prior = 1 / (UsualSlope * UsualSlope);
        var normal = Matrix<double>.Build.DenseOfDiagonalArray([0, prior, prior]);
        var right = Vector<double>.Build.Dense(3);
        foreach (var reading in readings)
        {
            var at = places[reading.Place] - places[0];
            var row = Vector<double>.Build.DenseOfArray([1, at.X, at.Y]);
            normal += row.OuterProduct(row) / (scatter * scatter);
            right += row * (reading.Mm / (scatter * scatter));
        }
        var spread = normal.Inverse();
        return (spread * right, spread);
    }

    /// <summary>
    /// Reads all verniers of a scan: along each, the mean darkness of a strip that only the hairlines cross, and the shift of a comb of
    /// their pitch that lies on most of it, to a fraction of a dot by a parabola.
    /// </summary>
    /// <param name="picture">The scan of the printed and cut page.</param>
    /// <param name="page">Where the sheet is on it.</param>
    /// <param name="width">Of the page, mm.</param>
    /// <param name="height">Of the page, mm.</param>
    /// <returns>The verniers whose hairlines are seen; those alone.</returns>
    public static ImmutableArray<VernierReading> Read(InkRaster picture, ReadPage page, double width, double height) =>
        [.. Verniers(width, height).Select(v => (v, Mm: Comb(picture, page, v.Zero, v.IsAcross))).Where(r => r.Mm is not null).Select(r => new VernierReading(r.v.Place, r.v.IsAcross, r.Mm!.Value))];

    private static double? Comb(InkRaster picture, ReadPage page, Point zero, bool isAcross)
    {
        const double Step = 0.01, Reach = Side * CutPitchMm + 2.5;
        var profile = new double[(int)(2 * Reach / Step) + 1];
        const int Rows = 24;
        for (var i = 0; i < profile.Length; i++)
        {
            for (var k = 0; k < Rows; k++)
            {
                var dot = page.Map.Apply(On(zero, isAcross, -Reach + i * Step, 0.6 + (TickMm - 1.2) * (k + 0.5) / Rows));
                profile[i] += picture.At(dot.X, dot.Y) / Rows;
            }
        }
        // Against the light round it, so that light that falls away does not pull the comb.
        var around = (int)(CutPitchMm / Step);
        var sums = new double[profile.Length + 1];
        for (var i = 0; i < profile.Length; i++) sums[i + 1] = sums[i] + profile[i];
        double At(int i) => profile[i] - (sums[Math.Min(profile.Length, i + around)] - sums[Math.Max(0, i - around)]) / (Math.Min(profile.Length, i + around) - Math.Max(0, i - around));
        const int Most = 110;
        var scores = new double[2 * Most + 1];
        for (var d = -Most; d <= Most; d++)
        {
            for (var i = -Side; i <= Side; i++)
            {
                // A tooth is as wide as a dot or a hairline.
                var at = (int)Math.Round((Reach + i * CutPitchMm) / Step) + d;
                for (var w = -6; w <= 6; w++) scores[d + Most] += At(Math.Clamp(at + w, 0, profile.Length - 1)) / 13;
            }
            scores[d + Most] /= 2 * Side + 1;
        }
        var best = Array.IndexOf(scores, scores.Max());
        var usual = scores.Select(Math.Abs).Order().ElementAt(scores.Length / 2);
        if (best is 0 or 2 * Most || scores[best] < 2 || scores[best] < 3 * usual) return null;
        // A parabola through points well down both flanks.
        var reach = Math.Min(8, Math.Min(best, 2 * Most - best));
        var (l, m, r) = (scores[best - reach], scores[best], scores[best + reach]);
        return (best - Most + reach * (l - r) / (2 * (l - 2 * m + r))) * Step;
    }
}
