using System.Collections.Immutable;
using System.Runtime.InteropServices;
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
    private StraightLine _line;

    public Point From { get; set; } = from;
    public Point To { get; set; } = to;

    public bool IsStraight { get; private set; }

    /// <summary>It is a straight line where its points keep so near to one.</summary>
    public void JudgeStraight(double tolerance)
    {
        if (inner.Count < 3)
        {
            (_line, IsStraight) = (new(Point.Lerp(From, To, 0.5), SmoothFit.Direction(From, To)), true);
            return;
        }
        _line = StraightLine.Through(CollectionsMarshal.AsSpan(inner));
        IsStraight = inner.All(p => _line.DistanceTo(p) <= tolerance) && _line.DistanceTo(From) <= 2 * tolerance && _line.DistanceTo(To) <= 2 * tolerance;
    }

    /// <summary>A straight line is turned upright, level or square to the one before where its ends move by no more than a nudge.</summary>
    public void Turn(Stretch? before, double nudge, double least)
    {
        var half = From.DistanceTo(To) / 2;
        if (!IsStraight || half * 2 < least) return;
        var ways = new List<Point> { new(1, 0), new(0, 1) };
        if (before is { IsStraight: true }) ways.Add(new Point(-before._line.Way.Y, before._line.Way.X));
        foreach (var way in ways)
        {
            if (Math.Abs(_line.Way.Cross(way)) * half > nudge || Math.Abs(_line.Way.Dot(way)) < 0.9) continue;
            _line = _line with { Way = _line.Way.Dot(way) < 0 ? way * -1 : way };
            return;
        }
    }

    /// <summary>Where one stretch goes over into the next: of two straight ones where their lines meet, else the corner, brought onto the straight one.</summary>
    public static Point Joint(Stretch one, Stretch next, double farthest)
    {
        var corner = next.From;
        if (one.IsStraight && next.IsStraight)
        {
            var det = one._line.Way.Cross(next._line.Way);
            if (Math.Abs(det) < 0.1) return corner;
            var met = one._line.Middle + one._line.Way * ((next._line.Middle - one._line.Middle).Cross(next._line.Way) / det);
            return met.DistanceTo(corner) <= farthest ? met : corner;
        }
        if (one.IsStraight) return one._line.Onto(corner);
        return next.IsStraight ? next._line.Onto(corner) : corner;
    }

    /// <summary>Writes the segments to its end.</summary>
    public void Write(ImmutableArray<Segment>.Builder segments, FitScale scale)
    {
        if (IsStraight)
        {
            segments.Add(Segment.Straight(To));
            return;
        }
        SmoothFit.Write([From, .. inner, To], first, last, scale, window, segments);
    }
}
