using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json.Serialization;
using Falzkunst.Core.Building;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Printing;

namespace Falzkunst.Core.Projects;

/// <summary>
/// One card design with everything in it, as one immutable value. It changes only by an edit, which gives the
/// next value; undo is going back to the former one, all of it together.
/// </summary>
/// <param name="SetOut">Card, machine, units, how many.</param>
/// <param name="Design">The pieces.</param>
/// <param name="Sheets">Where they lie on paper; null until they have been put there.</param>
public sealed record Project(SetOut SetOut, Design Design, SheetLayouts? Sheets)
{
    public static readonly Project Empty = new(SetOut.Default, Design.Empty, null);

    /// <summary>What was kept aside to be taken up again.</summary>
    public ImmutableArray<Variant> Variants { get; init; } = [];

    /// <summary>The pieces as they are made: those with a list once for each row.</summary>
    [JsonIgnore]
    public Design Made => NameLists.Expanded(Design);

    /// <summary>
    /// A short text that changes whenever something changes that layouts depend on: paper, stocks, quantities, machine, spacing.
    /// </summary>
    public string LayoutFingerprint() => Fingerprint(Made.Pieces);

    /// <summary>The same of the pieces of one stock alone: what is edited elsewhere leaves it as it is.</summary>
    /// <param name="stock">Key of the stock.</param>
    public string LayoutFingerprint(string stock) => Fingerprint(Made.Pieces.Where(p => p.Stock == stock));

    private string Fingerprint(IEnumerable<Piece> pieces)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"{SetOut.Machine}|{SetOut.Cards}|{SetOut.SpacingMm:R}");
        foreach (var p in pieces)
        {
            text.Append(CultureInfo.InvariantCulture, $"|{p.Id},{p.Stock},{p.Quantity},{p.Paper.Hash}");
            if (SetOut.TurnedSheets.Contains(p.Stock)) text.Append(",turned");
            if (!p.IsMade) text.Append(",out");
            if (SetOut.Printing.TryGetValue(p.Stock, out var how)) text.Append(CultureInfo.InvariantCulture, $",{Layout(how)},{PrintReach.WhiteEdge(p):R}");
            if (p.AllowedTurns != default) text.Append(CultureInfo.InvariantCulture, $",{p.AllowedTurns}");
        }
        // How the lines are worked changes what runs, and where the paper lies only where a closed line is cut through or no longer is.
        return ContentHash.Short(text.ToString(), 16);
    }

    /// <summary>A stock with its sheets as they are laid on the mat or printed: upright or turned to landscape, as was chosen, with the room that printing leaves.</summary>
    public Stock AsLaid(Stock stock)
    {
        var laid = SetOut.TurnedSheets.Contains(stock.Key)
            ? stock with { Sheets = [.. stock.Sheets.Select(s => s with { WidthMm = s.HeightMm, HeightMm = s.WidthMm })] } : stock;
        return SetOut.Printing.TryGetValue(stock.Key, out var how) ? laid with { Room = RoomOf(stock.Key, how) } : laid;
    }

    /// <summary>The distance that pieces of a stock keep on their sheets: as set, and more where their print needs it.</summary>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="setMm">As set, mm.</param>
    public double SpacingOn(string stock, double setMm) => SetOut.Printing.TryGetValue(stock, out var how) ? RoomOf(stock, how).Spacing(setMm) : setMm;

    /// <summary>Print that touches a cut needs room for its bleed; where all art leaves white at the edge, pieces may lie in the printer's margin.</summary>
    private PageRoom RoomOf(string stock, PagePrinting how)
    {
        var white = Made.Pieces.Where(p => p.Stock == stock && p.Quantity > 0).Select(PrintReach.WhiteEdge).DefaultIfEmpty(double.PositiveInfinity).Min();
        var bleeds = white == 0;
        return new(how, bleeds ? how.MarginMm + how.BleedMm : double.IsInfinity(white) ? 0 : Math.Max(0, how.MarginMm - white), bleeds ? 2 * how.BleedMm : 0);
    }

    /// <summary>What of the printing of a stock its layouts depend on.</summary>
    private static string Layout(PagePrinting how) => string.Create(CultureInfo.InvariantCulture,
        $"printed {how.MarginMm:R} {how.BleedMm:R} {how.Size} {(how.Marks is { } m ? $"{m.InsetMm:R} {m.ArmMm:R} {m.LineMm:R} {m.ClearMm:R}" : "plain")}");

    /// <summary>The layouts still belong to the pieces as they are now.</summary>
    public bool SheetsAreCurrent => Sheets is not null && Sheets.MadeFor == LayoutFingerprint() && !LiesOnMarkedFace(Sheets);

    /// <summary>Work on the layout of a stock was asked for on the pieces and numbers of now, whatever was edited elsewhere meanwhile.</summary>
    /// <param name="madeFor">Fingerprint that it was asked for: of the stock alone, or of all the sheets.</param>
    /// <param name="stock">Key of the stock.</param>
    public bool WasAskedForThese(string? madeFor, string stock) => madeFor is not null && (madeFor == LayoutFingerprint(stock) || madeFor == Sheets?.MadeFor);

    /// <summary>A piece that was only cut was laid on its face, and has lines since that mark it.</summary>
    private bool LiesOnMarkedFace(SheetLayouts sheets) => sheets.Sheets.Where(s => s.RestKept is null).SelectMany(s => s.Placements)
        .Any(p => p.Place.Determinant < 0 && Made.Find(p.Piece) is { IsOnlyCut: false });
}

/// <summary>What is settled before the art comes in.</summary>
/// <param name="Card">Size of the card.</param>
/// <param name="Machine">Key of the machine.</param>
/// <param name="Units">What lengths are shown in.</param>
/// <param name="Cards">How many cards are made.</param>
/// <param name="SpacingMm">Distance kept between pieces on a sheet, mm.</param>
/// <param name="ScoreClearanceMm">How far scores stop short of every cut, mm.</param>
public sealed record SetOut(
    CardFormat Card, string Machine, Units Units, int Cards, double SpacingMm, double ScoreClearanceMm = ScoreEnds.DefaultClearanceMm)
{
    /// <summary>Pieces lie no farther apart than this by setting, mm.</summary>
    public const double MostSpacingMm = 50;

    /// <summary>Scores stop no farther from a cut than this by setting, mm.</summary>
    public const double MostClearanceMm = 10;

    /// <summary>Widths set for stocks of this project instead of what the catalogue says they bear, mm, by the stock's key.</summary>
    public ImmutableSortedDictionary<string, double> LeastWidths { get; init; } = ImmutableSortedDictionary<string, double>.Empty;

    /// <summary>Keys of stocks whose sheets are laid turned by a quarter.</summary>
    public ImmutableSortedSet<string> TurnedSheets { get; init; } = [];

    /// <summary>What files without a size of their own were settled to be scaled by, by the file's id; where one is not named, as when it came in.</summary>
    public ImmutableSortedDictionary<Guid, double> ArtScales { get; init; } = ImmutableSortedDictionary<Guid, double>.Empty;

    /// <summary>How sheets are printed, by the stock's key; a stock that is not named goes through no printer.</summary>
    public ImmutableSortedDictionary<string, PagePrinting> Printing { get; init; } = ImmutableSortedDictionary<string, PagePrinting>.Empty;

    public static readonly SetOut Default = new(CardFormat.Default, "twin-330", Units.Millimetres, 1, 2);
}

/// <summary>Size of a card, mm.</summary>
/// <param name="Name">Name of a common size, or "own size".</param>
/// <param name="FoldedWidth">Width when closed.</param>
/// <param name="FoldedHeight">Height when closed.</param>
/// <param name="Fold">How it opens.</param>
public sealed record CardFormat(string Name, double FoldedWidth, double FoldedHeight, CardFold Fold)
{
    /// <summary>No card is smaller or larger each way, mm.</summary>
    public const double LeastMm = 20;
    public const double MostMm = 1000;

    public static readonly CardFormat Default = new("A5", 148, 210, CardFold.Left);

    /// <summary>Sizes to start from.</summary>
    public static readonly ImmutableArray<CardFormat> Common =
    [
        new("A6", 105, 148, CardFold.Left), new("A5", 148, 210, CardFold.Left), new("Square 148", 148, 148, CardFold.Left),
        new("5 × 7 inch", 127, 177.8, CardFold.Left), new("DL", 99, 210, CardFold.Left),
    ];

    /// <summary>A card of a size, with the common name where it is a common size.</summary>
    public static CardFormat Sized(double width, double height, CardFold fold) =>
        new(Common.FirstOrDefault(c => Math.Abs(c.FoldedWidth - width) < 0.01 && Math.Abs(c.FoldedHeight - height) < 0.01)?.Name ?? "Own size", width, height, fold);

    /// <summary>Width when open.</summary>
    public double OpenWidth => Fold is CardFold.Left or CardFold.Gate ? FoldedWidth * 2 : FoldedWidth;

    /// <summary>Height when open.</summary>
    public double OpenHeight => Fold == CardFold.Top ? FoldedHeight * 2 : FoldedHeight;

    /// <summary>The folds of the open card, edge to edge, mm from its upper left corner.</summary>
    public IEnumerable<(Point From, Point To)> Folds => Fold switch
    {
        CardFold.Left => [(new(FoldedWidth, 0), new(FoldedWidth, FoldedHeight))],
        CardFold.Top => [(new(0, FoldedHeight), new(FoldedWidth, FoldedHeight))],
        CardFold.Gate =>
        [
            (new(FoldedWidth / 2, 0), new(FoldedWidth / 2, FoldedHeight)),
            (new(FoldedWidth * 1.5, 0), new(FoldedWidth * 1.5, FoldedHeight)),
        ],
        _ => [],
    };
}

/// <summary>Which edge folds.</summary>
public enum CardFold
{
    Left,
    Top,
    Gate,
    None,
}
