using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class PathTests
{
    [Fact]
    public void Text_reads_back_to_the_last_bit() => Given.Paths.ForAll(path => PathText.Read(path.ToString()).Equals(path));

    [Theory]
    [InlineData("")]
    [InlineData("L1 2")]
    [InlineData("M1")]
    [InlineData("M1 2Q3 4 5 6")]
    [InlineData("M1 2ZL3 4")]
    public void Text_that_is_no_path_is_refused(string text) => Assert.Throws<FormatException>(() => PathText.Read(text));

    [Fact]
    public void Flattening_stays_within_its_tolerance() => Gen.Select(Given.Paths, Gen.Double[0.005, 2]).ForAll((path, tolerance) =>
    {
        var flat = Flattening.Flatten(path, tolerance);
        var from = path.Start;
        foreach (var s in path.Segments)
        {
            for (var i = 0; i <= 20; i++)
            {
                var p = s.At(from, i / 20.0);
                var nearest = double.PositiveInfinity;
                for (var k = 1; k < flat.Length; k++) nearest = Math.Min(nearest, Polygons.DistanceToStretch(p, flat[k - 1], flat[k]));
                if (flat.Length == 1) nearest = p.DistanceTo(flat[0]);
                if (path.IsClosed) nearest = Math.Min(nearest, Polygons.DistanceToStretch(p, flat[^1], flat[0]));
                Assert.True(nearest <= tolerance * 1.0001 + 1e-9, $"{nearest} from the polyline at tolerance {tolerance}");
            }
            from = s.End;
        }
    }, iter: 300);

    [Fact]
    public void The_box_holds_the_curve_and_touches_it() => Given.Paths.ForAll(path =>
    {
        var box = path.Bounds;
        var dense = Flattening.Flatten(path, 0.001).Aggregate(Box.Empty, (b, p) => b.Include(p));
        Assert.True(box.Contains(dense, 1e-9));
        Assert.True(dense.Contains(box, 0.01), $"{box} is larger than the curve's {dense}");
    }, iter: 300);

    [Fact]
    public void Reversing_twice_changes_nothing() => Given.Paths.ForAll(path => path.Reversed().Reversed().Equals(path));

    [Fact]
    public void Reversing_turns_the_area_over() => Given.Paths.ForAll(path =>
        Assert.Equal(-path.SignedArea, path.Reversed().SignedArea, 0.02 * (1 + path.Length)));

    [Fact]
    public void Another_start_leaves_the_ring_the_same() => Gen.Select(Given.Paths, Gen.Int[0, 12]).ForAll((path, first) =>
    {
        var turned = path.StartingAt(first);
        Assert.Equal(path.Length, turned.Length, 1e-6 * (1 + path.Length));
        Assert.Equal(path.SignedArea, turned.SignedArea, 1e-6 * (1 + path.Length * path.Length));
    });

    [Fact]
    public void A_whole_ellipse_has_the_area_and_box_of_one()
    {
        var ellipse = EllipticArc.Ellipse(new Point(10, 20), 30, 12);
        Assert.Equal(Math.PI * 30 * 12, ellipse.SignedArea, 1.5);
        Assert.Equal(new Box(-20, 8, 40, 32), ellipse.Bounds);
    }

    [Fact]
    public void An_arc_from_end_points_lies_on_its_circle() => Gen.Select(Given.Points, Given.Points, Gen.Double[1, 300], Gen.Bool, Gen.Bool).ForAll((from, to, r, large, sweep) =>
    {
        var path = new Path(from, [.. EllipticArc.FromEndpoints(from, r, r, 0, large, sweep, to)], closed: false);
        Assert.Equal(to, path.End);
        var radius = Math.Max(r, from.DistanceTo(to) / 2);
        var flat = path.Flat.ToArray();
        if (flat.Length < 3) return;
        var centre = CircleThrough(flat[0], flat[flat.Length / 2], flat[^1]);
        if (centre is not { } c) return;
        foreach (var p in flat) Assert.Equal(radius, p.DistanceTo(c), 0.001 * radius + 0.01);
    });

    private static Point? CircleThrough(Point a, Point b, Point c)
    {
        var (u, v) = (b - a, c - a);
        var d = 2 * u.Cross(v);
        if (Math.Abs(d) < 1) return null; // too flat to tell
        return a + new Point(v.Y * u.Dot(u) - u.Y * v.Dot(v), u.X * v.Dot(v) - v.X * u.Dot(u)) * (1 / d);
    }
}
