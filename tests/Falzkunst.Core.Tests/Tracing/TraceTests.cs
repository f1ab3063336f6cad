using CsCheck;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tests.Pictures;
using Falzkunst.Core.Tracing;
using Falzkunst.Tests;
using Xunit;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tests.Tracing;

public sealed class TraceTests
{
    private static Traced Trace(PixelImage image, TraceMode mode = TraceMode.Areas, Func<TraceHow, TraceHow>? how = null)
    {
        var usual = new TraceHow(mode);
        return PictureTrace.Run(image, how?.Invoke(usual) ?? usual, Budget.Unlimited);
    }

    private static Point[] Star(Point centre, double outer, double inner, double turn) =>
        [.. Enumerable.Range(0, 10).Select(i => centre + new Point(Math.Cos(turn + i * Math.PI / 5), Math.Sin(turn + i * Math.PI / 5)) * (i % 2 == 0 ? outer : inner))];

    [Fact]
    public void Corners_of_squares_and_stars_are_found_to_a_tenth_of_a_dot()
    {
        foreach (var corners in new Point[][]
        {
            [new(20.3, 18.7), new(99.6, 18.7), new(99.6, 77.2), new(20.3, 77.2)],
            [new(60, 12), new(108, 61), new(59, 109), new(11, 60)],
            Star(new(64.2, 63.4), 56, 25, 0.3),
            Star(new(63, 64), 58, 30, 1.1),
        })
        {
            var area = Assert.Single(Trace(Painted.Shape(128, 128, Painted.Polygon(corners))).Areas);
            Assert.Equal(corners.Length, area.Outline.Segments.Length);
            Assert.All(area.Outline.Segments, s => Assert.False(s.IsCubic));
            var found = area.Outline.Segments.Select(s => s.End).ToList();
            Assert.All(corners, c => Assert.True(found.Min(f => f.DistanceTo(c)) < 0.1, $"{c}: {found.Min(f => f.DistanceTo(c))}"));
        }
    }

    [Fact]
    public void Upright_lines_come_out_upright_and_right_angles_right()
    {
        var square = Assert.Single(Trace(Painted.Shape(90, 90, Painted.Polygon(new(20.4, 20.6), new(70.2, 20.6), new(70.2, 66.1), new(20.4, 66.1)))).Areas).Outline;
        var points = square.Segments.Select(s => s.End).ToList();
        for (var i = 0; i < 4; i++)
        {
            var way = points[(i + 1) % 4] - points[i];
            Assert.True(Math.Min(Math.Abs(way.X), Math.Abs(way.Y)) < 1e-9, $"{way}");
        }
    }

    /// <summary>A plate with rounded corners.</summary>
    private static Func<Point, bool> Plate(Point min, Point max, double round) => p =>
        new Point(Math.Max(Math.Max(min.X + round - p.X, p.X - max.X + round), 0), Math.Max(Math.Max(min.Y + round - p.Y, p.Y - max.Y + round), 0)).Length <= round;

    [Fact]
    public void Corners_rounded_within_the_scale_are_sharp_and_rounder_ones_are_not()
    {
        var image = Painted.Shape(160, 120, Plate(new(20.3, 18.7), new(139.6, 97.2), 5));
        Path Outline(double corner) => Assert.Single(Trace(image, how: h => h with { Corner = corner }).Areas).Outline;
        Assert.Contains(Outline(1).Segments, s => s.IsCubic);
        var sharp = Outline(5);
        Assert.Equal(4, sharp.Segments.Length);
        Assert.All(sharp.Segments, s => Assert.False(s.IsCubic));
        Assert.All(new Point[] { new(20.3, 18.7), new(139.6, 97.2) }, c => Assert.True(sharp.Segments.Min(s => s.End.DistanceTo(c)) < 0.3));
        Assert.Equal(1, new TraceSettings(TraceMode.Areas, 0.1).InDots(0.05).Corner);
        Assert.Equal(4, new TraceSettings(TraceMode.Areas, 0.1, CornerMm: 0.2).InDots(0.05).Corner);
    }

    [Fact]
    public void Noise_moves_lines_hardly_and_straight_sides_stay_straight()
    {
        // Four sides and four rounded corners: as many nodes as a clean picture needs, and two more.
        var (min, max) = (new Point(30.4, 28.2), new Point(269.1, 181.7));
        var clean = Painted.Shape(300, 210, Plate(min, max, 22));
        foreach (var noise in new[] { 0.05, 0.1 })
        {
            var outline = Assert.Single(Trace(Painted.Damaged(clean, noise, 0)).Areas).Outline;
            Assert.InRange(outline.Segments.Length, 8, 10);
            Assert.Equal(4, outline.Segments.Count(s => !s.IsCubic));
            double Off(Point p)
            {
                Point within = new(Math.Clamp(p.X, min.X + 22, max.X - 22), Math.Clamp(p.Y, min.Y + 22, max.Y - 22));
                return Math.Abs(p.DistanceTo(within) - 22);
            }
            Assert.True(outline.Flat.ToArray().Average(Off) is var off && off < 0.15, $"{noise}: {off}");
        }
    }

    [Fact]
    public void Circles_are_circles_of_four_cubics()
    {
        foreach (var radius in new[] { 4.0, 11.3, 37.8 })
        {
            var centre = new Point(48.4, 47.7);
            var area = Assert.Single(Trace(Painted.Shape(96, 96, Painted.Disc(centre, radius))).Areas);
            Assert.Equal(4, area.Outline.Segments.Length);
            Assert.All(area.Outline.Flat.ToArray(), p => Assert.Equal(radius, p.DistanceTo(centre), 0.08));
        }
    }

    [Fact]
    public void Holes_lie_in_what_is_around_them_and_islands_in_holes_are_areas_of_their_own()
    {
        var centre = new Point(64, 64);
        bool Rings(Point p) => p.DistanceTo(centre) is <= 50 and >= 35 or <= 20 and >= 8;
        var traced = Trace(Painted.Shape(128, 128, Rings));
        Assert.Equal(2, traced.Areas.Length);
        Assert.All(traced.Areas, a => Assert.Single(a.Openings));
        Assert.All(traced.Areas, a => Assert.True(a.Outline.SignedArea > 0 && Math.Abs(a.Openings[0].SignedArea) < a.Outline.SignedArea));
        // The rim is the outermost line alone.
        Assert.Empty(Assert.Single(Trace(Painted.Shape(128, 128, Rings), TraceMode.Rim).Areas).Openings);
    }

    [Fact]
    public void Specks_are_left_out_and_counted()
    {
        bool Dots(Point p) => Painted.Disc(new(40, 40), 20)(p) || Painted.Disc(new(80, 20), 1.6)(p) || Painted.Disc(new(20, 80), 1.2)(p);
        var traced = Trace(Painted.Shape(100, 100, Dots), how: h => h with { LeastArea = 12 });
        Assert.Single(traced.Areas);
        Assert.Equal(2, traced.Specks);
        Assert.Equal(3, Trace(Painted.Shape(100, 100, Dots), how: h => h with { LeastArea = 1 }).Areas.Length);
    }

    [Fact]
    public void Random_shapes_are_found_within_fractions_of_a_dot_clean_and_damaged()
    {
        var blobs = from centre in Gen.Select(Gen.Double[70, 90], Gen.Double[70, 90])
                    from radii in Gen.Double[25, 62].Array[5, 9]
                    select (Centre: new Point(centre.Item1, centre.Item2), Radii: radii);
        blobs.ForAll(blob =>
        {
            // Smooth: the radius goes by cubic interpolation round and round.
            var n = blob.Radii.Length;
            double Radius(double angle)
            {
                var at = (angle / (2 * Math.PI) + 1) % 1 * n;
                var (i, t) = ((int)at, at - Math.Floor(at));
                double R(int k) => blob.Radii[((i + k) % n + n) % n];
                return R(0) + 0.5 * t * (R(1) - R(-1) + t * (2 * R(-1) - 5 * R(0) + 4 * R(1) - R(2) + t * (3 * (R(0) - R(1)) + R(2) - R(-1))));
            }
            bool IsInk(Point p) => (p - blob.Centre) is var d && d.Length <= Radius(Math.Atan2(d.Y, d.X));
            var truth = Enumerable.Range(0, 3000).Select(k => k * 2 * Math.PI / 3000).Select(a => blob.Centre + new Point(Math.Cos(a), Math.Sin(a)) * Radius(a)).ToArray();
            var clean = Painted.Shape(160, 160, IsInk);
            Assert.True(MeanDistance(Trace(clean), truth) is var off && off < 0.15, $"clean {off}");
            Assert.True(MeanDistance(Trace(Painted.Damaged(clean, 0.05, 0)), truth) is var noisy && noisy < 0.3, $"noise {noisy}");
            Assert.True(MeanDistance(Trace(Painted.Damaged(clean, 0, 0.3)), truth) is var falling && falling < 0.3, $"light {falling}");
            Assert.True(Trace(clean).Segments <= 6 * n, $"{Trace(clean).Segments} segments");
        }, iter: 12);

        static double MeanDistance(Traced traced, Point[] truth)
        {
            var outline = Assert.Single(traced.Areas).Outline.Flat.ToArray();
            return (truth.Average(p => Polygons.DistanceToRing(outline, p)) + outline.Average(p => Polygons.DistanceToRing(truth, p))) / 2;
        }
    }

    [Fact]
    public void A_picture_of_nothing_gives_nothing()
    {
        foreach (var mode in Enum.GetValues<TraceMode>().Except([TraceMode.Colours]))
        {
            Assert.Empty(Trace(Painted.Shape(40, 30, _ => false), mode).Paths);
            Assert.Empty(Trace(Painted.Shape(1, 1, _ => false), mode).Paths);
        }
        // One colour all over is one patch, with straight edges.
        Assert.Equal(1200, Assert.Single(Trace(Painted.Shape(40, 30, _ => false), TraceMode.Colours).Areas).Outline.SignedArea, 1e-6);
    }

    [Fact]
    public void Ink_up_to_the_edge_of_the_picture_is_closed_there()
    {
        var area = Assert.Single(Trace(Painted.Shape(60, 50, p => p.X < 30)).Areas).Outline;
        Assert.Equal(30 * 50, area.SignedArea, 40.0);
        Assert.True(area.Bounds.MinX is >= 0 and < 0.6 && area.Bounds.MaxY is > 49.4 and <= 50.5);
    }

    [Fact]
    public void Middle_lines_of_strokes_lie_in_their_middle_and_meet_where_they_meet()
    {
        const double Width = 9;
        Point[][] lines =
        [
            [new(20, 30), new(130, 30)], [new(75, 30), new(100, 110)], // a T
            [new(160, 30), new(260, 110)], [new(160, 110), new(260, 30)], // a crossing
            [new(30, 150), new(120, 150), new(120, 230)], // a corner
        ];
        var traced = Trace(Painted.Shape(300, 260, Painted.Strokes(Width, lines)), TraceMode.MiddleLines);
        Assert.Equal(5, traced.Lines.Length);
        Assert.All(traced.Lines, l => Assert.Equal(Width, l.Width, 0.4));
        var found = traced.Lines.Select(l => l.Path.Flat.ToArray()).ToList();
        double ToTruth(Point p) => lines.Min(l => Painted.Distance(l, p));
        Assert.True(found.SelectMany(f => f).Average(ToTruth) < Width / 5);
        Assert.All(found.SelectMany(f => f), p => Assert.True(ToTruth(p) < Width / 3, $"{p} is {ToTruth(p)} off"));
        // And the other way round: nothing is missing.
        foreach (var line in lines)
        {
            for (var k = 0; k <= 40; k++)
            {
                var at = Enumerable.Range(1, line.Length - 1).Select(i => Point.Lerp(line[i - 1], line[i], k / 40.0));
                Assert.All(at, p => Assert.True(found.Min(f => Painted.Distance(f, p)) < Width / 2));
            }
        }
        // What crosses goes straight through; ends are as long as the pen was down.
        Assert.Equal(2, found.Count(f => f.Max(p => p.X) > 255 && f.Min(p => p.X) < 165));
        Assert.All(lines.Where(l => l.Length == 2), l => Assert.True(found.Min(f => Math.Min(f[0].DistanceTo(l[0]), f[^1].DistanceTo(l[0]))) < Width / 3));
    }

    [Fact]
    public void A_ring_of_pen_is_one_closed_line_and_a_wobbling_edge_makes_no_spurs()
    {
        var centre = new Point(80, 80);
        var random = new Random(3);
        var wobble = Enumerable.Range(0, 720).Select(_ => random.NextDouble() * 1.6 - 0.8).ToArray();
        bool IsInk(Point p) => (p - centre) is var d && Math.Abs(d.Length - 50) <= 5 + wobble[(int)((Math.Atan2(d.Y, d.X) + Math.PI) * 114) % 720];
        var line = Assert.Single(Trace(Painted.Shape(160, 160, IsInk), TraceMode.MiddleLines).Lines);
        Assert.True(line.Path.IsClosed);
        Assert.All(line.Path.Flat.ToArray(), p => Assert.Equal(50, p.DistanceTo(centre), 1.5));
    }

    [Fact]
    public void Patches_of_colour_share_their_borders_and_leave_no_gap()
    {
        (int R, int G, int B)[] colours = [(179, 54, 30), (240, 180, 74), (220, 233, 240), (36, 49, 58)];
        int Which(Point p) => p.DistanceTo(new(60, 50)) < 25 ? 3 : p.Y < 40 ? 0 : p.X < 70 ? 1 : 2;
        var rgba = new byte[120 * 100 * 4];
        for (var i = 0; i < 120 * 100; i++)
        {
            double r = 0, g = 0, b = 0;
            for (var k = 0; k < 64; k++)
            {
                var c = colours[Which(new Point(i % 120 + (k % 8 + 0.5) / 8, i / 120 + (k / 8 + 0.5) / 8))];
                (r, g, b) = (r + c.R / 64.0, g + c.G / 64.0, b + c.B / 64.0);
            }
            (rgba[4 * i], rgba[4 * i + 1], rgba[4 * i + 2], rgba[4 * i + 3]) = ((byte)Math.Round(r), (byte)Math.Round(g), (byte)Math.Round(b), 255);
        }
        var traced = Trace(new PixelImage(120, 100, rgba), TraceMode.Colours);
        Assert.Equal(4, traced.Areas.Length);
        Assert.Equal(4, traced.Areas.Select(a => a.Colour).Distinct().Count());
        // Together they are the picture; borders are the same curves on both sides.
        Assert.Equal(12_000, traced.Areas.Sum(a => Math.Abs(a.Outline.SignedArea) - a.Openings.Sum(o => Math.Abs(o.SignedArea))), 0.5);
        var disc = traced.Areas.Single(a => a.Outline.Bounds.Contains(new Point(60, 50)) && a.Outline.Bounds.Width < 60);
        Assert.Equal(Math.PI * 625, Math.Abs(disc.Outline.SignedArea), 20.0);
        var edges = traced.Areas.SelectMany(a => a.Openings.Prepend(a.Outline)).SelectMany(Stretches).Where(s => !IsAtEdge(s.From) || !IsAtEdge(s.To)).ToList();
        Assert.All(edges, s => Assert.Equal(2, edges.Count(o => (o.From, o.To) == (s.From, s.To) || (o.From, o.To) == (s.To, s.From))));

        static IEnumerable<(Point From, Point To)> Stretches(Path path)
        {
            var from = path.Start;
            foreach (var s in path.Segments)
            {
                yield return (from, s.End);
                from = s.End;
            }
        }
        static bool IsAtEdge(Point p) => p.X is < 0.6 or > 119.4 || p.Y is < 0.6 or > 99.4;
    }

    [Fact]
    public void The_same_picture_gives_the_same_lines_and_a_budget_ends_it()
    {
        var image = Painted.Damaged(Painted.Shape(120, 120, Painted.Polygon(Star(new(60, 60), 50, 20, 0.2))), 0.04, 0.1);
        foreach (var mode in Enum.GetValues<TraceMode>()) Assert.Equal(Trace(image, mode).Paths, Trace(image, mode).Paths);
        Assert.Throws<BudgetSpent>(() => PictureTrace.Run(image, new TraceHow(TraceMode.Areas), Budget.OfWork(100)));
    }
}
