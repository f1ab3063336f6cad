using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Formats.Pdf;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Catalogue;

/// <summary>Outlines of offcuts from a picture of them on a page of marks.</summary>
public sealed partial class DrawerModel
{
    /// <summary>A scrap as it was found: its corners, and a picture of it with the mm that it shows.</summary>
    /// <param name="Corners">mm from the picture's upper left corner.</param>
    /// <param name="Picture">A picture in the page's own text.</param>
    /// <param name="Width">What the picture shows, mm.</param>
    /// <param name="Height">What it shows, mm.</param>
    public sealed record ScrapFound(IReadOnlyList<Point> Corners, string Picture, double Width, double Height);

    public ScrapFound? Scrap { get; private set; }

    /// <summary>Pages that the ground may be printed on.</summary>
    public static readonly IReadOnlyList<string> ScrapSizes = ["letter", "A4"];

    private static ScrapPage ScrapPageOf(string? size) => SheetSizes.Named(ScrapSizes.Contains(size) ? size! : ScrapSizes[0]) is { } s ? new ScrapPage(s.WidthMm, s.HeightMm) : throw new InvalidOperationException("A size is lacking.");

    /// <summary>The page on which scraps are laid, as PDF.</summary>
    public async Task<IActionResult> OnGetScrapPageAsync(string? size, CancellationToken stop)
    {
        await LoadAsync(stop);
        var page = ScrapPageOf(size);
        var whole = Box.FromSize(page.Width, page.Height);
        List<Core.Geometry.Path> ink = [.. page.MarkShapes];
        for (var j = 0; j < page.Cells.Down; j++)
        {
            for (var i = 0; i < page.Cells.Across; i++)
            {
                if (page.IsBlack(i, j) == true && page.CellAt(i, j) is var cell) ink.Add(Core.Geometry.Path.Rectangle(cell.MinX, cell.MinY, cell.Width, cell.Height));
            }
        }
        var printed = new PrintedPage(page.Width, page.Height, [], [.. ink], [], whole, whole, null);
        return File(PrintPdfWriter.Write([(printed, "")], "Ground for scraps", _ => null, (_, _) => []), "application/pdf", "ground-for-scraps.pdf");
    }

    /// <summary>Finds a scrap on a picture of it; its corners are shown to be corrected before it is kept.</summary>
    public Task<IActionResult> OnPostScrapAsync(IFormFile? scan, string? size, CancellationToken stop) => ActAsync(async () =>
    {
        await LoadAsync(stop);
        var page = ScrapPageOf(size);
        Scrap = await scans.WithAsync(scan, own =>
        {
            var read = MarkFinder.Find(own.Ink, page.Layout, own.DotsPerMm);
            if (read.Page is not { } found) throw new NotDone(MarkWords.Sentence(read.Refused!));
            if (ScrapFinder.Find(own.Ink, found.Map, page) is not { } outline) throw new NotDone("No scrap lies on the squares. Lay it so that they show all round it.");
            const double Around = 8;
            var box = outline.Bounds.Grow(Around);
            return new ScrapFound([.. outline.Flat.ToArray().Select(p => p - box.Min)], MarksDesk.Straight(own.Ink, found.Map, box), box.Width, box.Height);
        }, stop);
    }, stop);

    /// <summary>Corners as the field has them.</summary>
    public static string CornersOf(ScrapFound scrap) => string.Join(' ', scrap.Corners.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.X:0.##}mm,{p.Y:0.##}mm")));
}
