using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>Lines along the medial axis: the middles of balls at neighbouring samples, one after the other.</summary>
internal static class MedialChains
{
    /// <summary>Middles farther apart than this many steps are of two branches.</summary>
    private const double Jump = 3;

    /// <summary>How near a simplified course of widths keeps to the whole one, mm.</summary>
    private const double CourseTolerance = 0.01;

    /// <summary>Chains of sample indices. A stretch that its facing side gives already is left out, but for its ends.</summary>
    /// <param name="balls">The balls.</param>
    /// <param name="isTaken">Samples that count.</param>
    public static List<int[]> Trace(MedialBalls balls, Func<int, bool> isTaken)
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

    /// <summary>A chain cut where what its samples belong to changes.</summary>
    public static IEnumerable<int[]> Runs(int[] chain, Func<int, int> belongsTo)
    {
        for (int from = 0, to; from < chain.Length; from = to)
        {
            for (to = from + 1; to < chain.Length && belongsTo(chain[to]) == belongsTo(chain[from]);) to++;
            yield return chain[from..to];
        }
    }

    /// <summary>The middles of a chain, without those that lie on the way between others (Douglas and Peucker 1973).</summary>
    public static List<Point> Line(int[] chain, Func<int, Point> middle, double tolerance)
    {
        var points = Array.ConvertAll(chain, i => middle(i));
        return [.. Kept(points.Length, (i, a, b) => Polygons.DistanceToStretch(points[i], points[a], points[b]), tolerance).Select(i => points[i])];
    }

    /// <summary>The middles of a chain with the widths there, without those between which both run straight.</summary>
    public static ImmutableArray<WidthAt> Widths(MedialBalls balls, int[] chain)
    {
        var points = Array.ConvertAll(chain, balls.Centre);
        return [.. Kept(points.Length, Off, CourseTolerance).Select(i => new WidthAt(points[i], 2 * balls.Radius[chain[i]]))];

        double Off(int i, int a, int b)
        {
            var (before, after) = (points[a].DistanceTo(points[i]), points[i].DistanceTo(points[b]));
            var between = 2 * (balls.Radius[chain[a]] * after + balls.Radius[chain[b]] * before) / Math.Max(before + after, 1e-12);
            return Math.Max(Polygons.DistanceToStretch(points[i], points[a], points[b]), Math.Abs(2 * balls.Radius[chain[i]] - between));
        }
    }

    /// <summary>Which of so many to keep, in order, so that none between two of them is off by more than the tolerance.</summary>
    private static IEnumerable<int> Kept(int count, Func<int, int, int, double> off, double tolerance)
    {
        var isKept = new bool[count];
        isKept[0] = isKept[^1] = true;
        var open = new Stack<(int, int)>([(0, count - 1)]);
        while (open.TryPop(out var stretch))
        {
            var (a, b) = stretch;
            var (worst, most) = (-1, tolerance);
            for (var i = a + 1; i < b; i++)
            {
                var by = off(i, a, b);
                if (by > most) (worst, most) = (i, by);
            }
            if (worst < 0) continue;
            isKept[worst] = true;
            open.Push((a, worst));
            open.Push((worst, b));
        }
        return Enumerable.Range(0, count).Where(i => isKept[i]);
    }
}
