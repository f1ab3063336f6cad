using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>A stretch of a traced line from corner to corner.</summary>
/// <param name="from">Corner at its beginning.</param>
/// <param name="to">Corner at its end.</param>
/// <param name="first">Direction at its beginning.</param>
/// <param name="last">Direction at its end, back into it.</param>
/// <param name="inner">Its points, but for those that dots round off at its corners.</param>
/// <param name="window">Points to both sides by which a direction is told.</param>
internal sealed class Stretch(Point from, Point to, Point first, Point last, List<Point> inner, int window)
{
    private Point _middle, _way;

    public Point From { get; set; } = from;
    public Point To { get; set; } = to;

    public bool IsStraight { get; private set; }

    /// <summary>It is a straight line where its points keep so near to one.</summary>
    public void JudgeStraight(double tolerance)
    {
        if (inner.Count < 3)
        {
            (_middle, _way, IsStraight) = (Point.Lerp(From, To, 0.5), SmoothFit.Direction(From, To), true);
            return;
        }
        double n = inner.Count, x = 0, y = 0, xx = 0, xy = 0, yy = 0;
        foreach (var p in inner) (x, y) = (x + p.X, y + p.Y);
        _middle = new Point(x / n, y / n);
        foreach (var p in inner)
        {
            var d = p - _middle;
            (xx, xy, yy) = (xx + d.X * d.X, xy + d.X * d.Y, yy + d.Y * d.Y);
        }
        var angle = Math.Atan2(2 * xy, xx - yy) / 2;
        _way = new Point(Math.Cos(angle), Math.Sin(angle));
        if (_way.Dot(inner[^1] - inner[0]) < 0) _way *= -1;
        IsStraight = inner.All(p => Math.Abs((p - _middle).Cross(_way)) <= tolerance) && Math.Abs((From - _middle).Cross(_way)) <= 2 * tolerance && Math.Abs((To - _middle).Cross(_way)) <= 2 * tolerance;
    }

    /// <summary>A straight line is turned upright, level or square to the one before where its ends move by no more than a nudge.</summary>
    public void Turn(Stretch? before, double nudge, double least)
    {
        var half = From.DistanceTo(To) / 2;
        if (!IsStraight || half * 2 < least) return;
        var ways = new List<Point> { new(1, 0), new(0, 1) };
        if (before is { IsStraight: true }) ways.Add(new Point(-before._way.Y, before._way.X));
        foreach (var way in ways)
        {
            if (Math.Abs(_way.Cross(way)) * half > nudge || Math.Abs(_way.Dot(way)) < 0.9) continue;
            _way = _way.Dot(way) < 0 ? way * -1 : way;
            return;
        }
    }

    /// <summary>Where one stretch goes over into the next: of two straight ones where their lines meet, else the corner, brought onto the straight one.</summary>
    public static Point Joint(Stretch one, Stretch next, double farthest)
    {
        var corner = next.From;
        if (one.IsStraight && next.IsStraight)
        {
            var det = one._way.Cross(next._way);
            if (Math.Abs(det) < 0.1) return corner;
            var met = one._middle + one._way * ((next._middle - one._middle).Cross(next._way) / det);
            return met.DistanceTo(corner) <= farthest ? met : corner;
        }
        if (one.IsStraight) return one.Onto(corner);
        return next.IsStraight ? next.Onto(corner) : corner;
    }

    private Point Onto(Point p) => _middle + _way * (p - _middle).Dot(_way);

    /// <summary>Writes the segments to its end.</summary>
    public void Write(ImmutableArray<Segment>.Builder segments, FitScale scale)
    {
        if (IsStraight)
        {
            segments.Add(Segment.Straight(To));
            return;
        }
        SmoothFit.Write([From, .. inner, To], first, last, scale.Tolerance, window, segments);
    }
}
