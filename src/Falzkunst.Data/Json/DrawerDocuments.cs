using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Data.Json;

/// <summary>A stock as a document: for the audit of the drawer, and for files that carry a drawer. Lengths in mm.</summary>
internal sealed record StockDocument(
    string Key, string Name, string Kind, int GramsPerSquareMetre, double ThicknessMm, string Colour, double NarrowestMm,
    ImmutableArray<SheetSize> Sheets, string SetInUse, ImmutableArray<SetDocument> Sets, StockPattern Pattern = StockPattern.Plain,
    StockDirection Direction = StockDirection.None, bool BothSidesAlike = false, ImmutableArray<Tool> Suits = default, bool TakesPrint = false,
    bool IsFavourite = false, bool IsPutAway = false, ImmutableArray<OffcutDocument> Offcuts = default)
{
    public static StockDocument From(Stock s) => new(
        s.Key, s.Name, s.Kind, s.GramsPerSquareMetre, s.ThicknessMm, s.Colour, s.NarrowestMm, s.Sheets, s.SetName, [.. s.OtherSets.Prepend(s.SetInUse).Select(SetDocument.From)],
        s.Pattern, s.Direction, s.BothSidesAlike, s.Suits, s.TakesPrint, s.IsFavourite, s.IsPutAway,
        [.. s.Offcuts.Select(o => new OffcutDocument(o.Name, PathText.Write(o.Outline), [.. o.Holes.Select(PathText.Write)]))]);

    /// <exception cref="FormatException">An outline is no path data, a set is lacking or a part is.</exception>
    public Stock ToStock()
    {
        var sets = Sets.OrEmpty().Select(s => s.ToSet()).ToImmutableArray();
        var inUse = sets.FirstOrDefault(s => s.Name == SetInUse) ?? throw new FormatException($"the stock “{Name}” has no set of settings “{SetInUse}”");
        return new Stock(Key, Name, Kind, GramsPerSquareMetre, ThicknessMm, Colour, NarrowestMm, Sheets.OrEmpty(), inUse.Settings)
        {
            Pattern = Pattern,
            Direction = Direction,
            BothSidesAlike = BothSidesAlike,
            Suits = Suits.OrEmpty(),
            TakesPrint = TakesPrint,
            IsFavourite = IsFavourite,
            IsPutAway = IsPutAway,
            SetName = inUse.Name,
            Notes = inUse.Notes,
            OtherSets = sets.Remove(inUse),
            Offcuts = [.. Offcuts.OrEmpty().Select(o => new Offcut(o.Name, PathText.Read(o.Outline), [.. o.Holes.OrEmpty().Select(PathText.Read)]).AtCorner())],
        };
    }
}

/// <summary>A rest; its outline as SVG path data.</summary>
internal sealed record OffcutDocument(string Name, string Outline, ImmutableArray<string> Holes = default);

/// <summary>A set of settings.</summary>
internal sealed record SetDocument(string Name, ImmutableArray<SettingDocument> Settings)
{
    public static SetDocument From(SettingsSet set) => new(set.Name, [.. set.Settings.OrderBy(s => s.Tool).Select(s => new SettingDocument(
        s.Tool, s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm, s.TipMm,
        set.Notes.GetValueOrDefault(s.Tool)?.From, set.Notes.GetValueOrDefault(s.Tool)?.At))]);

    public SettingsSet ToSet()
    {
        var settings = Settings.OrEmpty();
        if (settings.DistinctBy(s => s.Tool).Count() != settings.Length) throw new FormatException($"the set of settings “{Name}” has two for one tool");
        return new(
            Name, [.. settings.Select(s => new ToolSettings(s.Tool, s.ForceGrams, s.SpeedMmPerSecond, s.BladeOutMm, s.TemperatureCelsius, s.WarmUpSeconds, s.Times, s.NarrowestMm, s.TipMm))],
            settings.Where(s => s is { From: not null, At: not null }).ToImmutableSortedDictionary(s => s.Tool, s => new SettingNote(s.From!, s.At!.Value)));
    }
}

internal sealed record SettingDocument(
    Tool Tool, int ForceGrams, double SpeedMmPerSecond, double? BladeOutMm = null, int? TemperatureCelsius = null, int WarmUpSeconds = 0, int Times = 1,
    double? NarrowestMm = null, double? TipMm = null, string? From = null, DateTimeOffset? At = null);

/// <summary>A machine as a document.</summary>
internal sealed record MachineDocument(
    string Key, string Name, string MatInUse, ImmutableArray<Mat> Mats, Borders Unreachable, ImmutableArray<Holder> Holders, bool ReadsMarks,
    double TopSpeed, double Acceleration, double LiftSeconds, ImmutableArray<MachineFile> Files, bool IsPutAway = false,
    ImmutableArray<Calibration> Calibrations = default)
{
    public static MachineDocument From(Machine m) => new(
        m.Key, m.Name, m.MatName, [.. m.OtherMats.Prepend(m.MatInUse)], m.Unreachable, m.Holders, m.ReadsMarks, m.TopSpeed, m.Acceleration, m.LiftSeconds, m.Files, m.IsPutAway, m.Calibrations);

    /// <exception cref="FormatException">A part is lacking.</exception>
    public Machine ToMachine()
    {
        var mat = Mats.OrEmpty().FirstOrDefault(m => m.Name == MatInUse) ?? throw new FormatException($"the machine “{Name}” has no mat “{MatInUse}”");
        return new Machine(
            Key, Name, mat.WidthMm, mat.HeightMm, Unreachable ?? throw new FormatException($"the machine “{Name}” has no borders"),
            [.. Holders.OrEmpty().Select(h => h with { Tools = h.Tools.OrEmpty() })], ReadsMarks, TopSpeed, Acceleration, LiftSeconds)
        {
            MatName = mat.Name,
            OtherMats = Mats.Remove(mat),
            Files = Files.OrEmpty(),
            Calibrations = Calibrations.OrEmpty(),
            IsPutAway = IsPutAway,
        };
    }
}

/// <summary>A pen, foil, tip or blade as a document.</summary>
internal sealed record ToolDocument(string Key, CraftToolKind Kind, string Name, string? Colour = null, double? WidthMm = null, bool IsPutAway = false)
{
    public static ToolDocument From(CraftTool t) => new(t.Key, t.Kind, t.Name, t.Colour, t.WidthMm, t.IsPutAway);

    public CraftTool ToTool() => new(Key, Kind, Name, Colour, WidthMm) { IsPutAway = IsPutAway };
}

/// <summary>A drawer as a file carries it; docs/drawer-file.md describes it.</summary>
internal sealed record DrawerDocument(
    [property: JsonRequired] string Falzkunst, [property: JsonRequired] int Schema,
    ImmutableArray<StockDocument> Stocks = default, ImmutableArray<MachineDocument> Machines = default, ImmutableArray<ToolDocument> Tools = default)
{
    public const string Kind = "drawer";

    /// <summary>Goes up when a member changes its meaning.</summary>
    public const int Version = 1;
}

internal static class Lacking
{
    /// <summary>A list that a document left out is empty.</summary>
    public static ImmutableArray<T> OrEmpty<T>(this ImmutableArray<T> list) => list.IsDefault ? [] : list;
}
