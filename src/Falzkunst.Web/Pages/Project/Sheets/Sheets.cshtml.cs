using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats.Production;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Jobs;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Pieces on sheets, stock by stock.</summary>
public sealed class SheetsModel(ProjectDesk desk, SheetsDesk sheets, CatalogueStore catalogue, DrawerStore drawer, HandCache hands, FilesDesk files, TimeProvider clock) : PaperPage(desk, sheets, hands)
{
    public override Station Station => Station.Sheets;
    public override string EmptyTable => Value.Made.Pieces.IsEmpty
        ? "Here pieces are put on sheets of their stock. There are none yet; bring in art first."
        : "Here pieces are put on sheets of their stock. Say how far apart they lie, and put them there.";

    /// <summary>How the shown stock's pieces settle or have settled, where that was asked for and still fits the pieces.</summary>
    public OpenJob? Settling { get; private set; }

    /// <summary>The best layout that was found.</summary>
    public StockLayout? Settled { get; private set; }

    /// <summary>Its time limit, seconds.</summary>
    public int SettlingSeconds => SheetsDesk.SecondsOf(Settling);

    /// <summary>Stocks whose pieces are settling at the moment.</summary>
    public IReadOnlyList<string> UnderWay { get; private set; } = [];

    /// <summary>The settled layout is looked at instead of the one in the project.</summary>
    public bool IsSettledShown => Settled is not null && !Key.IsAsItLies;

    /// <summary>The layout on the table.</summary>
    public override StockLayout? OnTable => IsSettledShown ? Settled : Shown?.Layout;

    protected override bool IsOtherOnTable => IsSettledShown;

    public override string? ShownKey
    {
        get
        {
            if (Shown is null) return null;
            var view = Shown.Key + (Settled is null ? "" : IsSettledShown ? SheetsKey.AsSettled : SheetsKey.AsItLies);
            var picked = PickedCopies.Select(p => new PlacedCopy(p.Placement.Piece, p.Placement.Copy)).ToList();
            return picked.Count == 0 ? view : $"{view}:{SheetsKey.Write(picked)}";
        }
    }

    /// <summary>How much of the time limit has passed, 0 to 1.</summary>
    public double Passed => Settling is { BegunAt: { } begun } s ? Math.Clamp(((s.OverAt ?? clock.GetUtcNow()) - begun).TotalSeconds / SettlingSeconds, 0, 1) : 0;

    /// <summary>Seconds since the settling began, and since its last better answer.</summary>
    public (int Begun, int Better) Since => Settling is { BegunAt: { } begun } s
        ? ((int)((s.OverAt ?? clock.GetUtcNow()) - begun).TotalSeconds, (int)(clock.GetUtcNow() - (s.BetterAt ?? begun)).TotalSeconds) : (0, 0);

    /// <summary>Sheets, how full, and what stays of them, in words.</summary>
    public (string Sheets, string Stays) Figures(StockLayout layout)
    {
        var rest = layout.Sheets.Select(s => KeptRest.LargestRectangle(s, Value.Made)).MaxBy(b => b.Area);
        var left = layout.Unplaced.Sum(u => u.Copies);
        var sheets = $"{Words.Count(layout.Sheets.Length, "sheet")}, {layout.Utilisation(Value.Made).ToString("0 %", System.Globalization.CultureInfo.InvariantCulture)} full";
        return (left > 0 ? $"{sheets}, {left} without a place" : sheets, layout.Sheets.IsEmpty ? "" : $"largest rest {Length.ShowSize(rest.Width, rest.Height, Units)}");
    }

    protected override async Task LoadAsync(CancellationToken stop)
    {
        ForgetStocks();
        UnderWay = await Papers.UnderWayAsync(On, stop);
        Settling = Shown is { } shown ? await Papers.SettlingAsync(On, shown.Key, stop) : null;
        Settled = Settling is null ? null : JobJson.Layout(Settling);
    }

    protected override Scene BuildScene() => SceneBuilder.Sheets(On, OnTable?.Sheets ?? [], IsByHand ? Shown!.Key : null);

    /// <summary>A small picture of a layout; its address changes with it.</summary>
    public async Task<IActionResult> OnGetPictureAsync(bool settled, CancellationToken stop)
    {
        await LoadAsync(stop);
        if ((settled ? Settled : Shown?.Layout) is not { } layout) return NotFound();
        return Content(SheetPicture.Svg(layout, Value.Made, On.Drawer.ColourOf(layout.Stock)), "image/svg+xml");
    }

    /// <summary>A small picture of an offcut.</summary>
    public IActionResult OnGetOffcut(string stock, string offcut) => On.Drawer.Stocks.FirstOrDefault(s => s.Key == stock)?.Offcuts.FirstOrDefault(o => o.Name == offcut) is { } found
        ? Content(SheetPicture.Svg(found, On.Drawer.ColourOf(stock)), "image/svg+xml") : NotFound();

    /// <summary>Lets the pieces of a stock settle in the background; puts them on sheets first where they lie on none.</summary>
    public Task<IActionResult> OnPostSettleAsync(string stock, int? seconds, CancellationToken stop) => ActAsync(async () =>
    {
        if (!Value.SheetsAreCurrent) await DoNowAsync(new PutOnSheets(Value.SetOut.SpacingMm, Guid.NewGuid()), stop);
        await Papers.SettleAsync(On, stock, seconds, stop);
    }, stop);

    /// <summary>Ends the settling; its best layout stays to be taken.</summary>
    public Task<IActionResult> OnPostStopAsync(string stock, CancellationToken stop) =>
        ActAsync(() => Papers.StopAsync(On, stock, stop), stop);

    /// <summary>Puts the settled layout in the place of the one in the project.</summary>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="job">The job whose layout the page showed.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostTakeAsync(string stock, Guid job, CancellationToken stop) => ActAsync(async () =>
    {
        await DoNowAsync(await Papers.TakeAsync(On, stock, job, stop), stop);
        await Papers.DropAsync(On, stock, stop);
    }, stop);

    /// <summary>Forgets the settled layout.</summary>
    public Task<IActionResult> OnPostDropAsync(string stock, CancellationToken stop) =>
        ActAsync(() => Papers.DropAsync(On, stock, stop), stop);

    /// <summary>Keeps what a sheet leaves, as it is or as a rectangle, in the stock drawer; the sheet counts as cut.</summary>
    public Task<IActionResult> OnPostKeepAsync(string sheet, bool straight, CancellationToken stop) => ActAsync(async () =>
    {
        var (layout, stock, rest) = SheetsDesk.RestOf(On, sheet, straight);
        try
        {
            await DoNowAsync(new KeepRest(sheet, rest.Name), stop, revision => catalogue.KeepRestAsync(ProjectDesk.Owner, Id, revision, layout, rest, stop));
        }
        catch (DrawerChanged)
        {
            throw new NotDone("The drawer has changed in the same moment. Try once more.");
        }
        Show((await Desk.OpenAsync(Id, stop))!);
        var size = rest.Outline.Bounds;
        Notice = $"{rest.Name} of {stock.Name} is in the drawer, {Length.ShowSize(size.Width, size.Height, Units)}. It is used before new sheets from now on.";
    }, stop);

    /// <summary>Throws an offcut away.</summary>
    public Task<IActionResult> OnPostThrowAsync(string stock, string offcut, CancellationToken stop) => ActAsync(async () =>
    {
        await drawer.ThrowOffcutAsync(ProjectDesk.Owner, stock, offcut, stop);
        Show((await Desk.OpenAsync(Id, stop))!);
    }, stop);

    /// <summary>One side of a sheet as a file: svg or hpgl.</summary>
    public async Task<IActionResult> OnGetFileAsync(string sheet, string? format, bool back, CancellationToken stop) =>
        Enum.TryParse<MachineFormat>(format, ignoreCase: true, out var wanted) && Enum.IsDefined(wanted) && (await files.OfAsync(On, sheet, wanted, stop)).FirstOrDefault(f => f.IsBack == back) is { } file ? File(file.Content, file.MediaType, file.Name) : NotFound();

    /// <summary>The files of a sheet, with the pens of each and what they are corrected by.</summary>
    public async Task<IActionResult> OnGetFilesAsync(string sheet, CancellationToken stop)
    {
        var all = new List<(MachineFormat, ProductionFile)>();
        foreach (var format in (On.Drawer.Machines.FirstOrDefault(m => m.Key == Value.SetOut.Machine)?.Files ?? MachineFile.Usual).Select(f => f.Format))
            all.AddRange((await files.OfAsync(On, sheet, format, stop)).Select(f => (format, f)));
        return all.Count == 0 ? NotFound() : Partial("_SheetFiles", (sheet, (IReadOnlyList<(MachineFormat, ProductionFile)>)all));
    }
}
