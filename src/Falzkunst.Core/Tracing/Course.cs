using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>A traced line as points at even distances, so that lengths along it are counts of points.</summary>
internal sealed class Course
{
    /// <summary>From point to point, dots.</summary>
    private const double Pace = 0.75;

    private Course(Point[] points, bool closed, double step) => (Points, IsClosed, Step) = (points, closed, step);

    /// <summary>The points; of a closed line the first is not repeated.</summary>
    public Point[] Points { get; }

    public bool IsClosed { get; }

    /// <summary>From point to point along the line, dots.</summary>
    public double Step { get; }

    public int Count => Points.Length;

    /// <summary>A line through points as such a course.</summary>
    /// <param name="points">Two or more points.</param>
    /// <param name="closed">The last leads back to the first.</param>
    public static Course Along(IReadOnlyList<Point> points, bool closed)
    {
        var edges = closed ? points.Count : points.Count - 1;
        double length = 0;
        for (var i = 0; i < edges; i++) length += points[i].DistanceTo(points[(i + 1) % points.Count]);
        var count = Math.Max(closed ? 8 : 2, (int)Math.Round(length / Pace));
        var step = length / count;
        var made = new Point[closed ? count : count + 1];
        var (edge, walked) = (0, 0.0);
        var pace = points[0].DistanceTo(points[1 % points.Count]);
        for (var k = 0; k < made.Length; k++)
        {
            var at = k * step;
            while (edge < edges - 1 && walked + pace < at)
            {
                walked += pace;
                edge++;
                pace = points[edge].DistanceTo(points[(edge + 1) % points.Count]);
            }
            made[k] = pace > 0 ? Point.Lerp(points[edge], points[(edge + 1) % points.Count], Math.Clamp((at - walked) / pace, 0, 1)) : points[edge];
        }
        return new Course(made, closed, step);
    }

    /// <summary>A point by its number, round and round on a closed line, held at the ends of an open one.</summary>
    public Point At(int i) => Points[IsClosed ? (i % Count + Count) % Count : Math.Clamp(i, 0, Count - 1)];

    /// <summary>The course without noise across it, averaged over a length to both sides; 0 changes nothing.</summary>
    public Course Averaged(double length) => length > 0 ? new Course(NoiseAlong.Averaged(Points, Paces(length), IsClosed), IsClosed, Step) : this;

    /// <summary>How many points make a length.</summary>
    public int Paces(double length) => Math.Max(1, (int)Math.Round(length / Step));
}
