using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Words taken off a piece and cut as a piece of their own.</summary>
public static class WordPieces
{
    /// <summary>The design with a text as a piece of its own right above the one that it was written on; it lies where it lay.</summary>
    /// <param name="design">The design.</param>
    /// <param name="piece">Id of the piece that it is written on.</param>
    /// <param name="text">Id of the text.</param>
    /// <param name="stock">Key of the stock that it is cut of.</param>
    /// <param name="tie">What holds its parts together.</param>
    /// <param name="tieMm">Height of the bar or width of the bridges, mm.</param>
    /// <param name="drawer">Stocks at hand.</param>
    /// <exception cref="EditRefused">The text is gone, or has no outlines to cut.</exception>
    public static Design Make(Design design, string piece, string text, string stock, WordTie tie, double tieMm, Drawer drawer)
    {
        var host = Mats.Unlocked(design.Require(piece));
        if (host.Worked(text) is not TextItem words) throw new EditRefused(Reason.LinesGone);
        if (words.IsShape) throw new EditRefused(Reason.WordsAreAPiece);
        if (words.Shaped is null or { IsStroke: true }) throw new EditRefused(Reason.SingleLineFace) { Field = "face" };
        var follows = Checked(new FromWords(null, "l2", 0, tie, tieMm));
        // A box that followed the old piece has a width of its own now, and what stood along a line of it stands straight.
        var set = words.SetOn(host);
        var place = words.PlaceOn(host);
        var own = words with
        {
            Id = "l2",
            Place = words.Along is { Line: not null } ? words.Place : place,
            BoxWidthMm = words.InsidePieceMm is null ? words.BoxWidthMm : set.Width,
            InsidePieceMm = null,
            Panel = null,
            Along = words.Along is { Line: not null } ? null : words.Along,
            IsShape = true,
            Operation = Operation.Cut,
            Ink = null,
        };
        var bare = new Piece("", PieceNaming.Wished(words.Brief(NameLimits.Piece), design), drawer.Stock(stock).Key, host.Quantity, host.Place,
            new Line("l1", Path.Rectangle(0, 0, 1, 1), Operation.Cut, Look.DrawnHere, null, null), [own])
        { NextItem = 3, Follows = follows, List = host.List };
        if (WordShapes.Parts(bare, follows).IsEmpty) throw new EditRefused(Reason.NoWords) { Field = "words" };
        var rest = host.Without([text]);
        return design.With(piece, _ => rest).Plus(design.Pieces.IndexOf(host) + 1, [bare]);
    }

    /// <summary>Another way to hold the parts of words together.</summary>
    /// <exception cref="EditRefused">The piece is not cut of words, or a number is out of reach.</exception>
    public static Design Tie(Design design, string piece, WordTie tie, double tieMm)
    {
        var id = design.Require(piece).Follows is FromWords { Of: { } main } ? main : piece;
        if (design.Require(id).Follows is not FromWords follows) throw new EditRefused(Reason.NoWordPiece);
        return design.With(id, p => Mats.Unlocked(p) with { Follows = Checked(follows with { Tie = tie, TieMm = tieMm }) });
    }

    private static FromWords Checked(FromWords follows) =>
        follows.Tie == WordTie.Loose || follows.TieMm is >= FromWords.LeastTieMm and <= FromWords.MostTieMm ? follows
            : throw EditRefused.RangeMm(Measure.TieSize, FromWords.LeastTieMm, FromWords.MostTieMm, "size");
}
