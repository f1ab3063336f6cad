using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>Lines along the medial axis: the middles of balls at neighbouring samples, one after the other.</summary>
internal static class MedialChains
{
    /// <summary>Middles farther apart than this many steps are of two branches.</summary>
    private const double Jump = 3;

    /// <summary>Chains of sample indices. A stretch that its facing side gives already is left out, but for its ends.</summary>
    /// <param name="balls">The balls.</param>
    /// <param name="isTaken">Samples that count.</param>
    public static List<int[]> Of(MedialBalls balls, Func<int, bool> isTaken)
    {
        var samples = balls.Samples;
        var chains = new List<int[]>();
        var isCovered = new bool[samples.Count];
        var current = new List<int>();
        for (var r = 0; r + 1 < samples.Starts.Length; r++)
        {
            var (from, to) = (samples.Starts[r], samples.Starts[r + 1]);
            var wasDouble = false;
            for (var i = from; i < to; i++)
            {
                if (!isTaken(i))
                {
                    End();
                    wasDouble = false;
                    continue;
                }
                if (current.Count > 0 && balls.Centre(current[^1]).DistanceTo(balls.Centre(i)) > Jump * samples.Step) End();
                var isDouble = balls.Partner[i] is >= 0 and var partner && isCovered[partner] && balls.Centre(partner).DistanceTo(balls.Centre(i)) < samples.Step / 2;
                isCovered[i] = true;
                if (isDouble && wasDouble)
                {
                    // In the middle of a stretch seen from the other side: the chain ends here and may begin again.
                    if (current.Count > 1) End();
                    current.Clear();
                }
                current.Add(i);
                wasDouble = isDouble;
            }
            End();
        }
        return chains;

        void End()
        {
            if (current.Count > 1 || current is [var one] && !IsInner(one)) chains.Add([.. current]);
            current.Clear();
        }

        bool IsInner(int i) => balls.Partner[i] is >= 0 and var p && isCovered[p] && p != i && balls.Centre(p).DistanceTo(balls.Centre(i)) < samples.Step / 2;
    }

    /// <summary>The middles of a chain, without those that lie on the way between others (Douglas and Peucker 1973).</summary>
    public static List<Point> Line(MedialBalls balls, int[] chain, double tolerance)
    {
        var points = chain.Select(balls.Centre).ToList();
        var isKept = new bool[points.Count];
        isKept[0] = isKept[^1] = true;
        var open = new Stack<(int, int)>([(0, points.Count - 1)]);
        while (open.TryPop(out var stretch))
        {
            var (a, b) = stretch;
            var (worst, most) = (-1, tolerance);
            for (var i = a + 1; i < b; i++)
            {
                var off = Polygons.DistanceToStretch(points[i], points[a], points[b]);
                if (off > most) (worst, most) = (i, off);
            }
            if (worst < 0) continue;
            isKept[worst] = true;
            open.Push((a, worst));
            open.Push((worst, b));
        }
        return [.. points.Where((p, i) => isKept[i])];
    }
}
