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
public sealed class SheetsModel(ProjectDesk desk, SheetsDesk sheets, CatalogueStore catalogue, DrawerStore drawer, HandCache hands, TimeProvider clock) : CommandPage(desk)
{
    public override Station Station => Station.Sheets;
    public override bool SceneFollows => true;
    public override string EmptyTable => Value.Made.Pieces.IsEmpty
        ? "Here pieces are put on sheets of their stock. There are none yet; bring in art first."
        : "Here pieces are put on sheets of their stock. Say how far apart they lie, and put them there.";

    /// <summary>How pieces may be turned, in words.</summary>
    public static readonly IReadOnlyList<(AllowedTurns AllowedTurns, string Words)> TurnWords =
    [
        (AllowedTurns.Quarters, "by quarter turns"), (AllowedTurns.AlongGrain, "along the grain"), (AllowedTurns.AsDrawn, "as drawn"), (AllowedTurns.AnyAngle, "by any angle"),
    ];

    /// <summary>What lies on paper of one stock.</summary>
    public sealed record OnStock(string Key, Stock? Stock, StockLayout Layout, double Utilisation);

    private SheetsKey Key => SheetsKey.Read(Selected);
    private IReadOnlyList<OnStock>? _stocks;

    /// <summary>Every stock that the design uses, in order of its first piece.</summary>
    public IReadOnlyList<OnStock> Stocks => _stocks ??= [.. Value.Made.Pieces.Select(p => p.Stock).Distinct().Select(key =>
    {
        var layout = Value.Sheets?.ForStock(key, Value.Made) ?? new StockLayout(key, [], []);
        return new OnStock(key, On.Drawer.Stocks.FirstOrDefault(s => s.Key == key), layout, layout.Utilisation(Value.Made));
    })];

    /// <summary>The stock whose sheets are on the table: the chosen one, else the first.</summary>
    public OnStock? Shown => Stocks.FirstOrDefault(s => s.Key == Key.Stock) ?? (Stocks.Count > 0 ? Stocks[0] : null);

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
    public StockLayout? OnTable => IsSettledShown ? Settled : Shown?.Layout;

    /// <summary>Pieces on the table can be moved by hand.</summary>
    public bool IsByHand => Value.SheetsAreCurrent && !IsSettledShown && Shown is { Layout.Sheets.Length: > 0 };

    /// <summary>The copies that are picked and lie on the table, each with its sheet.</summary>
    public IReadOnlyList<(SheetLayout Sheet, Placement Placement)> PickedCopies => !IsByHand ? [] :
        [.. Shown!.Layout.Sheets.SelectMany(s => Key.Copies.Select(c => s.Find(c.Piece, c.Copy)).OfType<Placement>().Select(p => (s, p)))];

    /// <summary>What commands are done to: the pieces whose copies are picked.</summary>
    protected override Core.Designs.Picked CommandPick =>
        Core.Designs.Picked.OfPieces([.. PickedCopies.Select(c => c.Placement.Piece).Distinct()]).In(Value.Made);

    /// <summary>The box of the picked copies that lie on the same sheet as the first, mm on that sheet.</summary>
    public Box BoxOfPicked => PickedCopies.Count == 0 ? Box.Empty : BoxOf(PickedCopies[0].Sheet, PickedCopies.Where(p => p.Sheet == PickedCopies[0].Sheet).Select(p => p.Placement));

    private Box BoxOf(SheetLayout sheet, IEnumerable<Placement> placements) =>
        placements.Aggregate(Box.Empty, (all, p) => all.Include(Value.Made.Require(p.Piece).Outline.Path.BoundsUnder(p.Place)));

    /// <summary>Lays the sheets of a stock upright or turned by a quarter, and the pieces on them anew.</summary>
    public Task<IActionResult> OnPostTurnedAsync(string stock, bool turned, CancellationToken stop) => ActAsync(async () =>
    {
        On.Drawer.Stock(stock);
        var now = Value.SetOut.TurnedSheets;
        await DoNowAsync(new ChangeSetOut(Value.SetOut with { TurnedSheets = turned ? now.Add(stock) : now.Remove(stock) }), stop);
    }, stop);

    /// <summary>Which way copies are centred on their sheet.</summary>
    public enum CentreWay
    {
        Across,
        Down,
    }

    /// <summary>Puts copies at a place of their sheet by number, or in its middle one way.</summary>
    public Task<IActionResult> OnPostPutAtAsync(string sheet, string copies, string? left, string? top, CentreWay? centre, CancellationToken stop)
    {
        var some = SheetsKey.ReadCopies(copies);
        var on = Value.Sheets?.Find(sheet);
        var placements = on is null ? [] : some.Select(c => on.Find(c.Piece, c.Copy)).OfType<Placement>().ToList();
        if (on is null || placements.Count == 0) return ActAsync(() => throw new NotDone("These copies do not lie there any more."), stop);
        var box = BoxOf(on, placements);
        var x = left is null ? null : ReadLength("left", left);
        var y = top is null ? null : ReadLength("top", top);
        if (Wrong.Count > 0) return RefusedAsync(stop);
        var by = centre switch
        {
            CentreWay.Across => new Point(on.Width / 2 - box.Centre.X, 0),
            CentreWay.Down => new Point(0, on.Height / 2 - box.Centre.Y),
            _ => new Point((x ?? box.MinX) - box.MinX, (y ?? box.MinY) - box.MinY),
        };
        return DoAsync(new MovePlacements(sheet, some, sheet, 0, default, by), stop);
    }

    /// <summary>Sizes of sheets and offcuts of the shown stock, and how many more of each there are than its layout uses.</summary>
    public IReadOnlyList<(string Name, int Left)> AtHand => Shown?.Stock is not { } stock ? [] :
        [.. stock.Sheets.Select(s => (s.Name, s.Count)).Concat(stock.Offcuts.Select(o => (o.Name, Count: 1)))
            .Select(s => (s.Name, Shown.Layout.Left(s.Name, s.Count)))];

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

    public string SpacingField => Field("spacing", Value.SetOut.SpacingMm);

    protected override async Task LoadAsync(CancellationToken stop)
    {
        _stocks = null;
        UnderWay = await sheets.UnderWayAsync(On, stop);
        Settling = Shown is { } shown ? await sheets.SettlingAsync(On, shown.Key, stop) : null;
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
        await sheets.SettleAsync(On, stock, seconds, stop);
    }, stop);

    /// <summary>Ends the settling; its best layout stays to be taken.</summary>
    public Task<IActionResult> OnPostStopAsync(string stock, CancellationToken stop) =>
        ActAsync(() => sheets.StopAsync(On, stock, stop), stop);

    /// <summary>Puts the settled layout in the place of the one in the project.</summary>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="job">The job whose layout the page showed.</param>
    /// <param name="stop">Cancels.</param>
    public Task<IActionResult> OnPostTakeAsync(string stock, Guid job, CancellationToken stop) => ActAsync(async () =>
    {
        await DoNowAsync(await sheets.TakeAsync(On, stock, job, stop), stop);
        await sheets.DropAsync(On, stock, stop);
    }, stop);

    /// <summary>Forgets the settled layout.</summary>
    public Task<IActionResult> OnPostDropAsync(string stock, CancellationToken stop) =>
        ActAsync(() => sheets.DropAsync(On, stock, stop), stop);

    /// <summary>Pins copies on a sheet, or everything on it, or lets it go.</summary>
    public Task<IActionResult> OnPostPinAsync(string sheet, string? copies, bool pinned, CancellationToken stop) =>
        DoAsync(new PinPlacements(sheet, SheetsKey.ReadCopies(copies), pinned), stop);

    /// <summary>Where copies would come to lie, and what stands in the way; asked while a hand moves them.</summary>
    public IActionResult OnGetMayLie(HandMove move)
    {
        try
        {
            var (there, why) = hands.Look(On, move.Edit(), move.Holds);
            return new JsonResult(new { x = there.By.X, y = there.By.Y, why = why is null ? null : ReasonWords.For(why, Units) });
        }
        catch (EditRefused e)
        {
            return new JsonResult(new { x = 0, y = 0, why = ReasonWords.For(e, Units) });
        }
    }

    /// <summary>Moves or turns copies by hand.</summary>
    public Task<IActionResult> OnPostMoveAsync(HandMove move, CancellationToken stop) => ActAsync(async () =>
    {
        var edit = move.Edit();
        // A page that shows an older revision is told so by the edit itself.
        await DoNowAsync(move.Holds && SeenHead == On.Project.Head ? hands.Look(On, edit, holds: true).Move : edit, stop);
    }, stop);

    /// <summary>Sends copies to another sheet of their stock; to a new one of a size where no sheet is said.</summary>
    public Task<IActionResult> OnPostSendAsync(string sheet, string copies, string? to, string? size, CancellationToken stop) => ActAsync(async () =>
    {
        var request = new SendRequest(sheet, SheetsKey.ReadCopies(copies), string.IsNullOrEmpty(to) ? null : to, size, Guid.NewGuid());
        // What is not as the page showed it is told before anybody searches.
        var filled = SeenHead == On.Project.Head ? await sheets.RoomAsync(On, request, stop) : null;
        await DoNowAsync(SendWork.EditOf(request) with { Filled = filled }, stop);
    }, stop);

    /// <summary>Says how pieces may be turned.</summary>
    public Task<IActionResult> OnPostTurnsAsync(string pieces, AllowedTurns turns, CancellationToken stop) =>
        DoAsync(new SetAllowedTurns([.. pieces.Split(',')], turns), stop);

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

    public Task<IActionResult> OnPostPlaceAsync(string? spacing, CancellationToken stop)
    {
        var mm = ReadLength("spacing", spacing);
        if (mm is < 0 or > SetOut.MostSpacingMm) Refuse("spacing", spacing, $"Between 0 and {Length.Show(SetOut.MostSpacingMm, Units)}.");
        return Wrong.Count > 0 ? RegionsAsync(stop) : DoAsync(new PutOnSheets(mm!.Value, Guid.NewGuid()), stop);
    }

    /// <summary>A sheet as a file: svg or hpgl.</summary>
    public IActionResult OnGetFile(string sheet, string format) =>
        ProductionFile.Write(On, sheet, format) is { } file ? File(file.Content, file.MediaType, file.Name) : NotFound();
}
