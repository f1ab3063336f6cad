using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>Something on a page that was not printed: dust, a crumb, a thumb's grease, a strip of tape.</summary>
/// <param name="At">Its middle on the sheet, mm.</param>
/// <param name="RadiusMm">Its size.</param>
/// <param name="Darkness">1 is black, -1 is white paper over the ink.</param>
/// <param name="IsSharp">It has an edge; otherwise it fades out.</param>
public sealed record Smudge(Point At, double RadiusMm, double Darkness, bool IsSharp);

/// <summary>A box of ink, its edges as sharp as those of marks.</summary>
/// <param name="Box">On the sheet, mm.</param>
/// <param name="Darkness">1 is black.</param>
public sealed record InkBar(Box Box, double Darkness);

/// <summary>How a page came out of the printer and how its picture was taken.</summary>
/// <param name="Width">Of the picture, dots.</param>
/// <param name="Height">Of the picture, dots.</param>
/// <param name="Map">From sheet mm to dots.</param>
/// <param name="Seed">Of the noise.</param>
public sealed record ScanFaults(int Width, int Height, Projection Map, int Seed)
{
    /// <summary>How far ink has spread past every edge, mm.</summary>
    public double SpreadMm { get; init; }

    /// <summary>Standard deviation of the blur, dots.</summary>
    public double BlurDots { get; init; } = 0.6;

    /// <summary>Standard deviation of the noise, as a share of full light.</summary>
    public double Noise { get; init; }

    /// <summary>By what share the light falls from one side of the picture to the other.</summary>
    public double LightFall { get; init; }

    /// <summary>Towards which side, degrees.</summary>
    public double LightDegrees { get; init; }

    /// <summary>How dark ink is, a share of black.</summary>
    public double Blackness { get; init; } = 0.92;

    /// <summary>Radial bend of the lens at the picture's corners, as a share of half its diagonal.</summary>
    public double Bend { get; init; }

    public ImmutableArray<Smudge> Smudges { get; init; } = [];
}

/// <summary>
/// Makes the picture that a scanner or a camera takes of a page with marks: each rectangle of ink convolved with the blur exactly, by
/// differences of the normal distribution's integral, so that no grid of its own moves an edge; then smudges, light and noise.
/// </summary>
public static class PageScan
{
    /// <summary>Light of bare paper, of 255.</summary>
    private const double Paper = 244;

    /// <summary>A dot averages over itself, like a blur of this standard deviation.</summary>
    private static readonly double OfDot = Math.Sqrt(1.0 / 12);

    /// <param name="layout">The marks.</param>
    /// <param name="areas">What else is printed: polygons on the sheet, mm, and how dark.</param>
    /// <param name="faults">What happened to it.</param>
    /// <param name="bars">Boxes of ink, and lines that a blade has cut.</param>
    public static InkRaster Take(MarkLayout layout, IReadOnlyList<(ImmutableArray<Point> Outline, double Darkness)> areas, ScanFaults faults, IReadOnlyList<InkBar>? bars = null)
    {
        var ink = new float[faults.Width * faults.Height];
        foreach (var (outline, darkness) in areas) Fill(ink, faults, outline, darkness);
        foreach (var mark in layout.Marks) Mark(ink, faults, mark);
        foreach (var bar in bars ?? []) Bar(ink, faults, bar);
        foreach (var smudge in faults.Smudges) Put(ink, faults, smudge);
        return Exposed(ink, faults);
    }

    /// <summary>Where a dot of a bent picture is on the sheet.</summary>
    private static Func<Point, Point> Back(ScanFaults faults)
    {
        var back = faults.Map.Inverse();
        if (faults.Bend == 0) return back.Apply;
        var (middle, half) = (new Point(faults.Width / 2.0, faults.Height / 2.0), new Point(faults.Width, faults.Height).Length / 2);
        return dot => (dot - middle) * (1 / half) is var at ? back.Apply(at * (1 + faults.Bend * at.Dot(at)) * half + middle) : default;
    }

    private static void Mark(float[] ink, ScanFaults faults, LayoutMark mark)
    {
        var s = faults.SpreadMm;
        var reach = mark.ArmMm + s + 4 * faults.BlurDots / faults.Map.ScaleAt(mark.Outer) + 0.5;
        Each(faults, Around(mark.Outer + new Point(mark.Right, mark.Down) * (mark.ArmMm / 2), reach / 2 + 1), (i, sheet, scale) =>
        {
            var sigma = Math.Sqrt(faults.BlurDots * faults.BlurDots + OfDot * OfDot) / scale;
            var at = sheet - mark.Outer;
            var (x, y) = (at.X * mark.Right, at.Y * mark.Down);
            double Across(double v) => Between(v, -s, mark.LineMm + s, sigma);
            double Along(double v) => Between(v, -s, mark.ArmMm + s, sigma);
            ink[i] = Math.Max(ink[i], (float)(Math.Clamp(Along(x) * Across(y) + Across(x) * Along(y) - Across(x) * Across(y), 0, 1) * faults.Blackness));
        });
    }

    private static void Bar(float[] ink, ScanFaults faults, InkBar bar) => Each(faults, bar.Box.Grow(4 * faults.BlurDots / faults.Map.ScaleAt(bar.Box.Centre)), (i, sheet, scale) =>
    {
        var sigma = Math.Sqrt(faults.BlurDots * faults.BlurDots + OfDot * OfDot) / scale;
        var (b, s) = (bar.Box, faults.SpreadMm);
        ink[i] = Math.Max(ink[i], (float)(Between(sheet.X, b.MinX - s, b.MaxX + s, sigma) * Between(sheet.Y, b.MinY - s, b.MaxY + s, sigma) * bar.Darkness));
    });

    /// <summary>How much of a blurred band covers a place.</summary>
    private static double Between(double v, double from, double to, double sigma) => Normal((v - from) / sigma) - Normal((v - to) / sigma);

    /// <summary>The normal distribution's integral (Abramowitz and Stegun 26.2.17, to 7.5e-8).</summary>
    private static double Normal(double x)
    {
        if (Math.Abs(x) > 6) return x > 0 ? 1 : 0;
        var t = 1 / (1 + 0.2316419 * Math.Abs(x));
        var tail = Math.Exp(-x * x / 2) / Math.Sqrt(2 * Math.PI) * t * (0.319381530 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
        return x > 0 ? 1 - tail : tail;
    }

    /// <summary>Row by row, between every second crossing of the outline.</summary>
    private static void Fill(float[] ink, ScanFaults faults, ImmutableArray<Point> outline, double darkness)
    {
        var dots = outline.Select(faults.Map.Apply).ToArray();
        var rows = new Dictionary<int, List<double>>();
        for (int a = 0, b = dots.Length - 1; a < dots.Length; b = a++)
        {
            var (p, q) = dots[a].Y < dots[b].Y ? (dots[a], dots[b]) : (dots[b], dots[a]);
            for (var y = (int)Math.Max(0, Math.Ceiling(p.Y - 0.5)); y < faults.Height && y + 0.5 < q.Y; y++)
            {
                if (!rows.TryGetValue(y, out var crossings)) rows[y] = crossings = [];
                crossings.Add(p.X + (q.X - p.X) * (y + 0.5 - p.Y) / (q.Y - p.Y));
            }
        }
        foreach (var (y, crossings) in rows)
        {
            crossings.Sort();
            for (var k = 0; k + 1 < crossings.Count; k += 2)
            {
                var (from, to) = ((int)Math.Clamp(Math.Ceiling(crossings[k] - 0.5), 0, faults.Width), (int)Math.Clamp(Math.Ceiling(crossings[k + 1] - 0.5), 0, faults.Width));
                if (to > from) ink.AsSpan(y * faults.Width + from, to - from).Fill((float)darkness);
            }
        }
    }

    private static void Put(float[] ink, ScanFaults faults, Smudge smudge) => Each(faults, Around(smudge.At, smudge.RadiusMm * (smudge.IsSharp ? 1 : 2.5)), (i, sheet, _) =>
    {
        var off = sheet.DistanceTo(smudge.At) / smudge.RadiusMm;
        var share = smudge.IsSharp ? (off <= 1 ? 1 : 0) : Math.Exp(-off * off);
        ink[i] = (float)(smudge.Darkness < 0 ? ink[i] * (1 + smudge.Darkness * share) : ink[i] + (1 - ink[i]) * smudge.Darkness * share);
    });

    private static Box Around(Point at, double reach) => new(at.X - reach, at.Y - reach, at.X + reach, at.Y + reach);

    /// <summary>Every dot that shows a part of a box on the sheet: its index, its place on the sheet, dots to the millimetre there.</summary>
    private static void Each(ScanFaults faults, Box box, Action<int, Point, double> paint)
    {
        var (back, scale) = (Back(faults), faults.Map.ScaleAt(box.Centre));
        var seen = Box.Around(new[] { box.Min, new(box.MaxX, box.MinY), new(box.MaxX, box.MaxY), new(box.MinX, box.MaxY) }.Select(faults.Map.Apply)).Grow(3 + Math.Abs(faults.Bend) * Math.Max(faults.Width, faults.Height));
        var (left, right) = ((int)Math.Clamp(seen.MinX, 0, faults.Width), (int)Math.Clamp(seen.MaxX + 1, 0, faults.Width));
        Parallel.For((int)Math.Clamp(seen.MinY, 0, faults.Height), (int)Math.Clamp(seen.MaxY + 1, 0, faults.Height), OnAllCores.OfCaller, y =>
        {
            for (var x = left; x < right; x++)
            {
                var sheet = back(new Point(x + 0.5, y + 0.5));
                if (box.Contains(sheet)) paint(y * faults.Width + x, sheet, scale);
            }
        });
    }

    /// <summary>Light that falls to one side, and noise, each row with numbers of its own so that rows can be made at once.</summary>
    private static InkRaster Exposed(float[] ink, ScanFaults faults)
    {
        var made = new byte[ink.Length];
        var (sin, cos) = Math.SinCos(faults.LightDegrees * Math.PI / 180);
        var reach = (Math.Abs(cos) * faults.Width + Math.Abs(sin) * faults.Height) / 2;
        Parallel.For(0, faults.Height, OnAllCores.OfCaller, y =>
        {
            var random = new Random(unchecked(faults.Seed * 7919 + y));
            for (var x = 0; x < faults.Width; x++)
            {
                var i = y * faults.Width + x;
                var fall = ((x - faults.Width / 2.0) * cos + (y - faults.Height / 2.0) * sin) / reach / 2 + 0.5;
                // The sum of four even numbers, less its mean, over its deviation: near enough to normal noise.
                var noise = faults.Noise == 0 ? 0 : (random.NextSingle() + random.NextSingle() + random.NextSingle() + random.NextSingle() - 2) * Math.Sqrt(3) * faults.Noise * 255;
                made[i] = (byte)Math.Clamp(255 - (Paper * (1 - ink[i]) * (1 - faults.LightFall * fall) + noise), 0, 255);
            }
        });
        return new InkRaster(faults.Width, faults.Height, made);
    }
}
