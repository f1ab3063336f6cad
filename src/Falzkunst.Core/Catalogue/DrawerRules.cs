using System.Text.RegularExpressions;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Catalogue;

/// <summary>What things of the drawer may be like, for forms, files and whatever else changes them.</summary>
public static partial class DrawerRules
{
    /// <summary>Stocks, machines or tools that a drawer holds, those put away included.</summary>
    public const int MostThings = 400;

    /// <summary>Characters of a name.</summary>
    public const int LongestName = 80;

    public const int MostSheetSizes = 40;
    public const int MostOffcuts = 200;
    public const int MostSets = 8;
    public const int MostHolders = 2;
    public const int MostMats = 12;

    private const double LeastSideMm = 10;
    private const double MostSideMm = 3000;
    private const int MostSheets = 9999;

    /// <summary>A stock that can be worked with.</summary>
    /// <exception cref="EditRefused">Something of it is out of reach; the field says what.</exception>
    public static void Demand(Stock stock)
    {
        Named(stock.Name, "name");
        if (stock.Kind.Length > LongestName) throw EditRefused.Range(Measure.NameLength, 0, LongestName, "kind");
        Between(stock.GramsPerSquareMetre, 20, 2000, Measure.Grams, "grams");
        BetweenMm(stock.ThicknessMm, 0.02, 6, Measure.Thickness, "thickness");
        BetweenMm(stock.NarrowestMm, 0.05, 10, Measure.NarrowestPart, "narrowest");
        Coloured(stock.Colour, "colour");
        if (stock.Sheets.IsEmpty) throw new EditRefused(Reason.NoSheetSizes) { Field = "sheet" };
        AtMost(stock.Sheets.Length, MostSheetSizes, "sheet");
        foreach (var sheet in stock.Sheets)
        {
            Named(sheet.Name, "size");
            BetweenMm(sheet.WidthMm, LeastSideMm, MostSideMm, Measure.SheetSide, "sheetWidth");
            BetweenMm(sheet.HeightMm, LeastSideMm, MostSideMm, Measure.SheetSide, "sheetHeight");
            Between(sheet.Count, 0, MostSheets, Measure.SheetCount, "count");
        }
        AtMost(stock.Offcuts.Length, MostOffcuts, "offcut");
        foreach (var offcut in stock.Offcuts) OffcutShapes.Demand(offcut);
        Apart(stock.Sheets.Select(s => s.Name).Concat(stock.Offcuts.Select(o => o.Name)), "size");
        AtMost(stock.OtherSets.Length + 1, MostSets, "set");
        foreach (var set in stock.OtherSets.Prepend(stock.SetInUse))
        {
            Named(set.Name, "set");
            foreach (var settings in set.Settings) Demand(settings);
        }
        Apart(stock.OtherSets.Select(s => s.Name).Prepend(stock.SetName), "set");
    }

    /// <summary>Settings within what tools do at all; whether they suit a stock is <see cref="SettingsCare"/>'s.</summary>
    /// <exception cref="EditRefused">A number is out of reach; the field says which.</exception>
    public static void Demand(ToolSettings settings)
    {
        Between(settings.ForceGrams, 1, ToolSettings.MostForceGrams, Measure.ForceGrams, "force");
        Between(settings.SpeedMmPerSecond, 1, 2000, Measure.Speed, "speed");
        if (settings.BladeOutMm is { } blade) BetweenMm(blade, 0.01, 10, Measure.BladeOut, "bladeOut");
        if (settings.TemperatureCelsius is { } heat) Between(heat, 30, 300, Measure.Celsius, "heat");
        Between(settings.WarmUpSeconds, 0, 3600, Measure.WarmUp, "warmUp");
        Between(settings.Times, 1, 20, Measure.TimesOver, "times");
        if (settings.NarrowestMm is { } narrowest) BetweenMm(narrowest, 0.05, 10, Measure.NarrowestPart, "bears");
        if (settings.TipMm is { } tip) BetweenMm(tip, 0.05, 10, Measure.TipWidth, "tip");
    }

    /// <summary>A machine that plans can be made for.</summary>
    /// <exception cref="EditRefused">Something of it is out of reach; the field says what.</exception>
    public static void Demand(Machine machine)
    {
        Named(machine.Name, "name");
        AtMost(machine.OtherMats.Length + 1, MostMats, "mat");
        foreach (var mat in machine.OtherMats.Prepend(machine.MatInUse))
        {
            Named(mat.Name, "matName");
            BetweenMm(mat.WidthMm, 50, MostSideMm, Measure.MatSide, "matWidth");
            BetweenMm(mat.HeightMm, 50, MostSideMm, Measure.MatSide, "matHeight");
        }
        Apart(machine.OtherMats.Select(m => m.Name).Prepend(machine.MatName), "matName");
        foreach (var (strip, field) in new[] { (machine.Unreachable.Top, "top"), (machine.Unreachable.Right, "right"), (machine.Unreachable.Bottom, "bottom"), (machine.Unreachable.Left, "left") })
            BetweenMm(strip, 0, 100, Measure.BorderStrip, field);
        if (machine.Holders.IsEmpty) throw new EditRefused(Reason.NoHolders) { Field = "holder" };
        AtMost(machine.Holders.Length, MostHolders, "holder");
        foreach (var holder in machine.Holders)
        {
            Named(holder.Name, "holderName");
            if (holder.Tools.IsEmpty) throw new EditRefused(Reason.HolderTakesNothing, holder.Name) { Field = "takes" };
        }
        Apart(machine.Holders.Select(h => h.Name), "holderName");
        Between(machine.TopSpeed, 1, 5000, Measure.TopSpeed, "topSpeed");
        Between(machine.Acceleration, 1, 100_000, Measure.Acceleration, "acceleration");
        Between(machine.LiftSeconds, 0, 10, Measure.LiftSeconds, "lift");
        AtMost(machine.Calibrations.Length, Calibration.Most, "calibrations");
        if (!machine.Calibrations.All(c => c.IsSound)) throw new EditRefused(Reason.NoCalibration, machine.Name) { Field = "calibrations" };
        if (machine.Files.IsEmpty) throw new EditRefused(Reason.NoFiles) { Field = "svg" };
        foreach (var file in machine.Files) Between(file.UnitsPerMm, 0.01, 10_000, Measure.UnitsPerMm, "units");
    }

    /// <summary>A tool that lines can be worked with.</summary>
    /// <exception cref="EditRefused">Something of it is out of reach; the field says what.</exception>
    public static void Demand(CraftTool tool)
    {
        Named(tool.Name, "name");
        if (tool.Kind is CraftToolKind.Pen or CraftToolKind.Foil) Coloured(tool.Colour ?? "", "colour");
        if (tool.Kind is CraftToolKind.Pen or CraftToolKind.FoilTip or CraftToolKind.EmbossTip or CraftToolKind.Printer && tool.WidthMm is null) throw new EditRefused(Reason.WidthLacks) { Field = "width" };
        if (tool.WidthMm is not { } width) return;
        if (tool.Kind == CraftToolKind.Printer) BetweenMm(width, 0, PagePrinting.MostMarginMm, Measure.PrinterMargin, "width");
        else BetweenMm(width, 0.05, 10, Measure.TipWidth, "width");
    }

    /// <summary>A key for a thing of that name which none of some keys is.</summary>
    public static string FreeKey(string name, IEnumerable<string> taken)
    {
        var plain = NoKey().Replace(name.ToLowerInvariant(), "-").Trim('-');
        if (plain.Length == 0) plain = "thing";
        if (plain.Length > 40) plain = plain[..40].TrimEnd('-');
        var keys = taken.ToHashSet(StringComparer.Ordinal);
        return Enumerable.Range(1, keys.Count + 1).Select(n => n == 1 ? plain : $"{plain}-{n}").First(k => !keys.Contains(k));
    }

    /// <summary>The text is a key: lower case letters, digits and hyphens.</summary>
    public static bool IsKey(string text) => text.Length is > 0 and <= 60 && !NoKey().IsMatch(text) && !text.StartsWith('-');

    private static void Named(string name, string field)
    {
        if (string.IsNullOrWhiteSpace(name)) throw new EditRefused(Reason.NameLacks) { Field = field };
        if (name.Length > LongestName) throw EditRefused.Range(Measure.NameLength, 1, LongestName, field);
    }

    private static void Coloured(string colour, string field)
    {
        if (!StockColours.IsColour(colour)) throw new EditRefused(Reason.NotAColour, colour) { Field = field };
    }

    private static void Apart(IEnumerable<string> names, string field)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var name in names) if (!seen.Add(name)) throw new EditRefused(Reason.NameTaken, name) { Field = field };
    }

    internal static void AtMost(int count, int most, string field)
    {
        if (count > most) throw new EditRefused(Reason.TooManyInDrawer, most) { Field = field };
    }

    // What is no number is between nothing.
    private static void Between(double value, double least, double most, Measure measure, string field)
    {
        if (!(value >= least && value <= most)) throw EditRefused.Range(measure, least, most, field);
    }

    internal static void BetweenMm(double value, double least, double most, Measure measure, string field)
    {
        if (!(value >= least && value <= most)) throw EditRefused.RangeMm(measure, least, most, field);
    }

    [GeneratedRegex("[^a-z0-9-]+", RegexOptions.NonBacktracking)]
    private static partial Regex NoKey();
}
