using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// Traced lines as few curves: circles where they are, corners sharpened, straight stretches between them by least squares with right
/// angles and upright lines where they nearly are, and on smooth stretches the longest cubics that keep within the tolerance, one after the
/// other (Schneider 1990 for the single cubic).
/// </summary>
internal static class OutlineFit
{
    /// <summary>A straight line is turned upright, or square to the one before, where its ends move by no more, dots; more where lines wobble.</summary>
    private const double Nudge = 0.06;

    /// <summary>Shorter lines, in dots, are too uncertain to be turned.</summary>
    private const double LeastTurned = 5;

    /// <summary>Length to both sides over which the direction of a smooth stretch is found, dots.</summary>
    private const double Window = 3;

    /// <summary>The path along points.</summary>
    /// <param name="points">The traced line, in dots.</param>
    /// <param name="closed">It is closed.</param>
    /// <param name="scale">How near it is kept to.</param>
    public static Path Fit(IReadOnlyList<Point> points, bool closed, FitScale scale)
    {
        var course = Course.Along(points, closed);
        if (closed && Circle(course, scale) is { } circle) return circle;
        var corners = Corner.Find(course, scale.Corner);
        if (!closed) corners = [End(course, 0, 1), .. corners, End(course, course.Count - 1, -1)];
        if (corners.Count == 0) return Smooth(course.Averaged(scale.Averaged), scale);
        var stretches = Stretches(course, corners, scale);
        Straighten(stretches, closed, scale);
        var segments = ImmutableArray.CreateBuilder<Segment>();
        foreach (var stretch in stretches) stretch.Write(segments, scale);
        return new Path(stretches[0].From, segments.ToImmutable(), closed);
    }

    private static Corner End(Course course, int at, int way)
    {
        var d = course.At(at + way * course.Paces(Window)) - course.At(at);
        var along = d.Length > 0 ? d * (way / d.Length) : new Point(1, 0);
        return new Corner(at, course.At(at), along, along);
    }

    /// <summary>A closed line without corners, begun where it bends least.</summary>
    private static Path Smooth(Course course, FitScale scale)
    {
        var window = course.Paces(Window);
        var begin = Enumerable.Range(0, course.Count).MinBy(i =>
        {
            var (a, b) = (course.At(i) - course.At(i - window), course.At(i + window) - course.At(i));
            return Math.Abs(Math.Atan2(a.Cross(b), a.Dot(b)));
        });
        var points = Enumerable.Range(begin, course.Count + 1).Select(course.At).ToList();
        var along = SmoothFit.Direction(course.At(begin - window), course.At(begin + window));
        var segments = ImmutableArray.CreateBuilder<Segment>();
        SmoothFit.Write(points, along, along * -1, scale, window, segments);
        // Begun in the midst of a straight side, that side is one.
        if (segments.Count > 2 && !segments[0].IsCubic && !segments[^1].IsCubic && Polygons.DistanceToStretch(points[0], segments[^2].End, segments[0].End) <= scale.Run)
        {
            segments[^1] = segments[0];
            segments.RemoveAt(0);
            return new Path(segments[^1].End, segments.ToImmutable(), closed: true);
        }
        return new Path(points[0], segments.ToImmutable(), closed: true);
    }

    private static List<Stretch> Stretches(Course course, List<Corner> corners, FitScale scale)
    {
        var made = new List<Stretch>();
        var count = course.IsClosed ? corners.Count : corners.Count - 1;
        var near = course.Paces(0.9 * scale.Corner);
        for (var k = 0; k < count; k++)
        {
            var (a, b) = (corners[k], corners[(k + 1) % corners.Count]);
            var to = b.Index > a.Index ? b.Index : b.Index + course.Count;
            var (from, until) = (a.Index + near, to - near);
            if (until < from) from = until = (a.Index + to) / 2;
            made.Add(new Stretch(a.At, b.At, a.After, b.Before * -1, Inner(course, from, until, scale), course.Paces(Window)));
        }
        foreach (var stretch in made) stretch.JudgeStraight(scale.Straight);
        return made;
    }

    private static List<Point> Inner(Course course, int from, int until, FitScale scale)
    {
        var points = Enumerable.Range(from, until - from + 1).Select(course.At).ToList();
        return scale.Averaged > 0 ? [.. NoiseAlong.Averaged(points, course.Paces(scale.Averaged), closed: false)] : points;
    }

    /// <summary>Straight stretches side by side meet where their lines do, turned upright or square where that moves them hardly.</summary>
    private static void Straighten(List<Stretch> stretches, bool closed, FitScale scale)
    {
        for (var k = 0; k < stretches.Count; k++)
        {
            var before = k > 0 ? stretches[k - 1] : closed && stretches.Count > 1 ? stretches[^1] : null;
            stretches[k].Turn(before, Nudge * (1 + 4 * Math.Max(0, scale.Corner - 1)), LeastTurned);
        }
        for (var k = closed ? 0 : 1; k < stretches.Count; k++)
        {
            var (one, next) = (stretches[(k + stretches.Count - 1) % stretches.Count], stretches[k]);
            if (ReferenceEquals(one, next)) continue;
            var corner = Stretch.Joint(one, next, 2.5 * scale.Corner);
            (one.To, next.From) = (corner, corner);
        }
    }

    /// <summary>A closed line as a circle, by algebraic fit (Kåsa 1976), where it is one; drawn as four cubics.</summary>
    private static Path? Circle(Course course, FitScale scale)
    {
        double n = course.Count, sx = 0, sy = 0;
        foreach (var p in course.Points) (sx, sy) = (sx + p.X, sy + p.Y);
        var (mx, my) = (sx / n, sy / n);
        double xx = 0, yy = 0, xy = 0, xz = 0, yz = 0, zz = 0;
        foreach (var p in course.Points)
        {
            var (x, y) = (p.X - mx, p.Y - my);
            var z = x * x + y * y;
            (xx, yy, xy, xz, yz, zz) = (xx + x * x, yy + y * y, xy + x * y, xz + x * z, yz + y * z, zz + z);
        }
        var det = xx * yy - xy * xy;
        if (Math.Abs(det) < 1e-9) return null;
        var (cx, cy) = ((xz * yy - yz * xy) / det / 2, (yz * xx - xz * xy) / det / 2);
        var radius = Math.Sqrt(cx * cx + cy * cy + zz / n);
        var centre = new Point(cx + mx, cy + my);
        // Dots are no circle: from two dots' radius on a round spot can be told from a square one.
        if (radius < 2) return null;
        var least = Math.Min(scale.Tolerance, 0.25 + radius * 0.002);
        foreach (var p in course.Points)
        {
            if (Math.Abs(p.DistanceTo(centre) - radius) > least) return null;
        }
        var side = Polygons.SignedArea(course.Points) < 0 ? -1 : 1;
        var handle = radius * 0.5522847498;
        Point At(int quarter) => centre + Way(quarter) * radius;
        Point Way(int quarter) => (quarter % 4) switch { 0 => new(1, 0), 1 => new(0, side), 2 => new(-1, 0), _ => new(0, -side) };
        return new Path(At(0), [.. Enumerable.Range(0, 4).Select(q => Segment.Cubic(At(q) + Way(q + 1) * handle, At(q + 1) + Way(q) * handle, At(q + 1)))], closed: true);
    }
}
