using System.Runtime.InteropServices;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// The colours that a picture is painted in: k-means in OKLab over its flat dots (Lloyd 1982), begun far apart (k-means++, Arthur and
/// Vassilvitskii 2007), colours that the eye hardly parts made one.
/// </summary>
internal static class Palette
{
    /// <summary>Neighbours that differ by no more in any channel are flat.</summary>
    public const int FlatStep = 14;

    /// <summary>Nearer colours are one.</summary>
    private const double Same = 0.055;

    /// <summary>A colour on a smaller share of the flat dots is chance.</summary>
    private const double LeastShare = 0.0008;

    private const int Rounds = 12, Sampled = 60_000;

    /// <summary>The colours, the most frequent first, as red, green, blue.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="isFlat">Which dots are flat, and count.</param>
    /// <param name="most">At most so many.</param>
    public static (byte R, byte G, byte B)[] Find(PixelImage image, bool[] isFlat, int most)
    {
        var counts = new Dictionary<int, int>();
        var flat = isFlat.Count(f => f);
        var step = Math.Max(1, flat / Sampled);
        for (int i = 0, k = 0; i < isFlat.Length; i++)
        {
            if (!isFlat[i] || k++ % step != 0) continue;
            var at = i * PixelImage.BytesEach;
            var key = image.Rgba[at] >> 2 << 12 | image.Rgba[at + 1] >> 2 << 6 | image.Rgba[at + 2] >> 2;
            counts[key] = counts.GetValueOrDefault(key) + 1;
        }
        if (counts.Count == 0) return [];
        var samples = counts.OrderByDescending(c => c.Value).ThenBy(c => c.Key).Select(c => (Lab: Colour(c.Key) is var (r, g, b) ? OkLab.From(r, g, b) : default, Rgb: Colour(c.Key), Count: c.Value)).ToArray();
        var centres = Begin(samples.Select(s => (s.Lab, s.Count)).ToArray(), most);
        var nearest = new int[samples.Length];
        for (var round = 0; round < Rounds; round++)
        {
            for (var i = 0; i < samples.Length; i++) nearest[i] = Nearest(CollectionsMarshal.AsSpan(centres), samples[i].Lab).Colour;
            for (var c = 0; c < centres.Count; c++)
            {
                double l = 0, a = 0, b = 0, n = 0;
                for (var i = 0; i < samples.Length; i++)
                {
                    if (nearest[i] != c) continue;
                    var (lab, count) = (samples[i].Lab, samples[i].Count);
                    (l, a, b, n) = (l + lab.L * count, a + lab.A * count, b + lab.B * count, n + count);
                }
                if (n > 0) centres[c] = new OkLab(l / n, a / n, b / n);
            }
            Merge(centres);
        }
        for (var i = 0; i < samples.Length; i++) nearest[i] = Nearest(CollectionsMarshal.AsSpan(centres), samples[i].Lab).Colour;
        var total = samples.Sum(s => (double)s.Count);
        // Each colour is shown by its most frequent shade, not by a mean that nobody painted.
        return [.. Enumerable.Range(0, centres.Count)
            .Select(c => Enumerable.Range(0, samples.Length).Where(i => nearest[i] == c).ToList())
            .Where(g => g.Sum(i => (double)samples[i].Count) >= total * LeastShare && g.Count > 0)
            .OrderByDescending(g => g.Sum(i => (double)samples[i].Count))
            .Select(g => samples[g[0]].Rgb)];
    }

    private static (byte R, byte G, byte B) Colour(int key) => (Full(key >> 12), Full(key >> 6 & 63), Full(key & 63));

    // Six bits to eight: 0 to 0 and 63 to 255.
    private static byte Full(int six) => (byte)(six << 2 | six >> 4);

    private static List<OkLab> Begin((OkLab Lab, int Count)[] samples, int most)
    {
        var centres = new List<OkLab> { samples[0].Lab };
        var far = samples.Select(s => s.Lab.SquareTo(centres[0])).ToArray();
        while (centres.Count < most)
        {
            // The farthest weighted by how frequent it is, always the same one, so that the same picture gives the same colours.
            var next = Enumerable.Range(0, samples.Length).MaxBy(i => far[i] * Math.Sqrt(samples[i].Count));
            if (far[next] < Same * Same) break;
            centres.Add(samples[next].Lab);
            for (var i = 0; i < samples.Length; i++) far[i] = Math.Min(far[i], samples[i].Lab.SquareTo(samples[next].Lab));
        }
        return centres;
    }

    private static void Merge(List<OkLab> centres)
    {
        for (var i = 0; i < centres.Count; i++)
        {
            for (var j = centres.Count - 1; j > i; j--) if (centres[i].SquareTo(centres[j]) < Same * Same) centres.RemoveAt(j);
        }
    }

    /// <summary>The colour that is nearest to another to the eye, and the square of its distance.</summary>
    public static (int Colour, double Square) Nearest(ReadOnlySpan<OkLab> colours, OkLab lab)
    {
        var (best, least) = (0, double.MaxValue);
        for (var c = 0; c < colours.Length; c++) if (colours[c].SquareTo(lab) is var d && d < least) (best, least) = (c, d);
        return (best, least);
    }
}
