using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class ThinLoopTests
{
    private static Path Turned(Path path, double degrees) => path.Map(Affine.Turn(degrees).Then(Affine.Move(31, -7)));

    [Fact]
    public void A_thin_rectangle_is_the_line_along_its_middle_however_it_lies() =>
        Gen.Select(Gen.Double[8, 300], Gen.Double[0.02, 1], Gen.Double[0, 360]).ForAll((length, width, degrees) =>
        {
            var middle = ThinLoop.Middle(Turned(Path.Rectangle(0, 0, length, width), degrees))!;
            Assert.False(middle.IsClosed);
            Assert.Equal(length, middle.Length, 1e-6);
            var wanted = Turned(Given.Straight(0, width / 2, length, width / 2), degrees);
            Assert.True(Math.Min(middle.Start.DistanceTo(wanted.Start), middle.Start.DistanceTo(wanted.End)) < 1e-6);
        });

    [Fact]
    public void A_thin_bow_is_the_bow_along_its_middle() => Gen.Select(Gen.Double[20, 80], Gen.Double[0.2, 0.9], Gen.Double[60, 200]).ForAll((radius, width, sweep) =>
    {
        Point At(double r, double share) => new(r * Math.Cos(share * sweep * Math.PI / 180), r * Math.Sin(share * sweep * Math.PI / 180));
        var points = Enumerable.Range(0, 201).Select(i => At(radius + width / 2, i / 200.0)).Concat(Enumerable.Range(0, 201).Select(i => At(radius - width / 2, 1 - i / 200.0)));
        var middle = ThinLoop.Middle(Path.Polyline(points, closed: true))!;
        Assert.Equal(radius * sweep * Math.PI / 180, middle.Length, 1.5);
        // Away from its ends it runs on the bow.
        foreach (var p in Sampling.Midpoints(middle, 1, 200).Skip(2).SkipLast(2)) Assert.InRange(p.Length, radius - 0.15, radius + 0.15);
    });

    [Fact]
    public void What_is_wider_or_no_loop_has_no_middle()
    {
        Assert.Null(ThinLoop.Middle(Path.Rectangle(0, 0, 60, 1.2)));
        Assert.Null(ThinLoop.Middle(Path.Rectangle(0, 0, 0.8, 0.7)));
        Assert.Null(ThinLoop.Middle(Given.Straight(0, 0, 60, 0)));
        Assert.Null(ThinLoop.Middle(EllipticArc.Ellipse(new(0, 0), 10, 10)));
        // A coil that lies in a strip a millimetre wide is no line along it.
        var coil = Path.Polyline(Enumerable.Range(0, 60).Select(i => new Point(i, i % 2 * 0.9)).Concat(Enumerable.Range(0, 60).Select(i => new Point(59 - i, i % 2 * 0.9 + 0.02))), closed: true);
        Assert.True(ThinLoop.Middle(coil) is not { } middle || middle.Length > 70);
    }

    [Fact]
    public void Any_path_is_answered_and_what_is_answered_lies_by_the_loop() => Given.Paths.ForAll(path =>
    {
        if (ThinLoop.Middle(path) is not { } middle) return;
        Assert.True(path.Bounds.Grow(0.5).Contains(middle.Bounds));
    });
}
