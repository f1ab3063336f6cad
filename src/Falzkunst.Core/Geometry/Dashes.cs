using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>A line as separate strokes, for perforations and printed borders.</summary>
public static class Dashes
{
    /// <summary>
    /// Strokes of <paramref name="dash"/> mm with <paramref name="gap"/> mm between them, both stretched a little so that the
    /// line ends with a stroke as it began; on a closed line strokes and gaps come out even. Lines shorter than a dash stay whole.
    /// </summary>
    public static ImmutableArray<Path> Split(Path path, double dash, double gap)
    {
        var length = path.Length;
        if (length <= dash) return [path];
        var count = path.IsClosed
            ? Math.Max(1, (int)Math.Round(length / (dash + gap)))
            : Math.Max(1, (int)Math.Round((length + gap) / (dash + gap)));
        var stretch = length / (path.IsClosed ? count * (dash + gap) : count * (dash + gap) - gap);
        var strokes = ImmutableArray.CreateBuilder<Path>(count);
        for (var i = 0; i < count; i++)
        {
            var from = i * (dash + gap) * stretch;
            strokes.Add(Between(path, from, Math.Min(length, from + dash * stretch)));
        }
        return strokes.ToImmutable();
    }

    private static Path Between(Path path, double from, double to)
    {
        var flat = path.Flat;
        var points = new List<Point>();
        double walked = 0;
        var edges = path.IsClosed ? flat.Length : flat.Length - 1;
        for (var i = 0; i < edges && walked < to; i++)
        {
            var (a, b) = (flat[i], flat[(i + 1) % flat.Length]);
            var edge = a.DistanceTo(b);
            if (edge > 0 && walked + edge > from)
            {
                if (points.Count == 0) points.Add(Point.Lerp(a, b, Math.Max(0, (from - walked) / edge)));
                points.Add(Point.Lerp(a, b, Math.Min(1, (to - walked) / edge)));
            }
            walked += edge;
        }
        return Path.Polyline(points, closed: false);
    }
}
