using System.Runtime.InteropServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// The outline of a scrap that lies on a <see cref="ScrapPage"/>. In order: the light of the page levelled; every place in the middle of
/// a square of the ground judged, covered where it is not as printed; what lies between covered places closed (Serra, "Image analysis
/// and mathematical morphology", 1982), which tells squares of which colour the scrap hides; the line half way between places of that
/// colour that are covered and those that are not, by their distance fields; the largest part of it, simplified; long edges by least squares.
/// </summary>
public static class ScrapFinder
{
    /// <summary>Places are judged so far apart, mm.</summary>
    private const double StepMm = 0.16;

    /// <summary>Blur and spread mix squares along their edges, mm.</summary>
    private const double EdgeMm = 0.12;

    /// <summary>A black square is covered where it is lighter than this, a white one where it is darker, as shares of the paper's light: a shadow leaves three quarters of it.</summary>
    private const double LightBlack = 0.45, DarkWhite = 0.6;

    /// <summary>Squares of one colour lie a millimetre apart along an edge; closing by this joins them, with bays of less than a quarter of a millimetre between, mm.</summary>
    private const double CloseMm = 0.9;

    /// <summary>The contour is smoothed by this much, mm.</summary>
    private const double SmoothMm = 0.35;

    /// <summary>The outline has fewer corners by this much, mm.</summary>
    private const double SimpleMm = 0.6;

    /// <summary>Less than this is no scrap but a smudge, mm².</summary>
    private const double LeastAreaMm2 = 200;

    /// <param name="picture">The page with the scrap on it.</param>
    /// <param name="map">Where the page is on it.</param>
    /// <param name="page">The page.</param>
    /// <returns>The outline, mm of the page; null where nothing lies on it. It may touch the end of the ground, beyond which nothing is seen.</returns>
    public static Path? Find(InkRaster picture, PictureMap map, ScrapPage page)
    {
        var ground = page.Ground;
        // A step of paper all round, so that what reaches the end of the ground is closed.
        var (width, height) = ((int)(ground.Width / StepMm) + 3, (int)(ground.Height / StepMm) + 3);
        var light = Light(picture, map, ground, width, height);
        var seen = Judged(light, page, width, height);
        var closed = Closed(seen, width, height, CloseMm / StepMm);
        if (Edge(seen, closed, width, height) is not { } edge) return null;
        var parts = Contours.Find(InkCleaning.Smoothed(edge, SmoothMm / StepMm), Level, LeastAreaMm2 / (StepMm * StepMm), Budget.Unlimited, out _);
        var largest = parts.Where(p => Polygons.SignedArea(p) > 0).MaxBy(p => Polygons.SignedArea(p));
        if (largest is null) return null;
        Point[] contour = [.. largest.Select(p => ground.Min + (p - new Point(1.5, 1.5)) * StepMm)];
        var simple = Region.EvenOdd([Path.Polyline([.. contour], closed: true)]).Simplified(SimpleMm).Rings.MaxBy(r => Math.Abs(Polygons.SignedArea(r)));
        if (simple is null) return null;
        // Once corners are where edges meet, places are told to the right edge: twice more, and nothing moves.
        for (var round = 0; round < 3; round++) simple = Straightened(simple, contour);
        // Corners on a straight edge go.
        return Region.EvenOdd([Path.Polyline([.. simple], closed: true)]).Simplified(StraightMm).Rings.Select(r => Path.Polyline([.. r], closed: true)).MaxBy(p => Math.Abs(p.SignedArea));
    }

    /// <summary>What lies no farther from a straight line is on it, mm.</summary>
    private const double StraightMm = 0.12;

    /// <summary>
    /// Each long edge put where the contour's places along it lie on the mean (total least squares), and corners where such edges meet:
    /// paper is cut and torn along straight lines, and a place by itself is known to half a square only.
    /// </summary>
    private static Point[] Straightened(Point[] corners, Point[] contour)
    {
        List<(Point From, Point To, Point At, Point Along)> edges = [.. corners.Select((corner, i) =>
        {
            var to = corners[(i + 1) % corners.Length];
            var (at, along) = Fitted(corner, to, contour);
            return (corner, to, at, along);
        })];
        bool IsLong(int i) => edges[i].From.DistanceTo(edges[i].To) >= LongEdgeMm;
        // A short edge between two long ones is the round that a corner has on a coarse ground.
        for (var i = 0; i < edges.Count && edges.Count > 3; i++)
        {
            var (before, after) = ((i + edges.Count - 1) % edges.Count, (i + 1) % edges.Count);
            if (IsLong(i) || !IsLong(before) || !IsLong(after) || Met(before, after) is not { } met || met.DistanceTo(edges[i].From) > MostMovedMm || met.DistanceTo(edges[i].To) > MostMovedMm) continue;
            (edges[before], edges[after]) = (edges[before] with { To = met }, edges[after] with { From = met });
            edges.RemoveAt(i--);
        }
        return [.. edges.Select((e, i) => Met((i + edges.Count - 1) % edges.Count, i) is { } met && met.DistanceTo(e.From) <= MostMovedMm ? met : e.From)];

        Point? Met(int one, int other)
        {
            var ((_, _, p, along), (_, _, q, across)) = (edges[one], edges[other]);
            var cross = along.Cross(across);
            return Math.Abs(cross) > 0.1 ? p + along * ((q - p).Cross(across) / cross) : null;
        }
    }

    private static (Point At, Point Along) Fitted(Point from, Point to, Point[] contour)
    {
        var (way, length) = (to - from, from.DistanceTo(to));
        var along = way * (1 / Math.Max(length, 1e-9));
        if (length < LongEdgeMm) return (from, along);
        var near = contour.Where(p => (p - from).Dot(along) is var t && t > CornerMm && t < length - CornerMm && Math.Abs(along.Cross(p - from)) < 2 * SimpleMm).ToList();
        if (near.Count < 8) return (from, along);
        var line = StraightLine.Through(CollectionsMarshal.AsSpan(near));
        return (line.Middle, line.Way.Dot(along) < 0 ? line.Way * -1 : line.Way);
    }

    /// <summary>Edges from this length on are put straight, without so much at their ends, where the contour is round, mm.</summary>
    private const double LongEdgeMm = 6, CornerMm = 1.5;

    /// <summary>A corner moves by no more than this, mm.</summary>
    private const double MostMovedMm = 5;

    private static byte[] Light(InkRaster picture, PictureMap map, Box ground, int width, int height)
    {
        var light = new byte[width * height];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < width; x++)
            {
                var dot = map.Apply(At(ground, x, y));
                light[y * width + x] = (byte)(255 - Math.Clamp(picture.At(dot.X, dot.Y), 0, 255));
            }
        });
        return light;
    }

    private static Point At(Box ground, int x, int y) => ground.Min + new Point(x - 1, y - 1) * StepMm;

    /// <summary>What is to be seen at a place.</summary>
    [Flags]
    private enum Seen : byte
    {
        /// <summary>It lies on the edge of a square, or on none, and tells nothing.</summary>
        Nothing = 0,
        Black = 1,
        White = 2,

        /// <summary>It is not as printed.</summary>
        Covered = 4,
    }

    private static Seen[] Judged(byte[] light, ScrapPage page, int width, int height)
    {
        var paper = PaperLight.Find(width, height, (x, y) => light[y * width + x]);
        // Even light is that of the lightest places.
        double even = light.Order().ElementAt(light.Length * 19 / 20);
        var seen = new Seen[light.Length];
        var (across, down) = page.Cells;
        var black = new bool?[across * down];
        for (var j = 0; j < down; j++) for (var i = 0; i < across; i++) black[j * across + i] = page.IsBlack(i, j);
        Parallel.For(1, height - 1, OnAllCores.OfCaller, y =>
        {
            for (var x = 1; x < width - 1; x++)
            {
                var (u, v) = ((x - 1) * StepMm / ScrapPage.CellMm, (y - 1) * StepMm / ScrapPage.CellMm);
                var (i, j) = ((int)u, (int)v);
                const double Edge = EdgeMm / ScrapPage.CellMm;
                if (i >= across || j >= down || black[j * across + i] is not { } isBlack || u - i < Edge || u - i > 1 - Edge || v - j < Edge || v - j > 1 - Edge) continue;
                var share = light[y * width + x] / Math.Max(1, paper?.At(x, y) ?? even);
                seen[y * width + x] = isBlack ? share > LightBlack ? Seen.Black | Seen.Covered : Seen.Black : share < DarkWhite ? Seen.White | Seen.Covered : Seen.White;
            }
        });
        return seen;
    }

    /// <summary>Everything within a distance of what is covered, less everything within that distance of what is not then.</summary>
    private static bool[] Closed(Seen[] seen, int width, int height, double by)
    {
        var grown = Distances(i => seen[i].HasFlag(Seen.Covered), width, height).Select(d => d <= by).ToArray();
        return [.. Distances(i => !grown[i], width, height).Select(d => d > by)];
    }

    /// <summary>
    /// Above <see cref="Level"/> where a covered place is nearer than one that is not, of the colours that the scrap hides: a scrap as light as
    /// paper is not told from white squares, nor a black one from black ones. Null where nothing is covered.
    /// </summary>
    private static InkRaster? Edge(Seen[] seen, bool[] closed, int width, int height)
    {
        var colours = Seen.Nothing;
        foreach (var colour in new[] { Seen.Black, Seen.White })
        {
            var (all, hidden) = (0, 0);
            for (var i = 0; i < seen.Length; i++)
            {
                if (!closed[i] || !seen[i].HasFlag(colour)) continue;
                all++;
                if (seen[i].HasFlag(Seen.Covered)) hidden++;
            }
            if (hidden > all * MostHidden) colours |= colour;
        }
        if (colours == Seen.Nothing) return null;
        // Single places by themselves are noise: what is covered lies in the closed area.
        var inside = Distances(i => closed[i] && (seen[i] & colours) != 0 && seen[i].HasFlag(Seen.Covered), width, height);
        var outside = Distances(i => (seen[i] & colours) != 0 && !(closed[i] && seen[i].HasFlag(Seen.Covered)), width, height);
        var made = new byte[seen.Length];
        for (var i = 0; i < made.Length; i++) made[i] = (byte)Math.Clamp(Level + (outside[i] - inside[i]) * LevelsByStep, 0, 255);
        return new InkRaster(width, height, made);
    }

    /// <summary>The share of a colour's places in the scrap that must be covered for the colour to tell its edge.</summary>
    private const double MostHidden = 0.7;

    /// <summary>The field's height at the edge, and how much it rises by a step.</summary>
    private const double Level = 127, LevelsByStep = 16;

    /// <summary>From each place to the nearest of some, steps; the raster's border counts as one of them.</summary>
    private static double[] Distances(Func<int, bool> isOne, int width, int height)
    {
        var others = new byte[width * height];
        for (var i = 0; i < others.Length; i++) others[i] = (byte)(isOne(i) ? 0 : 255);
        var mask = new InkMask(new InkRaster(width, height, others), 128, 0);
        var squares = mask.Distances();
        var made = new double[others.Length];
        for (var y = 0; y < height; y++) for (var x = 0; x < width; x++) made[y * width + x] = Math.Sqrt(squares[(y + 1) * mask.Width + x + 1]);
        return made;
    }
}
