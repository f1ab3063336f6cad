using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// What paper is added to make a piece stronger: for local growth balls of half the wanted width swept along the medial axis of
/// the thin places (a ball that is already that wide touches the outline from within, so that the sweep runs out into it without
/// a step), for even growth the piece moved outward. Then what would come nearer than half the kept gap to the half-way line
/// between two edges that face each other over air is taken away again; the half-way line is the medial axis of the air.
/// </summary>
internal sealed class Growth
{
    private readonly double _keptGap;

    /// <summary>Balls of the air about the piece: looked for once, since an addition may be limited twice.</summary>
    private readonly Lazy<MedialBalls> _air;

    /// <summary>Arcs of what is added lie within this of the true ones, mm.</summary>
    private const double ArcTolerance = 0.002;

    /// <summary>A ball that some cut enters deeper than this share of its radius is cut off by an end.</summary>
    private const double Inscribed = 0.97;

    /// <summary>A joint swells a strand for no more than so many radii to each side.</summary>
    private const double JointReach = 1.4;

    /// <summary>A strand ends where its radius changes by more than this share of it from sample to sample.</summary>
    private const double SameWidth = 0.05;

    /// <summary>Of an opening that is narrow all round, what is at least this share as wide as its widest spot is kept.</summary>
    private const double KeptShare = 0.5;

    /// <summary>Prepares to grow.</summary>
    /// <param name="own">The rings of the piece.</param>
    /// <param name="neighbours">Rings of other parts, not to be grown into.</param>
    /// <param name="keptGap">Least width of air between parts, mm; 0 where they may melt together.</param>
    /// <param name="most">How far additions reach beyond the piece at most, mm.</param>
    /// <param name="near">Where they lie; null for everywhere.</param>
    /// <param name="budget">What the work is drawn from.</param>
    public Growth(IReadOnlyList<Point[]> own, IReadOnlyList<Point[]> neighbours, double keptGap, double most, Func<Point, bool>? near, Budget budget)
    {
        _keptGap = keptGap;
        _air = new Lazy<MedialBalls>(() =>
        {
            var reach = keptGap + 2 * most;
            // No finer than the gap asks, however wide the air is that is looked at.
            var step = Math.Clamp(Math.Min(keptGap / 3, reach / 6), 0.05, 0.25);
            return new MedialBalls(new BoundarySamples([.. own, .. neighbours], [], step, reach, fromAir: true, budget), reach, budget, near);
        });
    }

    /// <summary>Balls of half a width along the thin places.</summary>
    /// <param name="balls">Of the material.</param>
    /// <param name="places">The thin places.</param>
    /// <param name="width">The width wanted, mm.</param>
    public static Region Sweep(MedialBalls balls, IEnumerable<NarrowPlace> places, double width)
    {
        var samples = balls.Samples;
        var isTaken = new bool[samples.Count];
        foreach (var i in places.SelectMany(p => p.Samples)) isTaken[i] = true;
        ReachToEnds(balls, isTaken);
        var isCutOff = new bool[samples.Count];
        Parallel.For(0, samples.Count, OnAllCores.OfCaller, i => isCutOff[i] = isTaken[i] && samples.HasEdgeWithin(balls.Centre(i), balls.Radius[i] * Inscribed));
        var chains = MedialChains.Trace(balls, i => isTaken[i]).Select(c => (Chain: c, IsSquare: Square(balls, c, isCutOff, width / 2))).ToList();
        var quarter = Arcs.QuarterEdges(width / 2);
        var radius = PastJoints(balls, isTaken);
        Point Middle(int i) => samples.At[i] + samples.Inward[i] * radius[i];
        var round = Region.Around(chains.SelectMany(c => Round(c.Chain, c.IsSquare, Middle)), width / 2, quarter);
        var square = Region.Around(chains.SelectMany(c => AtEnds(samples, c.Chain, c.IsSquare, Middle)), width / 2, quarter, flatEnds: true);
        return round.Union(square);
    }

    /// <summary>
    /// The radii without the swelling where a strand passes a joint: there the middle would dip towards the other strand and the far
    /// edge with it. Between narrower stretches on both sides a strand is as wide as the wider one of those.
    /// </summary>
    private static double[] PastJoints(MedialBalls balls, bool[] isTaken)
    {
        var samples = balls.Samples;
        var radius = balls.Radius.ToArray();
        Parallel.For(0, samples.Count, OnAllCores.OfCaller, i =>
        {
            if (isTaken[i]) radius[i] = Math.Min(radius[i], Math.Max(LeastWithin(i, 1), LeastWithin(i, -1)));
        });
        return radius;

        double LeastWithin(int sample, int way)
        {
            var (least, walked) = (balls.Radius[sample], 0.0);
            for (var i = sample; walked < JointReach * balls.Radius[sample];)
            {
                var next = samples.Beside(i, way);
                if (!isTaken[next] || next == sample) break;
                walked += samples.At[i].DistanceTo(samples.At[next]);
                least = Math.Min(least, balls.Radius[next]);
                i = next;
            }
            return least;
        }
    }

    /// <summary>The last stretch of a strand before a blunt end, which the survey takes for a tip, is grown as well.</summary>
    private static void ReachToEnds(MedialBalls balls, bool[] isTaken)
    {
        var samples = balls.Samples;
        var isFound = isTaken.ToArray();
        for (var r = 0; r + 1 < samples.Starts.Length; r++)
        {
            var (from, count) = (samples.Starts[r], samples.Starts[r + 1] - samples.Starts[r]);
            foreach (var way in new[] { 1, -1 })
            {
                var radius = 0.0;
                // Once round and a little more, since the first samples may follow on the last.
                for (var n = 0; n < 2 * count; n++)
                {
                    var i = from + (way > 0 ? n % count : count - 1 - n % count);
                    if (isFound[i]) radius = balls.Radius[i];
                    else if (radius > 0 && balls.Partner[i] >= 0 && Math.Abs(balls.Radius[i] - radius) <= SameWidth * radius) isTaken[i] = true;
                    else radius = 0;
                }
            }
        }
    }

    /// <summary>
    /// Where an end of the material cuts off the balls of a chain, and as far before it as the grown balls would reach over it: there
    /// the strand grows to its sides alone, so that a square end stays square where it is.
    /// </summary>
    private static bool[] Square(MedialBalls balls, int[] chain, bool[] isCutOff, double radius)
    {
        var isSquare = Array.ConvertAll(chain, i => isCutOff[i]);
        foreach (var way in new[] { 1, -1 })
        {
            var left = 0.0;
            for (var i = way > 0 ? 0 : chain.Length - 1; i >= 0 && i < chain.Length; i += way)
            {
                var before = i - way;
                if (before >= 0 && before < chain.Length) left -= balls.Centre(chain[i]).DistanceTo(balls.Centre(chain[before]));
                if (isCutOff[chain[i]]) left = radius;
                isSquare[i] |= left > 0;
            }
        }
        return isSquare;
    }

    private static IEnumerable<List<Point>> Round(int[] chain, bool[] isSquare, Func<int, Point> middle)
    {
        for (var i = 0; i < chain.Length; i++)
        {
            if (isSquare[i]) continue;
            var from = i;
            while (i + 1 < chain.Length && !isSquare[i + 1]) i++;
            yield return MedialChains.Line(chain[from..(i + 1)], middle, ArcTolerance);
        }
    }

    /// <summary>The square stretches of a chain, joined to the round ones and up to the ends themselves.</summary>
    private static IEnumerable<List<Point>> AtEnds(BoundarySamples samples, int[] chain, bool[] isSquare, Func<int, Point> middle)
    {
        for (var i = 0; i < chain.Length; i++)
        {
            if (!isSquare[i]) continue;
            var from = i;
            while (i + 1 < chain.Length && isSquare[i + 1]) i++;
            var (first, last) = (Math.Max(0, from - 1), Math.Min(chain.Length - 1, i + 1));
            if (first == last) continue;
            var line = MedialChains.Line(chain[first..(last + 1)], middle, ArcTolerance);
            if (line.Count < 2) continue;
            if (isSquare[first]) line.Insert(0, Beyond(line[1], line[0], HalfEdge(chain[first])));
            if (isSquare[last]) line.Add(Beyond(line[^2], line[^1], HalfEdge(chain[last])));
            yield return line;
        }

        double HalfEdge(int sample) => samples.Edge[sample].A.DistanceTo(samples.Edge[sample].B) / 2;

        static Point Beyond(Point from, Point to, double by)
        {
            var d = to - from;
            return d.Length < 1e-9 ? to : to + d * (by / d.Length);
        }
    }

    /// <summary>What of an addition may be added.</summary>
    /// <param name="added">The addition.</param>
    /// <param name="isStrict">Also notches that run to a tip are kept open.</param>
    public Region Limited(Region added, bool isStrict)
    {
        if (_keptGap <= 0) return added;
        var balls = _air.Value;
        var isKept = new bool[balls.Samples.Count];
        for (var i = 0; i < isKept.Length; i++) isKept[i] = balls.Partner[i] >= 0 && (isStrict || balls.IsCounted[i]);
        KeepOpenings(balls, isKept);
        var halfWay = MedialChains.Trace(balls, i => isKept[i]).Select(c => MedialChains.Line(c, balls.Centre, ArcTolerance));
        return added.Minus(Region.Around(halfWay, _keptGap / 2, Arcs.QuarterEdges(_keptGap / 2)));
    }

    /// <summary>Openings that are narrow all round would have nothing but tips: their wide part is kept.</summary>
    private static void KeepOpenings(MedialBalls balls, bool[] isKept)
    {
        var samples = balls.Samples;
        for (var r = 0; r + 1 < samples.Starts.Length; r++)
        {
            if (!balls.IsNarrowAllRound(r)) continue;
            var (from, to) = (samples.Starts[r], samples.Starts[r + 1]);
            var widest = balls.Radius[from..to].Max();
            for (var i = from; i < to; i++) isKept[i] |= balls.Radius[i] >= KeptShare * widest;
        }
    }
}
