using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Pictures;

/// <summary>Strokes of a round brush that give back what was taken away, or take more.</summary>
internal static class Brushing
{
    /// <param name="image">The picture as it is.</param>
    /// <param name="whole">The picture of the same size before anything was taken away.</param>
    /// <param name="brush">The stroke.</param>
    public static PixelImage Apply(PixelImage image, PixelImage whole, Brush brush)
    {
        var made = image.Copy();
        var radius = Math.Max(0.5, brush.Radius * image.Width);
        var points = brush.Points.Select(p => new Point(p.X * image.Width, p.Y * image.Height)).ToList();
        if (points.Count == 1) points.Add(points[0]);
        // How much of the brush was on each dot that it touched: strokes that cross themselves count once.
        var touched = new Dictionary<int, double>();
        for (var i = 1; i < points.Count; i++)
        {
            var (a, b) = (points[i - 1], points[i]);
            var (fromX, toX) = (Within(Math.Min(a.X, b.X) - radius - 1, image.Width), Within(Math.Max(a.X, b.X) + radius + 1, image.Width));
            var (fromY, toY) = (Within(Math.Min(a.Y, b.Y) - radius - 1, image.Height), Within(Math.Max(a.Y, b.Y) + radius + 1, image.Height));
            for (var y = fromY; y < toY; y++)
            {
                for (var x = fromX; x < toX; x++)
                {
                    var on = Math.Clamp(radius - Polygons.DistanceToStretch(new Point(x + 0.5, y + 0.5), a, b) + 0.5, 0, 1);
                    if (on > 0) touched[y * image.Width + x] = Math.Max(on, touched.GetValueOrDefault(y * image.Width + x));
                }
            }
        }
        foreach (var (dot, on) in touched)
        {
            var at = dot * PixelImage.BytesEach;
            if (!brush.Gives)
            {
                made.Rgba[at + 3] = (byte)(made.Rgba[at + 3] * (1 - on) + 0.5);
                continue;
            }
            Buffer.BlockCopy(whole.Rgba, at, made.Rgba, at, 3);
            made.Rgba[at + 3] = (byte)Math.Max(made.Rgba[at + 3], whole.Rgba[at + 3] * on + 0.5);
        }
        return made;
    }

    private static int Within(double at, int size) => (int)Math.Clamp(at, 0, size);
}
