using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Json;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Catalogue;

/// <summary>The stocks: what is known of each, its sheets and rests, and settings that worked.</summary>
public sealed partial class DrawerModel(DrawerDesk desk, DrawerStore store, ScanDesk scans) : DrawerPage(desk, store)
{
    /// <summary>Changes that the audit shows.</summary>
    private const int MostChanges = 100;

    /// <summary>"stocks", "machines", "tools" or "changes".</summary>
    [BindProperty(SupportsGet = true)]
    public string Section { get; set; } = "stocks";

    /// <summary>Key of the thing on show; the first where none is named.</summary>
    [BindProperty(SupportsGet = true)]
    public string? Key { get; set; }

    /// <summary>The version of it that the user saw.</summary>
    [BindProperty]
    public int Version { get; set; }

    public IReadOnlyList<DrawerChange> Changes { get; private set; } = [];

    public Stock? Stock => Drawer.Stocks.FirstOrDefault(s => s.Key == Key) ?? (Over ? null : Drawer.Offered.FirstOrDefault() ?? Drawer.Stocks.FirstOrDefault());

    public Machine? Machine => Drawer.Machines.FirstOrDefault(m => m.Key == Key) ?? (Over ? null : Drawer.OfferedMachines.FirstOrDefault() ?? Drawer.Machines.FirstOrDefault());

    protected override int? ChangedVersion => Section switch
    {
        "stocks" => Drawer.Stocks.FirstOrDefault(s => s.Key == Key)?.Version,
        "machines" => Drawer.Machines.FirstOrDefault(m => m.Key == Key)?.Version,
        _ => Drawer.Tools.FirstOrDefault(t => t.Key == Key)?.Version,
    };

    /// <summary>The address that a form of the sheet posts to, whichever page it lies over.</summary>
    /// <param name="handler">The handler.</param>
    /// <param name="key">Key of the thing; null for the one on show.</param>
    /// <param name="version">The version of it that the form shows; null for what names none.</param>
    public string At(string handler, string? key = null, int? version = null) => string.Create(
        CultureInfo.InvariantCulture, $"/drawer/{Section}{((key ?? Key) is { } k ? "/" + Uri.EscapeDataString(k) : "")}?handler={handler}{(version is null ? "" : $"&version={version}")}{(Over ? "&over=true" : "")}");

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (Section is not ("stocks" or "machines" or "tools" or "changes")) return NotFound();
        await LoadAsync(stop);
        if (Key is not null && Section == "stocks" && Stock?.Key != Key) return NotFound();
        if (Key is not null && Section == "machines" && Machine?.Key != Key) return NotFound();
        if (Section == "changes") Changes = await Store.ChangesAsync(ProjectDesk.Owner, MostChanges, stop);
        return Over ? Partial("_DrawerOver", this) : Page();
    }

    // Stocks.

    /// <summary>What a stock is, as its form gives it.</summary>
    public sealed record StockFields(
        string? Name, string? Kind, int Grams, [InMillimetres] double Thickness, string Colour, StockPattern Pattern, [InMillimetres] double Narrowest,
        StockDirection Direction, bool BothSides, bool TakesPrint, Tool[]? Suits);

    public Task<IActionResult> OnPostStockAsync(StockFields fields, CancellationToken stop) => ChangeAsync(s =>
    {
        var suits = fields.Suits is null || fields.Suits.Length == Enum.GetValues<Tool>().Length ? [] : fields.Suits.Order().ToImmutableArray();
        var after = s with
        {
            Name = Typed(fields.Name),
            Kind = fields.Kind?.Trim() ?? "",
            GramsPerSquareMetre = fields.Grams,
            ThicknessMm = Kept(fields.Thickness, s.ThicknessMm),
            Colour = fields.Colour.ToUpperInvariant(),
            Pattern = fields.Pattern,
            NarrowestMm = Kept(fields.Narrowest, s.NarrowestMm),
            Direction = fields.Direction,
            BothSidesAlike = fields.BothSides,
            TakesPrint = fields.TakesPrint,
            Suits = suits.SequenceEqual(s.Suits) ? s.Suits : suits,
        };
        return (after, after.Name == s.Name ? $"Changed {s.Name}" : $"{s.Name} is called {after.Name}");
    }, stop);

    public Task<IActionResult> OnPostFavouriteAsync(bool on, CancellationToken stop) =>
        ChangeAsync(s => (s with { IsFavourite = on }, on ? $"{s.Name} is a favourite" : $"{s.Name} is no favourite any more"), stop);

    public Task<IActionResult> OnPostStockAwayAsync(bool away, CancellationToken stop) =>
        ChangeAsync(s => (s with { IsPutAway = away }, away ? $"Put {s.Name} away" : $"Took {s.Name} out again"), stop);

    public Task<IActionResult> OnPostNewStockAsync(string? copyOf, CancellationToken stop) => ActAsync(async () => (Section, Key) = ("stocks", await Desk.NewStockAsync(copyOf, stop)), stop);

    /// <summary>Puts a size of sheet into the drawer: a standard one, or one's own.</summary>
    public Task<IActionResult> OnPostAddSheetAsync(string size, [InMillimetres] double? sheetWidth, [InMillimetres] double? sheetHeight, int count, CancellationToken stop) => ChangeAsync(s =>
    {
        var sheet = SheetSizes.Named(size) is { } standard ? standard with { Count = count }
            : new SheetSize(
                $"{Length.ShowSize(sheetWidth ?? 0, sheetHeight ?? 0, Units)}", sheetWidth ?? throw EditRefused.RangeMm(Measure.SheetSide, 10, 3000, "sheetWidth"),
                sheetHeight ?? throw EditRefused.RangeMm(Measure.SheetSide, 10, 3000, "sheetHeight"), count);
        if (s.Sheets.Any(h => h.Name == sheet.Name)) throw new EditRefused(Reason.NameTaken, sheet.Name) { Field = "size" };
        return (s with { Sheets = s.Sheets.Add(sheet) }, $"Put {count} × {sheet.Name} to {s.Name}");
    }, stop);

    /// <summary>How many sheets of a size there are.</summary>
    public Task<IActionResult> OnPostCountAsync(string sheet, int count, CancellationToken stop) => ChangeAsync(s =>
        (s with { Sheets = [.. s.Sheets.Select(h => h.Name == sheet ? h with { Count = count } : h)] }, $"{s.Name} has {count} × {sheet}"), stop);

    /// <summary>The size is used before the others.</summary>
    public Task<IActionResult> OnPostFirstAsync(string sheet, CancellationToken stop) => ChangeAsync(s =>
        (s with { Sheets = [.. s.Sheets.OrderBy(h => h.Name == sheet ? 0 : 1)] }, $"{sheet} of {s.Name} is used first"), stop);

    public Task<IActionResult> OnPostRemoveSheetAsync(string sheet, CancellationToken stop) => ChangeAsync(s =>
        (s with { Sheets = s.Sheets.RemoveAll(h => h.Name == sheet) }, $"{s.Name} is no longer had as {sheet}"), stop);

    /// <summary>An offcut as it was measured: a rectangle, an L, or corner by corner.</summary>
    public Task<IActionResult> OnPostOffcutAsync(
        string shape, [InMillimetres] double? offcutWidth, [InMillimetres] double? offcutHeight, [InMillimetres] double? goneWidth, [InMillimetres] double? goneHeight, string? corners,
        CancellationToken stop) => ChangeAsync(s =>
    {
        var outline = shape switch
        {
            "corners" => OffcutShapes.Corners(ReadCorners(corners)),
            "angle" => OffcutShapes.Angle(offcutWidth ?? 0, offcutHeight ?? 0, goneWidth ?? 0, goneHeight ?? 0),
            _ => OffcutShapes.Rectangle(offcutWidth ?? 0, offcutHeight ?? 0),
        };
        var name = s.NextOffcut;
        return (s with { Offcuts = s.Offcuts.Add(new Offcut(name, outline, [])), OffcutsMade = s.OffcutsMade + 1 }, $"Put {name} to {s.Name}");
    }, stop);

    public Task<IActionResult> OnPostThrowAsync(string offcut, CancellationToken stop) =>
        ChangeAsync(s => (s with { Offcuts = s.Offcuts.RemoveAll(o => o.Name == offcut) }, $"Threw {offcut} of {s.Name} away"), stop);

    /// <summary>A small picture of an offcut.</summary>
    public async Task<IActionResult> OnGetOffcutAsync(string stock, string offcut, CancellationToken stop)
    {
        await LoadAsync(stop);
        var found = Drawer.Stocks.FirstOrDefault(s => s.Key == stock);
        return found?.Offcuts.FirstOrDefault(o => o.Name == offcut) is { } there ? Content(SheetPicture.Svg(there, found.Colour), "image/svg+xml") : NotFound();
    }

    /// <summary>How a tool runs over a stock.</summary>
    public sealed record SettingFields(
        Tool Tool, int Force, double Speed, [InMillimetres] double? BladeOut, int? Heat, int? WarmUp, int Times, [InMillimetres] double? Bears, [InMillimetres] double? Tip);

    public Task<IActionResult> OnPostSettingsAsync(SettingFields f, CancellationToken stop) => ActAsync(() => Desk.SettingsAsync(
        Key ?? "", Version, f.Tool,
        now => new ToolSettings(f.Tool, f.Force, f.Speed, Kept(f.BladeOut, now.BladeOutMm), f.Heat, f.WarmUp ?? 0, f.Times, Kept(f.Bears, now.NarrowestMm), Kept(f.Tip, now.TipMm)), stop), stop);

    /// <summary>Forgets what was noted for a tool, so that careful settings are taken.</summary>
    public Task<IActionResult> OnPostForgetAsync(Tool tool, CancellationToken stop) =>
        ChangeAsync(s => (s.With(s.SetInUse.Without(tool)), $"Forgot the {tool.Name()} settings of {s.Name}"), stop);

    public Task<IActionResult> OnPostUseSetAsync(string set, CancellationToken stop) => ChangeAsync(s => (s.Using(set), $"{s.Name} is worked {set}"), stop);

    /// <summary>Another set, which begins as the one in use and is in use then.</summary>
    public Task<IActionResult> OnPostNewSetAsync(string? set, CancellationToken stop) => ChangeAsync(s =>
        (s with { OtherSets = s.OtherSets.Add(s.SetInUse), SetName = Typed(set) }, $"Added the settings “{Typed(set)}” to {s.Name}"), stop);

    public Task<IActionResult> OnPostDropSetAsync(string set, CancellationToken stop) => ChangeAsync(s =>
        (s with { OtherSets = s.OtherSets.RemoveAll(o => o.Name == set) }, $"Took the settings “{set}” from {s.Name}"), stop);

    // Machines.

    /// <summary>What a machine is, as its form gives it.</summary>
    public sealed record MachineFields(
        string? Name, [InMillimetres] double Top, [InMillimetres] double Right, [InMillimetres] double Bottom, [InMillimetres] double Left, bool ReadsMarks,
        double TopSpeed, double Acceleration, double Lift, bool Svg, bool Hpgl, double? Units, FileOrigin Origin);

    public Task<IActionResult> OnPostMachineAsync(MachineFields f, CancellationToken stop) => ChangeMachineAsync(m =>
    {
        ImmutableArray<MachineFile> files =
        [
            .. f.Svg ? new[] { new MachineFile(MachineFormat.Svg) } : [],
            .. f.Hpgl ? new[] { new MachineFile(MachineFormat.Hpgl, f.Units ?? MachineFile.PlotterUnits, f.Origin) } : [],
        ];
        var after = m with
        {
            Name = Typed(f.Name),
            Unreachable = new Borders(
                Kept(f.Top, m.Unreachable.Top), Kept(f.Right, m.Unreachable.Right), Kept(f.Bottom, m.Unreachable.Bottom), Kept(f.Left, m.Unreachable.Left)),
            ReadsMarks = f.ReadsMarks,
            TopSpeed = f.TopSpeed,
            Acceleration = f.Acceleration,
            LiftSeconds = f.Lift,
            Files = files.SequenceEqual(m.Files) ? m.Files : files,
        };
        return (after, after.Name == m.Name ? $"Changed {m.Name}" : $"{m.Name} is called {after.Name}");
    }, stop);

    /// <summary>What a holder is called and which tools fit it.</summary>
    public Task<IActionResult> OnPostHolderAsync(string holder, string? holderName, Tool[]? takes, CancellationToken stop) => ChangeMachineAsync(m =>
        (m with { Holders = [.. m.Holders.Select(h => h.Name == holder ? new Holder(Typed(holderName), [.. (takes ?? []).Order()]) : h)] }, $"Changed the holder {Typed(holderName)} of {m.Name}"), stop);

    /// <summary>One holder more, or one less.</summary>
    public Task<IActionResult> OnPostHoldersAsync(int count, CancellationToken stop) => ChangeMachineAsync(m => count == 1
        ? (m with { Holders = [m.Holders[0] with { Tools = [.. m.Holders.SelectMany(h => h.Tools).Distinct().Order()] }] }, $"{m.Name} has one holder")
        : (m.Holders.Length > 1 ? m : m with { Holders = [m.Holders[0], new Holder(m.Holders[0].Name == "right" ? "left" : "right", [Tool.Blade])] }, $"{m.Name} has two holders"), stop);

    public Task<IActionResult> OnPostMatAsync(string mat, CancellationToken stop) => ChangeMachineAsync(m => (m.OnMat(mat), $"{m.Name} is used with the mat {mat}"), stop);

    public Task<IActionResult> OnPostAddMatAsync(string? matName, [InMillimetres] double matWidth, [InMillimetres] double matHeight, CancellationToken stop) => ChangeMachineAsync(m =>
        (m with { OtherMats = m.OtherMats.Add(new Mat(Typed(matName), matWidth, matHeight)) }, $"Put the mat {Typed(matName)} to {m.Name}"), stop);

    public Task<IActionResult> OnPostRemoveMatAsync(string mat, CancellationToken stop) => ChangeMachineAsync(m =>
        (m with { OtherMats = m.OtherMats.RemoveAll(o => o.Name == mat) }, $"Took the mat {mat} from {m.Name}"), stop);

    public Task<IActionResult> OnPostMachineAwayAsync(bool away, CancellationToken stop) =>
        ChangeMachineAsync(m => (m with { IsPutAway = away }, away ? $"Put {m.Name} away" : $"Took {m.Name} out again"), stop);

    public Task<IActionResult> OnPostCopyMachineAsync(string copyOf, CancellationToken stop) => ActAsync(async () => (Section, Key) = ("machines", await Desk.NewMachineAsync(copyOf, stop)), stop);

    // Pens, foils, tips and blades.

    public Task<IActionResult> OnPostToolAsync(string tool, string? name, string? colour, [InMillimetres] double? width, CancellationToken stop) => ActAsync(() => Desk.ToolAsync(
        tool, Version, t => (t with { Name = Typed(name), Colour = colour?.ToUpperInvariant(), WidthMm = Kept(width, t.WidthMm) }, $"Changed {t.Name}"), stop), stop);

    public Task<IActionResult> OnPostToolAwayAsync(string tool, bool away, CancellationToken stop) => ActAsync(() => Desk.ToolAsync(
        tool, Version, t => (t with { IsPutAway = away }, away ? $"Put {t.Name} away" : $"Took {t.Name} out again"), stop), stop);

    public Task<IActionResult> OnPostNewToolAsync(CraftToolKind kind, CancellationToken stop) => ActAsync(() => Desk.NewToolAsync(kind, stop), stop);

    // Files.

    /// <summary>All of the drawer as a file.</summary>
    public async Task<IActionResult> OnGetExportAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        return File(DrawerJson.Write(Drawer), "application/json", "falzkunst-drawer.json");
    }

    /// <summary>Takes the things of a file in.</summary>
    public Task<IActionResult> OnPostImportAsync(IFormFile file, bool replaces, CancellationToken stop) => ActAsync(async () =>
    {
        if (file.Length > DrawerJson.MostBytes) throw new DrawerRefused("That file is larger than any drawer.");
        using var content = new MemoryStream();
        await file.CopyToAsync(content, stop);
        var count = await Desk.TakeInAsync(DrawerJson.Read(content.ToArray()), replaces, stop);
        Notice = count == 0 ? "There is nothing in that file." : $"{Words.Count(count, "thing")} came in. Undo takes all of it back.";
    }, stop);

    private Task<IActionResult> ChangeAsync(Func<Stock, (Stock, string)> change, CancellationToken stop) => ActAsync(() => Desk.StockAsync(Key ?? "", Version, change, stop), stop);

    private Task<IActionResult> ChangeMachineAsync(Func<Machine, (Machine, string)> change, CancellationToken stop) => ActAsync(() => Desk.MachineAsync(Key ?? "", Version, change, stop), stop);

    /// <summary>A name without blanks around it; what was left empty is told beside its field by the rules.</summary>
    private static string Typed(string? name) => name?.Trim() ?? "";

    /// <summary>Corners as "0,0 120,0 120,60" or one on a line; lengths in the units of the page.</summary>
    private List<Point> ReadCorners(string? text)
    {
        var corners = new List<Point>();
        foreach (var pair in (text ?? "").Split([' ', ';', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries))
        {
            var parts = pair.Split(',');
            if (parts.Length != 2 || Length.Read(parts[0], Units, out var x) is not null || Length.Read(parts[1], Units, out var y) is not null)
                throw new EditRefused(Reason.NotALength, pair) { Field = "corners" };
            corners.Add(new Point(x, y));
        }
        return corners;
    }
}
