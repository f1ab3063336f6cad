using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Tests.Texts;

namespace Falzkunst.Core.Tests;

/// <summary>Values that several tests start from, and generators of random ones.</summary>
internal static class Given
{
    public static readonly Look PlainLook = new("#000000", null, false, true, null);
    public static readonly Drawer Drawer = SeedCatalogue.Drawer with { Faces = BoxFaces.Instance };

    public static Machine Machine(string key) => SeedCatalogue.Machines.Single(m => m.Key == key);
    public static Stock Stock(string key) => SeedCatalogue.Stocks.Single(s => s.Key == key);

    public static Line Line(Path path, Operation operation, string? ink = null) =>
        new("", path, operation, PlainLook with { Closed = path.IsClosed }, null, ink ?? WorkedItem.InkFor(operation, PlainLook));

    /// <summary>A rectangle with whatever further lines, which get the ids l2, l3 and so on.</summary>
    public static Piece Piece(string id, double width, double height, params Line[] more) =>
        Core.Designs.Piece.FromLines(id, $"Piece {id}", "chalk-200", Affine.Identity, more.Prepend(Line(Path.Rectangle(0, 0, width, height), Operation.Cut)));

    public static Path Straight(double x0, double y0, double x1, double y1) => Path.Polyline([new(x0, y0), new(x1, y1)], closed: false);

    public static Project ProjectOf(params Piece[] pieces) => Project.Empty with { Design = new Design([.. pieces], [], [], pieces.Length + 1) };

    public static readonly Gen<Point> Points = Gen.Select(Gen.Double[-200, 200], Gen.Double[-200, 200]).Select((x, y) => new Point(x, y));

    /// <summary>Paths of straights and cubics, open and closed, with repeated and collinear points among them.</summary>
    public static readonly Gen<Path> Paths =
        from start in Points
        from segments in (from cubic in Gen.Bool
                          from a in Points
                          from b in Points
                          from end in Points
                          from repeat in Gen.Int[0, 7]
                          select cubic ? Segment.Cubic(a, b, repeat == 0 ? a : end) : Segment.Straight(end)).Array[1, 12]
        from closed in Gen.Bool
        select new Path(start, [.. segments], closed);

    /// <summary>Turns, moves, scales and mirrors that keep the plane a plane.</summary>
    public static readonly Gen<Affine> Maps =
        from turn in Gen.Double[-720, 720]
        from sx in Gen.Double[0.2, 4]
        from sy in Gen.Double[0.2, 4]
        from mirrored in Gen.Bool
        from move in Points
        select Affine.Scale(mirrored ? -sx : sx, sy).Then(Affine.Turn(turn)).Then(Affine.Move(move));
}
