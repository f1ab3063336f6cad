using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Core.Running;

/// <summary>A page of verniers that the practice machine has cut.</summary>
/// <param name="Lies">Where the machine took the print to be, mm from the mat's corner.</param>
/// <param name="Cut">Where its cuts lie on the sheet: from sheet mm, where they were meant, to sheet mm.</param>
/// <param name="Former">The correction that was applied while it was cut.</param>
public sealed record PracticeVerniers(Affine Lies, Affine Cut, Affine Former)
{
    /// <summary>Lets the practice machine read the page's marks and cut its hairlines.</summary>
    /// <param name="marks">How its marks look.</param>
    /// <param name="width">Of the page, mm.</param>
    /// <param name="height">Of the page, mm.</param>
    /// <param name="machine">The machine with what was measured of it.</param>
    /// <param name="printer">Key of the printer.</param>
    /// <param name="seed">Of the page.</param>
    /// <returns>Null where the marks are refused.</returns>
    public static PracticeVerniers? Cutting(MarkSettings marks, double width, double height, Machine machine, string printer, int seed)
    {
        var layout = MarkLayout.Of(marks, marks.Frame(width, height), width, height);
        var page = PracticeReader.Lay(layout, machine.Key, printer, seed, 1, PracticeTrouble.Nothing);
        var read = MarkFinder.Find(PracticeReader.Look(page, layout, [], seed, 1), layout, PracticeReader.DotsPerMm, PictureTaker.Scanner);
        if (read.Page is not { } found) return null;
        var lies = found.Map.Straight.ToAffine().Then(PracticeReader.OnPicture.Inverse());
        var cut = PageReader.CutMap(lies, machine, printer).Then(page.Blade).Then(page.Lies.Inverse());
        return new PracticeVerniers(lies, cut, machine.CalibrationFor(printer)?.Error ?? Affine.Identity);
    }

    /// <summary>What the verniers show, mm: how far each cut middle hairline lies beyond its printed tick.</summary>
    public IEnumerable<VernierReading> Shown(double width, double height) => VernierPage.Verniers(width, height)
        .Select(v => new VernierReading(v.Place, v.IsAcross, Cut.Apply(v.Zero) - v.Zero is var off && v.IsAcross ? off.X : off.Y));

    /// <summary>What the machine does, of what was measured on this page with the former correction applied.</summary>
    /// <param name="measured">From where cuts were meant to where they lie, mm of the sheet.</param>
    public Affine ErrorOf(Affine measured) => Former.Then(Lies.Inverse().Then(measured).Then(Lies));

    /// <summary>A flat scan of the page as it came off the machine.</summary>
    public InkRaster Scan(MarkSettings marks, double width, double height, int seed)
    {
        const double Dots = 400 / 25.4, Around = 6;
        var random = new Random(unchecked(seed * 101 + 7));
        var layout = MarkLayout.Of(marks, marks.Frame(width, height), width, height);
        var map = Affine.Turn(random.NextDouble() - 0.5).About(layout.Centre).Then(Affine.Move(Around + random.NextDouble(), Around + random.NextDouble())).Then(Affine.Scale(Dots, Dots));
        var faults = new ScanFaults((int)((width + 2 * Around) * Dots), (int)((height + 2 * Around) * Dots), Projection.From(map), seed) { SpreadMm = 0.03, BlurDots = 0.8, Noise = 0.02, LightFall = 0.1 };
        // A blade parts the paper and leaves a thin shadow.
        var hairs = VernierPage.Hairs(width, height).Select(h => Box.Around([Cut.Apply(h.From), Cut.Apply(h.To)]).Grow(VernierPage.HairMm / 2)).Select(b => new InkBar(b, 0.6));
        return PageScan.Take(layout, [], faults, [.. VernierPage.Ticks(width, height).Select(t => new InkBar(t, 0.92)), .. hairs]);
    }
}
