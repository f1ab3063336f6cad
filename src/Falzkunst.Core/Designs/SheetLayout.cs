using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>Where every piece of a design lies on paper.</summary>
/// <param name="Sheets">The sheets in the order they run.</param>
/// <param name="Unplaced">Copies that found no place, with the reason.</param>
/// <param name="SpacingMm">Distance kept between pieces.</param>
/// <param name="MadeFor">Fingerprint of the pieces and machine it was made for.</param>
public sealed record SheetLayouts(
    ImmutableArray<SheetLayout> Sheets, ImmutableArray<Unplaced> Unplaced, double SpacingMm, string MadeFor)
{
    /// <summary>The papers that were laid, by the ids of their pieces: a short hash of each.</summary>
    public ImmutableSortedDictionary<string, string> Papers { get; init; } = ImmutableSortedDictionary<string, string>.Empty;

    /// <summary>The papers of a design as <see cref="Papers"/> has them.</summary>
    public static ImmutableSortedDictionary<string, string> PapersOf(Design design) =>
        design.Pieces.ToImmutableSortedDictionary(p => p.Id, p => p.Paper.Hash[..16], StringComparer.Ordinal);

    public SheetLayout? Find(string id) => Sheets.FirstOrDefault(s => s.Id == id);

    /// <summary>What the ids of sheets begin with that are made in one go: the last, random digits of a key.</summary>
    public static string BatchKey(Guid batch) => batch.ToString("N")[^10..];

    /// <summary>What of it is on one stock.</summary>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="design">Says which pieces are of that stock.</param>
    public StockLayout ForStock(string stock, Design design) => new(
        stock, [.. Sheets.Where(s => s.Stock == stock)], [.. Unplaced.Where(u => design.Find(u.Piece)?.Stock == stock)]);

    /// <summary>With a sheet changed.</summary>
    public SheetLayouts With(SheetLayout sheet, SheetLayout changed) => this with { Sheets = Sheets.Replace(sheet, changed) };

    /// <summary>Another layout in the place of a stock's former one.</summary>
    public SheetLayouts With(StockLayout layout, Design design)
    {
        var at = Sheets.ToList().FindIndex(s => s.Stock == layout.Stock);
        var others = Sheets.Where(s => s.Stock != layout.Stock).ToList();
        others.InsertRange(at < 0 ? others.Count : Sheets.Take(at).Count(s => s.Stock != layout.Stock), layout.Sheets);
        return this with { Sheets = [.. others], Unplaced = [.. Unplaced.Where(u => design.Find(u.Piece)?.Stock != layout.Stock), .. layout.Unplaced] };
    }
}

/// <summary>Where the pieces of one stock lie.</summary>
/// <param name="Stock">Key of the stock.</param>
/// <param name="Sheets">Its sheets in the order they run.</param>
/// <param name="Unplaced">Copies of its pieces that found no place.</param>
public sealed record StockLayout(string Stock, ImmutableArray<SheetLayout> Sheets, ImmutableArray<Unplaced> Unplaced)
{
    /// <summary>Sheets of it that are still to be cut.</summary>
    public IEnumerable<SheetLayout> Uncut => Sheets.Where(s => s.RestKept is null);

    /// <summary>How many sheets of a size, or offcuts of a name, are left of those in the drawer.</summary>
    public int Left(string size, int inDrawer) => Math.Max(0, inDrawer - Uncut.Count(s => s.SizeName == size));

    /// <exception cref="EditRefused">A sheet of it is cut, so that its pieces cannot be laid otherwise any more.</exception>
    public void DemandUncut()
    {
        if (Sheets.FirstOrDefault(s => s.RestKept is not null) is { } cut)
            throw new EditRefused(Reason.SheetCut, cut.Number);
    }

    /// <summary>Without sheets on which nothing lies, the others numbered through; their ids stay.</summary>
    public StockLayout Tidy() => this with
    {
        Sheets = [.. Sheets.Where(s => s.Placements.Length > 0).Select((s, i) => s with { Number = i + 1 })],
    };

    /// <summary>The share of all its sheets that is paper of pieces, 0 to 1.</summary>
    public double Utilisation(Design design)
    {
        var area = Sheets.Sum(s => s.Area);
        return area > 0 ? Sheets.Sum(s => s.Utilisation(design) * s.Area) / area : 0;
    }
}

/// <summary>One sheet of one stock with the pieces on it; its own coordinates begin at the sheet's upper left corner.</summary>
/// <param name="Id">Never used for another sheet of the project, not even on a branch of its history that was left; runs and rests hang from it.</param>
/// <param name="Stock">Key of the stock.</param>
/// <param name="Number">1 for the first sheet of its stock.</param>
/// <param name="SizeName">Name of the sheet's size, or of the offcut, in the drawer.</param>
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
    /// <summary>The true outline of an offcut within width and height; null for a whole sheet.</summary>
    public Path? Outline { get; init; }

    /// <summary>It is cut, and its rest is in the drawer under this name; null for a sheet that is still whole.</summary>
    public string? RestKept { get; init; }

    /// <summary>Zones in which nothing lies: where there is no paper, or none that is sound.</summary>
    public ImmutableArray<Path> Blocked { get; init; } = [];

    /// <summary>The box whose corners its registration marks have, where they are drawn in closer; null where they stand at the page's corners, or there are none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Box? MarkFrame { get; init; }

    /// <summary>What was read last of its marks on a scan or photo; null where none was brought.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public PrintReading? Reading { get; init; }

    /// <summary>The paper's area, mm²; blocked zones are part of it.</summary>
    public double Area => Outline is null ? Width * Height : Math.Abs(Outline.SignedArea);

    /// <summary>The box within its borders, mm.</summary>
    public Box Usable => Borders.Within(Width, Height);

    /// <summary>The share of the sheet's area that is paper of pieces, 0 to 1.</summary>
    public double Utilisation(Design design) => Placements.Sum(p => design.Find(p.Piece)?.Area ?? 0) / Area;

    public Placement? Find(string piece, int copy) => Placements.FirstOrDefault(p => p.Piece == piece && p.Copy == copy);
}

/// <summary>One copy of a piece on a sheet.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">1 for the first copy.</param>
/// <param name="Place">From the piece's coordinates to the sheet's.</param>
public sealed record Placement(string Piece, int Copy, Affine Place)
{
    /// <summary>It stays where it is when the others settle anew.</summary>
    public bool Pinned { get; init; }
}

/// <summary>Copies of a piece that lie on no sheet.</summary>
public sealed record Unplaced(string Piece, int Copies, Unfit Why);
