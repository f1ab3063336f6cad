using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>Moves, scales and turns a picture under the outline of the picked piece; what is not named stays as it is.</summary>
/// <param name="Item">Id of the picture on the piece; null for the topmost.</param>
/// <param name="Percent">Of the size that the picture has.</param>
/// <param name="Degrees">From x towards y.</param>
/// <param name="X">How far its middle lies to the right of the piece's, of a pattern its corner of the piece's.</param>
/// <param name="Y">How far it lies below.</param>
/// <param name="Pattern">It is repeated side by side.</param>
public sealed record PlacePictureAction(string? Item = null, double? Percent = null, double? Degrees = null, [InMillimetres] double? X = null, [InMillimetres] double? Y = null, bool? Pattern = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var item = OnPiece(piece, Item);
        var isPattern = Pattern ?? item.IsPattern;
        // Numbers of a pattern count from the corner, of a picture from the middle: made one of the other it stays where it lies.
        var now = LaidPicture.Of(piece, item);
        var place = Percent is null && Degrees is null && X is null && Y is null
            ? item.Place
            : LaidPicture.Place(piece, item, Percent / 100 ?? now.Scale, Degrees ?? now.Degrees, new Point(X ?? now.Offset.X, Y ?? now.Offset.Y));
        return new PlacePicture(piece.Id, item.Id, place, isPattern);
    }

    internal static PictureItem OnPiece(Piece piece, string? item) =>
        piece.Items.OfType<PictureItem>().LastOrDefault(i => item is null || i.Id == item) ?? throw new EditRefused(Reason.NoPictureOn, piece.Name);
}

/// <summary>Takes a picture off the picked piece.</summary>
/// <param name="Item">Id of the picture on the piece; null for the topmost.</param>
public sealed record TakeOffPictureAction(string? Item = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        return new TakeOffPictures(piece.Id, [PlacePictureAction.OnPiece(piece, Item).Id]);
    }
}
