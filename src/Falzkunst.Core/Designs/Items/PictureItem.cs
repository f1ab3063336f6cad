using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>A picture on a piece. It is printed and never run by a tool.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Content">SHA-256 of the picture's bytes, lower-case hexadecimal.</param>
/// <param name="PixelsAcross">Width in pixels.</param>
/// <param name="PixelsDown">Height in pixels.</param>
/// <param name="Place">From the picture's box to the piece.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">Height of the box, mm.</param>
public sealed record PictureItem(
    string Id, string Content, int PixelsAcross, int PixelsDown, Affine Place, double Width, double Height) : PlacedItem(Id, Place, Width, Height)
{
    public override ImmutableArray<Line> LinesOn(Piece piece) => [];
}
