using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Core.Running;
using Falzkunst.Formats.Pdf;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Marks read on somebody's own scan, and the machine measured against the printer.</summary>
public sealed partial class PrintModel
{
    /// <summary>Why the picture that was brought last is not taken for read; null where it was, or none was brought.</summary>
    public (string What, string Remedy, string? Crop)? Unread { get; private set; }

    /// <summary>Reads the marks on a scan or photo of the shown page, and keeps what follows for the cut.</summary>
    /// <param name="scan">The picture.</param>
    /// <param name="taker">What took it.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostReadAsync(IFormFile? scan, PictureTaker taker, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        if (ShownPage is not { How.Marks: { } marks } page) throw new NotDone("Lay the pieces on a page with marks first.");
        var layout = MarkLayout.Of(marks, PrintPages.FrameOf(page.Sheet, marks), page.Sheet.Width, page.Sheet.Height);
        var (reading, crop) = await scans.WithAsync(scan, own =>
        {
            var read = MarkFinder.Find(own.Ink, layout, own.DotsPerMm, taker);
            var dots = own.DotsPerMm ?? Math.Max(own.Ink.Width, own.Ink.Height) / layout.Diagonal;
            return (read, read.Refused?.At is { } at ? own.CropAt(at, MarksDesk.CropMm * dots) : null);
        }, stop);
        if (reading.Page is { } found)
        {
            var kept = PageForecast.Of(found, page.Face, CalibrationNow, clock.GetUtcNow());
            await DoNowAsync(new KeepReading(page.Sheet.Id, kept), stop);
            return;
        }
        var (what, remedy) = MarkWords.Refusal(reading.Refused!);
        Unread = (what, remedy, crop);
    }, stop);

    /// <summary>The worst place of a reading enlarged; null where its piece is gone.</summary>
    public static string? ApartPictureOf(PageRow page, PrintReading reading)
    {
        if (page.Face.Copies.FirstOrDefault(c => c.Piece == reading.Piece && c.Copy == reading.Copy) is not { } copy || reading.UnreadMm is not { } apart) return null;
        return Web.Pictures.ApartPicture.Draw(copy.What.Piece.Outline.Path.Map(copy.Place).Flat.ToArray(), reading.Place, apart, page.How.BleedMm, 66);
    }

    /// <summary>The machine of the project, while the drawer has it.</summary>
    public Machine? MachineNow => On.Drawer.Machines.FirstOrDefault(m => m.Key == Value.SetOut.Machine);

    /// <summary>What holds for the machine and the shown stock's printer.</summary>
    public Calibration? CalibrationNow => How is { } how ? MachineNow?.CalibrationFor(how.Printer) : null;

    /// <summary>Name of the shown stock's printer.</summary>
    public string PrinterName => Printers.FirstOrDefault(p => p.Key == How?.Printer)?.Name ?? "this printer";

    /// <summary>The page of verniers that the practice machine has cut, with its number; null where none is on show.</summary>
    public (int Seed, PracticeVerniers Page)? Verniers { get; private set; }

    /// <summary>Numbers of verniers are asked for.</summary>
    public bool IsReadingVerniers { get; private set; }

    public override string? OverPartial => "_PrintOver";

    /// <summary>Puts the verniers away.</summary>
    public Task<IActionResult> OnPostPutAsync(CancellationToken stop) => RegionsAsync(stop);

    /// <summary>The size of the page of verniers: the first that the shown stock is printed on.</summary>
    public (double Width, double Height) VernierSize => Shown?.Stock?.Sheets.FirstOrDefault(s => How?.Size is null || s.Name == How.Size) is { } size ? (size.WidthMm, size.HeightMm) : (215.9, 279.4);

    private MarkSettings VernierMarks => (How?.Marks ?? MarkSettings.Usual) with { HasFourth = false };

    private PracticeVerniers? CutOf(int seed) => MachineNow is { } machine ? PracticeVerniers.Cutting(VernierMarks, VernierSize.Width, VernierSize.Height, machine, How?.Printer ?? "", seed) : null;

    /// <summary>The practice machine reads a page of verniers and cuts its hairlines.</summary>
    /// <param name="own">A page was cut on another machine; its numbers are typed without a picture.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostVerniersAsync(bool own, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        IsReadingVerniers = true;
        if (own) return;
        var seed = (int)(clock.GetUtcNow().Ticks % 1_000_000);
        Verniers = (seed, await Task.Run(() => CutOf(seed), stop) ?? throw new NotDone("The machine of this project is no longer in the drawer."));
    }, stop);

    /// <summary>What was read of the verniers by eye, kept for machine and printer.</summary>
    /// <param name="seed">Number of the practice machine's page; null for a page of a machine of one's own.</param>
    /// <param name="across">Tenths of a millimetre to the right, place by place; empty where it was not read.</param>
    /// <param name="down">Tenths down.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostCalibrateAsync(int? seed, string?[] across, string?[] down, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        var wrong = false;
        List<VernierReading> readings = [];
        foreach (var (typed, isAcross) in new[] { (across, true), (down, false) })
        {
            foreach (var (text, place) in typed.Take(VernierPage.PlaceNames.Length).Select((t, i) => (t, i)).Where(t => !string.IsNullOrWhiteSpace(t.t)))
            {
                if (double.TryParse(text!.Trim().Replace('−', '-').Replace(',', '.'), CultureInfo.InvariantCulture, out var tenths) && Math.Abs(tenths) <= VernierPage.Side) readings.Add(new VernierReading(place, isAcross, tenths / 10));
                else wrong = true;
            }
        }
        if (wrong) throw new NotDone($"The tick that a hairline meets is a number from -{VernierPage.Side} to {VernierPage.Side}.");
        await KeepAsync(seed, readings, VernierPage.ByEyeMm, stop);
    }, stop);

    /// <summary>What a scan of the cut page says of the verniers, kept for machine and printer.</summary>
    public Task<IActionResult> OnPostCalibrateScanAsync(int? seed, IFormFile? scan, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        var (marks, (width, height)) = (VernierMarks, VernierSize);
        var layout = MarkLayout.Of(marks, marks.Frame(width, height), width, height);
        var readings = await scans.WithAsync(scan, own =>
        {
            var read = MarkFinder.Find(own.Ink, layout, own.DotsPerMm, PictureTaker.Scanner);
            if (read.Page is not { } page) throw new NotDone(MarkWords.Sentence(read.Refused!));
            return VernierPage.Read(own.Ink, page, width, height);
        }, stop);
        if (readings.Length < VernierPage.PlaceNames.Length) throw new NotDone($"Only {Words.Count(readings.Length, "vernier")} of {2 * VernierPage.PlaceNames.Length} can be seen on it. Scan the cut page with 300 dots to the inch or more, or read the ticks by eye.");
        await KeepAsync(seed, readings, VernierPage.ByScanMm, stop);
    }, stop);

    private async Task KeepAsync(int? seed, IReadOnlyCollection<VernierReading> readings, double scatterMm, CancellationToken stop)
    {
        if (MachineNow is not { } machine || How is not { } how) throw new NotDone("The machine of this project is no longer in the drawer.");
        if (VernierPage.Solve(readings, VernierSize.Width, VernierSize.Height, scatterMm) is not { } measured) throw new NotDone("Read the middle verniers at least: one across, one down.");
        if (measured.WorstMm > Calibration.MostMm) throw new NotDone("No blade sits so far beside its reader. Read the verniers once more.");
        // What is measured on a page adds to what was corrected when it was cut.
        var error = seed is { } number && await Task.Run(() => CutOf(number), stop) is { } page ? page.ErrorOf(measured.Error) : (machine.CalibrationFor(how.Printer)?.Error ?? Affine.Identity).Then(measured.Error);
        var kept = new Calibration(how.Printer, clock.GetUtcNow(), error, measured.UncertainMm, measured.WorstMm);
        await drawer.MachineAsync(machine.Key, machine.Version, m => (m.Calibrated(kept), $"Calibrated {m.Name} with {PrinterName}"), stop);
        Show((await Desk.OpenAsync(Id, stop))!);
        Notice = $"Kept for {machine.Name} with {PrinterName}: up to {MarkWords.Apart(measured.WorstMm)} off before, {MarkWords.Apart(measured.UncertainMm)} at most from now on. Cut another page to compare.";
    }

    /// <summary>Takes the measurement back that holds now; the one before it holds again.</summary>
    public Task<IActionResult> OnPostUncalibrateAsync(CancellationToken stop) => ActAsync(async () =>
    {
        if (MachineNow is not { } machine || How is not { } how || CalibrationNow is null) throw new NotDone("Nothing was measured of this machine with this printer.");
        await drawer.MachineAsync(machine.Key, machine.Version, m => (m.Uncalibrated(how.Printer), $"Took a calibration of {m.Name} back"), stop);
        Show((await Desk.OpenAsync(Id, stop))!);
    }, stop);

    /// <summary>The page of verniers as PDF.</summary>
    public IActionResult OnGetVernierPdf()
    {
        if (How is null) return NotFound();
        var (marks, (width, height)) = (VernierMarks, VernierSize);
        var page = Box.FromSize(width, height);
        var ink = marks.Shapes(marks.Frame(width, height)).Concat(VernierPage.Ticks(width, height).Select(t => Core.Geometry.Path.Rectangle(t.MinX, t.MinY, t.Width, t.Height)));
        var label = new Box(width / 2 - PrintPages.LabelWidthMm / 2, height * 0.9, width / 2 + PrintPages.LabelWidthMm / 2, height * 0.9 + PrintPages.LabelHeightMm);
        var printed = new PrintedPage(width, height, [], [.. ink], [], page, page, label);
        var bytes = PrintPdfWriter.Write([(printed, $"Verniers for {MachineNow?.Name} and {PrinterName}; this rule is 100 mm long")], "Verniers", _ => null, (words, capital) => LabelLetters.Of(On.Drawer.Faces, words, capital));
        return File(bytes, "application/pdf", "verniers.pdf");
    }

    /// <summary>The hairlines for a machine of one's own, mm of the page.</summary>
    public IActionResult OnGetVernierCuts()
    {
        if (How is null) return NotFound();
        var (width, height) = VernierSize;
        var lines = string.Concat(VernierPage.Hairs(width, height).Select(h => string.Create(CultureInfo.InvariantCulture, $"M{h.From.X:0.###} {h.From.Y:0.###}L{h.To.X:0.###} {h.To.Y:0.###}")));
        var svg = string.Create(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width:0.###}mm\" height=\"{height:0.###}mm\" viewBox=\"0 0 {width:0.###} {height:0.###}\"><g id=\"cut\" data-operation=\"cut\"><path d=\"{lines}\" fill=\"none\" stroke=\"#000\" stroke-width=\"{VernierPage.HairMm}\"/></g></svg>");
        return File(System.Text.Encoding.UTF8.GetBytes(svg), "image/svg+xml", "vernier-hairlines.svg");
    }

    /// <summary>A scan of the page of verniers that the practice machine has cut.</summary>
    public IActionResult OnGetVernierScan(int seed) => How is null || CutOf(seed) is not { } page ? NotFound()
        : File(MarksDesk.Whole(page.Scan(VernierMarks, VernierSize.Width, VernierSize.Height, seed)), "image/png", "verniers-cut.png");
}
