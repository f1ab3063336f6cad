using CsCheck;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

/// <summary>How near paths come to points and to each other.</summary>
public sealed class NearTests
{
    [Theory]
    [InlineData(30, 0, 10.0, true)]
    [InlineData(30, 0, 9.999, false)]
    [InlineData(5, 5, 0.0, true)]
    [InlineData(23, 24, 5.0, true)]
    [InlineData(23, 24, 4.999, false)]
    public void Squares_are_as_near_as_their_nearest_edges_or_corners(double x, double y, double within, bool isNear)
    {
        var (one, other) = (Path.Rectangle(0, 0, 20, 20), Path.Rectangle(x, y, 20, 20));
        Assert.Equal(isNear, new PathNearness(one).IsWithin(within, other, Budget.Unlimited));
        Assert.Equal(isNear, new PathNearness(other).IsWithin(within, one, Budget.Unlimited));
    }

    /// <summary>Points along both, close together, never tell a smaller distance, and tell it but for half their steps.</summary>
    [Fact]
    public void Nearness_is_that_of_points_along_both() => Gen.Select(Given.Paths, Given.Paths, Gen.Double[0, 60]).ForAll((a, b, mm) =>
    {
        const double step = 0.5;
        List<Point> along(Path p) => [p.Start, p.End, .. Sampling.Midpoints(Flattened(p), step, 4000)];
        var (onA, onB) = (along(a), along(b));
        var told = onA.Min(p => onB.Min(q => p.DistanceTo(q)));
        var isNear = new PathNearness(a).IsWithin(mm, b, Budget.Unlimited);
        if (told <= mm) Assert.True(isNear);
        else if (told > mm + step + 0.05) Assert.False(isNear, $"{told} is farther than {mm}");
    }, iter: 24);

    private static Path Flattened(Path path) => Path.Polyline(path.Flat.ToArray(), path.IsClosed);

    [Fact]
    public void The_nearest_place_is_no_farther_than_any_other() => Gen.Select(Given.Paths, Given.Points).ForAll((path, to) =>
    {
        var written = PathNodes.WrittenOut(path);
        var (place, distance) = PathNearest.Find(written, to);
        var from = place.Segment == 0 ? written.Start : written.Segments[place.Segment - 1].End;
        Assert.Equal(distance, written.Segments[place.Segment].At(from, place.T).DistanceTo(to), 9);
        var at = written.Start;
        foreach (var segment in written.Segments)
        {
            for (var i = 0; i <= 64; i++) Assert.True(distance <= segment.At(at, i / 64.0).DistanceTo(to) + 1e-3);
            at = segment.End;
        }
    });

    [Fact]
    public void The_nearest_place_on_a_square_is_known()
    {
        var square = PathNodes.WrittenOut(Path.Rectangle(0, 0, 20, 20));
        Assert.Equal((new PathPlace(0, 0.25), 3.0), PathNearest.Find(square, new Point(5, -3)));
        Assert.Equal((new PathPlace(1, 0.5), 1.0), PathNearest.Find(square, new Point(19, 10)));
    }
}
