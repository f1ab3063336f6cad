using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Core.Running;

/// <summary>One look of the machine at a printed page.</summary>
/// <param name="Step">Step of the plan at which it was.</param>
/// <param name="Laid">How often the page had been laid by then.</param>
/// <param name="Looked">How often it had been looked at since.</param>
/// <param name="Trouble">What was to go wrong.</param>
/// <param name="Refused">Why the marks were not taken for read; null where they were.</param>
/// <param name="Lies">Where the print is: from sheet mm to mm from the mat's corner; null where that is not known.</param>
/// <param name="RemainsMm">Cut and print lie no farther apart than this in 95 of 100 cases at the worst place, mm.</param>
/// <param name="Worst">The places where they may lie farthest apart.</param>
/// <param name="IsCalibrated">The machine was measured with this printer before, and is corrected by it.</param>
/// <param name="IsByHand">Somebody showed the marks; the machine did not find them.</param>
public sealed record PageReading(
    int Step, int Laid, int Looked, PracticeTrouble Trouble, MarkRefusal? Refused, Affine? Lies, double RemainsMm, ImmutableArray<CutPlace> Worst, bool IsCalibrated, bool IsByHand = false)
{
    /// <summary>Where the blade is sent for a place of the sheet, mm from the mat's corner: where the print lies, corrected by what was measured of the machine by then.</summary>
    public Affine? Cut { get; init; }
}

/// <summary>The practice machine's looks at printed pages, and where it cuts them then.</summary>
public static class PageReader
{
    /// <summary>How well somebody shows a mark on an enlarged picture, mm.</summary>
    public const double ByHandMm = 0.4;

    /// <summary>The marks that a stop asks for, as they are seen.</summary>
    public static MarkLayout LayoutOf(FindMarks work)
    {
        var layout = MarkLayout.Of(work.Marks, work.Frame, work.Width, work.Height);
        return work.IsBack ? layout.Flipped() : layout;
    }

    /// <summary>Looks at the page that lies on the machine.</summary>
    /// <param name="plan">The run, whose outer cuts are where cut and print must agree.</param>
    /// <param name="work">The marks.</param>
    /// <param name="machine">The machine with what was measured of it.</param>
    /// <param name="seed">Of the page.</param>
    /// <param name="laid">How often it has been laid.</param>
    /// <param name="looked">How often it has been looked at since.</param>
    /// <param name="trouble">What goes wrong.</param>
    public static PageReading Look(RunPlan plan, FindMarks work, Machine machine, int seed, int laid, int looked, PracticeTrouble trouble)
    {
        var layout = LayoutOf(work);
        var read = MarkFinder.Find(Picture(plan, work, machine, seed, laid, looked, trouble), layout, PracticeReader.DotsPerMm, PictureTaker.Scanner);
        if (read.Page is not { } page) return new PageReading(0, laid, looked, trouble, read.Refused, null, 0, [], false);
        return Told(plan, work, machine, page.Map.Straight.ToAffine().Then(PracticeReader.OnPicture.Inverse()), page.UncertainAt) with { Laid = laid, Looked = looked, Trouble = trouble };
    }

    /// <summary>The marks as somebody has shown them: outer corners, mm from the mat's corner.</summary>
    /// <exception cref="ArgumentException">They lie on one line, or otherwise than a printer could have put them.</exception>
    public static PageReading ByHand(RunPlan plan, FindMarks work, Machine machine, IReadOnlyList<Point> shown, int laid, int looked, PracticeTrouble trouble)
    {
        var marks = LayoutOf(work).Marks;
        if (shown.Count < MarkLayout.LeastMarks || !shown.All(s => s.IsFinite)) throw new ArgumentException("Three marks are needed.", nameof(shown));
        var lies = Affine.Through((marks[0].Outer, marks[1].Outer, marks[2].Outer), (shown[0], shown[1], shown[2]));
        var faults = PageFaults.Of(lies);
        if (!(Math.Abs(faults.ScaleX - 1) < 0.03 && Math.Abs(faults.ScaleY - 1) < 0.03 && Math.Abs(faults.SkewDegrees) < 1.5)) throw new ArgumentException("No printer has put marks so.", nameof(shown));
        return Told(plan, work, machine, lies, _ => ByHandMm) with { Laid = laid, Looked = looked, Trouble = trouble, IsByHand = true };
    }

    /// <summary>The picture that the machine takes.</summary>
    public static InkRaster Picture(RunPlan plan, FindMarks work, Machine machine, int seed, int laid, int looked, PracticeTrouble trouble)
    {
        var layout = LayoutOf(work);
        var areas = OutlinesOf(plan, work).Select(o => (o.Outline.ToImmutableArray(), 0.18)).ToList();
        var side = SideOf(work, seed);
        return PracticeReader.Look(PracticeReader.Lay(layout, machine.Key, work.Printer, side, laid, trouble), layout, areas, side, looked);
    }

    /// <summary>Each side went through the printer on its own, and is laid on its own.</summary>
    private static int SideOf(FindMarks work, int seed) => work.IsBack ? ~seed : seed;

    /// <summary>How far cut and print of a practice page really lie apart, mm, at a place of the sheet.</summary>
    public static Func<Point, double> TrulyApart(FindMarks work, Machine machine, PageReading reading, int seed)
    {
        var page = PracticeReader.Lay(LayoutOf(work), machine.Key, work.Printer, SideOf(work, seed), reading.Laid, reading.Trouble);
        var cut = (reading.Cut ?? reading.Lies!.Value).Then(page.Blade);
        return at => cut.Apply(at).DistanceTo(page.Lies.Apply(at));
    }

    /// <summary>Where the blade is sent for a place of the sheet, mm from the mat's corner.</summary>
    public static Affine CutMap(Affine lies, Machine machine, string printer) => machine.CalibrationFor(printer) is { } calibration ? lies.Then(calibration.Error.Inverse()) : lies;

    /// <summary>What is cut of each copy, mm of the sheet as it is seen.</summary>
    public static IEnumerable<(string Piece, int Copy, IEnumerable<Point> Outline)> OutlinesOf(RunPlan plan, FindMarks work)
    {
        var longest = plan.Passes.Where(p => p.Operation == Designs.Operation.Cut).SelectMany(p => p.Lines.Select(l => (Line: l, p.FaceDown)))
            .GroupBy(l => (l.Line.Piece, l.Line.Copy)).Select(g => g.MaxBy(l => l.Line.Strokes.Sum(s => s.Bounds.Area)));
        foreach (var (line, faceDown) in longest)
        {
            // What runs face down is mirrored in the plan already.
            Point Seen(Point p) => faceDown == work.IsBack ? p : new Point(work.Width - p.X, p.Y);
            yield return (line.Piece, line.Copy, [.. line.Strokes.SelectMany(s => s.Flat.ToArray()).Select(Seen)]);
        }
    }

    private static PageReading Told(RunPlan plan, FindMarks work, Machine machine, Affine lies, Func<Point, double> uncertain)
    {
        var calibration = machine.CalibrationFor(work.Printer);
        var worst = CutToPrint.Worst(OutlinesOf(plan, work), p => uncertain(p) + (calibration?.UncertainMm ?? Calibration.UnknownMm));
        return new PageReading(0, 0, 0, PracticeTrouble.Chance, null, lies, worst.IsEmpty ? uncertain(new Point(work.Width, work.Height)) : worst[0].Mm, worst, calibration is not null) { Cut = CutMap(lies, machine, work.Printer) };
    }
}
