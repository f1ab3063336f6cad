using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How a picture lies on a piece, in numbers that one can type.</summary>
/// <param name="Scale">1 for as large as it is.</param>
/// <param name="Degrees">From x towards y.</param>
/// <param name="Offset">Of a picture how far its middle lies from the piece's, of a pattern its corner from the piece's corner, mm.</param>
public sealed record LaidPicture(double Scale, double Degrees, Point Offset)
{
    /// <summary>How a picture lies on its piece.</summary>
    public static LaidPicture Of(Piece piece, PictureItem item)
    {
        var (from, at) = Anchors(piece, item);
        return new(item.Place.MeanScale, Math.Atan2(item.Place.B, item.Place.A) * 180 / Math.PI, item.Place.Apply(at) - from);
    }

    /// <summary>The place of a picture that is to lie so; what is mirrored stays mirrored.</summary>
    public static Affine Place(Piece piece, PictureItem item, double scale, double degrees, Point offset)
    {
        var (from, at) = Anchors(piece, item);
        var mirror = item.Place.Determinant < 0 ? -1 : 1;
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        var turned = Affine.Scale(scale, scale * mirror).Then(new Affine(cos, sin, -sin, cos, 0, 0));
        var shift = from + offset - turned.Apply(at);
        return turned.Then(Affine.Move(shift.X, shift.Y));
    }

    private static (Point OnPiece, Point OnPicture) Anchors(Piece piece, PictureItem item) =>
        item.IsPattern ? (piece.Size.Min, default) : (piece.Size.Centre, new Point(item.Width / 2, item.Height / 2));
}
