using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>What lies beside a piece in its own layer: the dot over a stem, the island in an opening.</summary>
public static class Neighbours
{
    private const int Samples = 60;

    /// <summary>Pieces of the same stock within a distance that do not lie over or under it.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="design">Its design.</param>
    /// <param name="within">The distance, mm.</param>
    public static IEnumerable<Piece> Pieces(Piece piece, Design design, double within)
    {
        var box = piece.Shape.Paths[0].BoundsUnder(piece.Place).Grow(within);
        return design.Pieces.Where(p => p.Id != piece.Id && p.Stock == piece.Stock && p.Shape.Paths[0].BoundsUnder(p.Place).Overlaps(box) && !LiesOn(p, piece) && !LiesOn(piece, p));
    }

    /// <summary>Outlines and openings of these pieces in the piece's own coordinates.</summary>
    public static IReadOnlyList<Path> Rings(Piece piece, Design design, double within)
    {
        var back = piece.Place.Inverse();
        return [.. Pieces(piece, design, within).SelectMany(p => PieceWidths.Rings(p).Select(r => r.Map(p.Place.Then(back))))];
    }

    /// <summary>Some of a piece's outline lies on another's paper.</summary>
    private static bool LiesOn(Piece upper, Piece lower)
    {
        var map = upper.Place.Then(lower.Place.Inverse());
        var paper = PaperOf.Piece(lower);
        return Sampling.Midpoints(upper.Shape.Paths[0], 1, Samples).Exists(p => paper.Holds(map.Apply(p)));
    }
}
