using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Formats.Pdf;
using Microsoft.Extensions.Caching.Memory;

namespace Falzkunst.Web.Desk;

/// <summary>Pages worked out for one revision of a project.</summary>
public sealed class PageCache : IDisposable
{
    private const int MostPages = 60;

    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostPages });

    /// <summary>The sides of a sheet; worked out once for each way of printing it.</summary>
    public ImmutableArray<PrintedPage> Of(OnDesk on, SheetLayout sheet, PagePrinting how) => _cache.GetOrCreate((on.Project.Id, on.Project.Head, sheet.Id, how), entry =>
    {
        entry.Size = 1;
        entry.SlidingExpiration = TimeSpan.FromMinutes(5);
        return PrintPages.For(sheet, on.Value.Made, how);
    });

    public void Dispose() => _cache.Dispose();
}

/// <summary>Pages for a printer, and what is to be said of them.</summary>
public sealed class PrintDesk(PictureDesk pictures, PageCache pages)
{
    /// <summary>The sheets of a stock that is printed, in their order; none where it is not, or they are of the past.</summary>
    public static IEnumerable<SheetLayout> SheetsOf(Project value, string stock) =>
        value.SheetsAreCurrent && value.SetOut.Printing.ContainsKey(stock) ? value.Sheets!.Sheets.Where(s => s.Stock == stock && s.RestKept is null) : [];

    /// <summary>Keys of stocks on which something is printed, or of which it is settled how, in the order of their first pieces.</summary>
    public static IEnumerable<string> Stocks(Project value) => value.Made.Pieces.GroupBy(p => p.Stock)
        .Where(g => value.SetOut.Printing.ContainsKey(g.Key) || g.Any(p => p.Quantity > 0 && PrintedArt.IsOn(p))).Select(g => g.Key);

    /// <summary>What is to be said before the stocks are printed that are set up for it, with the stock.</summary>
    public static IEnumerable<(string Stock, PrintFinding Finding)> Findings(OnDesk on) => Stocks(on.Value)
        .Where(on.Value.SetOut.Printing.ContainsKey)
        .SelectMany(key => on.Drawer.Stocks.FirstOrDefault(s => s.Key == key) is { } stock
            ? PrintChecks.Of(on.Value.Design, stock, on.Value.SetOut.Printing[key]).Select(f => (key, f)) : []);

    /// <summary>The sides of a sheet as they are printed.</summary>
    public ImmutableArray<PrintedPage> PagesOf(OnDesk on, SheetLayout sheet, PagePrinting? how = null) => pages.Of(on, sheet, how ?? on.Value.SetOut.Printing[sheet.Stock]);

    /// <summary>PDFs with whole pictures that are written at once: each takes up to half a gigabyte while it reads one of 60 million dots.</summary>
    private static readonly SemaphoreSlim Whole = new(1);

    /// <summary>PDFs for the screen that are written at once.</summary>
    private static readonly SemaphoreSlim Shown = new(2);

    /// <summary>Sheets as one PDF, in a file that is gone when it is closed.</summary>
    /// <param name="on">The project.</param>
    /// <param name="sheets">The sheets, all of stocks that are printed.</param>
    /// <param name="isWhole">Pictures with all their dots; else as the screen shows them.</param>
    /// <param name="at">The moment that the label says.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<Stream> PdfAsync(OnDesk on, IReadOnlyList<SheetLayout> sheets, bool isWhole, DateTimeOffset at, CancellationToken stop)
    {
        if (isWhole) DemandFewDots(on, sheets);
        var places = isWhole ? Whole : Shown;
        await places.WaitAsync(stop);
        var to = new FileStream(Path.Combine(Path.GetTempPath(), Path.GetRandomFileName()), FileMode.CreateNew, FileAccess.ReadWrite, FileShare.None, 1 << 16, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        try
        {
            await Task.Run(() => WriteAsync(to), stop);
            to.Position = 0;
            return to;
        }
        catch (Exception e)
        {
            await to.DisposeAsync();
            if (e is BudgetSpent) throw new EditRefused(Reason.TooIntricate);
            throw;
        }
        finally
        {
            places.Release();
        }

        Task WriteAsync(Stream file)
        {
            var sides = sheets.SelectMany(s => PagesOf(on, s).Select(p => (Sheet: s, Page: p))).ToList();
            var day = at.ToString("d MMM yyyy", CultureInfo.InvariantCulture);
            (string? Of, PixelImage? Dots) last = default;
            return PrintPdfWriter.WriteAsync(
                [.. sides.Select(s => (s.Page, $"{on.Project.Name}, {NameOf(on, s.Sheet)}, {day}; this rule is 100 mm long"))],
                on.Project.Name, DotsOf, (words, capital) => LabelLetters.Of(on.Drawer.Faces, words, capital), file, stop);

            // A piece asks for its picture twice, for its bleed and for itself; one picture is held at a time.
            async Task<PixelImage?> DotsOf(PictureItem item)
            {
                if (last.Of == item.Of) return last.Dots;
                last = default;
                if (on.Value.Design.Pictures.FirstOrDefault(p => p.Id == item.Of) is { } picture) last = (item.Of, isWhole ? await pictures.WholeAsync(picture, stop) : await pictures.ScreenAsync(picture, stop));
                return last.Dots;
            }
        }
    }

    /// <summary>All pictures of one PDF together have no more dots: packed they may take three bytes each, which are held until the file is whole.</summary>
    private const long MostDots = 90_000_000;

    /// <exception cref="NotDone">The pictures are more than can be written at once.</exception>
    private static void DemandFewDots(OnDesk on, IReadOnlyList<SheetLayout> sheets)
    {
        var placed = sheets.SelectMany(s => s.Placements).Select(p => p.Piece).ToHashSet();
        var used = on.Value.Made.Pieces.Where(p => placed.Contains(p.Id)).SelectMany(p => p.Items.OfType<PictureItem>()).Select(i => i.Of).ToHashSet();
        var dots = on.Value.Design.Pictures.Where(p => used.Contains(p.Id)).Sum(p => (long)p.Pixels.Across * p.Pixels.Down);
        if (dots > MostDots) throw new NotDone($"The pictures on these pages have {dots / 1_000_000} million dots together, and {MostDots / 1_000_000} are written at once. Take the pages one by one, or crop the pictures.");
    }

    /// <summary>What a page is called.</summary>
    public static string NameOf(OnDesk on, SheetLayout sheet) => $"{on.Drawer.Stocks.FirstOrDefault(s => s.Key == sheet.Stock)?.Name ?? sheet.Stock} {sheet.Number}";
}
