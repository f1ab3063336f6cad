using System.Collections.Immutable;
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
/// <param name="Settings">Settings that worked, one for each tool it is used with.</param>
public sealed record Stock(
    string Key,
    string Name,
    string Kind,
    int GramsPerSquareMetre,
    double ThicknessMm,
    string Colour,
    double NarrowestMm,
    ImmutableArray<SheetSize> Sheets,
    ImmutableArray<ToolSettings> Settings)
{
    /// <summary>Rests of earlier sheets, used before new ones.</summary>
    public ImmutableArray<Offcut> Offcuts { get; init; } = [];

    /// <summary>How many offcuts were ever kept of it, those included that are used up.</summary>
    public int OffcutsMade { get; init; }

    /// <summary>A name for one more offcut, which none has or ever had.</summary>
    public string NextOffcut => Enumerable.Range(OffcutsMade + 1, Offcuts.Length + Sheets.Length + 1).Select(n => $"Rest {n}")
        .First(name => Offcuts.All(o => o.Name != name) && Sheets.All(s => s.Name != name));

    /// <summary>Its back equals its front, so that pieces that are only cut may lie on their face.</summary>
    public bool BothSidesAlike { get; init; }

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
}
