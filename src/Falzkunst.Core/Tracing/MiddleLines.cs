using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>The middle of one stroke, point by point.</summary>
/// <param name="Points">Where it runs, dots.</param>
/// <param name="IsClosed">It goes round.</param>
/// <param name="Width">How wide the stroke is, dots; 0 where it was not measured.</param>
internal sealed record StrokeChain(List<Point> Points, bool IsClosed, double Width);

/// <summary>
/// The middle of strokes. Stages: thin; graph; prune spurs and merge twin knots; bring each point half way between the edges of its stroke;
/// where strokes meet, take out what lies within the crossing, lead through what goes straight on, and bring the rest to where it meets;
/// fit.
/// </summary>
internal static class MiddleLines
{
    /// <summary>Lines that deviate by no more go straight through a knot.</summary>
    private const double Through = 40 * Math.PI / 180;

    /// <param name="raster">The ink.</param>
    /// <param name="threshold">From how much on a dot is inked.</param>
    /// <param name="leastArea">Less ink than this is a speck, dots.</param>
    /// <param name="budget">Work is drawn from it.</param>
    public static List<StrokeChain> Find(InkRaster raster, double threshold, double leastArea, Budget budget)
    {
        var mask = new InkMask(raster, threshold, leastArea);
        var radii = mask.Distances();
        budget.Work(raster.Ink.Length / 4);
        Thinning.Thin(mask, budget);
        var skeleton = Skeleton.Of(mask, radii);
        budget.Look();
        skeleton.Prune();
        skeleton.Merge();
        double RadiusAt(Point p) => Math.Sqrt(radii[(int)(p.Y + 1) * mask.Width + (int)(p.X + 1)]);
        Parallel.ForEach(skeleton.Branches, OnAllCores.OfCaller, b => StrokeMiddle.Refine(b, raster, threshold, RadiusAt));
        var usual = Median(skeleton.Branches.Where(b => b.Width > 0).SelectMany(b => Enumerable.Repeat(b.Width, 1 + (int)(b.Length / 10))));
        var links = Meet(skeleton);
        return [.. Chains(skeleton, links).Select(c => c.Width > 0 ? c : c with { Width = usual })];
    }

    /// <summary>The curve along a stroke's middle.</summary>
    public static TracedLine Fitted(StrokeChain chain, FitScale scale)
    {
        var width = chain.Width;
        // Thinning rounds corners by a share of the stroke's width.
        var wide = scale with { Tolerance = Math.Max(scale.Tolerance, width * 0.05), Corner = Math.Max(scale.Corner, Math.Clamp(width / 4, 1.2, 3)) };
        return new TracedLine(OutlineFit.Fit(chain.Points, chain.IsClosed, wide), width);
    }

    private static double Median(IEnumerable<double> values) => values.Order().ToList() is { Count: > 0 } sorted ? sorted[sorted.Count / 2] : 1;

    /// <summary>Brings stretches to where they meet. What goes straight through a knot is linked: by stretch and end to stretch and end.</summary>
    private static Dictionary<(Branch, bool), (Branch, bool)> Meet(Skeleton skeleton)
    {
        var links = new Dictionary<(Branch, bool), (Branch, bool)>();
        for (var k = 0; k < skeleton.Knots.Count; k++)
        {
            var knot = skeleton.Knots[k];
            var ends = skeleton.At(k).ToList();
            if (ends.Count == 0) continue;
            foreach (var (branch, atStart) in ends) BranchEnd.Clear(branch, atStart, knot);
            var ways = ends.ConvertAll(e => BranchEnd.Way(e.Branch, e.AtStart, knot.Radius));
            var free = Enumerable.Range(0, ends.Count).ToList();
            var chords = new List<(Point A, Point B)>();
            foreach (var (i, j) in Enumerable.Range(0, ends.Count).SelectMany(i => Enumerable.Range(i + 1, ends.Count - i - 1).Select(j => (i, j)))
                .Where(p => Deviation(ways[p.i], ways[p.j]) <= Through).OrderBy(p => Deviation(ways[p.i], ways[p.j])))
            {
                if (!free.Contains(i) || !free.Contains(j) || (ReferenceEquals(ends[i].Branch, ends[j].Branch) && ends[i].AtStart == ends[j].AtStart)) continue;
                free.Remove(i);
                free.Remove(j);
                (links[ends[i]], links[ends[j]]) = (ends[j], ends[i]);
                chords.Add((BranchEnd.At(ends[i].Branch, ends[i].AtStart), BranchEnd.At(ends[j].Branch, ends[j].AtStart)));
            }
            var centre = BranchEnd.Meeting(free.Select(i => (BranchEnd.At(ends[i].Branch, ends[i].AtStart), ways[i])), knot);
            foreach (var i in free)
            {
                var at = BranchEnd.At(ends[i].Branch, ends[i].AtStart);
                BranchEnd.Extend(ends[i].Branch, ends[i].AtStart, chords.Count > 0 ? BranchEnd.Onto(at, ways[i], chords, knot) : centre);
            }
            // Two that meet at an angle are one line with a corner.
            if (free.Count == 2 && chords.Count == 0) (links[ends[free[0]]], links[ends[free[1]]]) = (ends[free[1]], ends[free[0]]);
        }
        return links;
    }

    private static double Deviation(Point a, Point b) => Math.Acos(Math.Clamp(-a.Dot(b), -1, 1));

    /// <summary>Stretches put together over their links.</summary>
    private static IEnumerable<StrokeChain> Chains(Skeleton skeleton, Dictionary<(Branch, bool), (Branch, bool)> links)
    {
        var used = new HashSet<Branch>();
        // Chains with ends first, what is left goes round.
        foreach (var branch in skeleton.Branches.OrderBy(b => b.From == Branch.Loop || links.ContainsKey((b, true)) && links.ContainsKey((b, false))))
        {
            if (used.Contains(branch) || branch.Points.Count == 0) continue;
            if (branch.From == Branch.Loop)
            {
                used.Add(branch);
                yield return new(branch.Points, true, branch.Width);
                continue;
            }
            var points = new List<Point>();
            var widths = new List<double>();
            var isClosed = false;
            // Begin at the end that is not linked.
            var (at, forward) = (branch, !links.ContainsKey((branch, true)) || links.ContainsKey((branch, false)));
            while (used.Add(at))
            {
                points.AddRange(forward ? at.Points : Enumerable.Reverse(at.Points));
                if (at.Width > 0) widths.Add(at.Width);
                if (!links.TryGetValue((at, !forward), out var next)) break;
                (at, forward) = next;
                isClosed = ReferenceEquals(at, branch);
            }
            if (points.Count == 1) points.Add(points[0] + new Point(0.5, 0));
            yield return new(points, isClosed && points.Count > 3, widths.Count > 0 ? widths.Average() : 0);
        }
    }
}
