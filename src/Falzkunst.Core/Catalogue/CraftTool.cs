namespace Falzkunst.Core.Catalogue;

/// <summary>What sort of thing a tool of the drawer is.</summary>
public enum CraftToolKind
{
    Pen,
    Foil,
    FoilTip,
    EmbossTip,
    ScoreTip,
    Blade,

    /// <summary>Its width is that of the strip along the edges of a page that it does not print.</summary>
    Printer,
}

/// <summary>A pen, a foil, a tip, a blade or a printer in the drawer.</summary>
/// <param name="Key">Short stable name, lower case with hyphens.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Colour">Of a pen or a foil, #rrggbb; null for others.</param>
/// <param name="WidthMm">Width of its line, of a printer that of the strip it does not print, mm; null where it has none.</param>
public sealed record CraftTool(string Key, CraftToolKind Kind, string Name, string? Colour, double? WidthMm) : IDrawerThing
{
    /// <summary>It is no longer offered.</summary>
    public bool IsPutAway { get; init; }

    /// <summary>Rises with every change; a change names the one that it was made on.</summary>
    public int Version { get; init; }
}
