using System.Runtime.ExceptionServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// At each sample along the cuts the ball that touches the cut there, shrunk until no facing edge enters it (the shrinking ball
/// of Ma, Bae and Choi 2012), and whether what is narrow there is more than the end of a tip: told by the course of the widths
/// along the cut between sample and facing edge, not by the ball alone, whatever its angle.
/// </summary>
internal sealed class MedialBalls
{
    private const int MostShrinks = 40;

    /// <summary>An end whose blunt part is shorter than this share of the width before it is a tip.</summary>
    private const double BluntShare = 0.35;

    /// <summary>A tip narrows by at least this much on each side along the cut: 3.4 degrees in all. What tapers less is a strand.</summary>
    private const double LeastSlope = 0.03;

    /// <summary>Radii along a tip may be larger than its slope says by this share.</summary>
    private const double Slack = 1.05;

    /// <summary>A cut that comes round in no more than this many radii makes an end too short to tear off, blunt or rounded.</summary>
    private const double ShortEnd = 6;

    /// <summary>A tip is looked for no farther along the cut than this many radii.</summary>
    private const double LongestTip = 60;

    private const int NotLookedAt = -2;

    public BoundarySamples Samples { get; }

    /// <summary>Radius of the ball at each sample; half the width asked for where it is not narrower.</summary>
    public double[] Radius { get; }

    /// <summary>The sample that the ball touches on the other side; negative where it is not narrow, or nobody asked.</summary>
    public int[] Partner { get; }

    /// <summary>Narrow, and no tip.</summary>
    public bool[] IsCounted { get; }

    /// <summary>Shrinks a ball at every sample.</summary>
    /// <param name="samples">Along the cuts.</param>
    /// <param name="least">Widths from this on are not told apart, mm.</param>
    /// <param name="budget">What the work is drawn from.</param>
    /// <param name="isWanted">Samples for which it does not hold are not looked at; null for all.</param>
    /// <exception cref="BudgetSpent">The cuts lie too close for what there is of it.</exception>
    public MedialBalls(BoundarySamples samples, double least, Budget budget, Func<Point, bool>? isWanted = null)
    {
        Samples = samples;
        var count = samples.Count;
        (Radius, Partner, IsCounted) = (new double[count], new int[count], new bool[count]);
        AtOnce(count, i =>
        {
            (Radius[i], Partner[i]) = isWanted is null || isWanted(samples.At[i]) ? Shrink(i, least / 2, budget) : (least / 2, NotLookedAt);
        });
        AtOnce(count, i => IsCounted[i] = Partner[i] >= 0 && !RunsToATip(i, budget));
    }

    /// <summary>For each sample on all cores; what ends the budget comes out as it is.</summary>
    private static void AtOnce(int count, Action<int> each)
    {
        try
        {
            Parallel.For(0, count, OnAllCores.OfCaller, each);
        }
        catch (AggregateException all) when (all.InnerExceptions.All(e => e is BudgetSpent or OperationCanceledException))
        {
            ExceptionDispatchInfo.Throw(all.InnerExceptions[0]);
        }
    }

    /// <summary>Every ball of a ring touches that ring itself on its other side.</summary>
    public bool IsNarrowAllRound(int ring)
    {
        for (var i = Samples.Starts[ring]; i < Samples.Starts[ring + 1]; i++)
        {
            if (Partner[i] < 0 || Samples.Ring[Partner[i]] != ring) return false;
        }
        return Samples.Starts[ring] < Samples.Starts[ring + 1];
    }

    /// <summary>The middle of a sample's ball: a point of the medial axis.</summary>
    public Point Centre(int i) => Samples.At[i] + Samples.Inward[i] * Radius[i];

    private (double Radius, int Partner) Shrink(int i, double most, Budget budget)
    {
        long visited = 1;
        var (p, n) = (Samples.At[i], Samples.Inward[i]);
        var (radius, partner) = (most, -1);
        for (var k = 0; k < MostShrinks; k++)
        {
            if (Samples.NearestFacing(p + n * radius, radius * (1 - 1e-9), i, ref visited) is not { } near) break;
            var d = near.Point - p;
            var depth = d.Dot(n);
            if (depth <= 1e-12) break;
            var smaller = d.Dot(d) / (2 * depth);
            if (smaller >= radius * (1 - 1e-9)) break;
            (radius, partner) = (smaller, near.Sample);
        }
        budget.Work(visited);
        // By a corner the ball may reach through a narrow part to the back of its far edge, since the near one does not face it.
        var isBehind = partner >= 0 && (p + n * radius - Samples.At[partner]).Dot(Samples.Inward[partner]) < -Samples.Step;
        return isBehind ? (most, NotLookedAt) : (radius, partner);
    }

    /// <summary>
    /// Along the cut from a sample to the edge that faces it the width shrinks steadily to nothing, or to an end that is blunt
    /// only for a small share of the width at the sample.
    /// </summary>
    private bool RunsToATip(int sample, Budget budget)
    {
        var (radius, partner) = (Radius[sample], Partner[sample]);
        if (Samples.Ring[sample] != Samples.Ring[partner]) return false;
        var ring = Samples.Ring[sample];
        var (from, to) = (Samples.Starts[ring], Samples.Starts[ring + 1]);
        var round = Samples.Along[to - 1] + Samples.At[to - 1].DistanceTo(Samples.At[from]);
        var ahead = (Samples.Along[partner] - Samples.Along[sample] + round) % round;
        return IsTipBetween(1, ahead) || IsTipBetween(-1, round - ahead);

        bool IsTipBetween(int way, double length)
        {
            if (length <= ShortEnd * radius) return true;
            if (length > LongestTip * radius) return false;
            double blunt = 0, walked = 0;
            budget.Work(8 + (long)(length / Samples.Step));
            for (var i = sample; i != partner;)
            {
                var next = Samples.Beside(i, way);
                var pace = Samples.At[i].DistanceTo(Samples.At[next]);
                walked += pace;
                var most = radius * Slack - LeastSlope * Math.Min(walked, length - walked);
                if (next != partner && Partner[next] != NotLookedAt && (Partner[next] < 0 || Radius[next] > most)) blunt += pace;
                if (blunt > Math.Max(BluntShare * 2 * radius, Samples.Step)) return false;
                i = next;
            }
            return true;
        }
    }
}
