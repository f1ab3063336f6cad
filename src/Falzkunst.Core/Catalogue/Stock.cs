using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>A paper or board in the stock drawer.</summary>
/// <param name="Key">Short stable name used by pieces, lower case with hyphens.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Kind">What sort of paper it is, in words.</param>
/// <param name="GramsPerSquareMetre">Weight, g/m².</param>
/// <param name="ThicknessMm">Thickness, mm.</param>
/// <param name="Colour">Its colour as #rrggbb.</param>
/// <param name="NarrowestMm">The narrowest part it bears, mm.</param>
/// <param name="Sheets">Sheets at hand, first choice first.</param>
/// <param name="Settings">Settings that worked, one for each tool it is used with: those of the set in use.</param>
public sealed record Stock(
    string Key,
    string Name,
    string Kind,
    int GramsPerSquareMetre,
    double ThicknessMm,
    string Colour,
    double NarrowestMm,
    ImmutableArray<SheetSize> Sheets,
    ImmutableArray<ToolSettings> Settings) : IDrawerThing
{
    /// <summary>Rests of earlier sheets, used before new ones.</summary>
    public ImmutableArray<Offcut> Offcuts { get; init; } = [];

    /// <summary>How many offcuts were ever kept of it, those included that are used up.</summary>
    public int OffcutsMade { get; init; }

    /// <summary>What rests are called, with their number behind it.</summary>
    public const string RestName = "Rest ";

    /// <summary>A name for one more offcut, which none has or ever had.</summary>
    public string NextOffcut => Enumerable.Range(OffcutsMade + 1, Offcuts.Length + Sheets.Length + 1).Select(n => $"{RestName}{n}")
        .First(name => Offcuts.All(o => o.Name != name) && Sheets.All(s => s.Name != name));

    /// <summary>Its back equals its front, so that pieces that are only cut may lie on their face.</summary>
    public bool BothSidesAlike { get; init; }

    /// <summary>A pattern printed on it, as its swatch shows it.</summary>
    public StockPattern Pattern { get; init; }

    /// <summary>Which way its grain or pattern runs on a sheet as it is listed.</summary>
    public StockDirection Direction { get; init; }

    /// <summary>Tools that it suits; every one where nothing is said.</summary>
    public ImmutableArray<Tool> Suits { get; init; } = [];

    /// <summary>It goes through a printer.</summary>
    public bool TakesPrint { get; init; }

    /// <summary>It stands first in lists.</summary>
    public bool IsFavourite { get; init; }

    /// <summary>Rises with every change; a change names the one that it was made on.</summary>
    public int Version { get; init; }

    /// <summary>It is no longer offered; what was made with it goes on knowing it.</summary>
    public bool IsPutAway { get; init; }

    /// <summary>What the set of settings in use is called.</summary>
    public string SetName { get; init; } = UsualSet;

    /// <summary>Where settings of the set in use came from, and when, by tool.</summary>
    public ImmutableSortedDictionary<Tool, SettingNote> Notes { get; init; } = ImmutableSortedDictionary<Tool, SettingNote>.Empty;

    /// <summary>Sets of settings for other work, such as intricate or thick, not in use.</summary>
    public ImmutableArray<SettingsSet> OtherSets { get; init; } = [];

    /// <summary>The name of a stock's first set.</summary>
    public const string UsualSet = "usual";

    /// <summary>The set in use.</summary>
    public SettingsSet SetInUse => new(SetName, Settings, Notes);

    /// <summary>The stock with another of its sets in use; as it is where it has none of that name.</summary>
    public Stock Using(string set) => OtherSets.FirstOrDefault(s => s.Name == set) is not { } chosen ? this : With(chosen) with { OtherSets = OtherSets.Replace(chosen, SetInUse) };

    /// <summary>The stock with a set in place of the one in use.</summary>
    public Stock With(SettingsSet set) => this with { SetName = set.Name, Settings = set.Settings, Notes = set.Notes };

    /// <summary>What printing leaves to the pieces of a project on its sheets; null where nothing is printed. It belongs to the project and is never kept with the stock.</summary>
    [JsonIgnore]
    public PageRoom? Room { get; init; }

    /// <summary>It suits a tool, as far as is known.</summary>
    public bool DoesSuit(Tool tool) => Suits.IsEmpty || Suits.Contains(tool);

    /// <summary>The narrowest part that it bears when worked with a tool, mm.</summary>
    public double NarrowestFor(Tool tool) => SettingsFor(tool).NarrowestMm ?? NarrowestMm;

    /// <summary>The settings for a tool; a stock without its own answers with careful ones for its weight.</summary>
    public ToolSettings SettingsFor(Tool tool) =>
        Settings.FirstOrDefault(s => s.Tool == tool) ?? CarefulSettings.For(tool, GramsPerSquareMetre, ThicknessMm);
}

/// <summary>A size of sheet at hand.</summary>
/// <param name="Name">What it is called in the drawer, such as "A4" or "12 inch square".</param>
/// <param name="WidthMm">Width as it lies on the mat.</param>
/// <param name="HeightMm">Height as it lies on the mat.</param>
/// <param name="Count">How many there are.</param>
public sealed record SheetSize(string Name, double WidthMm, double HeightMm, int Count);

/// <summary>A rest of an earlier sheet.</summary>
/// <param name="Name">Unique in its stock, among the sizes of sheets too.</param>
/// <param name="Outline">Its true outline, mm, with the upper left corner of its box at 0, 0.</param>
/// <param name="Holes">Where pieces were cut out of it.</param>
public sealed record Offcut(string Name, Path Outline, ImmutableArray<Path> Holes)
{
    /// <summary>Area, mm².</summary>
    public double Area => Math.Abs(Outline.SignedArea) - Holes.Sum(h => Math.Abs(h.SignedArea));

    /// <summary>The same rest with the upper left corner of its box at 0, 0, wherever its outline was measured from.</summary>
    public Offcut AtCorner()
    {
        var corner = Outline.Bounds.Min;
        if (corner == default || !corner.IsFinite) return this;
        var home = Affine.Move(corner * -1);
        return this with { Outline = Outline.Map(home), Holes = [.. Holes.Select(h => h.Map(home))] };
    }
}

/// <summary>What a stock's face looks like besides its colour.</summary>
public enum StockPattern
{
    Plain,
    Stripes,
    Dots,
    Checks,
    Flecks,
}

/// <summary>Which way a grain or a pattern runs on a sheet.</summary>
public enum StockDirection
{
    /// <summary>None that matters.</summary>
    None,

    /// <summary>Along the width of the sheet.</summary>
    Across,

    /// <summary>Along its height.</summary>
    Down,
}
