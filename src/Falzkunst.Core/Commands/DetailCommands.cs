using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for fine detail.</summary>
internal static class DetailCommands
{
    /// <summary>Bridges where nothing else is said.</summary>
    private const int UsualBridges = 2;

    public static readonly ImmutableArray<Command> All =
    [
        new("thicken", "thicken 0.8 gap 0.4", "Grows the thin parts of the picked pieces to a width; “thicken by 0.3” grows everything, with “sharp” corners if you like; “gap 0” lets parts melt together.",
            (c, w) => new ThickenPieces(PieceCommands.Pieces(c), How(w))),
        new("keep thickened", "keep thickened 0.8 gap 0.4 as Stronger wires", "Keeps a thickened form of the piece aside; the piece stays as it is.", (c, w) =>
        {
            var how = How(w);
            return w.Take("as") ? new KeepThickened(c.Picked.OnlyPiece(), how, w.Rest("a name")) : throw new EditRefused("This lacks a name. Write: keep thickened 0.8 as Stronger wires");
        }),
        new("border", "border 3 sharp on kraft 240", "Makes a piece of the outline, moved outward or inward (−2); “3 6” makes two; “ring 2” only a ring; “open” keeps the openings.", Border),
        new("small things", "small things 0.5", "Takes out what is smaller: openings, specks, hairline slits, doubled lines; a key takes out one alone.", (c, w) =>
        {
            var size = w.Length("a size");
            return new TakeSmallThings(PieceCommands.Pieces(c), size, w.HasMore ? [w.Word("a key")] : []);
        }),
        new("bridge", "bridge 1.5 2", "Joins the picked loose islands to the pieces around them by bridges so wide and so many.",
            (c, w) => new BridgeIslands(PieceCommands.Pieces(c), new Bridging(w.Length("a width"), w.HasMore ? w.Count("a number of bridges") : UsualBridges))),
        new("least width", "least width 0.6", "The narrowest part that the picked piece's stock is trusted with in this project; “catalogue” goes back.",
            (c, w) => new SetLeastWidth(c.Design.Require(c.Picked.OnlyPiece()).Stock, w.Take("catalogue") ? null : w.Length("a width"))),
    ];

    private static Thicken How(CommandWords w)
    {
        var isEven = w.Take("by");
        var amount = w.Length("a width");
        var corners = w.Take("sharp") ? Corners.Sharp : Corners.Round;
        var gap = w.Take("gap") ? w.Length("a gap") : Thicken.UsualGapMm;
        return new Thicken(isEven, amount, gap, corners);
    }

    private static MakeBorders Border(CommandContext c, CommandWords w)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        List<double> by = [w.Length("a distance")];
        while (w.PeekIsNumber) by.Add(w.Length("a distance"));
        var corners = w.Take("sharp") ? Corners.Sharp : Corners.Round;
        double? ring = w.Take("ring") && w.Length("a width") is > 0 and var wide ? wide : null;
        var isOpen = w.Take("open");
        var stock = w.Take("on") ? PieceCommands.StockNamed(c, w.Rest("a stock")) : piece.Stock;
        return new MakeBorders(piece.Id, [.. by.Select(b => new Border(b, stock, corners, isOpen, ring))]);
    }
}
