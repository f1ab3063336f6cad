using System.Collections.Immutable;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// Curves through many points: corners first, told by how far the course turns over a stretch rather than between two
/// neighbours, and between corners least-squares cubics, cut in two where one is not enough (Schneider, "An algorithm for
/// automatically fitting digitized curves", Graphics Gems 1990).
/// </summary>
public static class CurveFit
{
    /// <summary>A turn of more than this over the window is a corner.</summary>
    private const double CornerDegrees = 38;

    /// <summary>Points lie no farther apart than this when a curve is fitted to them, mm.</summary>
    private const double DensestMm = 0.2;

    /// <summary>A straight line is at least so long, mm.</summary>
    private const double StraightMm = 0.4;

    /// <summary>Up to this turn a curve goes on in the direction of the straight line before it.</summary>
    private const double OnwardDegrees = 25;

    /// <summary>A line that leaves the known direction by no more than this is no kink.</summary>
    private const double AlongDegrees = 3;

    /// <summary>Curves from the first point to the last.</summary>
    /// <param name="points">Two or more points.</param>
    /// <param name="tolerance">Largest distance from a point to the curve, mm, above 0.</param>
    /// <param name="window">Length over which a turn is judged, mm.</param>
    /// <param name="begin">The direction, of length 1, in which the course arrives at the first point; it goes on in it unless it turns a corner there.</param>
    /// <param name="end">The direction in which it goes on from the last point.</param>
    public static ImmutableArray<Segment> Open(IReadOnlyList<Point> points, double tolerance, double window, Point? begin = null, Point? end = null)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(tolerance);
        var (dense, straights) = Dense(points, tolerance, closed: false);
        if (dense.Count < 2) return [];
        var breaks = new SortedSet<int>([0, dense.Count - 1, .. Corners(dense, window, closed: false), .. straights.SelectMany(s => new[] { s.From, s.To })]);
        return Between(dense, [.. breaks], straights, tolerance, window, (begin, end), closed: false);
    }

    /// <summary>A closed path through points, the first not repeated.</summary>
    /// <inheritdoc cref="Open"/>
    public static Path Closed(IReadOnlyList<Point> points, double tolerance, double window)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(tolerance);
        var (dense, straights) = Dense(points, tolerance, closed: true);
        if (dense.Count < 3) return Path.Polyline(points, closed: true);
        var count = dense.Count;
        var breaks = new SortedSet<int>([.. Corners(dense, window, closed: true), .. straights.SelectMany(s => new[] { s.From, s.To % count })]);
        var begin = breaks.Count > 0 ? breaks.Min : 0;
        var turned = dense.Skip(begin).Concat(dense.Take(begin)).Append(dense[begin]).ToList();
        // Without a corner or a straight line the way begins and ends in one direction.
        var along = breaks.Count == 0 ? Direction(turned[^2], turned[1]) : (Point?)null;
        return new Path(turned[0], Between(
            turned, [.. breaks.Select(i => i - begin).Append(0).Append(count).Distinct().Order()],
            [.. straights.Select(s => (From: (s.From - begin + count) % count, s.To)).Select(s => (s.From, To: (s.To - begin + count - 1) % count + 1))], tolerance, window, (along, along), closed: true), closed: true);
    }

    /// <summary>Segments from break to break: straight lines as they are, curves between them.</summary>
    private static ImmutableArray<Segment> Between(
        List<Point> points, List<int> breaks, List<(int From, int To)> straights, double tolerance, double window, (Point? Begin, Point? End) known, bool closed)
    {
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var ends = straights.ToDictionary(s => s.From, s => s.To);
        var isStraight = breaks.Zip(breaks.Skip(1), (from, to) => ends.TryGetValue(from, out var end) && end == to).ToList();
        for (var k = 0; k + 1 < breaks.Count; k++)
        {
            var (from, to) = (breaks[k], breaks[k + 1]);
            if (isStraight[k])
            {
                segments.Add(Segment.Straight(points[to]));
                continue;
            }
            var part = points.GetRange(from, to - from + 1);
            var end = After(k) is { } e ? e * -1 : (Point?)null;
            Smooth(part, tolerance, window, Before(k), end, segments);
        }
        return segments.ToImmutable();

        Point? Along(int k) => isStraight[k] ? Direction(points[breaks[k]], points[breaks[k + 1]]) : null;
        Point? Before(int k) => k > 0 ? Along(k - 1) : closed ? known.Begin ?? Along(isStraight.Count - 1) : known.Begin;
        Point? After(int k) => k + 1 < isStraight.Count ? Along(k + 1) : closed ? known.End ?? Along(0) : known.End;
    }

    /// <summary>The points with others between those that lie far apart, and the stretches of them that are straight lines.</summary>
    private static (List<Point> Points, List<(int From, int To)> Straights) Dense(IReadOnlyList<Point> points, double tolerance, bool closed)
    {
        var plain = new List<Point>(points.Count);
        foreach (var p in points)
        {
            if (plain.Count == 0 || plain[^1].DistanceTo(p) >= 1e-9) plain.Add(p);
        }
        while (closed && plain.Count > 1 && plain[^1].DistanceTo(plain[0]) < 1e-9) plain.RemoveAt(plain.Count - 1);
        var edges = closed ? plain.Count : plain.Count - 1;
        var dense = new List<Point>(plain.Count);
        var straights = new List<(int, int)>();
        for (var i = 0; i < plain.Count; i++)
        {
            var from = dense.Count;
            dense.Add(plain[i]);
            if (i >= edges) break;
            var next = plain[(i + 1) % plain.Count];
            var length = plain[i].DistanceTo(next);
            var count = (int)Math.Ceiling(length / DensestMm);
            for (var k = 1; k < count; k++) dense.Add(Point.Lerp(plain[i], next, (double)k / count));
            // A chord of a circle from which the course turns by an angle at each end stands off it by an eighth of length times angle.
            if (length >= StraightMm && (length * Math.Max(Turn(i, 1, length / 2), Turn(i, -1, length / 2)) / 8 > tolerance || IsBetweenCorners(i))) straights.Add((from, dense.Count));
        }
        return (dense, straights);

        bool Has(int edge) => closed || (edge >= 0 && edge < edges);
        Point At(int i) => plain[(i % plain.Count + plain.Count) % plain.Count];

        double Angle(int edge, int other)
        {
            var (a, b) = (At(edge + 1) - At(edge), At(other + 1) - At(other));
            return Math.Atan2(a.Cross(b), a.Dot(b));
        }

        // How far the course turns away from an edge within a distance beyond its end, as far as it does so without a corner.
        double Turn(int edge, int way, double within)
        {
            var (most, walked) = (0.0, 0.0);
            for (var k = edge + way; Has(k) && Math.Abs(k - edge) < plain.Count && walked <= within; k += way)
            {
                if (Math.Abs(Angle(k - way, k)) > OnwardDegrees * Math.PI / 180) break;
                most = Math.Max(most, Math.Abs(Angle(edge, k)));
                walked += At(k).DistanceTo(At(k + 1));
            }
            return most;
        }

        bool IsBetweenCorners(int edge) => IsCorner(edge, 1) && IsCorner(edge, -1);
        bool IsCorner(int edge, int way) => !Has(edge + way) || Math.Abs(Angle(edge, edge + way)) > OnwardDegrees * Math.PI / 180;
    }

    /// <summary>Indices of the corners, in order: where the course turns most, and more than enough, over the window.</summary>
    private static List<int> Corners(List<Point> points, double window, bool closed)
    {
        var turns = new double[points.Count];
        var limit = CornerDegrees * Math.PI / 180;
        Parallel.For(0, points.Count, OnAllCores.OfCaller, i =>
        {
            if (Ahead(points, i, -1, window, closed) is not { } before || Ahead(points, i, 1, window, closed) is not { } after) return;
            var (a, b) = (points[i] - before, after - points[i]);
            turns[i] = Math.Abs(Math.Atan2(a.Cross(b), a.Dot(b)));
        });
        var corners = new List<int>();
        for (var i = 0; i < points.Count; i++)
        {
            if (turns[i] >= limit && IsHighest(i)) corners.Add(i);
        }
        return corners;

        bool IsHighest(int i)
        {
            foreach (var way in new[] { 1, -1 })
            {
                double walked = 0;
                for (var k = i; ;)
                {
                    var next = k + way;
                    if (closed) next = (next + points.Count) % points.Count;
                    else if (next < 0 || next >= points.Count) break;
                    walked += points[k].DistanceTo(points[next]);
                    if (walked > window || next == i) break;
                    if (turns[next] > turns[i] || (turns[next] == turns[i] && next < i)) return false;
                    k = next;
                }
            }
            return true;
        }
    }

    /// <summary>The point a distance along the course; null at an end of an open one.</summary>
    private static Point? Ahead(List<Point> points, int from, int way, double distance, bool closed)
    {
        double walked = 0;
        for (int k = from, steps = 0; steps < points.Count; steps++)
        {
            var next = k + way;
            if (closed) next = (next + points.Count) % points.Count;
            else if (next < 0 || next >= points.Count) return k == from ? null : points[k];
            var pace = points[k].DistanceTo(points[next]);
            if (walked + pace >= distance) return Point.Lerp(points[k], points[next], (distance - walked) / pace);
            walked += pace;
            k = next;
        }
        return null;
    }

    private static Point Direction(Point from, Point to)
    {
        var d = to - from;
        return d.Length > 1e-12 ? d * (1 / d.Length) : new Point(1, 0);
    }

    /// <summary>Curves along points without a corner between them, directions at the ends given where they are known.</summary>
    private static void Smooth(List<Point> points, double tolerance, double window, Point? begin, Point? end, ImmutableArray<Segment>.Builder segments)
    {
        if (points.Count < 2) return;
        var first = Onward(begin, Direction(points[0], Ahead(points, 0, 1, window / 2, closed: false) ?? points[^1]));
        var last = Onward(end, Direction(points[^1], Ahead(points, points.Count - 1, -1, window / 2, closed: false) ?? points[0]));
        Fit(points, 0, points.Count - 1, first, last, tolerance, window, segments);
    }

    /// <summary>The known direction, unless the course turns away from it in a corner.</summary>
    private static Point Onward(Point? known, Point seen) =>
        known is { } k && k.Dot(seen) > Math.Cos(OnwardDegrees * Math.PI / 180) ? k : seen;

    private static void Fit(List<Point> points, int from, int to, Point first, Point last, double tolerance, double window, ImmutableArray<Segment>.Builder segments)
    {
        var (a, b) = (points[from], points[to]);
        if (to - from == 1 || (IsStraight(points, from, to, tolerance / 2) && IsAlong(first, b - a) && IsAlong(last, a - b)))
        {
            segments.Add(Segment.Straight(b));
            return;
        }
        if (CubicFit.Within(points, from, to, first, last, tolerance, out var worst) is { } curve)
        {
            segments.Add(curve);
            return;
        }
        var middle = Direction(Ahead(points, worst, -1, window / 2, closed: false) ?? points[from], Ahead(points, worst, 1, window / 2, closed: false) ?? points[to]);
        Fit(points, from, worst, first, middle * -1, tolerance, window, segments);
        Fit(points, worst, to, middle, last, tolerance, window, segments);
    }

    private static bool IsAlong(Point direction, Point chord) => direction.Dot(chord) >= chord.Length * Math.Cos(AlongDegrees * Math.PI / 180);

    private static bool IsStraight(List<Point> points, int from, int to, double tolerance)
    {
        for (var i = from + 1; i < to; i++)
        {
            if (Polygons.DistanceToStretch(points[i], points[from], points[to]) > tolerance) return false;
        }
        return true;
    }
}
