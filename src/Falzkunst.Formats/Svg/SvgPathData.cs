using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Path data of SVG, every command. What stands before an error is kept, as the standard asks.</summary>
internal static class SvgPathData
{
    /// <summary>The paths, one for each subpath that has a segment, and whether the text was understood to its end.</summary>
    /// <param name="data">The text.</param>
    /// <param name="budget">Each segment is drawn from it as it is read.</param>
    public static (List<Path> Paths, bool Complete) Read(string data, Budget budget)
    {
        var builder = new Builder(budget);
        var complete = Run(data, builder);
        builder.Finish(closed: false);
        return (builder.Paths, complete);
    }

    private static bool Run(string data, Builder b)
    {
        var s = new NumberScanner(data);
        var command = '\0';
        while (!s.AtEnd)
        {
            var next = s.Peek();
            if (char.IsAsciiLetter(next))
            {
                command = next;
                s.Skip();
                if (b.IsBlank && command is not ('M' or 'm')) return false;
                if (command is 'Z' or 'z')
                {
                    b.Finish(closed: true);
                    continue;
                }
            }
            else if (command is '\0' or 'Z' or 'z')
            {
                return false;
            }
            if (!One(ref s, command, b)) return false;
            if (command == 'M') command = 'L';
            if (command == 'm') command = 'l';
        }
        return true;
    }

    private static bool One(ref NumberScanner s, char command, Builder b)
    {
        var origin = char.IsAsciiLetterLower(command) ? b.At : default;
        double n;
        switch (char.ToUpperInvariant(command))
        {
            case 'M':
                if (!TryPoint(ref s, origin, out var start)) return false;
                b.MoveTo(start);
                return true;
            case 'L':
                if (!TryPoint(ref s, origin, out var end)) return false;
                b.LineTo(end);
                return true;
            case 'H':
                if (!s.TryNumber(out n)) return false;
                b.LineTo(new Point(origin.X + n, b.At.Y));
                return true;
            case 'V':
                if (!s.TryNumber(out n)) return false;
                b.LineTo(new Point(b.At.X, origin.Y + n));
                return true;
            case 'C':
                if (!TryPoint(ref s, origin, out var c1) || !TryPoint(ref s, origin, out var c2) || !TryPoint(ref s, origin, out end)) return false;
                b.CubicTo(c1, c2, end);
                return true;
            case 'S':
                if (!TryPoint(ref s, origin, out c2) || !TryPoint(ref s, origin, out end)) return false;
                b.CubicTo(b.ReflectedCubic, c2, end);
                return true;
            case 'Q':
                if (!TryPoint(ref s, origin, out c1) || !TryPoint(ref s, origin, out end)) return false;
                b.QuadraticTo(c1, end);
                return true;
            case 'T':
                if (!TryPoint(ref s, origin, out end)) return false;
                b.QuadraticTo(b.ReflectedQuadratic, end);
                return true;
            case 'A':
                if (!s.TryNumber(out var rx) || !s.TryNumber(out var ry) || !s.TryNumber(out var turn)
                    || !s.TryFlag(out var large) || !s.TryFlag(out var sweep) || !TryPoint(ref s, origin, out end)) return false;
                b.ArcTo(rx, ry, turn, large, sweep, end);
                return true;
            default:
                return false;
        }
    }

    private static bool TryPoint(ref NumberScanner s, Point origin, out Point p)
    {
        p = default;
        if (!s.TryNumber(out var x) || !s.TryNumber(out var y)) return false;
        p = new Point(origin.X + x, origin.Y + y);
        return true;
    }

    private sealed class Builder(Budget budget)
    {
        private readonly ImmutableArray<Segment>.Builder _segments = ImmutableArray.CreateBuilder<Segment>();
        private Point _start;
        private Point? _lastCubicHandle;
        private Point? _lastQuadraticHandle;

        public List<Path> Paths { get; } = [];
        public bool IsBlank { get; private set; } = true;
        public Point At { get; private set; }
        public Point ReflectedCubic => _lastCubicHandle is { } h ? At * 2 - h : At;
        public Point ReflectedQuadratic => _lastQuadraticHandle is { } h ? At * 2 - h : At;

        public void MoveTo(Point p)
        {
            Finish(closed: false);
            IsBlank = false;
            _start = At = p;
        }

        public void LineTo(Point p) => Add(Segment.Straight(p), null, null);

        public void CubicTo(Point c1, Point c2, Point p) => Add(Segment.Cubic(c1, c2, p), c2, null);

        public void QuadraticTo(Point c, Point p) =>
            Add(Segment.Cubic(Point.Lerp(At, c, 2.0 / 3), Point.Lerp(p, c, 2.0 / 3), p), null, c);

        public void ArcTo(double rx, double ry, double turn, bool large, bool sweep, Point p)
        {
            foreach (var segment in EllipticArc.FromEndpoints(At, rx, ry, turn, large, sweep, p))
            {
                budget.Segments(1);
                _segments.Add(segment);
            }
            (At, _lastCubicHandle, _lastQuadraticHandle) = (p, null, null);
        }

        /// <summary>Ends the present subpath; after a closing one the next begins where it began.</summary>
        public void Finish(bool closed)
        {
            if (_segments.Count > 0) Paths.Add(new Path(_start, _segments.ToImmutable(), closed));
            _segments.Clear();
            (At, _lastCubicHandle, _lastQuadraticHandle) = (_start, null, null);
        }

        private void Add(Segment segment, Point? cubicHandle, Point? quadraticHandle)
        {
            budget.Segments(1);
            budget.Work(20);
            _segments.Add(segment);
            (At, _lastCubicHandle, _lastQuadraticHandle) = (segment.End, cubicHandle, quadraticHandle);
        }
    }
}
