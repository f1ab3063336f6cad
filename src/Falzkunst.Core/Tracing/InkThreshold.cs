using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>From how much ink on a dot counts as inked.</summary>
internal static class InkThreshold
{
    /// <summary>
    /// Half way between the usual paper and the usual ink, which is where an edge that is drawn smoothly has covered half a dot; the two
    /// are parted by the threshold of Otsu ("A threshold selection method from gray-level histograms", 1979).
    /// </summary>
    public static double Find(InkRaster raster)
    {
        var counts = raster.Histogram();
        var parted = Otsu(counts);
        var (paper, ink) = (Median(counts, 0, parted), Median(counts, parted + 1, 255));
        return ink > paper ? Math.Clamp((paper + ink) / 2, 1, 254) : 127.5;
    }

    private static int Otsu(int[] counts)
    {
        double total = 0, sum = 0;
        for (var i = 0; i < 256; i++) (total, sum) = (total + counts[i], sum + (double)i * counts[i]);
        double below = 0, sumBelow = 0, best = -1;
        var at = 127;
        for (var i = 0; i < 255; i++)
        {
            below += counts[i];
            sumBelow += (double)i * counts[i];
            if (below == 0 || below == total) continue;
            var apart = sumBelow / below - (sum - sumBelow) / (total - below);
            var between = below * (total - below) * apart * apart;
            if (between > best) (best, at) = (between, i);
        }
        return at;
    }

    private static double Median(int[] counts, int from, int to)
    {
        long total = 0;
        for (var i = from; i <= to; i++) total += counts[i];
        if (total == 0) return from;
        long walked = 0;
        for (var i = from; i <= to; i++)
        {
            walked += counts[i];
            if (walked * 2 >= total) return i;
        }
        return to;
    }
}
