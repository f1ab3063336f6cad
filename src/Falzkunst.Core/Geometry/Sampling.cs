namespace Falzkunst.Core.Geometry;

/// <summary>Evenly spread points along a line.</summary>
public static class Sampling
{
    /// <summary>
    /// The middles of equal stretches along the path, so that each stands for the same length; never its end points.
    /// </summary>
    /// <param name="path">The path; a closed one is sampled all round.</param>
    /// <param name="step">Wished length of a stretch, mm.</param>
    /// <param name="most">Never more points than this.</param>
    public static List<Point> Midpoints(Path path, double step, int most)
    {
        var length = path.Length;
        var flat = path.Flat;
        if (length <= 0) return [path.Start];
        var count = Math.Clamp((int)Math.Ceiling(length / step), 8, most);
        var stretch = length / count;
        var points = new List<Point>(count);
        double walked = 0;
        var edges = path.IsClosed ? flat.Length : flat.Length - 1;
        for (var i = 0; i < edges; i++)
        {
            var (a, b) = (flat[i], flat[(i + 1) % flat.Length]);
            var edge = a.DistanceTo(b);
            while (points.Count < count && (points.Count + 0.5) * stretch <= walked + edge)
                points.Add(Point.Lerp(a, b, edge == 0 ? 0 : ((points.Count + 0.5) * stretch - walked) / edge));
            walked += edge;
        }
        return points;
    }
}
