using System.Collections.Immutable;

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
