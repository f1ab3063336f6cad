using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

/// <summary>Curves through points: within the tolerance both ways, few, with corners and straight lines as they were.</summary>
public sealed class CurveFitTests
{
    private const double Window = 0.5;

    private static List<Point> Circle(double radius, int count) =>
        [.. Enumerable.Range(0, count).Select(i => new Point(radius * Math.Cos(2 * Math.PI * i / count), radius * Math.Sin(2 * Math.PI * i / count)))];

    private static double Farthest(IEnumerable<Point> points, Path path) => points.Max(p => PathNearest.Find(PathNodes.WrittenOut(path), p).Distance);

    [Fact]
    public void A_circle_becomes_a_few_curves_that_never_leave_it() => Gen.Select(Gen.Double[2, 60], Gen.Double[0.005, 0.05]).ForAll((radius, tolerance) =>
    {
        var points = Circle(radius, Math.Max(60, (int)(2 * Math.PI * radius / 0.15)));
        var fitted = CurveFit.Closed(points, tolerance, Window);
        Assert.True(fitted.IsClosed);
        Assert.InRange(fitted.Segments.Length, 2, 24);
        Assert.True(Farthest(points, fitted) <= 1.05 * tolerance);
        Assert.All(Flattening.Flatten(fitted, 0.002), p => Assert.InRange(p.Length, radius - 3 * tolerance - 0.01, radius + 3 * tolerance + 0.01));
    }, iter: 16);

    [Fact]
    public void A_square_keeps_its_corners_and_its_straight_sides()
    {
        Point[] corners = [new(0, 0), new(20, 0), new(20, 20), new(0, 20)];
        var fitted = CurveFit.Closed(corners, 0.02, Window);
        Assert.Equal(4, fitted.Segments.Length);
        Assert.All(fitted.Segments, s => Assert.False(s.IsCubic));
        Assert.Equal(corners.OrderBy(c => (c.X, c.Y)), fitted.Segments.Select(s => s.End).OrderBy(c => (c.X, c.Y)));
    }

    [Fact]
    public void A_wave_between_two_straight_lines_leaves_both_straight()
    {
        var wave = Enumerable.Range(0, 201).Select(i => new Point(10 + i * 0.1, 3 * Math.Sin(i * 0.1 * Math.PI / 10)));
        List<Point> points = [new(0, 0), .. wave, new(40, 0)];
        var segments = CurveFit.Open(points, 0.02, Window);
        var path = new Path(points[0], segments, closed: false);
        Assert.Equal(points[^1], path.End);
        Assert.True(Farthest(points, path) <= 0.021);
        Assert.False(segments[0].IsCubic);
        Assert.False(segments[^1].IsCubic);
        Assert.InRange(segments.Length, 4, 14);
    }

    [Fact]
    public void A_sharp_turn_stays_a_corner()
    {
        var points = Circle(10, 400).Where(p => p.X > 0).Prepend(new Point(-20, -10)).ToList();
        var spike = new List<Point>([new(0, 0), .. Enumerable.Range(1, 100).Select(i => new Point(i * 0.1, i * 0.1 * 0.3)), .. Enumerable.Range(1, 100).Select(i => new Point(10 - i * 0.1, 3 + i * 0.1 * 0.3))]);
        Assert.Contains(CurveFit.Open(spike, 0.02, Window), s => s.End.DistanceTo(new Point(10, 3)) < 1e-9);
        Assert.NotEmpty(CurveFit.Open(points, 0.02, Window));
    }

    [Fact]
    public void A_tolerance_of_nothing_is_no_tolerance() =>
        Assert.Throws<ArgumentOutOfRangeException>(() => CurveFit.Open([new(0, 0), new(1, 0)], 0, Window));
}
