using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class BasicShapeTests
{
    [Fact]
    public void Shapes_fill_their_box_and_are_closed() => Gen.Select(Gen.Double[-50, 50], Gen.Double[1, 90], Gen.Double[1, 90], Gen.Double[0, 60]).ForAll((x, w, h, r) =>
    {
        BasicShape[] shapes =
        [
            new RectangleShape(x, 3, w, h), new RectangleShape(x, 3, w, h, r, r / 2, 0, r), new EllipseShape(x, 3, w, h), new ArchShape(x, 3, w, h), new SlotShape(x, 3, w, h),
            new PolygonShape(x, 3, w, h, 4), new StarShape(x, 3, w, h, 8),
        ];
        foreach (var shape in shapes)
        {
            var path = shape.ToPath();
            Assert.True(path.IsClosed && path.SignedArea > 0, shape.ToString());
            var box = path.Bounds;
            Assert.True(Math.Abs(box.MinX - x) + Math.Abs(box.MinY - 3) + Math.Abs(box.Width - w) + Math.Abs(box.Height - h) < 1e-3, $"{shape}: {box}");
        }
    });

    [Fact]
    public void Areas_are_those_of_the_formulas()
    {
        Assert.Equal(600, new RectangleShape(0, 0, 30, 20).ToPath().SignedArea, 6);
        Assert.Equal(600 - (4 - Math.PI) * 25, new RectangleShape(0, 0, 30, 20, 5, 5, 5, 5).ToPath().SignedArea, 0.5);
        Assert.Equal(Math.PI * 150, new EllipseShape(0, 0, 30, 20).ToPath().SignedArea, 0.5);
        Assert.Equal(400 + Math.PI * 50, new ArchShape(0, 0, 20, 30).ToPath().SignedArea, 0.5);
        Assert.Equal(300, new PolygonShape(0, 0, 20, 20, 6).ToPath().SignedArea, 6);
    }

    [Theory]
    [InlineData(10, 1, 10, 0)]
    [InlineData(-1, 9, 0, 9)]
    [InlineData(8, 6, 7, 7)]
    [InlineData(-8, 6, -7, 7)]
    public void A_held_line_runs_level_upright_or_at_45_degrees(double x, double y, double toX, double toY)
    {
        var held = new StraightShape(new(0, 0), new(x, y)).Held();
        Assert.Equal(new Point(toX, toY), held.To);
    }

    /// <summary>A star asked for at 60 by 60 was 57 by 54, since it was inscribed in the circle and not in the box.</summary>
    [Fact]
    public void Shapes_fill_the_box_that_was_asked_for() => Gen.Select(Gen.Int[3, 24], Gen.Double[5, 90], Gen.Double[5, 90]).ForAll((corners, width, height) =>
    {
        foreach (var shape in new BasicShape[] { new StarShape(7, -3, width, height, corners), new PolygonShape(7, -3, width, height, corners) })
        {
            var box = shape.ToPath().Bounds;
            Assert.True(box.Contains(Box.FromSize(width, height) is var b ? new Box(7, -3, 7 + b.Width, -3 + b.Height) : b, 1e-9) && new Box(7, -3, 7 + width, -3 + height).Contains(box, 1e-9));
        }
    });
}
