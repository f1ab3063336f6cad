using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Pictures;

/// <summary>How much ink lies on each dot, 0 to 255; dots are squares, the middle of the first at 0.5, 0.5. Outside there is none.</summary>
/// <param name="Width">Dots across.</param>
/// <param name="Height">Dots down.</param>
/// <param name="Ink">A byte a dot, row by row.</param>
public sealed record InkRaster(int Width, int Height, byte[] Ink)
{
    /// <summary>What is dark on white paper is ink (Rec. 709's weights of the channels).</summary>
    public static InkRaster OfDarkness(PixelImage image) => Each(image, (r, g, b, a) => (byte)((255 * 32768 - (r * 6966 + g * 23436 + b * 2366)) * a / (255 * 32768)));

    /// <summary>What is opaque is ink.</summary>
    public static InkRaster OfOpacity(PixelImage image) => Each(image, (_, _, _, a) => (byte)a);

    /// <summary>The ink of a dot, 0 outside.</summary>
    public int At(int x, int y) => (uint)x < (uint)Width && (uint)y < (uint)Height ? Ink[y * Width + x] : 0;

    /// <summary>The ink at a place, bilinear between middles of dots.</summary>
    public double At(double x, double y)
    {
        var (fx, fy) = (x - 0.5, y - 0.5);
        var (ix, iy) = ((int)Math.Floor(fx), (int)Math.Floor(fy));
        var (u, v) = (fx - ix, fy - iy);
        return (At(ix, iy) * (1 - u) + At(ix + 1, iy) * u) * (1 - v) + (At(ix, iy + 1) * (1 - u) + At(ix + 1, iy + 1) * u) * v;
    }

    /// <summary>How many dots have each amount of ink.</summary>
    public int[] Histogram()
    {
        var counts = new int[256];
        foreach (var ink in Ink) counts[ink]++;
        return counts;
    }

    private static InkRaster Each(PixelImage image, Func<int, int, int, int, byte> ink)
    {
        var made = new byte[image.Width * image.Height];
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y =>
        {
            var rgba = image.Rgba;
            for (int x = 0, i = image.At(0, y), o = y * image.Width; x < image.Width; x++, i += PixelImage.BytesEach, o++) made[o] = ink(rgba[i], rgba[i + 1], rgba[i + 2], rgba[i + 3]);
        });
        return new InkRaster(image.Width, image.Height, made);
    }
}
