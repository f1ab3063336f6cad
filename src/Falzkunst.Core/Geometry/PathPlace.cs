using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>A place on a path: a segment and the parameter on it, 0 to below 1; the end of the last segment is the next one's 0.</summary>
public readonly record struct PathPlace(int Segment, double T)
{
    /// <summary>The way along a closed path from one place to another, forward, over the start where need be; whole segments stay as they are.</summary>
    /// <param name="path">The path, its way back written out.</param>
    /// <param name="from">Where the way begins.</param>
    /// <param name="to">Where it ends; where both are one, all the way round.</param>
    /// <returns>The first point and the segments from it on.</returns>
    public static (Point Start, ImmutableArray<Segment> Segments) Stretch(Path path, PathPlace from, PathPlace to)
    {
        var count = path.Segments.Length;
        var segments = ImmutableArray.CreateBuilder<Segment>();
        Point StartOf(int k) => k == 0 ? path.Start : path.Segments[k - 1].End;
        var at = from.Segment % count;
        if (from.T > 0)
        {
            if (to.Segment == at && to.T > from.T)
            {
                var (_, rest) = PathNodes.Split(StartOf(at), path.Segments[at], from.T);
                var begin = path.Segments[at].At(StartOf(at), from.T);
                return (begin, [PathNodes.Split(begin, rest, (to.T - from.T) / (1 - from.T)).First]);
            }
            segments.Add(PathNodes.Split(StartOf(at), path.Segments[at], from.T).Second);
        }
        var start = from.T > 0 ? path.Segments[at].At(StartOf(at), from.T) : StartOf(at);
        var k = from.T > 0 ? (at + 1) % count : at;
        var last = to.Segment % count;
        // A way that begins and ends at one node goes all round.
        for (var guard = 0; guard < count && (k != last || segments.Count == 0 && to.T == 0); guard++)
        {
            segments.Add(path.Segments[k]);
            k = (k + 1) % count;
        }
        if (to.T > 0) segments.Add(PathNodes.Split(StartOf(last), path.Segments[last], to.T).First);
        return (start, segments.ToImmutable());
    }
}
