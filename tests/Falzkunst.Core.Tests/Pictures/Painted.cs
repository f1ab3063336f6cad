using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tests.Pictures;

/// <summary>Pictures painted from shapes that are known exactly, each dot covered in so far as 64 samples of it are.</summary>
internal static class Painted
{
    private const int Samples = 8;

    /// <summary>Ink of a colour on paper of another, wherever a shape is.</summary>
    public static PixelImage Shape(int width, int height, Func<Point, bool> isInk, (int R, int G, int B)? ink = null, (int R, int G, int B)? paper = null)
    {
        var (a, b) = (ink ?? (20, 20, 24), paper ?? (255, 255, 255));
        return Coverage(width, height, isInk, share => ((int)Math.Round(b.R + (a.R - b.R) * share), (int)Math.Round(b.G + (a.G - b.G) * share), (int)Math.Round(b.B + (a.B - b.B) * share)));
    }

    public static PixelImage Coverage(int width, int height, Func<Point, bool> isInk, Func<double, (int R, int G, int B)> colour)
    {
        var rgba = new byte[width * height * PixelImage.BytesEach];
        Parallel.For(0, height, y =>
        {
            for (var x = 0; x < width; x++)
            {
                var at = (y * width + x) * PixelImage.BytesEach;
                var (r, g, b) = colour(Share(x, y, isInk));
                (rgba[at], rgba[at + 1], rgba[at + 2], rgba[at + 3]) = ((byte)r, (byte)g, (byte)b, 255);
            }
        });
        return new PixelImage(width, height, rgba);
    }

    /// <summary>How much of a dot is covered.</summary>
    public static double Share(int x, int y, Func<Point, bool> isInk)
    {
        var count = 0;
        for (var i = 0; i < Samples * Samples; i++) if (isInk(new Point(x + (i % Samples + 0.5) / Samples, y + (i / Samples + 0.5) / Samples))) count++;
        return (double)count / (Samples * Samples);
    }

    public static Func<Point, bool> Polygon(params Point[] corners) => p => Polygons.Contains(corners, p);

    public static Func<Point, bool> Disc(Point centre, double radius) => p => p.DistanceTo(centre) <= radius;

    /// <summary>Pen strokes with round ends along polylines.</summary>
    public static Func<Point, bool> Strokes(double width, params Point[][] lines) => p => lines.Any(l => Distance(l, p) <= width / 2);

    public static double Distance(Point[] line, Point p) => Enumerable.Range(1, line.Length - 1).Min(i => Polygons.DistanceToStretch(p, line[i - 1], line[i]));

    /// <summary>The picture with normal noise, always the same, and light that falls across.</summary>
    public static PixelImage Damaged(PixelImage image, double noise, double falling)
    {
        var random = new Random(5);
        var made = image.Copy();
        for (var y = 0; y < image.Height; y++)
        {
            for (var x = 0; x < image.Width; x++)
            {
                var light = 1 - falling * x / image.Width;
                var shift = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble()) * noise * 255;
                for (var c = 0; c < 3; c++) made.Rgba[image.At(x, y) + c] = (byte)Math.Clamp(image.Rgba[image.At(x, y) + c] * light + shift, 0, 255);
            }
        }
        return made;
    }
}
