using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// Finds what is narrower than a width. At samples along the cuts a ball that touches the cut is shrunk until no facing edge
/// enters it (the shrinking ball of Ma, Bae and Choi 2012); its diameter is the local width between facing edges. What runs
/// down to nothing between a sample and the edge that faces it is a sharp tip and no finding, whatever the angle of its ball:
/// told by the course of the widths along the cut between the two, not by the ball alone.
/// </summary>
public static class WidthSurvey
{
    private const int MostShrinks = 40;

    /// <summary>Samples lie no closer and no farther apart, mm.</summary>
    private const double FinestStep = 0.05;
    private const double CoarsestStep = 0.25;

    /// <summary>So many samples across the least width.</summary>
    private const double StepsAcross = 6;

    /// <summary>An end whose blunt part is shorter than this share of the width before it is a tip.</summary>
    private const double BluntShare = 0.35;

    /// <summary>A tip is looked for no farther along the cut than this many radii: what tapers more slowly (less than 4 degrees) is a strand.</summary>
    private const double LongestTip = 60;

    /// <summary>A place that reaches no farther than this share of the least width is the end of a tip.</summary>
    private const double LeastExtent = 0.25;

    /// <summary>A place is a strand where it keeps within this of its least width for so many times that width.</summary>
    private const double Same = 1.15;
    private const double StrandLength = 4;

    /// <summary>All places narrower than a width, the narrowest first.</summary>
    /// <param name="rings">Outline and openings, read even-odd; lines of no area are left out.</param>
    /// <param name="leastMm">The width that the stock bears, mm, above 0.</param>
    public static List<ThinPlace> Of(IReadOnlyList<Path> rings, double leastMm)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(leastMm);
        var flat = rings.Where(r => r.IsClosed && Math.Abs(r.SignedArea) > 1e-6).Select(r => r.Flat.ToArray()).ToList();
        if (flat.Count == 0) return [];
        var step = Math.Clamp(leastMm / StepsAcross, FinestStep, CoarsestStep);
        var samples = new BoundarySamples(flat, step, leastMm, fromAir: false);
        var places = Places(samples, Balls(samples, leastMm), leastMm, isGap: false);
        var air = new BoundarySamples(flat, step, leastMm, fromAir: true);
        places.AddRange(Places(air, Balls(air, leastMm), leastMm, isGap: true));
        return [.. places.OrderBy(p => p.WidthMm)];
    }

    /// <summary>Radius of the ball at each sample, half the least width where it is not narrow, and the sample that it touches on the other side.</summary>
    private static (double Radius, int Partner)[] Balls(BoundarySamples samples, double least)
    {
        var balls = new (double, int)[samples.At.Count];
        Parallel.For(0, balls.Length, i => balls[i] = Shrink(samples, i, least / 2));
        return balls;
    }

    private static (double Radius, int Partner) Shrink(BoundarySamples samples, int i, double most)
    {
        var (p, n) = (samples.At[i], samples.Inward[i]);
        var (radius, partner) = (most, -1);
        for (var k = 0; k < MostShrinks; k++)
        {
            if (samples.NearestFacing(p + n * radius, radius * (1 - 1e-9), i) is not { } near) break;
            var d = near.Point - p;
            var depth = d.Dot(n);
            if (depth <= 1e-12) break;
            var smaller = d.Dot(d) / (2 * depth);
            if (smaller >= radius * (1 - 1e-9)) break;
            (radius, partner) = (smaller, near.Sample);
        }
        return (radius, partner);
    }

    private static List<ThinPlace> Places(BoundarySamples samples, (double Radius, int Partner)[] balls, double least, bool isGap)
    {
        var places = new List<ThinPlace>();
        var isCounted = new bool[balls.Length];
        for (var i = 0; i < balls.Length; i++) isCounted[i] = balls[i].Partner >= 0 && !RunsToATip(samples, balls, i);
        if (isGap) places.AddRange(Holes(samples, balls, isCounted));
        var groups = new DisjointSets(balls.Length);
        for (var r = 0; r + 1 < samples.Starts.Count; r++)
        {
            var (from, to) = (samples.Starts[r], samples.Starts[r + 1]);
            for (var i = from; i < to; i++)
            {
                var next = i + 1 < to ? i + 1 : from;
                if (isCounted[i] && isCounted[next]) groups.Join(i, next);
                if (isCounted[i] && isCounted[balls[i].Partner]) groups.Join(i, balls[i].Partner);
            }
        }
        JoinByCentre(samples, balls, isCounted, groups);
        foreach (var group in Enumerable.Range(0, balls.Length).Where(i => isCounted[i]).GroupBy(groups.Of))
        {
            var narrowest = group.MinBy(i => balls[i].Radius);
            var width = 2 * balls[narrowest].Radius;
            var extent = Reach(group.Select(i => Centre(samples, balls, i)));
            if (extent < LeastExtent * least && group.Count() < 4) continue;
            var plateau = Reach(group.Where(i => 2 * balls[i].Radius <= Same * width).Select(i => Centre(samples, balls, i)));
            var kind = isGap ? ThinKind.Gap : plateau > StrandLength * width ? ThinKind.Strand : ThinKind.Neck;
            places.Add(new ThinPlace(kind, Centre(samples, balls, narrowest), width, extent));
        }
        return places;
    }

    private static Point Centre(BoundarySamples samples, (double Radius, int Partner)[] balls, int i) => samples.At[i] + samples.Inward[i] * balls[i].Radius;

    /// <summary>Balls whose middles all but meet are of one place, also where neither touches the other's samples.</summary>
    private static void JoinByCentre(BoundarySamples samples, (double Radius, int Partner)[] balls, bool[] isCounted, DisjointSets groups)
    {
        var seen = new Dictionary<(int, int), int>();
        for (var i = 0; i < balls.Length; i++)
        {
            if (!isCounted[i]) continue;
            var c = Centre(samples, balls, i);
            var (x, y) = ((int)Math.Floor(c.X / samples.Step), (int)Math.Floor(c.Y / samples.Step));
            for (var dx = -1; dx <= 1; dx++)
            {
                for (var dy = -1; dy <= 1; dy++)
                {
                    if (seen.TryGetValue((x + dx, y + dy), out var other)) groups.Join(i, other);
                }
            }
            seen.TryAdd((x, y), i);
        }
    }

    /// <summary>
    /// Along the cut from a sample to the edge that faces it the width shrinks to nothing, or to an end that is blunt only for a
    /// small share of the width at the sample.
    /// </summary>
    private static bool RunsToATip(BoundarySamples samples, (double Radius, int Partner)[] balls, int sample)
    {
        var (radius, partner) = balls[sample];
        if (samples.Ring[sample] != samples.Ring[partner]) return false;
        var (from, to) = (samples.Starts[samples.Ring[sample]], samples.Starts[samples.Ring[sample] + 1]);
        return IsTipBetween(sample, partner, 1) || IsTipBetween(sample, partner, -1);

        bool IsTipBetween(int begin, int end, int way)
        {
            double blunt = 0, walked = 0;
            for (var i = begin; i != end;)
            {
                var next = i + way < from ? to - 1 : i + way >= to ? from : i + way;
                var pace = samples.At[i].DistanceTo(samples.At[next]);
                walked += pace;
                if (next != end && (balls[next].Partner < 0 || balls[next].Radius > radius * 1.05)) blunt += pace;
                if (blunt > Math.Max(BluntShare * 2 * radius, samples.Step) || walked > LongestTip * radius) return false;
                i = next;
            }
            return true;
        }
    }

    /// <summary>Openings that no ball of the least width fits into; their samples are gaps no more.</summary>
    private static IEnumerable<ThinPlace> Holes(BoundarySamples air, (double Radius, int Partner)[] balls, bool[] isCounted)
    {
        for (var r = 0; r + 1 < air.Starts.Count; r++)
        {
            var ring = Enumerable.Range(air.Starts[r], air.Starts[r + 1] - air.Starts[r]).ToList();
            if (ring.Count == 0 || !ring.TrueForAll(i => balls[i].Partner >= 0 && air.Ring[balls[i].Partner] == r)) continue;
            var widest = ring.MaxBy(i => balls[i].Radius);
            foreach (var i in ring) isCounted[i] = false;
            yield return new ThinPlace(
                ThinKind.Hole, Centre(air, balls, widest), 2 * balls[widest].Radius, Reach(ring.Select(i => air.At[i])));
        }
    }

    /// <summary>The diagonal of the box round some points.</summary>
    private static double Reach(IEnumerable<Point> points)
    {
        var box = points.Aggregate(Box.Empty, (all, p) => all.Include(p));
        return box.IsEmpty ? 0 : Math.Sqrt(box.Width * box.Width + box.Height * box.Height);
    }
}
