using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>How the picked lines are printed; what is not named stays as it is. Lines that were not printed are from now on.</summary>
/// <param name="Fill">Colour of what they bound, #rrggbb, or "none".</param>
/// <param name="Colour">Colour of the stroke along them, or "none".</param>
/// <param name="Width">Its width.</param>
/// <param name="Dash">Length of its dashes; 0 for none.</param>
/// <param name="Gap">Paper between them.</param>
/// <param name="Round">Ends are half circles.</param>
/// <param name="OverColour">Colour of a second stroke over the first, or "none".</param>
/// <param name="OverWidth">Its width.</param>
/// <param name="OverDash">Length of its dashes.</param>
/// <param name="OverGap">What of the first shows between them.</param>
public sealed record PaintAction(
    string? Fill = null, string? Colour = null, [InMillimetres] double? Width = null, [InMillimetres] double? Dash = null, [InMillimetres] double? Gap = null, bool? Round = null,
    string? OverColour = null, [InMillimetres] double? OverWidth = null, [InMillimetres] double? OverDash = null, [InMillimetres] double? OverGap = null) : BenchAction
{
    public const string None = "none";

    public override Edit For(BenchContext c)
    {
        var lines = c.Picked.SomeLines();
        var piece = c.Design.Require(lines[0].Piece);
        var first = piece.Drawn.FirstOrDefault(l => l.Id == lines[0].Ids[0]) ?? throw new EditRefused(Reason.LinesGone);
        var now = PrintLook.Of(first);
        var band = Band(now.Band, Colour, Width, Dash, Gap, PrintLook.UsualMm) is { } b ? b with { RoundEnds = Round ?? b.RoundEnds } : null;
        var over = Band(now.Over, OverColour, OverWidth, OverDash, OverGap, (band?.WidthMm ?? PrintLook.UsualMm) / 2);
        var look = now with { Fill = Fill is null ? now.Fill : IsNone(Fill) ? null : Upper(Fill), Band = band, Over = over, Shading = null };
        return new PrintLines(lines, look);
    }

    private static PrintBand? Band(PrintBand? now, string? colour, double? width, double? dash, double? gap, double usual)
    {
        if (colour is not null && IsNone(colour)) return null;
        if (now is null && colour is null && width is null && dash is null) return null;
        var band = now ?? new PrintBand(PrintLook.UsualColour, usual);
        band = band with { Colour = colour is null ? band.Colour : Upper(colour), WidthMm = width ?? band.WidthMm, DashMm = dash ?? band.DashMm, GapMm = gap ?? band.GapMm };
        // Dashes without a gap that was named are as far apart as they are long.
        return band is { DashMm: > 0, GapMm: 0 } && gap is null ? band with { GapMm = band.DashMm } : band;
    }

    private static bool IsNone(string colour) => colour.Equals(None, StringComparison.OrdinalIgnoreCase);
    private static string Upper(string colour) => colour.ToUpperInvariant();
}

/// <summary>A colour printed all over the picked pieces; without one there is none.</summary>
public sealed record PrintGroundAction(string? Fill = null, bool OnBack = false) : BenchAction
{
    public override Edit For(BenchContext c) => new PrintFills(c.Picked.SomePieces(), Fill is null || Fill == PaintAction.None ? null : Fill, OnBack);
}

/// <summary>A printed border along the edge of the picked pieces, which follows it.</summary>
/// <param name="Inset">From the edge to its middle.</param>
/// <param name="Width">How wide.</param>
/// <param name="Dash">Length of its dashes; 0 for none.</param>
/// <param name="Gap">Paper between them.</param>
/// <param name="Colour">#rrggbb.</param>
/// <param name="Round">Ends are half circles.</param>
public sealed record PrintBorderAction(
    [InMillimetres] double Inset = 3, [InMillimetres] double Width = 0.8, [InMillimetres] double Dash = 0, [InMillimetres] double Gap = 0, string Colour = PrintLook.UsualColour, bool Round = false) : BenchAction
{
    public override Edit For(BenchContext c) =>
        new PrintBorder(c.Picked.SomePieces(), Inset, new PrintBand(Colour.ToUpperInvariant(), Width, Dash, Dash > 0 && Gap == 0 ? Dash : Gap) { RoundEnds = Round });
}

/// <summary>Only the outer edge of the picked pieces is cut, and everything inside is printed; several become one.</summary>
public sealed record CutOnlyOutsideAction : BenchAction
{
    public override Edit For(BenchContext c) => new CutOnlyOutside(c.Picked.IsLines ? [.. c.Picked.Lines.Select(l => l.Piece).Distinct()] : c.Picked.SomePieces());
}

/// <summary>The outline of the picked piece grows round printed areas that hang over it.</summary>
public sealed record FollowPrintAction : BenchAction
{
    public override Edit For(BenchContext c) => new FollowPrint(c.Picked.OnlyPiece());
}

/// <summary>A picture on the picked piece goes on its back, or on its face again.</summary>
/// <param name="Item">Id of the picture on the piece; null for the topmost.</param>
/// <param name="OnBack">On the back.</param>
public sealed record TurnPictureAction(string? Item = null, bool OnBack = true) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        return new TurnPicture(piece.Id, PlacePictureAction.OnPiece(piece, Item).Id, OnBack);
    }
}

/// <summary>A picture on the picked piece becomes so large that it covers all of it, with its bleed.</summary>
/// <param name="Item">Id of the picture on the piece; null for the topmost.</param>
public sealed record CoverPictureAction(string? Item = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var bleed = c.Project.SetOut.Printing.GetValueOrDefault(piece.Stock)?.BleedMm ?? PagePrinting.UsualBleedMm;
        return new CoverWithPicture(piece.Id, PlacePictureAction.OnPiece(piece, Item).Id, bleed);
    }
}

/// <summary>How a stock is printed; what is not named stays as it is, or is as usual.</summary>
/// <param name="Stock">Key of the stock; null for that of the picked piece, else of the first piece on which something is printed.</param>
/// <param name="Marks">With marks, to be cut by a machine; else a plain page.</param>
/// <param name="Printer">Key of a printer of the drawer, whose margin is taken.</param>
/// <param name="Margin">The strip that is not printed.</param>
/// <param name="Bleed">How far print goes past a cut.</param>
/// <param name="Inset">From the page's edges to the marks.</param>
/// <param name="Arm">Length of a mark's arm.</param>
/// <param name="Line">Width of its line.</param>
/// <param name="Clear">Paper kept clear round a mark.</param>
/// <param name="SavesInk">What upper layers hide is left out.</param>
/// <param name="Glue">But for so wide a strip under their edges.</param>
/// <param name="Flip">Which edge the sheet is flipped about between its sides: "upright", "level", or "none" for one side.</param>
/// <param name="Apart">How far front and back may lie apart.</param>
/// <param name="Size">Name of the one size of sheet that is printed; empty for any.</param>
/// <param name="Label">A line says project, page and date.</param>
/// <param name="WaitOver">A run waits for a yes where cut and print may lie farther apart.</param>
/// <param name="Fourth">A smaller mark in the lower right corner too, which shows how a lens bends a photo.</param>
public sealed record PrintPagesAction(
    string? Stock = null, bool? Marks = null, string? Printer = null, [InMillimetres] double? Margin = null, [InMillimetres] double? Bleed = null,
    [InMillimetres] double? Inset = null, [InMillimetres] double? Arm = null, [InMillimetres] double? Line = null, [InMillimetres] double? Clear = null,
    bool? SavesInk = null, [InMillimetres] double? Glue = null, string? Flip = null, [InMillimetres] double? Apart = null, string? Size = null, bool? Label = null, [InMillimetres] double? WaitOver = null, bool? Fourth = null) : BenchAction
{
    /// <summary>The strip kept for glue where nothing says another, mm.</summary>
    public const double UsualGlueMm = 5;

    public override Edit For(BenchContext c)
    {
        var stock = c.Drawer.Stock(Stock ?? StockOf(c)).Key;
        var printer = Printer is { Length: > 0 } key ? c.Drawer.Tools.FirstOrDefault(t => t.Key == key && t.Kind == CraftToolKind.Printer) ?? throw new EditRefused(Reason.NoSuchTool, key) { Field = "printer" } : null;
        var first = c.Drawer.OfferedTools(CraftToolKind.Printer).FirstOrDefault();
        var now = c.Project.SetOut.Printing.GetValueOrDefault(stock)
            ?? new PagePrinting(first?.Key ?? "", first?.WidthMm ?? PagePrinting.UsualMarginMm, c.Drawer.Machine(c.Project.SetOut.Machine).ReadsMarks ? MarkSettings.Usual : null);
        var marks = Marks switch
        {
            true => now.Marks ?? MarkSettings.Usual,
            false => null,
            null => now.Marks,
        };
        return new ChangePrinting(stock, now with
        {
            Printer = Printer ?? now.Printer,
            MarginMm = Margin ?? printer?.WidthMm ?? now.MarginMm,
            BleedMm = Bleed ?? now.BleedMm,
            Marks = marks is null ? null : marks with { InsetMm = Inset ?? marks.InsetMm, ArmMm = Arm ?? marks.ArmMm, LineMm = Line ?? marks.LineMm, ClearMm = Clear ?? marks.ClearMm, HasFourth = Fourth ?? marks.HasFourth },
            GlueMm = SavesInk == false ? null : Glue ?? (SavesInk == true ? now.GlueMm ?? UsualGlueMm : now.GlueMm),
            Flip = Flip is null ? now.Flip : Enum.TryParse<FlipEdge>(Flip, ignoreCase: true, out var edge) ? edge : null,
            ApartMm = Apart ?? now.ApartMm,
            Size = Size is null ? now.Size : Size.Length == 0 ? null : Size,
            WaitOverMm = WaitOver ?? now.WaitOverMm,
            IsBare = Label is { } says ? !says : now.IsBare,
        }, Guid.NewGuid());
    }

    /// <summary>Key of the stock that is meant where none is named.</summary>
    /// <exception cref="EditRefused">Nothing is printed on any piece.</exception>
    internal static string StockOf(BenchContext c)
    {
        var picked = c.Picked.PieceIds.Select(c.Design.Find).OfType<Piece>().FirstOrDefault();
        return (picked ?? c.Design.Pieces.FirstOrDefault(PrintedArt.IsOn) ?? throw new EditRefused(Reason.NothingPrinted)).Stock;
    }
}

/// <summary>A stock goes through no printer any more.</summary>
public sealed record PrintNothingAction(string Stock) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangePrinting(c.Drawer.Stock(Stock).Key, null, Guid.NewGuid());
}

/// <summary>The marks of a sheet drawn in, or out again.</summary>
/// <param name="Sheet">Id of the sheet; null for the first that bears marks.</param>
/// <param name="In">In as near as the pieces let them.</param>
public sealed record DrawMarksAction(string? Sheet = null, bool In = true) : BenchAction
{
    public override Edit For(BenchContext c) => new DrawMarks(
        Sheet ?? c.Project.Sheets?.Sheets.FirstOrDefault(s => c.Project.SetOut.Printing.GetValueOrDefault(s.Stock) is { IsCut: true })?.Id ?? throw new EditRefused(Reason.NoMarksThere), In);
}
