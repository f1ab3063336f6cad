using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>What of a piece lies under others where all lie on the card.</summary>
public static class HiddenParts
{
    /// <summary>The part of a piece that pieces above it hide, but for a strip under their edges that glue needs and the eye may see.</summary>
    /// <param name="design">All pieces, lowest first, each at its place on the card.</param>
    /// <param name="piece">The piece.</param>
    /// <param name="glueMm">Width of that strip, mm.</param>
    /// <returns>In the piece's coordinates. Rows of one list lie in one place of the card and hide nothing of each other.</returns>
    public static Region Of(Design design, Piece piece, double glueMm)
    {
        var at = design.Pieces.ToList().FindIndex(p => p.Id == piece.Id);
        if (at < 0) return Region.Empty;
        var back = piece.Place.Inverse();
        var size = piece.Size;
        var above = design.Pieces.Skip(at + 1).Where(p => p is { Quantity: > 0, Hidden: false } && NameList.PieceOf(p.Id) != NameList.PieceOf(piece.Id))
            .Select(p => (Piece: p, Map: p.Place.Then(back)))
            .Where(p => p.Piece.Outline.Path.BoundsUnder(p.Map).Overlaps(size))
            .Select(p => AreaOf(p.Piece.Paper, p.Map))
            .Where(r => !r.IsEmpty).ToList();
        // Together first: two that lie edge to edge hide what is under their seam.
        return above.Count == 0 ? Region.Empty : Region.UnionOf(above).Grow(-Math.Max(glueMm, 0), Corners.Round, Arcs.QuarterEdges(Math.Max(glueMm, 0.1)));
    }

    private static Region AreaOf(Paper paper, Affine map)
    {
        try
        {
            return Region.FromRings(paper.Outline.Map(map).Flat.ToArray(), [.. paper.Openings.Select(o => o.Map(map).Flat.ToArray())]);
        }
        catch (BudgetSpent)
        {
            // What is not known to hide anything hides nothing.
            return Region.Empty;
        }
    }
}
