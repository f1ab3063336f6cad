using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>The longest cubics one after the other along a smooth stretch.</summary>
internal static class SmoothFit
{
    /// <summary>A stretch of so many points is tried first.</summary>
    private const int FirstTry = 12;

    /// <summary>The longest curve is found to this part of its length: nearer takes longer and saves no node.</summary>
    private const int Fine = 16;

    /// <summary>A straight run has at least so many points, and is looked for in such steps.</summary>
    private const int RunPoints = 36, RunStep = 4;

    public static Point Direction(Point from, Point to) => (to - from) is var d && d.Length > 1e-12 ? d * (1 / d.Length) : new Point(1, 0);

    /// <summary>Writes curves from the first point to the last.</summary>
    /// <param name="points">The stretch.</param>
    /// <param name="first">Direction at its beginning.</param>
    /// <param name="last">Direction at its end, back into the stretch.</param>
    /// <param name="scale">How near to it.</param>
    /// <param name="window">Points to both sides by which its direction is told.</param>
    /// <param name="segments">What is written to.</param>
    public static void Write(List<Point> points, Point first, Point last, FitScale scale, int window, ImmutableArray<Segment>.Builder segments)
    {
        var at = 0;
        foreach (var (from, to) in StraightRuns(points, scale.Run))
        {
            var along = Direction(points[from], points[to]);
            if (from > at) Curves(points.GetRange(at, from - at + 1), first, along * -1, scale.Tolerance, window, segments);
            segments.Add(Segment.Straight(points[to]));
            (at, first) = (to, along);
        }
        if (at == 0) Curves(points, first, last, scale.Tolerance, window, segments);
        else if (at < points.Count - 1) Curves(points.GetRange(at, points.Count - at), first, last, scale.Tolerance, window, segments);
    }

    /// <summary>Long straight runs within a stretch, such as the sides of a plate with round corners; a curve is bent over such a length.</summary>
    private static List<(int From, int To)> StraightRuns(List<Point> points, double off)
    {
        var runs = new List<(int, int)>();
        for (var from = 0; from + RunPoints < points.Count;)
        {
            var to = from + RunPoints;
            if (!IsStraight(points, from, to, off))
            {
                from += RunStep;
                continue;
            }
            while (to + RunStep < points.Count && IsStraight(points, from, to + RunStep, off)) to += RunStep;
            if (to + RunStep >= points.Count && IsStraight(points, from, points.Count - 1, off)) to = points.Count - 1;
            // Its ends belong to what bends away from it.
            if (to - from > RunPoints + 2 * RunStep)
            {
                var run = (From: from == 0 ? 0 : from + RunStep, To: to == points.Count - 1 ? to : to - RunStep);
                var line = StraightLine.Through(CollectionsMarshal.AsSpan(points)[run.From..(run.To + 1)]);
                // Where it begins and ends it lies on its line; the ends of the whole stretch are given.
                if (run.From > 0) points[run.From] = line.Onto(points[run.From]);
                if (run.To < points.Count - 1) points[run.To] = line.Onto(points[run.To]);
                runs.Add(run);
            }
            from = to;
        }
        return runs;
    }

    /// <summary>The points keep to the line through them.</summary>
    private static bool IsStraight(List<Point> points, int from, int to, double off)
    {
        var line = StraightLine.Through(CollectionsMarshal.AsSpan(points)[from..(to + 1)]);
        for (var i = from; i <= to; i++) if (line.DistanceTo(points[i]) > off) return false;
        return true;
    }

    private static void Curves(List<Point> points, Point first, Point last, double tolerance, int window, ImmutableArray<Segment>.Builder segments)
    {
        var end = points.Count - 1;
        for (var from = 0; from < end;)
        {
            var (to, curve) = Longest(points, from, first, last, tolerance, window);
            segments.Add(curve);
            if (to < end) first = Along(points, to, window);
            from = to;
        }
    }

    private static (int To, Segment Curve) Longest(List<Point> points, int from, Point first, Point last, double tolerance, int window)
    {
        var end = points.Count - 1;
        if (end - from < 2) return (end, Segment.Straight(points[end]));
        // Doubled until it fails, then halved between what held and what did not.
        var (held, failed, step) = (from, end + 1, FirstTry);
        Segment? best = null;
        while (failed > end)
        {
            var to = Math.Min(end, from + step);
            if (Try(to) is { } curve)
            {
                (held, best) = (to, curve);
                if (to == end) return (to, curve);
                step *= 2;
            }
            else
            {
                failed = to;
            }
        }
        while (failed - held > Math.Max(2, (held - from) / Fine))
        {
            var to = (held + failed) / 2;
            if (Try(to) is { } curve) (held, best) = (to, curve);
            else failed = to;
        }
        if (best is { } found) return (held, found);
        var near = Math.Min(end, from + 2);
        return (near, Segment.Straight(points[near]));

        Segment? Try(int to) => to - from < 2 ? Segment.Straight(points[to])
            : CubicFit.Within(points, from, to, first, to == end ? last : Along(points, to, window) * -1, tolerance, out _);
    }

    private static Point Along(List<Point> points, int at, int window) =>
        Direction(points[Math.Max(0, at - window)], points[Math.Min(points.Count - 1, at + window)]);
}
