using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>Which dots are inked, with a border of paper one dot wide all round so that every dot has neighbours.</summary>
internal sealed class InkMask
{
    public InkMask(InkRaster raster, double threshold, double leastArea)
    {
        (Width, Height) = (raster.Width + 2, raster.Height + 2);
        IsInk = new bool[Width * Height];
        for (var y = 0; y < raster.Height; y++)
        {
            for (var x = 0; x < raster.Width; x++) IsInk[(y + 1) * Width + x + 1] = raster.Ink[y * raster.Width + x] >= threshold;
        }
        // Specks of ink go, and pinholes in it.
        foreach (var ink in new[] { true, false }) Clean(ink, leastArea);
    }

    public int Width { get; }
    public int Height { get; }
    public bool[] IsInk { get; }

    /// <summary>Steps to the eight neighbours, clockwise from above.</summary>
    public int[] Around => [-Width, -Width + 1, 1, Width + 1, Width, Width - 1, -1, -Width - 1];

    /// <summary>Squares of the distances from each inked dot to the nearest that is none (Felzenszwalb and Huttenlocher, "Distance transforms of sampled functions", 2012).</summary>
    public double[] Distances()
    {
        var found = new double[IsInk.Length];
        for (var i = 0; i < found.Length; i++) found[i] = IsInk[i] ? 1e12 : 0;
        Parallel.For(0, Width, Budgets.OnAllCores.OfCaller, x => Transform(found, x, Width, Height));
        Parallel.For(0, Height, Budgets.OnAllCores.OfCaller, y => Transform(found, y * Width, 1, Width));
        return found;
    }

    private static void Transform(double[] values, int from, int step, int count)
    {
        var f = new double[count];
        for (var i = 0; i < count; i++) f[i] = values[from + i * step];
        var hull = new int[count];
        var bounds = new double[count + 1];
        var k = 0;
        (bounds[0], bounds[1]) = (double.NegativeInfinity, double.PositiveInfinity);
        for (var q = 1; q < count; q++)
        {
            double s;
            while ((s = (f[q] + (double)q * q - (f[hull[k]] + (double)hull[k] * hull[k])) / (2.0 * q - 2.0 * hull[k])) <= bounds[k]) k--;
            hull[++k] = q;
            (bounds[k], bounds[k + 1]) = (s, double.PositiveInfinity);
        }
        k = 0;
        for (var q = 0; q < count; q++)
        {
            while (bounds[k + 1] < q) k++;
            values[from + q * step] = (q - hull[k]) * (double)(q - hull[k]) + f[hull[k]];
        }
    }

    private void Clean(bool ink, double leastArea)
    {
        // Ink hangs together over corners, paper over sides.
        foreach (var part in ConnectedDots.Find(IsInk, Width, isInk => isInk == ink, overCorners: ink).Where(p => p.Count < leastArea))
        {
            foreach (var dot in part) IsInk[dot] = !ink;
        }
    }
}
