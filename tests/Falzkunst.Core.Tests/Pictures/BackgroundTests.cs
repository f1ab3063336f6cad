using CsCheck;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Tests;
using Xunit;

namespace Falzkunst.Core.Tests.Pictures;

public sealed class BackgroundTests
{
    private static PixelImage Apply(PixelImage image, params PictureStep[] steps) => PictureSteps.Apply(image, steps, Budget.Unlimited);

    /// <summary>Five pictures with what of each dot is motif: a disc, a ring, strokes, a star on colour, a motif on a page in falling light.</summary>
    private static IEnumerable<(string Name, PixelImage Image, Func<Point, bool> IsMotif, PictureStep[] Steps)> Pictures()
    {
        var touch = new BackgroundAway(0.02, 0.02, 0.1);
        var disc = Painted.Disc(new(60, 60), 38);
        yield return ("disc", Painted.Shape(120, 120, disc, (179, 54, 30)), disc, [touch]);
        bool Ring(Point p) => p.DistanceTo(new(60, 60)) is >= 20 and <= 44;
        yield return ("ring, everywhere", Painted.Shape(120, 120, Ring, (14, 110, 102)), Ring, [touch with { Everywhere = true }]);
        yield return ("ring, two touches", Painted.Shape(120, 120, Ring, (14, 110, 102)), Ring, [touch, new BackgroundAway(0.5, 0.5, 0.1)]);
        var star = Painted.Polygon([.. Enumerable.Range(0, 10).Select(i => new Point(60, 60) + new Point(Math.Cos(i * Math.PI / 5), Math.Sin(i * Math.PI / 5)) * (i % 2 == 0 ? 52 : 24))]);
        yield return ("star on sky", Painted.Shape(120, 120, star, (240, 180, 74), (40, 60, 110)), star, [new BackgroundGuessed(0.1)]);
        var strokes = Painted.Strokes(7, [[new(15, 20), new(100, 25), new(60, 100)]]);
        yield return ("strokes on a page", Painted.Damaged(Painted.Shape(120, 120, strokes), 0, 0.3), strokes, [new LevelLight(), new BackgroundGuessed(0.12)]);
    }

    [Fact]
    public void Near_colours_are_those_that_a_measurement_of_each_finds()
    {
        var dots = Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte);
        Gen.Select(dots, Gen.Double[BackgroundAway.Least, BackgroundAway.Most], dots.Array[400]).ForAll((touched, tolerance, others) =>
        {
            var colour = OkLab.From(touched.Item1, touched.Item2, touched.Item3);
            var near = new NearColour(colour, tolerance);
            Assert.All(others.Append(touched), o => Assert.Equal(OkLab.From(o.Item1, o.Item2, o.Item3).SquareTo(colour) <= tolerance * tolerance, near.IsNear(o.Item1, o.Item2, o.Item3)));
        }, iter: 100);
    }

    [Fact]
    public void A_flood_reaches_what_hangs_together_over_sides_and_nothing_else()
    {
        var fields = from width in Gen.Int[1, 30]
                     from height in Gen.Int[1, 30]
                     from near in Gen.Bool.Array[width * height]
                     from seed in Gen.Int[0, width * height - 1]
                     select (width, near, seed);
        fields.ForAll((width, near, seed) =>
        {
            var wanted = new bool[near.Length];
            void Spread(int i)
            {
                if (wanted[i] || !near[i]) return;
                wanted[i] = true;
                if (i % width > 0) Spread(i - 1);
                if (i % width < width - 1) Spread(i + 1);
                if (i >= width) Spread(i - width);
                if (i + width < near.Length) Spread(i + width);
            }
            Spread(seed);
            Assert.Equal(wanted, Background.Flooded(near, width, [(seed % width, seed / width)], Budget.Unlimited));
        }, iter: 300);
    }

    [Fact]
    public void What_is_background_goes_and_edges_are_as_opaque_as_they_are_covered()
    {
        foreach (var (name, image, isMotif, steps) in Pictures())
        {
            var made = Apply(image, steps);
            var (right, edges, near) = (0, 0, 0);
            for (var y = 0; y < image.Height; y++)
            {
                for (var x = 0; x < image.Width; x++)
                {
                    var (share, alpha) = (Painted.Share(x, y, isMotif), made.Rgba[made.At(x, y) + 3] / 255.0);
                    if (share >= 0.5 == alpha >= 0.5 || Math.Abs(share - alpha) < 0.1) right++;
                    if (share is <= 0 or >= 1) continue;
                    edges++;
                    if (Math.Abs(share - alpha) <= 0.1) near++;
                }
            }
            Assert.True(right >= 0.99 * image.Width * image.Height, $"{name}: {right} right");
            Assert.True(near >= 0.95 * edges, $"{name}: {near} of {edges} edges");
        }
    }

    [Fact]
    public void Edges_lose_the_old_colour()
    {
        var made = Apply(Painted.Shape(80, 80, Painted.Disc(new(40, 40), 25), (200, 40, 30), (40, 60, 200)), new BackgroundGuessed(0.1));
        for (var i = 0; i < made.Rgba.Length; i += 4)
        {
            // What is hardly seen may keep what rounding makes of it.
            if (made.Rgba[i + 3] > 40) Assert.True(made.Rgba[i] > 170 && made.Rgba[i + 2] < 70, $"{made.Rgba[i]} {made.Rgba[i + 1]} {made.Rgba[i + 2]} at {made.Rgba[i + 3]}");
        }
    }

    [Fact]
    public void An_enclosed_spot_stays_until_it_is_touched_and_a_brush_gives_back_and_takes()
    {
        bool Ring(Point p) => p.DistanceTo(new(60, 60)) is >= 20 and <= 44;
        var image = Painted.Shape(120, 120, Ring);
        var once = Apply(image, new BackgroundAway(0.02, 0.02, 0.1));
        Assert.Equal((0, 255), (once.Rgba[once.At(3, 3) + 3], once.Rgba[once.At(60, 60) + 3]));
        var given = Apply(image, new BackgroundAway(0.02, 0.02, 0.1), new Brush([new(0.05, 0.05), new(0.1, 0.05)], 0.04, Gives: true));
        Assert.Equal((255, 0), (given.Rgba[given.At(8, 6) + 3], given.Rgba[given.At(8, 40) + 3]));
        Assert.Equal(255, given.Rgba[given.At(8, 6)]);
        var taken = Apply(image, new Brush([new(0.5, 0.5)], 0.1, Gives: false));
        Assert.Equal((0, 255), (taken.Rgba[taken.At(60, 60) + 3], taken.Rgba[taken.At(60, 80) + 3]));
    }

    [Fact]
    public void Steps_change_the_size_as_is_said_without_dots()
    {
        var image = Painted.Shape(97, 61, Painted.Disc(new(40, 30), 20));
        PictureStep[] all =
        [
            new Crop(0.1, 0.2, 0.7, 0.55), new Lay(Orientation.QuarterRight), new Straighten(7.3), new Lay(Orientation.MirrorDown), new Straighten(-31),
            new Unfold(new(0.1, 0.08), new(0.93, 0.02), new(0.99, 0.9), new(0.03, 0.97)), new LevelLight(), new Crop(0, 0, 0.5, 1, CropForm.Ellipse), new BackgroundGuessed(0.05),
        ];
        for (var count = 0; count <= all.Length; count++)
        {
            var made = Apply(image, all[..count]);
            Assert.Equal(PictureSize.After(97, 61, all[..count]), (made.Width, made.Height));
        }
    }

    [Fact]
    public void Turned_round_and_back_the_same_dots_lie_where_they_lay()
    {
        var image = Painted.Shape(31, 17, Painted.Disc(new(9, 6), 5));
        Assert.Equal(image.Rgba, Apply(image, new Lay(Orientation.QuarterLeft), new Lay(Orientation.QuarterRight)).Rgba);
        Assert.Equal(image.Rgba, Apply(image, new Lay(Orientation.HalfTurn), new Lay(Orientation.MirrorAcross), new Lay(Orientation.MirrorDown)).Rgba);
        Assert.Equal(image.Rgba, Apply(image, new Lay(Orientation.Transposed), new Lay(Orientation.QuarterLeft), new Lay(Orientation.MirrorDown)).Rgba);
    }

    [Fact]
    public void A_page_seen_from_aside_becomes_the_page()
    {
        // The page's corners in the photo, and a dot in its very middle, where the diagonals cross.
        Point[] corners = [new(30, 20), new(150, 40), new(140, 130), new(20, 110)];
        var (d, e) = (corners[2] - corners[0], corners[3] - corners[1]);
        var middle = corners[0] + d * ((corners[1] - corners[0]).Cross(e) / d.Cross(e));
        var photo = Painted.Shape(170, 150, Painted.Disc(middle, 5));
        var page = Apply(photo, new Unfold(Share(corners[0]), Share(corners[1]), Share(corners[2]), Share(corners[3])));
        var darkest = Enumerable.Range(0, page.Width * page.Height).Where(i => page.Rgba[4 * i] < 100).Select(i => new Point(i % page.Width + 0.5, i / page.Width + 0.5)).ToList();
        Assert.True((darkest.Aggregate((a, b) => a + b) * (1.0 / darkest.Count)).DistanceTo(new(page.Width / 2.0, page.Height / 2.0)) < 1.5);

        Point Share(Point p) => new(p.X / 170, p.Y / 150);
    }
}
