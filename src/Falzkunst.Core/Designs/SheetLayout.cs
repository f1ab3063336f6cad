using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Where every piece of a design lies on paper.</summary>
/// <param name="Sheets">The sheets in the order they run.</param>
/// <param name="Unplaced">Copies that found no place, with the reason.</param>
/// <param name="SpacingMm">Distance kept between pieces.</param>
/// <param name="MadeFor">Fingerprint of the pieces and machine it was made for.</param>
public sealed record SheetLayouts(
    ImmutableArray<SheetLayout> Sheets, ImmutableArray<Unplaced> Unplaced, double SpacingMm, string MadeFor)
{
    public SheetLayout? Find(string id) => Sheets.FirstOrDefault(s => s.Id == id);
}

/// <summary>One sheet of one stock with the pieces on it; its own coordinates begin at the sheet's upper left corner.</summary>
/// <param name="Id">Unique among the layouts: stock key and number.</param>
/// <param name="Stock">Key of the stock.</param>
/// <param name="Number">1 for the first sheet of its stock.</param>
/// <param name="SizeName">Name of the sheet's size in the drawer.</param>
/// <param name="Width">mm.</param>
/// <param name="Height">mm.</param>
/// <param name="Borders">Strips in which nothing lies.</param>
/// <param name="Placements">The copies on it.</param>
public sealed record SheetLayout(
    string Id,
    string Stock,
    int Number,
    string SizeName,
    double Width,
    double Height,
    Borders Borders,
    ImmutableArray<Placement> Placements)
{
    /// <summary>The share of the sheet's whole area that is paper of pieces, 0 to 1.</summary>
    public double Utilisation(Design design) =>
        Placements.Sum(p => design.Find(p.Piece)?.Area ?? 0) / (Width * Height);
}

/// <summary>One copy of a piece on a sheet.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">1 for the first copy.</param>
/// <param name="Place">From the piece's coordinates to the sheet's.</param>
public sealed record Placement(string Piece, int Copy, Affine Place);

/// <summary>Copies of a piece that lie on no sheet.</summary>
public sealed record Unplaced(string Piece, int Copies, string Reason);
