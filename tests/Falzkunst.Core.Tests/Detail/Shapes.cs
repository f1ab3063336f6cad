using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Point = Falzkunst.Core.Geometry.Point;

namespace Falzkunst.Core.Tests.Detail;

/// <summary>Shapes that the tests of fine detail are about.</summary>
internal static class Shapes
{
    public static Path Polygon(params (double X, double Y)[] corners) => Path.Polyline(corners.Select(c => new Point(c.X, c.Y)), closed: true);

    public static Path Circle(double x, double y, double r) => EllipticArc.Ellipse(new(x, y), r, r);

    public static Piece PieceOf(params Path[] rings) =>
        Piece.FromLines("p", "Piece p", "chalk-200", Affine.Identity, rings.Select(r => Given.Line(r, Operation.Cut)));

    public static Region FromPiece(Piece piece) => Region.FromRings(
        Flattening.Flatten(piece.Outline.Path, 0.001), [.. piece.Paper.Openings.Select(o => Flattening.Flatten(o, 0.001))]);

    /// <summary>Discs joined by bars of any width, with openings near each other and near the rim.</summary>
    public static readonly Gen<Piece> Joined =
        from discs in Gen.Select(Gen.Double[0, 30], Gen.Double[0, 30], Gen.Double[2.5, 6]).Array[2, 6]
        from bars in Gen.Double[0.15, 1.2].Array[6]
        from holes in Gen.Select(Gen.Double[0, 30], Gen.Double[0, 30], Gen.Double[0.5, 1.5]).Array[0, 12]
        select Assembled(discs, bars, holes);

    private static Piece Assembled((double X, double Y, double R)[] discs, double[] bars, (double X, double Y, double R)[] holes)
    {
        var all = Region.Empty;
        foreach (var (x, y, r) in discs) all = all.Union(Region.FromRings([.. Circle(x, y, r).Flat], []));
        for (var i = 1; i < discs.Length; i++)
        {
            all = all.Union(Region.Around([[new Point(discs[i - 1].X, discs[i - 1].Y), new Point(discs[i].X, discs[i].Y)]], bars[i] / 2, 4));
        }
        foreach (var (x, y, r) in holes)
        {
            // Only where it lies wholly in the paper: an edge that it crossed would have sharp horns.
            var hole = Region.FromRings([.. Circle(x, y, r).Flat], []);
            if (hole.Grow(0.08, Corners.Round, 8).Minus(all).Area == 0) all = all.Minus(hole);
        }
        var (outer, openings) = all.Parts.MaxBy(p => Math.Abs(Polygons.SignedArea(p.Outer)));
        return PieceOf([.. openings.Where(o => Math.Abs(Polygons.SignedArea(o)) > 0.01).Prepend(outer).Select(r => Path.Polyline(r, closed: true))]);
    }
}
