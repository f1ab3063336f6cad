using Falzkunst.Core.Budgets;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>What is done to ink before it is traced: light that falls unevenly is levelled, noise is measured and smoothed, narrow strokes are made larger.</summary>
internal static class InkCleaning
{
    /// <summary>Noise of less, of 255, is none.</summary>
    public const double Clean = 3;

    /// <summary>Smaller areas, in dots, are what noise leaves.</summary>
    public const double LeastNoisyArea = 10;

    /// <summary>Dots of smoothing for so much noise, of 255; 5 % of noise are 13. More draws corners round.</summary>
    public static double Smoothing(double noise) => 0.25 + Math.Min(1, noise * 0.03);

    /// <summary>The ink as it would be under even light.</summary>
    public static InkRaster Levelled(InkRaster raster, PaperLight light)
    {
        var made = new byte[raster.Ink.Length];
        Parallel.For(0, raster.Height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < raster.Width; x++)
            {
                var at = y * raster.Width + x;
                made[at] = (byte)Math.Clamp(255 - (255 - raster.Ink[at]) * PaperLight.White / light.At(x + 0.5, y + 0.5) + 0.5, 0, 255);
            }
        });
        return raster with { Ink = made };
    }

    /// <summary>
    /// Noise as a standard deviation, of 255: a mask that sees neither flat parts nor slopes (Immerkær, "Fast noise variance estimation",
    /// 1996), by the median of its answers instead of their mean, so that edges do not count. Dots that are at an end of the scale are left out.
    /// </summary>
    public static double Noise(InkRaster raster)
    {
        if (raster.Width < 3 || raster.Height < 3) return 0;
        // One row in so many serves for a large picture.
        var step = Math.Max(1, raster.Height / 400);
        var answers = new int[2048];
        long count = 0;
        for (var y = 1; y < raster.Height - 1; y += step)
        {
            for (var x = 1; x < raster.Width - 1; x++)
            {
                var i = y * raster.Width + x;
                int p = raster.Ink[i], w = raster.Width;
                if (p is 0 or 255) continue;
                var r = raster.Ink;
                var answer = r[i - w - 1] + r[i - w + 1] + r[i + w - 1] + r[i + w + 1] - 2 * (r[i - w] + r[i + w] + r[i - 1] + r[i + 1]) + 4 * p;
                answers[Math.Min(answers.Length - 1, Math.Abs(answer))]++;
                count++;
            }
        }
        // A clean picture has hardly any dot between paper and ink but at edges.
        if (count * step < raster.Ink.LongLength / 6) return 0;
        long walked = 0;
        for (var i = 0; i < answers.Length; i++)
        {
            walked += answers[i];
            // The median of absolute values of a normal distribution is 0.6745 of its deviation; the mask multiplies that by 6.
            if (walked * 2 >= count) return i / 0.6745 / 6;
        }
        return 0;
    }

    /// <summary>The ink smoothed by a Gaussian, in two passes.</summary>
    /// <param name="raster">The ink.</param>
    /// <param name="sigma">Standard deviation in dots, above 0.</param>
    public static InkRaster Smoothed(InkRaster raster, double sigma)
    {
        var reach = (int)Math.Ceiling(sigma * 2.5);
        var weights = Enumerable.Range(0, reach + 1).Select(k => Math.Exp(-k * k / (2 * sigma * sigma))).ToArray();
        var sum = weights[0] + 2 * weights.Skip(1).Sum();
        var whole = weights.Select(v => (int)Math.Round(v / sum * 4096)).ToArray();
        whole[0] += 4096 - whole[0] - 2 * whole.Skip(1).Sum();
        return Pass(Pass(raster, whole, 1, 0), whole, 0, 1);
    }

    /// <summary>How wide strokes are on the average, dots: twice the inked area over the length of its edges.</summary>
    public static double StrokeWidth(InkRaster raster, double threshold)
    {
        long inked = 0, edges = 0;
        for (var y = 0; y < raster.Height; y++)
        {
            for (int x = 0, i = y * raster.Width; x < raster.Width; x++, i++)
            {
                if (raster.Ink[i] < threshold) continue;
                inked++;
                if (x + 1 >= raster.Width || raster.Ink[i + 1] < threshold) edges++;
                if (x == 0 || raster.Ink[i - 1] < threshold) edges++;
                if (y + 1 >= raster.Height || raster.Ink[i + raster.Width] < threshold) edges++;
                if (y == 0 || raster.Ink[i - raster.Width] < threshold) edges++;
            }
        }
        // Sides of dots overstate the length of a slanting edge by a quarter on the average.
        return edges == 0 ? double.MaxValue : 2.0 * inked / (edges / 1.27);
    }

    /// <summary>The picture twice as large, by cubic interpolation (Catmull and Rom 1974).</summary>
    public static InkRaster Doubled(InkRaster raster)
    {
        var across = new byte[raster.Ink.Length * 2];
        Parallel.For(0, raster.Height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < raster.Width; x++)
            {
                int At(int k) => raster.Ink[y * raster.Width + Math.Clamp(x + k, 0, raster.Width - 1)];
                across[y * raster.Width * 2 + 2 * x] = Quarter(At(1), At(0), At(-1), At(-2));
                across[y * raster.Width * 2 + 2 * x + 1] = Quarter(At(-1), At(0), At(1), At(2));
            }
        });
        var width = raster.Width * 2;
        var made = new byte[across.Length * 2];
        Parallel.For(0, raster.Height, OnAllCores.OfCaller, y =>
        {
            for (var x = 0; x < width; x++)
            {
                int At(int k) => across[Math.Clamp(y + k, 0, raster.Height - 1) * width + x];
                made[2 * y * width + x] = Quarter(At(1), At(0), At(-1), At(-2));
                made[(2 * y + 1) * width + x] = Quarter(At(-1), At(0), At(1), At(2));
            }
        });
        return new InkRaster(width, raster.Height * 2, made);

        // A quarter of the way from b to c.
        static byte Quarter(int a, int b, int c, int d) => (byte)Math.Clamp((-9 * a + 111 * b + 29 * c - 3 * d + 64) / 128, 0, 255);
    }

    /// <summary>A picture smoothed channel by channel; how opaque it is stays.</summary>
    public static PixelImage Smoothed(PixelImage image, double sigma)
    {
        var made = image.Copy();
        for (var c = 0; c < 3; c++)
        {
            var channel = new byte[image.Width * image.Height];
            for (var i = 0; i < channel.Length; i++) channel[i] = image.Rgba[i * PixelImage.BytesEach + c];
            var smooth = Smoothed(new InkRaster(image.Width, image.Height, channel), sigma).Ink;
            for (var i = 0; i < smooth.Length; i++) made.Rgba[i * PixelImage.BytesEach + c] = smooth[i];
        }
        return made;
    }

    private static InkRaster Pass(InkRaster raster, int[] weights, int dx, int dy)
    {
        var (width, height, made) = (raster.Width, raster.Height, new byte[raster.Ink.Length]);
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            var ink = raster.Ink;
            for (var x = 0; x < width; x++)
            {
                var sum = ink[y * width + x] * weights[0];
                for (var k = 1; k < weights.Length; k++)
                {
                    var (a, b) = (Math.Clamp(x - k * dx, 0, width - 1) + Math.Clamp(y - k * dy, 0, height - 1) * width, Math.Clamp(x + k * dx, 0, width - 1) + Math.Clamp(y + k * dy, 0, height - 1) * width);
                    sum += (ink[a] + ink[b]) * weights[k];
                }
                made[y * width + x] = (byte)(sum + 2048 >> 12);
            }
        });
        return raster with { Ink = made };
    }
}
