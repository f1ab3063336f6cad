using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Core.Tests.Printing.Registration;

/// <summary>Scraps of every lightness on scanned and photographed pages, with a shadow beside them.</summary>
public sealed class ScrapFinderTests
{
    private static readonly ScrapPage Page = new(215.9, 279.4);

    [Fact]
    public void Outlines_are_found_to_half_a_millimetre()
    {
        for (var number = 0; number < 30; number += Environment.GetEnvironmentVariable("FALZKUNST_MARKS") == "all" ? 1 : 7)
        {
            var random = new Random(number);
            var (map, width, height) = number % 3 == 0 ? Photo(number) : Scan(random);
            var outline = Outline(random);
            var lightness = new[] { 0.97, 0.05, 0.5, 0.75, 0.3 }[number % 5];
            var picture = Picture(map, width, height, outline, lightness, random);
            var reading = MarkFinder.Find(picture, Page.Layout, number % 3 == 0 ? null : 200 / 25.4, number % 3 == 0 ? PictureTaker.Camera : PictureTaker.Scanner);
            Assert.True(reading.Page is not null, $"{number}: {reading.Refused}");
            var found = ScrapFinder.Find(picture, reading.Page.Map, Page);
            Assert.True(found is not null, $"{number}: nothing found");
            var (worst, area) = Apart(found.Flat.ToArray(), outline);
            Assert.True(worst < 0.5, $"{number}: {worst:0.00} mm, lightness {lightness}");
            Assert.Equal(Math.Abs(Polygons.SignedArea(outline)), area, Math.Abs(Polygons.SignedArea(outline)) * 0.01);
            Assert.InRange(found.Flat.Length, 4, 200);
        }
    }

    [Fact]
    public void A_page_on_which_nothing_lies_has_no_scrap()
    {
        var random = new Random(5);
        var (map, width, height) = Scan(random);
        var picture = Picture(map, width, height, [], 1, random);
        Assert.Null(ScrapFinder.Find(picture, MarkFinder.Find(picture, Page.Layout, 200 / 25.4).Page!.Map, Page));
    }

    /// <summary>Between four and nine corners round a middle, straight edges.</summary>
    private static Point[] Outline(Random random)
    {
        var corners = random.Next(4, 10);
        var (middle, turn) = (new Point(90 + random.NextDouble() * 35, 110 + random.NextDouble() * 60), random.NextDouble() * 6);
        // As somebody lays a strip: its edges along those of the page.
        if (random.Next(4) == 0) return [middle + new Point(-40.3, -20.1), middle + new Point(41.2, -20.1), middle + new Point(41.2, 33.3), middle + new Point(-40.3, 33.3)];
        return [.. Enumerable.Range(0, corners).Select(i => middle + new Point(Math.Cos(turn + i * 2 * Math.PI / corners), Math.Sin(turn + i * 2 * Math.PI / corners)) * (25 + 30 * random.NextDouble()))];
    }

    private static (Projection Map, int Width, int Height) Scan(Random random)
    {
        const double Dots = 200 / 25.4;
        var map = Affine.Turn(random.NextDouble() * 4 - 2).About(new Point(108, 140)).Then(Affine.Move(5, 5)).Then(Affine.Scale(Dots, Dots));
        return (Projection.From(map), (int)(226 * Dots), (int)(290 * Dots));
    }

    private static (Projection Map, int Width, int Height) Photo(int number)
    {
        var (_, faults) = MadePages.Photo(number, 0, hasFourth: true);
        return (faults.Map, faults.Width, faults.Height);
    }

    private static InkRaster Picture(Projection map, int width, int height, Point[] outline, double lightness, Random random)
    {
        var faults = new ScanFaults(width, height, map, random.Next()) { BlurDots = 0.8 };
        var marks = PageScan.Take(Page.Layout, [], faults);
        var (back, ground, scale) = (map.Inverse(), Page.Ground, map.ScaleAt(new Point(100, 140)));
        var fall = 0.3 * random.NextDouble();
        var ink = new byte[width * height];
        Parallel.For(0, height, y =>
        {
            var noise = new Random(y);
            for (var x = 0; x < width; x++)
            {
                // Four looks into a dot make edges as soft as a scanner does.
                double light = 0;
                foreach (var (dx, dy) in new[] { (0.25, 0.25), (0.75, 0.25), (0.25, 0.75), (0.75, 0.75) })
                {
                    var p = back.Apply(new Point(x + dx, y + dy));
                    light += Light(p) / 4;
                }
                light *= 1 - fall * x / width;
                ink[y * width + x] = (byte)Math.Clamp(255 - 250 * light + (noise.NextDouble() - 0.5) * 20, 0, 255);

                double Light(Point p)
                {
                    if (outline.Length > 0 && IsIn(outline, p)) return lightness;
                    // The scrap's shadow falls a millimetre to the right and down.
                    var shade = outline.Length > 0 && IsIn(outline, p - new Point(0.7, 0.7)) ? 0.78 : 1;
                    var (i, j) = ((int)Math.Floor((p.X - ground.MinX) / ScrapPage.CellMm), (int)Math.Floor((p.Y - ground.MinY) / ScrapPage.CellMm));
                    if (ground.Contains(p) && i < Page.Cells.Across && j < Page.Cells.Down && Black(i, j) is { } black) return (black ? 0.08 : 1) * shade;
                    return (255 - marks.Ink[y * width + x]) / 244.0 * shade;
                }
            }
        });
        return new InkRaster(width, height, ink);
    }

    private static readonly Dictionary<(int, int), bool?> Known = [];

    private static bool? Black(int i, int j)
    {
        lock (Known) return Known.TryGetValue((i, j), out var known) ? known : Known[(i, j)] = Page.IsBlack(i, j);
    }

    private static bool IsIn(Point[] ring, Point at)
    {
        var isIn = false;
        for (int a = 0, b = ring.Length - 1; a < ring.Length; b = a++)
        {
            if (ring[a].Y > at.Y != ring[b].Y > at.Y && at.X < (ring[b].X - ring[a].X) * (at.Y - ring[a].Y) / (ring[b].Y - ring[a].Y) + ring[a].X) isIn = !isIn;
        }
        return isIn;
    }

    /// <summary>The largest distance between two outlines either way, but within half a millimetre of corners, which no scan shows sharp.</summary>
    private static (double Worst, double Area) Apart(Point[] found, Point[] truth)
    {
        double To(Point p, Point[] ring) => Enumerable.Range(0, ring.Length).Min(i => Near(p, ring[i], ring[(i + 1) % ring.Length]));
        IEnumerable<Point> Along(Point[] ring) => Enumerable.Range(0, ring.Length).SelectMany(i => Enumerable.Range(0, 40).Select(k => Point.Lerp(ring[i], ring[(i + 1) % ring.Length], k / 40.0)));
        var worst = Math.Max(Along(found).Max(p => To(p, truth)), Along(truth).Where(p => truth.All(c => c.DistanceTo(p) > 1)).Max(p => To(p, found)));
        return (worst, Math.Abs(Polygons.SignedArea(found)));
    }

    private static double Near(Point p, Point a, Point b)
    {
        var d = b - a;
        var t = Math.Clamp((p - a).Dot(d) / Math.Max(d.Dot(d), 1e-12), 0, 1);
        return p.DistanceTo(a + d * t);
    }
}
