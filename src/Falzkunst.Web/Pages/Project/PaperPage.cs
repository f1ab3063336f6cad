using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Jobs;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Jobs;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A station on whose table sheets lie, and pieces on them that a hand moves: Print and Sheets.</summary>
public abstract class PaperPage(ProjectDesk desk, SheetsDesk sheets, HandCache hands) : CommandPage(desk)
{
    protected SheetsDesk Papers { get; } = sheets;

    public override bool SceneFollows => true;

    /// <summary>How pieces may be turned, in words.</summary>
    public static readonly IReadOnlyList<(AllowedTurns AllowedTurns, string Words)> TurnWords =
    [
        (AllowedTurns.Quarters, "by quarter turns"), (AllowedTurns.AlongGrain, "along the grain"), (AllowedTurns.AsDrawn, "as drawn"), (AllowedTurns.AnyAngle, "by any angle"),
    ];

    /// <summary>What lies on paper of one stock.</summary>
    public sealed record OnStock(string Key, Stock? Stock, StockLayout Layout, double Utilisation);

    protected SheetsKey Key => SheetsKey.Read(Selected);
    private IReadOnlyList<OnStock>? _stocks;

    /// <summary>Keys of the stocks that are shown, in order of their first pieces.</summary>
    protected virtual IEnumerable<string> StockKeys => Value.Made.Pieces.Select(p => p.Stock).Distinct();

    /// <summary>Forgets what is known of the stocks: the project is another.</summary>
    protected void ForgetStocks() => _stocks = null;

    /// <summary>The stocks that are shown.</summary>
    public IReadOnlyList<OnStock> Stocks => _stocks ??= [.. StockKeys.Select(key =>
    {
        var layout = Value.Sheets?.ForStock(key, Value.Made) ?? new StockLayout(key, [], []);
        return new OnStock(key, On.Drawer.Stocks.FirstOrDefault(s => s.Key == key), layout, layout.Utilisation(Value.Made));
    })];

    /// <summary>The stock whose sheets are on the table: the chosen one, else the first.</summary>
    public OnStock? Shown => Stocks.FirstOrDefault(s => s.Key == Key.Stock) ?? (Stocks.Count > 0 ? Stocks[0] : null);

    /// <summary>The layout on the table.</summary>
    public virtual StockLayout? OnTable => Shown?.Layout;

    /// <summary>What lies on the table is not what lies in the project.</summary>
    protected virtual bool IsOtherOnTable => false;

    /// <summary>Pieces on the table can be moved by hand.</summary>
    public bool IsByHand => Value.SheetsAreCurrent && !IsOtherOnTable && Shown is { Layout.Sheets.Length: > 0 };

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

    public string SpacingField => Field("spacing", Value.SetOut.SpacingMm);

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
        var filled = SeenHead == On.Project.Head ? await Papers.RoomAsync(On, request, stop) : null;
        await DoNowAsync(SendWork.EditOf(request) with { Filled = filled }, stop);
    }, stop);

    /// <summary>Says how pieces may be turned.</summary>
    public Task<IActionResult> OnPostTurnsAsync(string pieces, AllowedTurns turns, CancellationToken stop) =>
        DoAsync(new SetAllowedTurns([.. pieces.Split(',')], turns), stop);

    public Task<IActionResult> OnPostPlaceAsync(string? spacing, CancellationToken stop)
    {
        var mm = ReadLength("spacing", spacing);
        if (mm is < 0 or > SetOut.MostSpacingMm) Refuse("spacing", spacing, $"Between 0 and {Length.Show(SetOut.MostSpacingMm, Units)}.");
        return Wrong.Count > 0 ? RegionsAsync(stop) : DoAsync(new PutOnSheets(mm!.Value, Guid.NewGuid()), stop);
    }
}
