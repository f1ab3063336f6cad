using Falzkunst.Core.Budgets;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>Which colour each dot belongs to. Dots between two colours go to one of those that they lie between, and make no patch of a third.</summary>
internal static class ColourLabels
{
    /// <summary>A dot that belongs to none.</summary>
    public const int None = -1;

    /// <summary>So near to a colour a dot is of it although it is not flat.</summary>
    private const double Sure = 0.03;

    /// <summary>Numbers of colours by dot.</summary>
    public static (int[] Labels, (byte R, byte G, byte B)[] Colours) Find(PixelImage image, int most, Budget budget)
    {
        var isFlat = Flat(image);
        if (isFlat.Count(f => f) < isFlat.Length / 50) Array.Fill(isFlat, true);
        for (var i = 0; i < isFlat.Length; i++) if (image.Rgba[i * PixelImage.BytesEach + 3] < 128) isFlat[i] = false;
        var colours = Palette.Find(image, isFlat, most);
        budget.Work(isFlat.Length / 4);
        var labs = colours.Select(c => OkLab.From(c.R, c.G, c.B)).ToArray();
        var labels = new int[isFlat.Length];
        Array.Fill(labels, None);
        if (colours.Length == 0) return (labels, colours);
        var open = new bool[labels.Length];
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < image.Width; x++)
            {
                var i = y * image.Width + x;
                if (image.Rgba[i * PixelImage.BytesEach + 3] < 128) continue;
                var (label, square) = Palette.Nearest(labs, image.ColourAt(x, y));
                if (isFlat[i] || square < Sure * Sure) labels[i] = label;
                else open[i] = true;
            }
        });
        Spread(image, labels, open, labs, colours, budget);
        return (labels, colours);
    }

    /// <summary>Dots that are like their neighbours.</summary>
    private static bool[] Flat(PixelImage image)
    {
        var flat = new bool[image.Width * image.Height];
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < image.Width; x++)
            {
                flat[y * image.Width + x] = (x == 0 || Step(x, y, x - 1, y) <= Palette.FlatStep) && (x + 1 == image.Width || Step(x, y, x + 1, y) <= Palette.FlatStep)
                    && (y == 0 || Step(x, y, x, y - 1) <= Palette.FlatStep) && (y + 1 == image.Height || Step(x, y, x, y + 1) <= Palette.FlatStep);
            }
        });
        return flat;

        int Step(int x, int y, int u, int v)
        {
            var (a, b) = (image.At(x, y), image.At(u, v));
            var most = 0;
            for (var k = 0; k < PixelImage.BytesEach; k++) most = Math.Max(most, Math.Abs(image.Rgba[a + k] - image.Rgba[b + k]));
            return most;
        }
    }

    /// <summary>
    /// From labelled dots outward, ring by ring: each open dot takes the nearest colour of those around it. It is a mixture of two, mixed in
    /// sRGB as renderers and cameras do, and so is measured there.
    /// </summary>
    private static void Spread(PixelImage image, int[] labels, bool[] open, OkLab[] labs, (byte R, byte G, byte B)[] colours, Budget budget)
    {
        var (width, height) = (image.Width, image.Height);
        var front = new List<int>();
        for (var i = 0; i < open.Length; i++) if (open[i] && Touches(i)) front.Add(i);
        var queued = new bool[open.Length];
        var seen = new bool[labs.Length];
        while (front.Count > 0)
        {
            budget.Work(front.Count);
            var taken = new List<(int Dot, int Label)>(front.Count);
            foreach (var i in front)
            {
                Array.Clear(seen);
                Each(i, n => seen[Math.Max(0, labels[n])] |= labels[n] >= 0);
                var (best, least) = (0, int.MaxValue);
                for (var c = 0; c < seen.Length; c++) if (seen[c] && Mixed(image, i, colours[c]) is var d && d < least) (best, least) = (c, d);
                taken.Add((i, best));
            }
            foreach (var (dot, label) in taken) (labels[dot], open[dot]) = (label, false);
            var next = new List<int>();
            foreach (var (dot, _) in taken)
            {
                Each(dot, n =>
                {
                    if (!open[n] || queued[n]) return;
                    queued[n] = true;
                    next.Add(n);
                });
            }
            front = next;
        }
        // What touches nothing that is labelled takes its own nearest.
        for (var i = 0; i < open.Length; i++) if (open[i]) labels[i] = Palette.Nearest(labs, image.ColourAt(i % image.Width, i / image.Width)).Colour;

        bool Touches(int i)
        {
            var does = false;
            Each(i, n => does |= labels[n] >= 0);
            return does;
        }

        void Each(int i, Action<int> use)
        {
            var (x, y) = (i % width, i / width);
            for (var v = Math.Max(0, y - 1); v <= Math.Min(height - 1, y + 1); v++)
            {
                for (var u = Math.Max(0, x - 1); u <= Math.Min(width - 1, x + 1); u++) if (u != x || v != y) use(v * width + u);
            }
        }
    }

    private static int Mixed(PixelImage image, int i, (byte R, byte G, byte B) colour)
    {
        var at = i * PixelImage.BytesEach;
        var (r, g, b) = (image.Rgba[at] - colour.R, image.Rgba[at + 1] - colour.G, image.Rgba[at + 2] - colour.B);
        return r * r + g * g + b * b;
    }
}
