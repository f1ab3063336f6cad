using System.Runtime.InteropServices;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Pictures;

/// <summary>
/// Backgrounds made transparent: a flood over dots that are near the touched colour in OKLab, or all of them; dots at its edge are a mixture
/// of background and motif, and are unmixed: how opaque they are is where their colour lies on the line between the two.
/// </summary>
internal static class Background
{
    /// <summary>The colour that was touched is the mean of what lies so near and looks alike, dots.</summary>
    private const int Touch = 2;

    /// <summary>Edges are mixed over so many dots to both sides.</summary>
    private const int Mixed = 2;

    /// <summary>Where the motif's own colour is looked for, dots.</summary>
    private const int Beyond = 3;

    /// <summary>A mixture that is all background but for less is background.</summary>
    private const double Nothing = 0.04;

    public static PixelImage Away(PixelImage image, BackgroundAway step, Budget budget)
    {
        var (x, y) = (Math.Clamp((int)(step.X * image.Width), 0, image.Width - 1), Math.Clamp((int)(step.Y * image.Height), 0, image.Height - 1));
        if (image.Rgba[image.At(x, y) + 3] < 128) return image;
        var colour = TouchedColour(image, x, y);
        return Without(image, Gone(image, colour, step.Tolerance, step.Everywhere ? null : [(x, y)], budget), budget);
    }

    public static PixelImage Guessed(PixelImage image, double tolerance, Budget budget)
    {
        var border = Border(image).Where(p => image.Rgba[image.At(p.X, p.Y) + 3] >= 128).ToList();
        if (border.Count == 0) return image;
        // The colour that most of the border is near to.
        var step = Math.Max(1, border.Count / 200);
        var samples = border.Where((_, i) => i % step == 0).Select(p => image.ColourAt(p.X, p.Y)).ToList();
        var usual = samples.MaxBy(c => samples.Count(o => o.SquareTo(c) < tolerance * tolerance));
        var seeds = border.Where(p => image.ColourAt(p.X, p.Y).SquareTo(usual) < tolerance * tolerance).ToList();
        return Without(image, Gone(image, usual, tolerance, seeds, budget), budget);
    }

    private static IEnumerable<(int X, int Y)> Border(PixelImage image)
    {
        for (var x = 0; x < image.Width; x++)
        {
            yield return (x, 0);
            yield return (x, image.Height - 1);
        }
        for (var y = 1; y < image.Height - 1; y++)
        {
            yield return (0, y);
            yield return (image.Width - 1, y);
        }
    }

    private static OkLab TouchedColour(PixelImage image, int x, int y)
    {
        var at = image.ColourAt(x, y);
        double l = 0, a = 0, b = 0, n = 0;
        for (var v = Math.Max(0, y - Touch); v <= Math.Min(image.Height - 1, y + Touch); v++)
        {
            for (var u = Math.Max(0, x - Touch); u <= Math.Min(image.Width - 1, x + Touch); u++)
            {
                var c = image.ColourAt(u, v);
                if (c.SquareTo(at) > BackgroundAway.Usual * BackgroundAway.Usual) continue;
                (l, a, b, n) = (l + c.L, a + c.A, b + c.B, n + 1);
            }
        }
        return n > 0 ? new OkLab(l / n, a / n, b / n) : at;
    }

    /// <summary>Which dots are background: those near the colour, all of them or those that hang together with the seeds.</summary>
    private static bool[] Gone(PixelImage image, OkLab colour, double tolerance, IReadOnlyList<(int X, int Y)>? seeds, Budget budget)
    {
        var near = new bool[image.Width * image.Height];
        var colours = new NearColour(colour, tolerance);
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
        {
            var row = image.Rgba.AsSpan(image.At(0, y), image.Width * PixelImage.BytesEach);
            var nears = near.AsSpan(y * image.Width, image.Width);
            for (int x = 0, at = 0; x < nears.Length; x++, at += PixelImage.BytesEach) nears[x] = row[at + 3] >= 128 && colours.IsNear(row[at], row[at + 1], row[at + 2]);
        });
        return seeds is null ? near : Flooded(near, image.Width, seeds, budget);
    }

    /// <summary>What of the near dots hangs together with the seeds, a run of a row at a time.</summary>
    internal static bool[] Flooded(bool[] near, int width, IReadOnlyList<(int X, int Y)> seeds, Budget budget)
    {
        var gone = new bool[near.Length];
        var open = new Stack<int>(seeds.Select(s => s.Y * width + s.X));
        while (open.TryPop(out var i))
        {
            if (gone[i] || !near[i]) continue;
            budget.Work();
            var (row, from, to) = (i / width * width, i, i);
            while (from > row && near[from - 1] && !gone[from - 1]) from--;
            while (to < row + width - 1 && near[to + 1] && !gone[to + 1]) to++;
            gone.AsSpan(from, to - from + 1).Fill(true);
            // The first dot of each run above and below is looked at later.
            if (row >= width) Open(from - width, to - width);
            if (row + width < near.Length) Open(from + width, to + width);
        }
        return gone;

        void Open(int from, int to)
        {
            var before = false;
            for (var k = from; k <= to; k++)
            {
                var now = near[k] && !gone[k];
                if (now && !before) open.Push(k);
                before = now;
            }
        }
    }

    private static PixelImage Without(PixelImage image, bool[] gone, Budget budget)
    {
        var made = image.Copy();
        var (width, height) = (image.Width, image.Height);
        budget.Work(gone.Length / 8);
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < width;)
            {
                if (IsEven(gone, width, height, x, y))
                {
                    if (gone[y * width + x]) for (var k = 0; k < Together; k++) made.Rgba[image.At(x + k, y) + 3] = 0;
                    x += Together;
                    continue;
                }
                Dot(x, y);
                x++;
            }
        });
        return made;

        void Dot(int x, int y)
        {
            var at = image.At(x, y);
            if (image.Rgba[at + 3] == 0) return;
            if (IsNearEdge(gone, width, height, x, y)) Unmix(image, made, gone, x, y);
            else if (gone[y * width + x]) made.Rgba[at + 3] = 0;
        }
    }

    /// <summary>Dots that are looked at together: with those beside them that their edges are mixed over they are eight.</summary>
    private const int Together = 8 - 2 * Mixed;

    /// <summary>So many dots from a place on, and all that lie near them, are gone, or none is.</summary>
    private static bool IsEven(bool[] gone, int width, int height, int x, int y)
    {
        if (x < Mixed || x + Together + Mixed > width || y < Mixed || y + Mixed >= height) return false;
        var bytes = MemoryMarshal.AsBytes(gone.AsSpan());
        var first = MemoryMarshal.Read<ulong>(bytes[((y - Mixed) * width + x - Mixed)..]);
        if (first is not (0 or 0x0101010101010101)) return false;
        for (var v = y - Mixed + 1; v <= y + Mixed; v++) if (MemoryMarshal.Read<ulong>(bytes[(v * width + x - Mixed)..]) != first) return false;
        return true;
    }

    private static bool IsNearEdge(bool[] gone, int width, int height, int x, int y)
    {
        var here = gone[y * width + x];
        for (var v = Math.Max(0, y - Mixed); v <= Math.Min(height - 1, y + Mixed); v++)
        {
            for (var u = Math.Max(0, x - Mixed); u <= Math.Min(width - 1, x + Mixed); u++) if (gone[v * width + u] != here) return true;
        }
        return false;
    }

    /// <summary>A dot at the edge: the mean of what is gone near by is the background, what is farthest from that the motif.</summary>
    private static void Unmix(PixelImage image, PixelImage made, bool[] gone, int x, int y)
    {
        double r = 0, g = 0, b = 0, n = 0;
        for (var v = Math.Max(0, y - Beyond); v <= Math.Min(image.Height - 1, y + Beyond); v++)
        {
            for (var u = Math.Max(0, x - Beyond); u <= Math.Min(image.Width - 1, x + Beyond); u++)
            {
                if (!gone[v * image.Width + u]) continue;
                var k = image.At(u, v);
                // What is gone far from the edge is surely background; the mixed ones count little.
                var weight = Math.Max(Math.Abs(u - x), Math.Abs(v - y)) >= Mixed ? 4 : 1;
                (r, g, b, n) = (r + image.Rgba[k] * weight, g + image.Rgba[k + 1] * weight, b + image.Rgba[k + 2] * weight, n + weight);
            }
        }
        (r, g, b) = (r / n, g / n, b / n);
        var (best, most) = (-1, -1.0);
        for (var v = Math.Max(0, y - Beyond); v <= Math.Min(image.Height - 1, y + Beyond); v++)
        {
            for (var u = Math.Max(0, x - Beyond); u <= Math.Min(image.Width - 1, x + Beyond); u++)
            {
                if (gone[v * image.Width + u]) continue;
                var k = image.At(u, v);
                var far = Square(image.Rgba[k] - r, image.Rgba[k + 1] - g, image.Rgba[k + 2] - b) * image.Rgba[k + 3];
                if (far > most) (best, most) = (k, far);
            }
        }
        var at = image.At(x, y);
        if (best < 0)
        {
            made.Rgba[at + 3] = 0;
            return;
        }
        var (dr, dg, db) = (image.Rgba[best] - r, image.Rgba[best + 1] - g, image.Rgba[best + 2] - b);
        var length = Square(dr, dg, db);
        var share = length < 1 ? 1 : Math.Clamp(((image.Rgba[at] - r) * dr + (image.Rgba[at + 1] - g) * dg + (image.Rgba[at + 2] - b) * db) / length, 0, 1);
        if (share < Nothing) share = 0;
        if (share > 1 - Nothing) share = 1;
        made.Rgba[at + 3] = (byte)(image.Rgba[at + 3] * share + 0.5);
        if (share is <= 0 or >= 1) return;
        // Its own colour without the background's share of it.
        for (var c = 0; c < 3; c++)
        {
            var old = c switch { 0 => r, 1 => g, _ => b };
            made.Rgba[at + c] = (byte)Math.Clamp((image.Rgba[at + c] - old * (1 - share)) / share + 0.5, 0, 255);
        }
    }

    private static double Square(double r, double g, double b) => r * r + g * g + b * b;
}
