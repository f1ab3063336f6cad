using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>The parts of a path inside and outside a region; curves stay curves.</summary>
public static class PathClip
{
    /// <summary>A region is asked about the path at least this often, mm.</summary>
    private const double StepMm = 0.25;

    private const int MostSteps = 2000;

    /// <summary>Where a path crosses the region's edge is found to within this share of a step.</summary>
    private const int Bisections = 30;

    /// <summary>The path in parts, in its direction, each wholly inside or wholly outside.</summary>
    /// <param name="path">The path.</param>
    /// <param name="isInside">Tells of a point whether the region holds it.</param>
    /// <param name="isWithin">
    /// The same without leeway, where <paramref name="isInside"/> counts points by the edge to one side: it says where exactly a path
    /// crosses; null where there is no leeway.
    /// </param>
    public static List<(Path Part, bool Inside)> Parts(Path path, Func<Point, bool> isInside, Func<Point, bool>? isWithin = null)
    {
        var whole = PathNodes.WrittenOut(path);
        var parts = new List<(Path, bool)>();
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var (start, from) = (whole.Start, whole.Start);
        bool? inside = null;
        void End(Point at)
        {
            if (segments.Count > 0) parts.Add((new Path(start, segments.ToImmutable(), closed: false), inside!.Value));
            segments.Clear();
            start = at;
        }
        foreach (var segment in whole.Segments)
        {
            var rest = segment;
            var begin = from;
            double done = 0;
            foreach (var (t, isIn) in Crossings(from, segment, isInside, isWithin ?? isInside))
            {
                if (inside is { } was && was != isIn)
                {
                    if (t > done)
                    {
                        var (first, second) = PathNodes.Split(begin, rest, (t - done) / (1 - done));
                        segments.Add(first);
                        (begin, rest, done) = (first.End, second, t);
                    }
                    End(begin);
                }
                inside = isIn;
            }
            segments.Add(rest);
            from = segment.End;
        }
        if (parts.Count == 0) return [(path, inside ?? isInside(path.Start))];
        End(from);
        if (path.IsClosed && parts.Count > 1 && parts[0].Item2 == parts[^1].Item2)
        {
            // The start of a closed path is no place to cut it.
            var (last, first) = (parts[^1].Item1, parts[0].Item1);
            parts[0] = (new Path(last.Start, last.Segments.AddRange(first.Segments), closed: false), parts[0].Item2);
            parts.RemoveAt(parts.Count - 1);
        }
        return parts;
    }

    /// <summary>For each stretch of a segment that is all inside or all outside: the parameter where it begins, and which it is.</summary>
    private static IEnumerable<(double T, bool Inside)> Crossings(Point from, Segment segment, Func<Point, bool> isInside, Func<Point, bool> isWithin)
    {
        var length = segment.IsCubic
            ? from.DistanceTo(segment.Handle1) + segment.Handle1.DistanceTo(segment.Handle2) + segment.Handle2.DistanceTo(segment.End)
            : from.DistanceTo(segment.End);
        var steps = Math.Clamp((int)Math.Ceiling(length / StepMm), 2, MostSteps);
        // Asked at the middles of the steps, so that an end that lies right on the edge does not decide.
        bool? now = null;
        for (var i = 0; i < steps; i++)
        {
            var isIn = isInside(segment.At(from, (i + 0.5) / steps));
            if (now == isIn) continue;
            var t = now is null ? 0 : Edge((i - 0.5) / steps, (i + 0.5) / steps, isIn);
            now = isIn;
            yield return (t, isIn);
        }

        double Edge(double low, double high, bool after)
        {
            // A path that runs along the edge and leaves it crosses nothing; only the leeway tells where it ends.
            var tells = isWithin(segment.At(from, high)) == after && isWithin(segment.At(from, low)) != after ? isWithin : isInside;
            for (var i = 0; i < Bisections; i++)
            {
                var middle = (low + high) / 2;
                if (tells(segment.At(from, middle)) == after) high = middle;
                else low = middle;
            }
            return high;
        }
    }
}
