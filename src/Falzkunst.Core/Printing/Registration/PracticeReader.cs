using System.Collections.Immutable;
using System.Text;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>What goes wrong with a page on the practice machine.</summary>
public enum PracticeTrouble
{
    /// <summary>As it comes: mostly nothing, now and then one of the others.</summary>
    Chance,
    Nothing,

    /// <summary>A crumb of paper lies on a mark.</summary>
    Crumb,

    /// <summary>The printer left a mark half printed.</summary>
    Faint,

    /// <summary>The page lies the wrong way round.</summary>
    WrongWay,
}

/// <summary>A page as it lies on the practice machine.</summary>
/// <param name="Lies">Where its print really is: from sheet mm to mm from the mat's corner.</param>
/// <param name="Trouble">What is wrong with it.</param>
/// <param name="Blade">Where the blade lands when it is sent somewhere, mm from the mat's corner; nobody is told.</param>
public sealed record PracticePage(Affine Lies, PracticeTrouble Trouble, Affine Blade);

/// <summary>
/// The eye of the practice machine: pages that printers print a little too large and askew, that hands lay a little beside the corner,
/// and a blade that sits beside the eye. All of it follows from names and numbers, so that the same page always lies the same way.
/// </summary>
public static class PracticeReader
{
    /// <summary>Dots to the millimetre of its pictures: 200 to the inch.</summary>
    public const double DotsPerMm = 200 / 25.4;

    /// <summary>Its pictures show so much beyond the page, mm.</summary>
    public const double AroundMm = 8;

    /// <summary>What printers do: scale and shear.</summary>
    private const double PrinterScale = 0.003, PrinterSkewDegrees = 0.08, FeedSlip = 0.001;

    /// <summary>How hands lay a page: beside the corner, mm, and askew.</summary>
    private const double LaidMm = 1.5, LaidDegrees = 0.9;

    /// <summary>How the blade sits beside the eye, mm; its scale and turn; and how it lands again, one standard deviation, mm.</summary>
    private const double BladeMm = 0.45, BladeScale = 0.0006, BladeDegrees = 0.02, AgainMm = 0.012;

    /// <summary>Of so many pages as they come one has a trouble.</summary>
    private const int OneIn = 6;

    /// <summary>A page laid on the machine.</summary>
    /// <param name="layout">Its marks.</param>
    /// <param name="machine">Key of the machine.</param>
    /// <param name="printer">Key of the printer.</param>
    /// <param name="seed">Of the page.</param>
    /// <param name="laid">How often it has been laid.</param>
    /// <param name="trouble">What goes wrong.</param>
    public static PracticePage Lay(MarkLayout layout, string machine, string printer, int seed, int laid, PracticeTrouble trouble)
    {
        var (printed, by, hand) = (new Random(Number("printer", printer)), new Random(Number("machine", machine)), new Random(unchecked(seed * 31 + laid)));
        // A crumb is brushed off and a turned page turned back when it is laid anew; what was not printed stays so.
        var chance = new Random(seed).Next(OneIn * 3) switch { 0 => PracticeTrouble.Crumb, 1 => PracticeTrouble.Faint, 2 => PracticeTrouble.WrongWay, _ => PracticeTrouble.Nothing };
        var now = trouble == PracticeTrouble.Chance ? chance : trouble;
        if (laid > 1 && now != PracticeTrouble.Faint) now = PracticeTrouble.Nothing;
        var print = new Affine(1, 0, Math.Tan(Within(printed, PrinterSkewDegrees) * Math.PI / 180), 1, 0, 0)
            .Then(Affine.Scale(1 + Within(printed, PrinterScale), 1 + Within(printed, PrinterScale) + Within(new Random(seed), FeedSlip))).About(layout.Centre);
        if (now == PracticeTrouble.WrongWay) print = print.Then(Affine.Turn(180).About(layout.Centre));
        var laidSo = Affine.Turn(Within(hand, LaidDegrees)).About(layout.Centre).Then(Affine.Move(Within(hand, LaidMm), Within(hand, LaidMm)));
        var blade = Affine.Scale(1 + Within(by, BladeScale), 1 + Within(by, BladeScale)).Then(Affine.Turn(Within(by, BladeDegrees))).About(layout.Centre)
            .Then(Affine.Move(Within(by, BladeMm) + Normal(hand) * AgainMm, Within(by, BladeMm) + Normal(hand) * AgainMm));
        return new PracticePage(print.Then(laidSo), now, blade);
    }

    /// <summary>The picture that the machine takes of a page: its corner is <see cref="AroundMm"/> outside the mat's.</summary>
    /// <param name="page">How it lies.</param>
    /// <param name="layout">Its marks.</param>
    /// <param name="areas">What is printed on it, mm of the sheet.</param>
    /// <param name="seed">Of the page.</param>
    /// <param name="looked">How often it has been looked at.</param>
    public static InkRaster Look(PracticePage page, MarkLayout layout, IReadOnlyList<(ImmutableArray<Point> Outline, double Darkness)> areas, int seed, int looked)
    {
        var random = new Random(unchecked(seed * 17 + looked));
        var mark = layout.Marks[new Random(seed).Next(layout.Marks.Length)];
        var inward = new Point(mark.Right, mark.Down);
        var crumb = mark.Outer + new Point(inward.X * mark.ArmMm * 0.5, inward.Y * mark.LineMm);
        ImmutableArray<Smudge> smudges = page.Trouble switch
        {
            // A crumb hides the ink below it and has a grey of its own.
            PracticeTrouble.Crumb => [new Smudge(crumb, mark.ArmMm * 0.28, -1, true), new Smudge(crumb, mark.ArmMm * 0.28, 0.35, true)],
            PracticeTrouble.Faint => [new Smudge(mark.Outer + new Point(0, inward.Y * mark.ArmMm * 0.7), mark.ArmMm * 0.4, -0.97, true)],
            _ => [],
        };
        var faults = new ScanFaults(
            (int)((layout.Width + 2 * AroundMm) * DotsPerMm), (int)((layout.Height + 2 * AroundMm) * DotsPerMm),
            Projection.From(page.Lies.Then(OnPicture)), unchecked(seed * 13 + looked))
        {
            SpreadMm = 0.03 + 0.02 * random.NextDouble(),
            BlurDots = 0.7 + 0.4 * random.NextDouble(),
            Noise = 0.02 + 0.03 * random.NextDouble(),
            LightFall = 0.25 * random.NextDouble(),
            LightDegrees = random.Next(360),
            Smudges = smudges,
        };
        return PageScan.Take(layout, areas, faults);
    }

    /// <summary>From mm from the mat's corner to dots of the picture.</summary>
    public static Affine OnPicture => Affine.Move(AroundMm, AroundMm).Then(Affine.Scale(DotsPerMm, DotsPerMm));

    private static double Within(Random random, double most) => (random.NextDouble() * 2 - 1) * most;

    /// <summary>Box and Muller's method.</summary>
    private static double Normal(Random random) => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    /// <summary>A number that follows from a name on every machine (FNV-1a).</summary>
    private static int Number(string kind, string name) => unchecked((int)Encoding.UTF8.GetBytes($"{kind} {name}").Aggregate(2166136261u, (hash, b) => (hash ^ b) * 16777619));
}
