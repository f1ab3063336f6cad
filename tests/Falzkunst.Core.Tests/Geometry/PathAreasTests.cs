using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

/// <summary>Joining with curves, against areas worked out with corners by another library.</summary>
public sealed class PathAreasTests
{
    /// <summary>A tenth of two thousand pairs; FALZKUNST_PAIRS asks for more.</summary>
    private static readonly int Pairs = int.TryParse(Environment.GetEnvironmentVariable("FALZKUNST_PAIRS"), out var n) ? n : 200;

    private static readonly Gen<double> Unit = Gen.Double[0, 1];

    /// <summary>Closed curves that do not cross themselves: blobs with bends all round, stars, boxes with round corners, ellipses.</summary>
    private static readonly Gen<Path> Shape = Gen.OneOf(
        Gen.Select(Gen.Int[3, 9], Unit.Array[9], Gen.Double[5, 40]).Select((count, radii, size) => Blob(count, radii, size)),
        Gen.Select(Gen.Int[3, 8], Gen.Double[0.3, 0.9], Gen.Double[5, 40]).Select((points, depth, size) => Star(points, depth, size)),
        Gen.Select(Gen.Double[4, 50], Gen.Double[4, 50], Unit).Select((w, h, round) => RoundBox(w, h, round * Math.Min(w, h) / 2.01)),
        Gen.Select(Gen.Double[4, 30], Gen.Double[4, 30]).Select((rx, ry) => Ellipse(rx, ry)));

    private static readonly Gen<(Path A, Path B)> Pair = Gen.OneOf(
        // Anywhere.
        Gen.Select(Shape, Shape, Gen.Double[-30, 30], Gen.Double[-30, 30], Gen.Double[0, 360]).Select((a, b, x, y, turn) => (a, b.Map(Affine.Turn(turn).Then(Affine.Move(x, y))))),
        // One inside the other.
        Gen.Select(Shape, Gen.Double[0.1, 0.6]).Select((a, k) => (a, a.Map(Affine.Scale(k, k).About(a.Bounds.Centre)))),
        // Itself, or itself the other way round and begun elsewhere.
        Gen.Select(Shape, Gen.Bool).Select((a, back) => (a, back ? a.Reversed().StartingAt(1) : a)),
        // Boxes that share a stretch of an edge.
        Gen.Select(Gen.Int[1, 40], Gen.Int[1, 40], Gen.Int[-20, 20], Gen.Int[1, 40]).Select((w, h, y, v) => (Path.Rectangle(0, 0, w, h), Path.Rectangle(w, y, 15, v))),
        // A mirror image beside itself, which touches where it reaches farthest.
        Shape.Select(a => (a, a.Map(Affine.Scale(-1, 1).About(new Point(a.Bounds.MaxX, 0))))),
        // A part cut off by a box whose edge runs through the middle: curved edges shared with the whole.
        Gen.Select(Shape, Gen.Double[0.2, 0.8]).Select((a, at) => (a, PathAreas.Combine(Combination.Intersect, AreaRings.Inside(a), AreaRings.Inside(Half(a, at))).FirstOrDefault()?.Outline ?? a)));

    [Fact]
    public void Areas_are_those_that_corners_give() => Pair.ForAll(pair =>
    {
        var (a, b) = (AreaRings.Inside(pair.A), AreaRings.Inside(pair.B));
        var (ra, rb) = (Flat(pair.A), Flat(pair.B));
        var length = pair.A.Length + pair.B.Length;
        foreach (var (how, expected) in new[] { (Combination.Unite, ra.Union(rb)), (Combination.Subtract, ra.Minus(rb)), (Combination.Intersect, ra.And(rb)) })
        {
            var parts = PathAreas.Combine(how, a, b);
            Assert.True(Math.Abs(parts.Sum(p => p.Area) - expected.Area) < 0.01 * length, $"{how}: {parts.Sum(p => p.Area)} for {expected.Area}");
            Assert.All(parts, p => Assert.True(p.Outline.IsClosed));
        }
    }, Pairs);

    [Fact]
    public void Few_segments_are_new_and_hardly_any_pair_needs_corners()
    {
        var (all, byCorners) = (0, 0);
        Pair.ForAll(pair =>
        {
            var crossings = CrossingsOf(pair.A, pair.B);
            foreach (var how in Enum.GetValues<Combination>())
            {
                var parts = PathAreas.Overlay(how, [AreaRings.Inside(pair.A), AreaRings.Inside(pair.B)], out var flat);
                Interlocked.Increment(ref all);
                if (flat)
                {
                    Interlocked.Increment(ref byCorners);
                    continue;
                }
                var most = PathNodes.WrittenOut(pair.A).Segments.Length + PathNodes.WrittenOut(pair.B).Segments.Length + 2 * crossings;
                Assert.True(parts.Sum(p => p.SegmentCount) <= most, $"{how}: {parts.Sum(p => p.SegmentCount)} segments of {most}");
            }
        }, Pairs);
        Assert.True(byCorners * 100 <= all, $"{byCorners} of {all} were worked out with corners");
    }

    [Fact]
    public void What_is_taken_off_and_what_is_kept_make_the_whole_again() => Pair.ForAll(pair =>
    {
        var (a, b) = (AreaRings.Inside(pair.A), AreaRings.Inside(pair.B));
        var (less, both) = (PathAreas.Combine(Combination.Subtract, a, b), PathAreas.Combine(Combination.Intersect, a, b));
        var whole = PathAreas.Combine(Combination.Unite, [.. less.Concat(both).Select(AreaRings.Of)]);
        Assert.Equal(Math.Abs(CurveAreas.Signed(pair.A)), whole.Sum(p => p.Area), 0.002 * pair.A.Length);
        // Every place of the former outline is on the new one again.
        var now = whole.SelectMany(p => p.Openings.Prepend(p.Outline)).ToList();
        Assert.All(Sampling.Midpoints(pair.A, pair.A.Length / 60, 60), p => Assert.True(now.Min(n => Polygons.DistanceToRing(n.Flat, p)) < 0.03));
    }, Pairs);

    [Fact]
    public void What_is_not_cut_stays_to_the_last_bit()
    {
        var (circle, box) = (Ellipse(10, 10), Path.Rectangle(50, 0, 10, 10));
        Assert.Equal([circle, box], [.. PathAreas.Combine(Combination.Unite, AreaRings.Inside(circle), AreaRings.Inside(box)).Select(p => p.Outline)], ReferenceEqualityComparer.Instance);
        // Of four quarters of a circle two are cut: the other two are the very same segments.
        var bitten = PathAreas.Combine(Combination.Subtract, AreaRings.Inside(circle), AreaRings.Inside(Path.Rectangle(-20, -3, 20, 6)))[0].Outline;
        Assert.Equal(2, bitten.Segments.Count(s => circle.Segments.Contains(s)));
    }

    [Fact]
    public void An_opening_that_another_piece_covers_is_gone()
    {
        var ring = new AreaRings([Ellipse(20, 20)], [Ellipse(10, 10)]);
        var filled = Assert.Single(PathAreas.Combine(Combination.Unite, ring, AreaRings.Inside(Ellipse(15, 15))));
        Assert.Empty(filled.Openings);
        var partly = Assert.Single(PathAreas.Combine(Combination.Unite, ring, AreaRings.Inside(Path.Rectangle(-30, -2, 60, 4))));
        Assert.Equal(2, partly.Openings.Length);
    }

    [Fact]
    public void Lines_that_cross_themselves_and_openings_that_cross_each_other_are_understood()
    {
        var eight = Path.Polyline([new(0, 0), new(20, 20), new(20, 0), new(0, 20)], closed: true);
        Assert.Equal(2, PathAreas.Combine(Combination.Unite, AreaRings.Inside(eight)).Length);
        var sheet = new AreaRings([Path.Rectangle(0, 0, 40, 40)], [Path.Rectangle(10, 10, 10, 10), Path.Rectangle(15, 15, 10, 10)]);
        var part = Assert.Single(PathAreas.Combine(Combination.Unite, sheet));
        Assert.Single(part.Openings);
        Assert.Equal(1600 - 175, part.Area, 1e-6);
    }

    [Fact]
    public void Nothing_and_lines_of_no_area_are_no_trouble()
    {
        Assert.Empty(PathAreas.Combine(Combination.Unite));
        var line = Path.Polyline([new(0, 0), new(10, 0)], closed: true);
        Assert.Single(PathAreas.Combine(Combination.Unite, AreaRings.Inside(Path.Rectangle(0, 0, 10, 10)), AreaRings.Inside(line)));
        Assert.Empty(PathAreas.Combine(Combination.Intersect, AreaRings.Inside(Path.Rectangle(0, 0, 10, 10)), AreaRings.Inside(line)));
        var broken = Path.Polyline([new(0, 0), new(double.NaN, 5), new(5, 5)], closed: true);
        Assert.Single(PathAreas.Combine(Combination.Unite, AreaRings.Inside(Path.Rectangle(0, 0, 10, 10)), AreaRings.Inside(broken)));
    }

    private static Region Flat(Path path) => Region.FromRings(Flattening.Flatten(path, 0.001), []);

    private static int CrossingsOf(Path a, Path b)
    {
        var (p, q) = (Flattening.Flatten(a, 0.01), Flattening.Flatten(b, 0.01));
        var count = 0;
        for (var i = 0; i < p.Length; i++)
        {
            for (var k = 0; k < q.Length; k++)
            {
                if (Polygons.DistanceBetween(p[i], p[(i + 1) % p.Length], q[k], q[(k + 1) % q.Length]) < 0.02 || Cross(p[i], p[(i + 1) % p.Length], q[k], q[(k + 1) % q.Length])) count++;
            }
        }
        return count;
    }

    private static bool Cross(Point a, Point b, Point c, Point d) =>
        (b - a).Cross(c - a) * (b - a).Cross(d - a) <= 0 && (d - c).Cross(a - c) * (d - c).Cross(b - c) <= 0;

    private static Path Half(Path a, double at) => Path.Rectangle(a.Bounds.MinX - 1, a.Bounds.MinY - 1, a.Bounds.Width * at + 1, a.Bounds.Height + 2);

    private static Path Blob(int count, double[] radii, double size)
    {
        var nodes = Enumerable.Range(0, count).Select(i => Around(2 * Math.PI * i / count, size * (0.4 + 0.6 * radii[i]))).ToArray();
        var segments = Enumerable.Range(0, count).Select(i =>
        {
            var (before, from, to, after) = (nodes[(i + count - 1) % count], nodes[i], nodes[(i + 1) % count], nodes[(i + 2) % count]);
            return Segment.Cubic(from + (to - before) * (1.0 / 6), to - (after - from) * (1.0 / 6), to);
        });
        return new Path(nodes[0], [.. segments], closed: true);
    }

    private static Path Star(int points, double depth, double size) =>
        Path.Polyline(Enumerable.Range(0, points * 2).Select(i => Around(Math.PI * i / points, i % 2 == 0 ? size : size * depth)), closed: true);

    private static Point Around(double angle, double radius) => new(radius * Math.Cos(angle), radius * Math.Sin(angle));

    private static Path RoundBox(double w, double h, double r)
    {
        const double k = 0.5522847498;
        ImmutableArray<Segment> segments =
        [
            Segment.Straight(new(w - r, 0)), Segment.Cubic(new(w - r + k * r, 0), new(w, r - k * r), new(w, r)),
            Segment.Straight(new(w, h - r)), Segment.Cubic(new(w, h - r + k * r), new(w - r + k * r, h), new(w - r, h)),
            Segment.Straight(new(r, h)), Segment.Cubic(new(r - k * r, h), new(0, h - r + k * r), new(0, h - r)),
            Segment.Straight(new(0, r)), Segment.Cubic(new(0, r - k * r), new(r - k * r, 0), new(r, 0)),
        ];
        return new Path(new(r, 0), segments, closed: true);
    }

    internal static Path Ellipse(double rx, double ry)
    {
        const double k = 0.5522847498;
        ImmutableArray<Segment> segments =
        [
            Segment.Cubic(new(rx, k * ry), new(k * rx, ry), new(0, ry)), Segment.Cubic(new(-k * rx, ry), new(-rx, k * ry), new(-rx, 0)),
            Segment.Cubic(new(-rx, -k * ry), new(-k * rx, -ry), new(0, -ry)), Segment.Cubic(new(k * rx, -ry), new(rx, -k * ry), new(rx, 0)),
        ];
        return new Path(new(rx, 0), segments, closed: true);
    }
}
