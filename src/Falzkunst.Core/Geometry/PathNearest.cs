namespace Falzkunst.Core.Geometry;

/// <summary>Where a path runs nearest to a point.</summary>
public static class PathNearest
{
    /// <summary>A curve is looked at in so many places; where these are nearer than their neighbours its distance has a dip.</summary>
    private const int Samples = 64;

    /// <summary>A cubic has at most three nearest places that are not its ends (its distance squared is of degree six).</summary>
    private const int MostDips = 3;

    private static readonly double Golden = (Math.Sqrt(5) - 1) / 2;

    /// <summary>Golden section steps; each leaves 0.618 of the way between two samples, so that a thousandth of a segment is told apart a thousand times.</summary>
    private const int Narrowings = 30;

    /// <summary>The place and its distance, mm. Paths without segments have none but their start.</summary>
    /// <param name="path">The path, its way back written out (<see cref="PathNodes.WrittenOut"/>).</param>
    /// <param name="to">The point.</param>
    public static (PathPlace Place, double Distance) Find(Path path, Point to)
    {
        var best = (Place: new PathPlace(0, 0), Distance: path.Start.DistanceTo(to));
        var from = path.Start;
        for (var k = 0; k < path.Segments.Length; k++)
        {
            var segment = path.Segments[k];
            var t = segment.IsCubic ? OnCurve(from, segment, to) : OnStraight(from, segment.End, to);
            var distance = segment.At(from, t).DistanceTo(to);
            if (distance < best.Distance) best = (new PathPlace(k, t), distance);
            from = segment.End;
        }
        return best;
    }

    private static double OnStraight(Point from, Point end, Point to)
    {
        var along = end - from;
        var length2 = along.X * along.X + along.Y * along.Y;
        return length2 == 0 ? 0 : Math.Clamp(((to.X - from.X) * along.X + (to.Y - from.Y) * along.Y) / length2, 0, 1);
    }

    private static double OnCurve(Point from, Segment segment, Point to)
    {
        var distances = Enumerable.Range(0, Samples + 1).Select(i => At((double)i / Samples)).ToArray();
        var dips = Enumerable.Range(0, Samples + 1).Where(i => (i == 0 || distances[i] <= distances[i - 1]) && (i == Samples || distances[i] <= distances[i + 1]));
        return dips.OrderBy(i => distances[i]).Take(MostDips).SelectMany(i => new[] { Narrowed(i), (double)i / Samples }).MinBy(At);

        double At(double t) => segment.At(from, t).DistanceTo(to);

        double Narrowed(int sample)
        {
            var (low, high) = (Math.Max(0, sample - 1.0) / Samples, Math.Min(Samples, sample + 1.0) / Samples);
            for (var i = 0; i < Narrowings; i++)
            {
                var (a, b) = (high - Golden * (high - low), low + Golden * (high - low));
                if (At(a) < At(b)) high = b;
                else low = a;
            }
            return (low + high) / 2;
        }
    }
}
