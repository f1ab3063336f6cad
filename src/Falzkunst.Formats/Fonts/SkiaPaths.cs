using System.Collections.Immutable;
using Falzkunst.Core.Geometry;
using SkiaSharp;

namespace Falzkunst.Formats.Fonts;

/// <summary>Outlines as Skia gives them, as paths: quadratic curves become the cubic ones that they are.</summary>
internal static class SkiaPaths
{
    /// <summary>The contours of a path, closed; those without a segment are left out.</summary>
    /// <param name="path">The path.</param>
    /// <param name="flip">Its y goes down and shall go up.</param>
    public static ImmutableArray<Path> Read(SKPath path, bool flip)
    {
        var paths = ImmutableArray.CreateBuilder<Path>();
        var segments = new List<Segment>();
        var (start, at) = (default(Point), default(Point));
        var points = new SKPoint[4];
        using var steps = path.CreateRawIterator();
        for (var verb = steps.Next(points); verb != SKPathVerb.Done; verb = steps.Next(points))
        {
            switch (verb)
            {
                case SKPathVerb.Move:
                    End();
                    start = at = From(points[0]);
                    break;
                case SKPathVerb.Line:
                    To(Segment.Straight(From(points[1])));
                    break;
                case SKPathVerb.Quad:
                    var (handle, end) = (From(points[1]), From(points[2]));
                    To(Segment.Cubic(Point.Lerp(at, handle, 2.0 / 3), Point.Lerp(end, handle, 2.0 / 3), end));
                    break;
                case SKPathVerb.Cubic:
                    To(Segment.Cubic(From(points[1]), From(points[2]), From(points[3])));
                    break;
                case SKPathVerb.Close:
                    End();
                    at = start;
                    break;
                default:
                    throw new ReadRefused("not-a-face", "The face has outlines of a kind that no face has.");
            }
        }
        End();
        return paths.ToImmutable();

        Point From(SKPoint p) => new(p.X, flip ? -p.Y : p.Y);

        void To(Segment segment)
        {
            if (segment.End == at && !segment.IsCubic) return;
            segments.Add(segment);
            at = segment.End;
        }

        void End()
        {
            // The straight way back is implied.
            if (segments.Count > 1 && !segments[^1].IsCubic && segments[^1].End == start) segments.RemoveAt(segments.Count - 1);
            if (segments.Count > 0) paths.Add(new Path(start, [.. segments], closed: true));
            segments.Clear();
        }
    }
}
