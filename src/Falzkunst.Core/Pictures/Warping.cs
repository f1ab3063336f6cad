using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Pictures;

/// <summary>Pictures turned by an angle, and pages made rectangles again; bilinear, colours weighted by how opaque they are.</summary>
internal static class Warping
{
    public static PixelImage Turned(PixelImage image, double degrees)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        var (width, height) = TurnedSize(image.Width, image.Height, degrees);
        return Each(image, width, height, (x, y) =>
        {
            var (u, v) = (x - width / 2.0, y - height / 2.0);
            return new Point(u * cos + v * sin + image.Width / 2.0, -u * sin + v * cos + image.Height / 2.0);
        });
    }

    /// <summary>The four corners go round in one way, and none lies within the others.</summary>
    public static bool IsConvex(Unfold page)
    {
        var corners = page.Corners;
        if (!corners.All(p => p.IsFinite && p is { X: >= -0.5 and <= 1.5, Y: >= -0.5 and <= 1.5 })) return false;
        return Enumerable.Range(0, 4).All(i => (corners[(i + 1) % 4] - corners[i]).Cross(corners[(i + 2) % 4] - corners[(i + 1) % 4]) > 1e-4);
    }

    public static PixelImage Unfolded(PixelImage image, Unfold page)
    {
        var corners = page.Corners.Select(p => new Point(p.X * image.Width, p.Y * image.Height)).ToArray();
        var (width, height) = UnfoldedSize(image.Width, image.Height, page);
        // The projective map from the unit square to the corners (Heckbert, "Fundamentals of texture mapping", 1989).
        var (d1, d2) = (corners[1] - corners[2], corners[3] - corners[2]);
        var sum = corners[0] - corners[1] + corners[2] - corners[3];
        var det = d1.Cross(d2);
        var (g, h) = (sum.Cross(d2) / det, d1.Cross(sum) / det);
        var (a, b) = (corners[1] - corners[0] + corners[1] * g, corners[3] - corners[0] + corners[3] * h);
        return Each(image, width, height, (x, y) =>
        {
            var (u, v) = (x / width, y / height);
            return (a * u + b * v + corners[0]) * (1 / (g * u + h * v + 1));
        });
    }

    /// <summary>How large a picture is that holds the turned one.</summary>
    public static (int Width, int Height) TurnedSize(int width, int height, double degrees)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 180);
        return (Math.Max(1, (int)Math.Round(Math.Abs(width * cos) + Math.Abs(height * sin))), Math.Max(1, (int)Math.Round(Math.Abs(width * sin) + Math.Abs(height * cos))));
    }

    /// <summary>How large the page is: as long as the mean of opposite edges.</summary>
    public static (int Width, int Height) UnfoldedSize(int width, int height, Unfold page)
    {
        var c = page.Corners.Select(p => new Point(p.X * width, p.Y * height)).ToArray();
        return (Math.Clamp((int)Math.Round((c[0].DistanceTo(c[1]) + c[3].DistanceTo(c[2])) / 2), 1, width * 2), Math.Clamp((int)Math.Round((c[0].DistanceTo(c[3]) + c[1].DistanceTo(c[2])) / 2), 1, height * 2));
    }

    private static PixelImage Each(PixelImage image, int width, int height, Func<double, double, Point> from)
    {
        var made = new byte[(long)width * height * PixelImage.BytesEach];
        Parallel.For(0, height, OnAllCores.OfCaller, y =>
        {
            Span<double> sums = stackalloc double[4];
            for (var x = 0; x < width; x++)
            {
                var p = from(x + 0.5, y + 0.5);
                var (fx, fy) = (p.X - 0.5, p.Y - 0.5);
                if (!(fx > -1 && fy > -1 && fx < image.Width && fy < image.Height)) continue;
                var (ix, iy) = ((int)Math.Floor(fx), (int)Math.Floor(fy));
                sums.Clear();
                for (var k = 0; k < 4; k++)
                {
                    var (sx, sy) = (ix + (k & 1), iy + (k >> 1));
                    if ((uint)sx >= (uint)image.Width || (uint)sy >= (uint)image.Height) continue;
                    var at = image.At(sx, sy);
                    var weight = ((k & 1) == 1 ? fx - ix : 1 - fx + ix) * (k >> 1 == 1 ? fy - iy : 1 - fy + iy) * image.Rgba[at + 3];
                    for (var c = 0; c < 3; c++) sums[c] += image.Rgba[at + c] * weight;
                    sums[3] += weight;
                }
                if (sums[3] <= 0) continue;
                var to = (y * width + x) * PixelImage.BytesEach;
                for (var c = 0; c < 3; c++) made[to + c] = (byte)(sums[c] / sums[3] + 0.5);
                made[to + 3] = (byte)(sums[3] + 0.5);
            }
        });
        return new PixelImage(width, height, made);
    }
}
