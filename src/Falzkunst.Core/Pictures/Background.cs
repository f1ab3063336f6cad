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
        var square = tolerance * tolerance;
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
        {
            // Dots side by side are often alike, and a colour takes three roots.
            var (last, isNear) = (-1, false);
            for (var x = 0; x < image.Width; x++)
            {
                var at = image.At(x, y);
                var rgb = image.Rgba[at] << 16 | image.Rgba[at + 1] << 8 | image.Rgba[at + 2];
                if (rgb != last) (last, isNear) = (rgb, OkLab.From(image.Rgba[at], image.Rgba[at + 1], image.Rgba[at + 2]).SquareTo(colour) <= square);
                near[y * image.Width + x] = isNear && image.Rgba[at + 3] >= 128;
            }
        });
        if (seeds is null) return near;
        var gone = new bool[near.Length];
        var open = new Stack<int>(seeds.Select(s => s.Y * image.Width + s.X));
        while (open.TryPop(out var i))
        {
            if (gone[i] || !near[i]) continue;
            budget.Work();
            // A row at a time: from here to both sides, and what lies above and below is looked at later.
            var (row, from, to) = (i / image.Width * image.Width, i, i);
            while (from > row && near[from - 1] && !gone[from - 1]) from--;
            while (to < row + image.Width - 1 && near[to + 1] && !gone[to + 1]) to++;
            for (var k = from; k <= to; k++)
            {
                gone[k] = true;
                if (k >= image.Width && near[k - image.Width] && !gone[k - image.Width]) open.Push(k - image.Width);
                if (k + image.Width < near.Length && near[k + image.Width] && !gone[k + image.Width]) open.Push(k + image.Width);
            }
        }
        return gone;
    }

    private static PixelImage Without(PixelImage image, bool[] gone, Budget budget)
    {
        var made = image.Copy();
        var (width, height) = (image.Width, image.Height);
        budget.Work(gone.Length / 8);
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < width; x++)
            {
                var i = y * width + x;
                var at = i * PixelImage.BytesEach;
                if (image.Rgba[at + 3] == 0) continue;
                if (!IsNearEdge(gone, width, height, x, y))
                {
                    if (gone[i]) made.Rgba[at + 3] = 0;
                    continue;
                }
                Unmix(image, made, gone, x, y);
            }
        });
        return made;
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
