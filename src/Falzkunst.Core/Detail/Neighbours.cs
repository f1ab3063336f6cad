using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>What lies beside a piece in its own layer: the dot over a stem, the island in an opening.</summary>
public static class Neighbours
{
    private const int Samples = 60;

    /// <summary>Pieces that share less than this only touch, mm².</summary>
    private const double LeastOverlap = 1e-4;

    /// <summary>Pieces of the same stock within a distance that do not lie over or under it.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="design">Its design.</param>
    /// <param name="within">The distance, mm.</param>
    public static IEnumerable<Piece> Pieces(Piece piece, Design design, double within)
    {
        var box = piece.Outline.Path.BoundsUnder(piece.Place).Grow(within);
        return design.Pieces.Where(p => p.Id != piece.Id && p.Stock == piece.Stock && p.Outline.Path.BoundsUnder(p.Place).Overlaps(box) && !LiesOn(p, piece) && !LiesOn(piece, p));
    }

    /// <summary>Outlines and openings of these pieces in the piece's own coordinates.</summary>
    public static IReadOnlyList<Path> Rings(Piece piece, Design design, double within)
    {
        var back = piece.Place.Inverse();
        return [.. Pieces(piece, design, within).SelectMany(p => PieceWidths.Rings(p).Select(r => r.Map(p.Place.Then(back))))];
    }

    /// <summary>How many parts fewer there are, since pieces of one stock that were apart lie on each other now.</summary>
    /// <param name="before">The pieces as they were.</param>
    /// <param name="after">The same pieces in the same order as they are.</param>
    public static int Melted(IReadOnlyList<Piece> before, IReadOnlyList<Piece> after)
    {
        var (was, isNow) = (before.Select(OnCard).ToList(), after.Select(OnCard).ToList());
        var parts = new DisjointSets(before.Count);
        var melted = 0;
        for (var i = 0; i < before.Count; i++)
        {
            for (var k = i + 1; k < before.Count; k++)
            {
                if (before[i].Stock != before[k].Stock || !isNow[i].Box.Overlaps(isNow[k].Box) || parts.AreOne(i, k)) continue;
                if (isNow[i].Paper.Value.And(isNow[k].Paper.Value).Area < LeastOverlap || was[i].Paper.Value.And(was[k].Paper.Value).Area >= LeastOverlap) continue;
                parts.Join(i, k);
                melted++;
            }
        }
        return melted;

        static (Box Box, Lazy<Region> Paper) OnCard(Piece piece) =>
            (piece.Outline.Path.BoundsUnder(piece.Place), new Lazy<Region>(() => Region.EvenOdd(PieceWidths.Rings(piece).Select(r => r.Map(piece.Place)))));
    }

    /// <summary>Some of a piece's outline lies on another's paper.</summary>
    private static bool LiesOn(Piece upper, Piece lower)
    {
        var map = upper.Place.Then(lower.Place.Inverse());
        var paper = lower.Paper;
        return Sampling.Midpoints(upper.Outline.Path, 1, Samples).Exists(p => paper.Holds(map.Apply(p)));
    }
}
