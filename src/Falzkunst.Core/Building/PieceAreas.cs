using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;

namespace Falzkunst.Core.Building;

/// <summary>The paper of pieces as areas to build with.</summary>
internal static class PieceAreas
{
    /// <summary>The paper of a piece in its own coordinates.</summary>
    public static AreaRings Of(Piece piece) => new([piece.Outline.Path], piece.Paper.Openings);

    /// <summary>The paper of a piece in the coordinates of another.</summary>
    public static AreaRings In(Piece piece, Piece other) => ReferenceEquals(piece, other) ? Of(piece) : Of(piece).Map(piece.Place.Then(other.Place.Inverse()));

    /// <summary>The paper of a piece, or of all parts of the words that it is cut of, in its own coordinates.</summary>
    public static ImmutableArray<PathArea> Motif(Piece piece) =>
        piece is { Follows: FromWords { Of: null } words } ? WordShapes.Parts(piece, words) : [new PathArea(piece.Outline.Path, piece.Paper.Openings)];
}
