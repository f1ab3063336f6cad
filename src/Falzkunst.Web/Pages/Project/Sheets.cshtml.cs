using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Running;
using Falzkunst.Formats.Production;
using Falzkunst.Data.Settling;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Pieces on sheets, stock by stock.</summary>
public sealed class SheetsModel(ProjectDesk desk, SettlingStore settlings, TimeProvider clock) : StationPage(desk)
{
    public override Station Station => Station.Sheets;
    public override bool SceneFollows => true;
    public override string EmptyTable => Value.Design.Pieces.IsEmpty
        ? "Here pieces are put on sheets of their stock. There are none yet; bring in art first."
        : "Here pieces are put on sheets of their stock. Say how far apart they lie, and put them there.";

    /// <summary>Limits of time to choose from, seconds.</summary>
    public static readonly IReadOnlyList<int> TimeLimits = [10, 30, 120, 600];

    private const int UsualSeconds = 30;

    /// <summary>What is looked at, behind the stock's key.</summary>
    public const string AsItLies = "@now";
    public const string AsSettled = "@settled";

    /// <summary>What lies on paper of one stock.</summary>
    public sealed record OnStock(string Key, Stock? Stock, StockLayout Layout, double Utilisation);

    /// <summary>Every stock that the design uses, in order of its first piece.</summary>
    public IReadOnlyList<OnStock> Stocks => [.. Value.Design.Pieces.Select(p => p.Stock).Distinct().Select(key =>
    {
        var layout = Value.Sheets?.Of(key, Value.Design) ?? new StockLayout(key, [], []);
        return new OnStock(key, On.Drawer.Stocks.FirstOrDefault(s => s.Key == key), layout, layout.Utilisation(Value.Design));
    })];

    /// <summary>The stock whose sheets are on the table: the chosen one, else the first.</summary>
    public OnStock? Shown => Stocks.FirstOrDefault(s => s.Key == Selected?.Split('@')[0]) ?? (Stocks.Count > 0 ? Stocks[0] : null);

    /// <summary>How the shown stock's pieces settle or have settled, where that was asked for and still fits the pieces.</summary>
    public OpenSettling? Settling { get; private set; }

    /// <summary>Stocks whose pieces are settling at the moment.</summary>
    public IReadOnlyList<string> UnderWay { get; private set; } = [];

    /// <summary>The settled layout is looked at instead of the one in the project.</summary>
    public bool IsSettledShown => Settling?.Best is not null && Selected?.EndsWith(AsItLies, StringComparison.Ordinal) != true;

    /// <summary>The layout on the table.</summary>
    public StockLayout? OnTable => IsSettledShown ? Settling!.Best : Shown?.Layout;

    public override string? ShownKey => Shown is null ? null : Shown.Key + (Settling?.Best is null ? "" : IsSettledShown ? AsSettled : AsItLies);

    /// <summary>How much of the time limit has passed, 0 to 1.</summary>
    public double Passed => Settling is { BegunAt: { } begun } s ? Math.Clamp(((s.OverAt ?? clock.GetUtcNow()) - begun).TotalSeconds / s.Seconds, 0, 1) : 0;

    /// <summary>Seconds since the settling began, and since its last better answer.</summary>
    public (int Begun, int Better) Since => Settling is { BegunAt: { } begun } s
        ? ((int)((s.OverAt ?? clock.GetUtcNow()) - begun).TotalSeconds, (int)(clock.GetUtcNow() - (s.BetterAt ?? begun)).TotalSeconds) : (0, 0);

    /// <summary>Sheets, how full, and what stays of them, in words.</summary>
    public (string Sheets, string Stays) Figures(StockLayout layout)
    {
        var rest = layout.Sheets.Select(s => Rest.Largest(
            new Box(s.Borders.Left, s.Borders.Top, s.Width - s.Borders.Right, s.Height - s.Borders.Bottom),
            s.Placements.Select(p => Value.Design.Find(p.Piece)?.Shape.Paths[0].Map(p.Place)).OfType<Core.Geometry.Path>())).MaxBy(b => b.Area);
        var left = layout.Unplaced.Sum(u => u.Copies);
        var sheets = $"{Words.Count(layout.Sheets.Length, "sheet")}, {layout.Utilisation(Value.Design).ToString("0 %", System.Globalization.CultureInfo.InvariantCulture)} full";
        return (left > 0 ? $"{sheets}, {left} without a place" : sheets, layout.Sheets.IsEmpty ? "" : $"largest rest {Length.ShowSize(rest.Width, rest.Height, Units)}");
    }

    public string SpacingField => Field("spacing", Value.SetOut.SpacingMm);

    protected override async Task LoadAsync(CancellationToken stop)
    {
        UnderWay = await settlings.UnderWayAsync(ProjectDesk.Owner, Id, stop);
        Settling = Shown is { } shown && await settlings.OpenAsync(ProjectDesk.Owner, Id, shown.Key, stop) is { } settling && Value.SheetsAreCurrent && settling.MadeFor == Value.Sheets!.MadeFor
            ? settling : null;
    }

    protected override Scene BuildScene() => SceneBuilder.Sheets(On, OnTable?.Sheets ?? []);

    /// <summary>A small picture of a layout; its address changes with it.</summary>
    public async Task<IActionResult> OnGetPictureAsync(bool settled, CancellationToken stop)
    {
        await LoadAsync(stop);
        if ((settled ? Settling?.Best : Shown?.Layout) is not { } layout) return NotFound();
        return Content(SheetPicture.Svg(layout, Value.Design, On.Drawer.ColourOf(layout.Stock)), "image/svg+xml");
    }

    /// <summary>Lets the pieces of a stock settle in the background; puts them on sheets first where they lie on none.</summary>
    public Task<IActionResult> OnPostSettleAsync(string stock, int? seconds, CancellationToken stop) => ActAsync(async () =>
    {
        if (!Value.SheetsAreCurrent) await DoNowAsync(new PutOnSheets(Value.SetOut.SpacingMm), stop);
        if (!Value.Design.Pieces.Any(p => p.Stock == stock)) throw new EditRefused("There are no pieces of that stock any more.");
        On.Drawer.Stock(stock);
        await settlings.AskAsync(
            ProjectDesk.Owner, Id, On.Project.Head, stock, Value.Sheets!.MadeFor,
            seconds is { } s && TimeLimits.Contains(s) ? s : UsualSeconds, Random.Shared.Next(), stop);
    }, stop);

    /// <summary>Ends the settling; its best layout stays to be taken.</summary>
    public Task<IActionResult> OnPostStopAsync(string stock, CancellationToken stop) =>
        ActAsync(() => settlings.StopAsync(ProjectDesk.Owner, Id, stock, stop), stop);

    /// <summary>Puts the settled layout in the place of the one in the project.</summary>
    public Task<IActionResult> OnPostTakeAsync(string stock, CancellationToken stop) => ActAsync(async () =>
    {
        var settling = await settlings.OpenAsync(ProjectDesk.Owner, Id, stock, stop);
        if (settling?.Best is not { } best) throw new EditRefused("There is no settled layout to take. Let the pieces settle first.");
        await DoNowAsync(new TakeSettled(stock, best.Sheets.Length) { Layout = best, MadeFor = settling.MadeFor }, stop);
        await settlings.DropAsync(ProjectDesk.Owner, Id, stock, stop);
    }, stop);

    /// <summary>Forgets the settled layout.</summary>
    public Task<IActionResult> OnPostDropAsync(string stock, CancellationToken stop) =>
        ActAsync(() => settlings.DropAsync(ProjectDesk.Owner, Id, stock, stop), stop);

    /// <summary>Pins everything on a sheet, or lets it go.</summary>
    public Task<IActionResult> OnPostPinAsync(string sheet, bool pinned, CancellationToken stop) => DoAsync(new PinPlacements(sheet, [], pinned), stop);

    public Task<IActionResult> OnPostPlaceAsync(string? spacing, CancellationToken stop)
    {
        var mm = ReadLength("spacing", spacing);
        if (mm is < 0 or > SetOut.MostSpacingMm) Refuse("spacing", spacing, $"Between 0 and {Length.Show(SetOut.MostSpacingMm, Units)}.");
        return Wrong.Count > 0 ? RegionsAsync(stop) : DoAsync(new PutOnSheets(mm!.Value), stop);
    }

    /// <summary>A sheet as a file: svg (a named group for each pass) or hpgl (a pen for each tool).</summary>
    public IActionResult OnGetFile(string sheet, string format)
    {
        if (Value.Sheets?.Find(sheet) is not { } layout || On.Drawer.Stocks.FirstOrDefault(s => s.Key == layout.Stock) is not { } stock) return NotFound();
        var plan = SheetPlan.For(layout, Value.Design, On.Drawer.Machine(Value.SetOut.Machine), stock, Value.SetOut.ScoreClearanceMm);
        var page = ProductionPage.Of(plan, layout.Width, layout.Height);
        var name = $"{FileWords(On.Project.Name)}-{layout.Id}";
        return format switch
        {
            "svg" => File(Encoding.UTF8.GetBytes(ProductionSvgWriter.Write(page)), "image/svg+xml", $"{name}.svg"),
            "hpgl" => File(Encoding.ASCII.GetBytes(HpglWriter.Write(page).Text), "application/vnd.hp-hpgl", $"{name}.hpgl"),
            _ => NotFound(),
        };
    }

    private static string FileWords(string name)
    {
        var words = new string([.. name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')]).Trim('-');
        return words.Length == 0 ? "card" : words;
    }
}
