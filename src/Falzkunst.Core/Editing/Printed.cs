using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>What is printed on pieces.</summary>
internal static class Printed
{
    /// <summary>A ground in one colour under everything else on a side; one that is there changes its colour.</summary>
    /// <exception cref="EditRefused">A piece is gone, or it is no colour.</exception>
    public static Design Fill(Design design, PrintFills edit)
    {
        if (edit.Colour is { } colour && !StockColours.IsColour(colour)) throw new EditRefused(Reason.NotAColour) { Field = "fill" };
        if (edit.Pieces.IsDefaultOrEmpty) throw new EditRefused(Reason.PieceGone);
        return edit.Pieces.Aggregate(design, (d, id) => d.With(id, piece =>
        {
            var there = piece.Items.OfType<PrintedFill>().Where(f => f.OnBack == edit.OnBack).ToList();
            if (edit.Colour is not { } to) return piece.Without(there.Select(f => f.Id));
            if (there is [var one, ..]) return piece with { Items = piece.Items.Replace(one, one with { Colour = to.ToUpperInvariant() }) };
            var more = piece.Plus(new PrintedFill("", to.ToUpperInvariant()) { OnBack = edit.OnBack });
            return more with { Items = [more.Items[^1], .. more.Items[..^1]] };
        }));
    }

    /// <exception cref="EditRefused">A piece is gone, or a number is out of reach.</exception>
    public static Design Border(Design design, PrintBorder edit)
    {
        if (!(edit.InsetMm is >= EdgeLine.LeastMm and <= EdgeLine.MostMm)) throw EditRefused.RangeMm(Measure.EdgeInset, EdgeLine.LeastMm, EdgeLine.MostMm, "inset");
        if (edit.Pieces.IsDefaultOrEmpty) throw new EditRefused(Reason.PieceGone);
        var look = new LineSettings { Print = new PrintLook(null, edit.Band) };
        Working.Check(look);
        return edit.Pieces.Aggregate(design, (d, id) => d.With(id, p => p.Plus(new EdgeLine("", edit.InsetMm, Corners.Round, Operation.Print, null) { Settings = look })));
    }

    /// <exception cref="EditRefused">The piece or the picture is gone.</exception>
    public static Design Turn(Design design, TurnPicture edit) => With(design, edit.Piece, edit.Item, (_, item) => item with { OnBack = edit.OnBack });

    /// <summary>The smallest size, in the turn that it has and about the same middle as far as that does, in which a picture covers its piece and the bleed.</summary>
    /// <exception cref="EditRefused">The piece or the picture is gone.</exception>
    public static Design Cover(Design design, CoverWithPicture edit) => With(design, edit.Piece, edit.Item, (piece, item) =>
    {
        if (!(edit.BleedMm is >= 0 and <= PagePrinting.MostBleedMm)) throw EditRefused.RangeMm(Measure.BleedWidth, 0, PagePrinting.MostBleedMm, "bleed");
        var now = LaidPicture.Of(piece, item);
        var room = piece.Size.Grow(edit.BleedMm);
        // The piece's box as the picture sees it, at the picture's own size.
        var turned = LaidPicture.Place(piece, item with { IsPattern = false }, 1, now.Degrees, default);
        var seen = Path.Rectangle(room.MinX, room.MinY, room.Width, room.Height).BoundsUnder(turned.Inverse());
        var scale = Math.Max(seen.Width / item.Width, seen.Height / item.Height);
        return item with { IsPattern = false, Place = LaidPicture.Place(piece, item with { IsPattern = false }, scale, now.Degrees, default) };
    });

    private static Design With(Design design, string piece, string item, Func<Piece, PictureItem, PictureItem> change) => design.With(piece, p =>
        p.Items.OfType<PictureItem>().FirstOrDefault(i => i.Id == item) is { } found ? p with { Items = p.Items.Replace(found, change(p, found)) } : throw new EditRefused(Reason.PictureGone));
}
