using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>A piece as it is seen from its back: turned over about its upright middle, so that words on the back read as they are typed.</summary>
public static class PieceBack
{
    /// <summary>From a piece's coordinates to those of its back, and back again.</summary>
    public static Affine Turn(Piece piece) => Affine.FromBehind(piece.Size.MinX + piece.Size.MaxX);

    /// <summary>The piece with its paper as the back shows it; what is printed on the back is drawn in those coordinates already.</summary>
    public static Piece Seen(Piece piece)
    {
        var turn = Turn(piece);
        return piece with { Outline = piece.Outline.Under(turn), Items = [.. piece.Items.Select(i => i is WorkedItem { IsCutThrough: true } ? i.Under(turn) : i)] };
    }
}
