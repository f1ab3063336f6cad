using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// Finds what is narrower than a width. In order: an edge sample (<see cref="BoundarySamples"/>); a ball for each sample by
/// shrinking (<see cref="MedialBalls"/>); balls gathered into places by the persistence of their minima; a place is a strand
/// where it keeps its width, else a neck or gap; rings in which no ball of the width has room are holes or slivers.
/// </summary>
public static class WidthSurvey
{
    /// <summary>Samples lie no closer and no farther apart, mm.</summary>
    private const double FinestStep = 0.05;
    private const double CoarsestStep = 0.25;

    /// <summary>So many samples across the least width.</summary>
    private const double StepsAcross = 6;

    /// <summary>A place that reaches no farther than this share of the least width is the end of a tip.</summary>
    private const double LeastExtentShare = 0.25;

    /// <summary>What reaches no farther than this is no paper but a crumb of the drawing, mm.</summary>
    private const double CrumbExtentMm = 0.05;

    /// <summary>A place is a strand where it keeps within this of its least width for so many times that width.</summary>
    private const double PlateauRatio = 1.15;
    private const double StrandAspect = 4;

    /// <summary>Two places are told apart where it is so many times wider between them than in the wider one's narrowest spot.</summary>
    private const double Persistence = 1.08;

    /// <summary>So few samples are no place of their own beside another one.</summary>
    private const int FewestSamples = 6;

    /// <summary>All places narrower than a width, the narrowest first.</summary>
    /// <param name="rings">Outline and openings, read even-odd; lines of no area are left out.</param>
    /// <param name="leastMm">The width that the stock bears, mm, above 0.</param>
    /// <param name="slits">Cuts that do not close, in the material.</param>
    public static List<ThinPlace> ThinPlaces(IReadOnlyList<Path> rings, double leastMm, IReadOnlyList<Path>? slits = null)
    {
        var flat = Flat(rings);
        if (flat.Count == 0) return [];
        return [.. Material(flat, Flat(slits ?? [], areClosed: false), leastMm, Budget.Unlimited).Places.Concat(Air(flat, leastMm, Budget.Unlimited).Places).Select(p => p.Place).OrderBy(p => p.WidthMm)];
    }

    /// <summary>Distance between samples that tell widths up to <paramref name="least"/> apart, mm.</summary>
    internal static double StepFor(double least) => Math.Clamp(least / StepsAcross, FinestStep, CoarsestStep);

    /// <summary>Places of the material alone.</summary>
    /// <param name="rings">Flat rings of the paper.</param>
    /// <param name="slits">Flat cuts that do not close.</param>
    /// <param name="least">Widths below this are places, mm.</param>
    /// <param name="budget">What the work is drawn from.</param>
    /// <param name="step">Distance between samples, mm; 0 for as fine as the width asks.</param>
    /// <exception cref="BudgetSpent">There is more of it than there is budget.</exception>
    internal static (MedialBalls Balls, List<NarrowPlace> Places) Material(IReadOnlyList<Point[]> rings, IReadOnlyList<Point[]> slits, double least, Budget budget, double step = 0)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(least);
        var balls = new MedialBalls(new BoundarySamples(rings, slits, Math.Max(step, StepFor(least)), least, fromAir: false, budget), least, budget);
        var places = PlacesOf(balls, least, isGap: false);
        places.AddRange(RingsWithoutBall(balls, rings.Count, IsOuter).Select(p => p with { Place = p.Place with { Kind = ThinKind.Strand } }));
        return (balls, places);

        // From the outside of an outline inward is towards its middle.
        bool IsOuter(int ring) => Polygons.SignedArea(rings[ring]) * TurningSign(balls.Samples, ring) > 0;
    }

    /// <summary>Gaps between cuts, and openings that are too small.</summary>
    internal static (MedialBalls Balls, List<NarrowPlace> Places) Air(IReadOnlyList<Point[]> rings, double least, Budget budget, double step = 0)
    {
        var balls = new MedialBalls(new BoundarySamples(rings, [], Math.Max(step, StepFor(least)), least, fromAir: true, budget), least, budget);
        var holes = RingsWithoutBall(balls, rings.Count, ring => Polygons.SignedArea(rings[ring]) * TurningSign(balls.Samples, ring) > 0).ToList();
        foreach (var i in holes.SelectMany(h => h.Samples)) balls.IsCounted[i] = false;
        return (balls, [.. holes, .. PlacesOf(balls, least, isGap: true)]);
    }

    /// <summary>The rings or lines that have an extent, as corners.</summary>
    internal static List<Point[]> Flat(IEnumerable<Path> paths, bool areClosed = true) => areClosed
        ? [.. paths.Where(r => r.IsClosed && Math.Abs(r.SignedArea) > 1e-6).Select(r => r.Flat.ToArray())]
        : [.. paths.Where(r => r.Length > 1e-3).Select(r => r.Flat.ToArray()).Where(f => f.Length > 1)];

    /// <summary>1 where what is looked at lies on the left of the ring's course in a plane with y up, else -1.</summary>
    private static double TurningSign(BoundarySamples samples, int ring)
    {
        for (var i = samples.Starts[ring]; i < samples.Starts[ring + 1]; i++)
        {
            var (a, b) = samples.Edge[i];
            if (a != b) return Math.Sign((b - a).Cross(samples.Inward[i]));
        }
        return 0;
    }

    private static List<NarrowPlace> PlacesOf(MedialBalls balls, double least, bool isGap)
    {
        var (samples, isCounted) = (balls.Samples, balls.IsCounted);
        var groups = PersistentGroups(balls);
        var places = new List<NarrowPlace>();
        foreach (var group in Enumerable.Range(0, samples.Count).Where(i => isCounted[i]).GroupBy(groups.Find).Select(g => g.ToArray()))
        {
            var narrowest = group.MinBy(i => balls.Radius[i]);
            var width = 2 * balls.Radius[narrowest];
            var extent = Diagonal(group.Select(balls.Centre));
            if (extent < CrumbExtentMm || (extent < LeastExtentShare * least && group.Length < 4)) continue;
            var plateau = Diagonal(group.Where(i => 2 * balls.Radius[i] <= PlateauRatio * width).Select(balls.Centre));
            var kind = isGap ? ThinKind.Gap : plateau > StrandAspect * width ? ThinKind.Strand : ThinKind.Neck;
            places.Add(new NarrowPlace(new ThinPlace(kind, balls.Centre(narrowest), width, extent), group));
        }
        return places;
    }

    /// <summary>
    /// Samples of one place together: those beside each other, those that face each other, those whose balls all but meet. From the
    /// narrowest up, two groups stay apart where it is clearly wider between them than in either, as where a leg meets a wire: a
    /// place is what a hill of widths parts from the next (persistence of minima, after Edelsbrunner, Letscher and Zomorodian 2002).
    /// </summary>
    private static DisjointSets PersistentGroups(MedialBalls balls)
    {
        var (samples, isCounted, radius) = (balls.Samples, balls.IsCounted, balls.Radius);
        var links = new List<(double Width, int A, int B)>();
        for (var r = 0; r + 1 < samples.Starts.Length; r++)
        {
            for (var i = samples.Starts[r]; i < samples.Starts[r + 1]; i++)
            {
                Link(i, samples.Beside(i, 1));
                // A ball by a joint may touch the corner there, which ends a stretch of another place.
                if (balls.Partner[i] >= 0 && balls.Centre(i).DistanceTo(balls.Centre(balls.Partner[i])) < samples.Step) Link(i, balls.Partner[i]);
            }
        }
        LinkByCentre(balls, Link);
        links.Sort();
        var groups = new DisjointSets(samples.Count);
        var narrowest = radius.ToArray();
        foreach (var (width, one, other) in links)
        {
            var (a, b) = (groups.Find(one), groups.Find(other));
            if (a == b || width >= Persistence * Math.Max(narrowest[a], narrowest[b])) continue;
            var least = Math.Min(narrowest[a], narrowest[b]);
            groups.Join(a, b);
            narrowest[groups.Find(a)] = least;
        }
        // What lies on the hill itself goes with whichever place it touches.
        var sizes = new int[samples.Count];
        for (var i = 0; i < samples.Count; i++) sizes[groups.Find(i)]++;
        foreach (var (_, one, other) in links)
        {
            var (a, b) = (groups.Find(one), groups.Find(other));
            if (a == b || Math.Min(sizes[a], sizes[b]) >= FewestSamples) continue;
            var both = sizes[a] + sizes[b];
            groups.Join(a, b);
            sizes[groups.Find(a)] = both;
        }
        return groups;

        void Link(int i, int k)
        {
            if (i != k && isCounted[i] && isCounted[k]) links.Add((Math.Max(radius[i], radius[k]), i, k));
        }
    }

    private static void LinkByCentre(MedialBalls balls, Action<int, int> link)
    {
        var seen = new Dictionary<(int, int), int>();
        var step = balls.Samples.Step;
        for (var i = 0; i < balls.Samples.Count; i++)
        {
            if (!balls.IsCounted[i]) continue;
            var c = balls.Centre(i);
            var (x, y) = ((int)Math.Floor(c.X / step), (int)Math.Floor(c.Y / step));
            for (var dx = -1; dx <= 1; dx++)
            {
                for (var dy = -1; dy <= 1; dy++)
                {
                    if (seen.TryGetValue((x + dx, y + dy), out var other) && balls.Centre(other).DistanceTo(c) < step) link(i, other);
                }
            }
            seen.TryAdd((x, y), i);
        }
    }

    /// <summary>Rings with nothing but tips within, and no ball of the least width: openings that do not come out, slivers of paper.</summary>
    private static IEnumerable<NarrowPlace> RingsWithoutBall(MedialBalls balls, int rings, Func<int, bool> looksInward)
    {
        var samples = balls.Samples;
        for (var r = 0; r < rings; r++)
        {
            var (from, to) = (samples.Starts[r], samples.Starts[r + 1]);
            if (!balls.IsNarrowAllRound(r) || !looksInward(r)) continue;
            var ring = Enumerable.Range(from, to - from).ToArray();
            // A sliver of paper that is narrow as a strand is a place already.
            if (!samples.IsAir && ring.Any(i => balls.IsCounted[i])) continue;
            var widest = ring.MaxBy(i => balls.Radius[i]);
            yield return new NarrowPlace(
                new ThinPlace(ThinKind.Hole, balls.Centre(widest), 2 * balls.Radius[widest], Diagonal(ring.Select(i => samples.At[i]))), ring);
        }
    }

    /// <summary>The diagonal of the box round some points.</summary>
    private static double Diagonal(IEnumerable<Point> points)
    {
        var box = Box.Around(points);
        return box.IsEmpty ? 0 : Math.Sqrt(box.Width * box.Width + box.Height * box.Height);
    }
}

/// <summary>A place with the samples that it was seen at.</summary>
internal sealed record NarrowPlace(ThinPlace Place, int[] Samples);
