using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Pictures;

/// <summary>How much ink lies on each dot, 0 to 255; dots are squares, the middle of the first at 0.5, 0.5. Outside there is none.</summary>
/// <param name="Width">Dots across.</param>
/// <param name="Height">Dots down.</param>
/// <param name="Ink">A byte a dot, row by row.</param>
public sealed record InkRaster(int Width, int Height, byte[] Ink)
{
    /// <summary>What is dark on white paper is ink (Rec. 709's weights of the channels).</summary>
    public static InkRaster OfDarkness(PixelImage image) => Rows(image, (rgba, ink) =>
    {
        for (int x = 0, i = 0; x < ink.Length; x++, i += PixelImage.BytesEach)
        {
            var dark = (255 * 32768 - (rgba[i] * 6966 + rgba[i + 1] * 23436 + rgba[i + 2] * 2366)) >> 15;
            var opaque = rgba[i + 3];
            ink[x] = (byte)(opaque == 255 ? dark : dark * opaque / 255);
        }
    });

    /// <summary>What is opaque is ink.</summary>
    public static InkRaster OfOpacity(PixelImage image) => Rows(image, (rgba, ink) =>
    {
        for (var x = 0; x < ink.Length; x++) ink[x] = rgba[x * PixelImage.BytesEach + 3];
    });

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

    private delegate void RowOf(ReadOnlySpan<byte> rgba, Span<byte> ink);

    private static InkRaster Rows(PixelImage image, RowOf row)
    {
        var made = new byte[image.Width * image.Height];
        Parallel.For(0, image.Height, OnAllCores.OfCaller, y => row(image.Rgba.AsSpan(image.At(0, y), image.Width * PixelImage.BytesEach), made.AsSpan(y * image.Width, image.Width)));
        return new InkRaster(image.Width, image.Height, made);
    }
}
