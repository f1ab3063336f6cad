using Falzkunst.Core.Budgets;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>
/// Which dots of a page are darker than the paper round them: the picture shrunk so far that noise is averaged away, then each dot
/// against the mean of a window round it (Bradley and Roth, "Adaptive thresholding using the integral image", 2007).
/// </summary>
internal sealed class LocalInk
{
    /// <summary>A line keeps so many dots across when a picture is shrunk: two and a half still hang together at any angle.</summary>
    private const double DotsAcrossLine = 2.5;

    /// <summary>The window reaches so many widths of a line to each side, which leaves a mark's own ink a small part of it.</summary>
    private const double ReachInLines = 8;

    /// <summary>
    /// Ink is darker than the mean round it by this share. Paper of half light with noise of 8 % of full light, averaged over at
    /// least nine dots, scatters by 5 %; a line blurred to half its darkness stays at twice this.
    /// </summary>
    private const double Darker = 0.22;

    private LocalInk(int width, int height, double scale, bool[] isInk) => (Width, Height, Scale, IsInk) = (width, height, scale, isInk);

    public int Width { get; }
    public int Height { get; }

    /// <summary>Dots of the picture by dot of this one.</summary>
    public double Scale { get; }
    public bool[] IsInk { get; }

    /// <param name="picture">The page.</param>
    /// <param name="lineDots">How wide the thinnest line is in it, dots.</param>
    public static LocalInk Of(InkRaster picture, double lineDots)
    {
        var shrink = Math.Max(1, (int)(lineDots / DotsAcrossLine));
        var (width, height) = (picture.Width / shrink, picture.Height / shrink);
        var light = Shrunk(picture, shrink, width, height);
        if (shrink < 3) light = Smoothed(light, width, height);
        var reach = Math.Max(3, (int)Math.Ceiling(lineDots / shrink * ReachInLines));
        var sums = Integral(light, width, height);
        var ink = new bool[width * height];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            var (top, bottom) = (Math.Max(0, y - reach), Math.Min(height, y + reach + 1));
            for (var x = 0; x < width; x++)
            {
                var (left, right) = (Math.Max(0, x - reach), Math.Min(width, x + reach + 1));
                var sum = sums[bottom * (width + 1) + right] - sums[top * (width + 1) + right] - sums[bottom * (width + 1) + left] + sums[top * (width + 1) + left];
                ink[y * width + x] = light[y * width + x] * (double)((right - left) * (bottom - top)) < sum * (1 - Darker);
            }
        });
        return new LocalInk(width, height, shrink, ink);
    }

    /// <summary>Means of blocks of dots, as light from 0 to 255 times 16.</summary>
    private static int[] Shrunk(InkRaster picture, int shrink, int width, int height)
    {
        var light = new int[width * height];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < width; x++)
            {
                var ink = 0;
                for (var j = 0; j < shrink; j++)
                {
                    var from = (y * shrink + j) * picture.Width + x * shrink;
                    for (var i = 0; i < shrink; i++) ink += picture.Ink[from + i];
                }
                light[y * width + x] = (255 * shrink * shrink - ink) * 16 / (shrink * shrink);
            }
        });
        return light;
    }

    /// <summary>Weights 1, 2, 1 both ways, which average noise as nine equal dots would but keep a thin line darker.</summary>
    private static int[] Smoothed(int[] light, int width, int height)
    {
        var made = new int[light.Length];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            int Row(int x, int row) => light[Math.Clamp(row, 0, height - 1) * width + x];
            int Column(int x) => Row(Math.Clamp(x, 0, width - 1), y - 1) + 2 * Row(Math.Clamp(x, 0, width - 1), y) + Row(Math.Clamp(x, 0, width - 1), y + 1);
            for (var x = 0; x < width; x++) made[y * width + x] = (Column(x - 1) + 2 * Column(x) + Column(x + 1)) / 16;
        });
        return made;
    }

    private static long[] Integral(int[] light, int width, int height)
    {
        var sums = new long[(width + 1) * (height + 1)];
        for (var y = 0; y < height; y++)
        {
            long row = 0;
            for (var x = 0; x < width; x++)
            {
                row += light[y * width + x];
                sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1] + row;
            }
        }
        return sums;
    }

    /// <summary>Dots of ink that hang together, eight neighbours to a dot, of at least so many dots; none that fills much of the picture.</summary>
    public IEnumerable<List<int>> Parts(int leastDots) =>
        ConnectedDots.Find(IsInk, Width, ink => ink, overCorners: true).Where(part => part.Count >= leastDots && part.Count <= IsInk.Length / 8);
}
