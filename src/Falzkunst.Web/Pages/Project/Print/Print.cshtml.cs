using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Printing;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Printed pieces on pages.</summary>
public sealed partial class PrintModel(ProjectDesk desk, SheetsDesk sheets, HandCache hands, PrintDesk print, ScanDesk scans, DrawerDesk drawer, TimeProvider clock) : PaperPage(desk, sheets, hands)
{
    private const string Both = "printed-cut", Printed = "printed", Cut = "cut";

    public override Station Station => Station.Print;
    public override string Modes => $"{Both} {Printed} {Cut}";
    public override string EmptyTable => Shown is null
        ? "Here printed pieces are laid on pages for your printer. Nothing is printed yet: at Pieces, pick a piece and print a colour, a border, words or a picture on it."
        : How is null ? "Say below how these pieces are printed: with marks, so that a machine cuts them, or on plain pages to be trimmed by hand."
        : "The pieces lie on no page yet. Lay them with the button below.";

    protected override IEnumerable<string> StockKeys => PrintDesk.Stocks(Value);

    /// <summary>How the shown stock is printed; null where that is not settled.</summary>
    public PagePrinting? How => Shown is { } shown ? Value.SetOut.Printing.GetValueOrDefault(shown.Key) : null;

    /// <summary>A page of the ledger.</summary>
    public sealed record PageRow(OnStock Stock, SheetLayout Sheet, PagePrinting How, ImmutableArray<PrintedPage> Sides, InkUse Ink)
    {
        public PrintedPage Face => Sides[0];
    }

    private IReadOnlyList<PageRow>? _pages;

    /// <summary>All pages, stock by stock.</summary>
    public IReadOnlyList<PageRow> Pages => _pages ??= [.. Stocks.Where(s => Value.SetOut.Printing.ContainsKey(s.Key)).SelectMany(s => PrintDesk.SheetsOf(Value, s.Key).Select(sheet =>
    {
        var sides = print.PagesOf(On, sheet);
        return new PageRow(s, sheet, Value.SetOut.Printing[s.Key], sides, sides.Aggregate(new InkUse(), (sum, p) => sum + InkUse.Of(p)));
    }))];

    /// <summary>The page that is looked at.</summary>
    public PageRow? ShownPage => Shown is not { } shown ? null
        : Pages.FirstOrDefault(p => p.Stock.Key == shown.Key && p.Sheet.Id == PageId) ?? Pages.FirstOrDefault(p => p.Stock.Key == shown.Key);

    private string? PageId => Selected?.Split(':')[0].Split('@') is [_, var id] ? id : null;

    public override StockLayout? OnTable => ShownPage is { } page ? page.Stock.Layout with { Sheets = [page.Sheet] } : null;

    /// <summary>What is to be said before printing.</summary>
    public IReadOnlyList<(string Stock, PrintFinding Finding)> Findings => [.. PrintDesk.Findings(On)];

    public override string? ShownKey
    {
        get
        {
            if (Shown is null) return null;
            var view = ShownPage is { } page ? KeyOf(page) : Shown.Key;
            var picked = PickedCopies.Select(p => new PlacedCopy(p.Placement.Piece, p.Placement.Copy)).ToList();
            return picked.Count == 0 ? view : $"{view}:{SheetsKey.Write(picked)}";
        }
    }

    public static string KeyOf(PageRow page) => $"{page.Stock.Key}@{page.Sheet.Id}";

    /// <summary>Printers to choose from.</summary>
    public IEnumerable<CraftTool> Printers => On.Drawer.OfferedTools(CraftToolKind.Printer);

    /// <summary>The machine reads marks.</summary>
    public bool ReadsMarks => On.Drawer.Machines.FirstOrDefault(m => m.Key == Value.SetOut.Machine)?.ReadsMarks ?? false;

    /// <summary>The first piece of the shown stock whose print reaches its edge, else the first that is printed.</summary>
    private Piece? ExamplePiece => Shown is not { } shown ? null : Value.Made.Pieces.Where(p => p.Stock == shown.Key && p.Quantity > 0 && PrintedArt.IsOn(p)).OrderBy(PrintReach.WhiteEdge).FirstOrDefault();

    /// <summary>Print of the shown stock touches a cut.</summary>
    public bool Bleeds => ExamplePiece is { } piece && PrintReach.WhiteEdge(piece) == 0;

    private static readonly double[] UsualBleeds = [0, 1, 2, 3];
    private static readonly double?[] UsualGlues = [null, 3, 5, 8];

    /// <summary>Bleeds to choose from, each with a small picture of a corner.</summary>
    public IEnumerable<(double Mm, string Picture, string Words)> BleedChoices()
    {
        if (How is not { } how || ExamplePiece is not { } piece) yield break;
        var at = CornerOf(piece);
        // Another than the usual ones takes the place of the nearest.
        var nearest = UsualBleeds.MinBy(b => Math.Abs(b - how.BleedMm) + (b == 0 ? 1 : 0));
        foreach (var mm in UsualBleeds.Select(b => b == nearest ? how.BleedMm : b).Append(0).Distinct().Order().Take(UsualBleeds.Length))
            yield return (mm, Web.Pictures.PagePicture.Corner(PrintPages.PieceOf(Value.Made, piece, how with { BleedMm = mm, GlueMm = null }, back: false), at, 1, 108, 62), PrintWords.Hides(mm, Units));
    }

    /// <summary>The place of the edge that lies nearest to the upper left.</summary>
    private static Point CornerOf(Piece piece) => piece.Outline.Path.Flat.ToArray().MinBy(p => p.X + p.Y);

    /// <summary>Strips for glue to choose from, with what is printed then; null prints everything.</summary>
    public IEnumerable<(double? GlueMm, InkUse Ink)> InkChoices()
    {
        if (How is not { } how || ShownPage is not { } page) yield break;
        foreach (var glue in (UsualGlues.Contains(how.GlueMm) ? UsualGlues : [.. UsualGlues[..^1], how.GlueMm]))
            yield return (glue, print.PagesOf(On, page.Sheet, how with { GlueMm = glue }).Aggregate(new InkUse(), (sum, p) => sum + InkUse.Of(p)));
    }

    /// <summary>The one piece of the shown stock, of which more can be asked for; null where there are several.</summary>
    public Piece? OnlyPiece => Shown is { } shown && Value.Design.Pieces.Where(p => p.Stock == shown.Key && p.Quantity > 0).ToList() is [var one] && one.List is null ? one : null;

    protected override Task LoadAsync(CancellationToken stop)
    {
        ForgetStocks();
        _pages = null;
        return Task.CompletedTask;
    }

    protected override Scene BuildScene()
    {
        List<(SheetLayout, PagePrinting, string)> shown = ShownPage is { } page ? [(page.Sheet, page.How, $"?handler=Preview&sheet={page.Sheet.Id}&v={On.Project.Head}")] : [];
        return SceneBuilder.Pages(On, shown, (Both, Printed, Cut), IsByHand ? Shown!.Key : null);
    }

    /// <summary>Does an action of a form or a button.</summary>
    public Task<IActionResult> OnPostDoAsync(BenchAction action, [FromForm(Name = ActionBinder.ActOn)] string? on, CancellationToken stop) =>
        DoAsync(_ => action, string.IsNullOrEmpty(on) ? CommandPick : PickedKey.Read(on, Value.Design), null, stop);

    /// <summary>So many of a piece, laid at once; 0 for as many as one page takes.</summary>
    public Task<IActionResult> OnPostUpAsync(string piece, int count, CancellationToken stop) => ActAsync(async () =>
    {
        var wanted = count > 0 ? count : await Task.Run(() => MostOnPage(piece), stop);
        await DoNowAsync(new LayPrinted(piece, wanted, Guid.NewGuid()), stop);
    }, stop);

    private int MostOnPage(string id)
    {
        var piece = Value.Design.Require(id);
        if (On.Drawer.Stocks.FirstOrDefault(s => s.Key == piece.Stock) is not { Sheets: [var first, ..] } stock) throw new NotDone("This stock has no sheets in the drawer.");
        var most = (int)Math.Clamp(first.WidthMm * first.HeightMm / Math.Max(piece.Area, 1), 1, 200);
        var alone = Value with { Design = Value.Design with { Pieces = [piece with { Quantity = most }] }, Sheets = null };
        var laid = PaperPlacing.Place(
            alone.Made, [alone.AsLaid(stock)], On.Drawer.Machine(Value.SetOut.Machine), Value.SetOut.SpacingMm, 1, "", Core.Nesting.NestEffort.FirstAnswer, "up");
        return laid.Sheets.IsEmpty ? throw new NotDone($"{piece.Name} fits on no page.") : laid.Sheets.Max(s => s.Placements.Length);
    }

    /// <summary>The PDF of a page as the table shows it, pictures as large as the screen needs them.</summary>
    public async Task<IActionResult> OnGetPreviewAsync(string sheet, CancellationToken stop)
    {
        if (Pages.FirstOrDefault(p => p.Sheet.Id == sheet) is not { } page) return NotFound();
        Response.Headers.CacheControl = "private, max-age=3600";
        return File(await print.PdfAsync(On, [page.Sheet], isWhole: false, clock.GetLocalNow(), stop), "application/pdf");
    }

    /// <summary>The PDF of a page, or of all.</summary>
    public async Task<IActionResult> OnGetPdfAsync(string? sheet, CancellationToken stop)
    {
        var wanted = Pages.Where(p => sheet is null || p.Sheet.Id == sheet).Select(p => p.Sheet).ToList();
        if (wanted.Count == 0) return NotFound();
        var name = ProductionFile.InFileName(On.Project.Name) + (sheet is null ? "-pages" : $"-page-{wanted[0].Stock}-{wanted[0].Number}");
        return File(await print.PdfAsync(On, wanted, isWhole: true, clock.GetLocalNow(), stop), "application/pdf", $"{name}.pdf");
    }
}
