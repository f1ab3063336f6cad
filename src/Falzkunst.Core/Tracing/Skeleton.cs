using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>A stretch of middle line between two places where lines meet or end.</summary>
/// <param name="points">Middles of dots, or truer places.</param>
/// <param name="from">Where it begins: the number of a knot, or <see cref="Free"/>.</param>
/// <param name="to">Where it ends.</param>
internal sealed class Branch(List<Point> points, int from, int to)
{
    /// <summary>An end at which nothing else begins.</summary>
    public const int Free = -1;

    /// <summary>It goes round and meets nothing.</summary>
    public const int Loop = -2;

    public List<Point> Points { get; set; } = points;
    public int From { get; set; } = from;
    public int To { get; set; } = to;

    /// <summary>Width of the stroke, dots; 0 where it was not measured.</summary>
    public double Width { get; set; }

    public double Length
    {
        get
        {
            double sum = 0;
            for (var i = 1; i < Points.Count; i++) sum += Points[i].DistanceTo(Points[i - 1]);
            return sum;
        }
    }

    public void Turn()
    {
        Points.Reverse();
        (From, To) = (To, From);
    }
}

/// <summary>A place where middle lines meet.</summary>
/// <param name="At">Where, dots.</param>
/// <param name="Radius">From there to the nearest paper, dots.</param>
internal sealed record Knot(Point At, double Radius);

/// <summary>Middle lines as a graph: stretches, and knots at which they meet.</summary>
internal sealed class Skeleton
{
    private Skeleton(List<Knot> knots, List<Branch> branches) => (Knots, Branches) = (knots, branches);

    public List<Knot> Knots { get; }
    public List<Branch> Branches { get; }

    /// <summary>The graph of a thinned mask.</summary>
    /// <param name="mask">Lines one dot wide.</param>
    /// <param name="radii">Squares of the distances to the paper before it was thinned.</param>
    public static Skeleton Of(InkMask mask, double[] radii)
    {
        var (ink, around) = (mask.IsInk, mask.Around);
        var knotOf = new Dictionary<int, int>();
        var knots = new List<Knot>();
        var crossings = Enumerable.Range(0, ink.Length).Where(i => ink[i] && Turns(i) >= 3).ToHashSet();
        foreach (var i in crossings)
        {
            if (knotOf.ContainsKey(i)) continue;
            var part = new List<int> { i };
            knotOf[i] = knots.Count;
            for (var k = 0; k < part.Count; k++)
            {
                foreach (var n in around.Select(a => part[k] + a).Where(n => crossings.Contains(n) && knotOf.TryAdd(n, knots.Count))) part.Add(n);
            }
            knots.Add(new Knot(part.Select(Middle).Aggregate((a, b) => a + b) * (1.0 / part.Count), Math.Sqrt(part.Max(p => radii[p]))));
        }
        var branches = new List<Branch>();
        var seen = new HashSet<int>();
        // From knots, then from free ends, then round and round.
        foreach (var i in crossings.Order())
        {
            foreach (var n in around.Select(a => i + a)) if (ink[n] && !knotOf.ContainsKey(n) && !seen.Contains(n)) branches.Add(Follow(n, knotOf[i]));
        }
        for (var i = 0; i < ink.Length; i++)
        {
            if (ink[i] && !seen.Contains(i) && !knotOf.ContainsKey(i) && around.Count(a => ink[i + a]) <= 1) branches.Add(Follow(i, Branch.Free));
        }
        for (var i = 0; i < ink.Length; i++)
        {
            if (!ink[i] || seen.Contains(i) || knotOf.ContainsKey(i)) continue;
            var round = Follow(i, Branch.Loop);
            round.To = Branch.Loop;
            branches.Add(round);
        }
        return new Skeleton(knots, branches);

        Branch Follow(int start, int from)
        {
            var points = new List<Point>();
            var at = start;
            for (; ; )
            {
                seen.Add(at);
                points.Add(Middle(at));
                // A knot next to it ends the way, but not the one that it has just left.
                var knot = around.Select(a => knotOf.GetValueOrDefault(at + a, -1)).Where(k => k >= 0 && (k != from || points.Count > 2)).DefaultIfEmpty(-1).First();
                if (knot >= 0) return new Branch(points, from, knot);
                var next = around.Where((_, k) => k % 2 == 0).Concat(around.Where((_, k) => k % 2 == 1)).Select(a => at + a).FirstOrDefault(n => ink[n] && !seen.Contains(n) && !knotOf.ContainsKey(n), -1);
                if (next < 0)
                {
                    var back = from >= 0 && points.Count == 1 ? Branch.Free : from >= 0 && around.Any(a => knotOf.GetValueOrDefault(at + a, -1) == from) && points.Count > 2 ? from : Branch.Free;
                    return new Branch(points, from, back);
                }
                at = next;
            }
        }

        int Turns(int i)
        {
            var turns = 0;
            for (var k = 0; k < 8; k++) if (!ink[i + around[k]] && ink[i + around[(k + 1) % 8]]) turns++;
            return turns;
        }

        // The border of paper is one dot wide.
        Point Middle(int i) => new(i % mask.Width - 0.5, i / mask.Width - 0.5);
    }

    /// <summary>Spurs go: free ends no farther from their knot than the stroke there is wide; what then runs through a knot is one stretch.</summary>
    public void Prune()
    {
        for (var isChanged = true; isChanged;)
        {
            isChanged = false;
            foreach (var branch in Branches.Where(b => (b.From == Branch.Free) != (b.To == Branch.Free) && Math.Max(b.From, b.To) >= 0).OrderBy(b => b.Length).ToList())
            {
                var knot = Math.Max(branch.From, branch.To);
                if (branch.Length + Knots[knot].At.DistanceTo(branch.From == knot ? branch.Points[0] : branch.Points[^1]) > Spur * Knots[knot].Radius + 1.5) continue;
                // A short line of its own that nothing else carries on is no spur.
                if (At(knot).Count() <= 1) continue;
                Branches.Remove(branch);
                isChanged = true;
                JoinThrough(knot);
            }
        }
    }

    /// <summary>Two knots so near that one crossing of strokes made both become one.</summary>
    public void Merge()
    {
        foreach (var link in Branches.Where(b => b.From >= 0 && b.To >= 0 && b.From != b.To).OrderBy(b => b.Length).ToList())
        {
            if (!Branches.Contains(link) || link.From == link.To) continue;
            var (a, b) = (Knots[link.From], Knots[link.To]);
            if (a.At.DistanceTo(b.At) > Near * (a.Radius + b.Radius) || link.Length > 1.3 * (a.Radius + b.Radius)) continue;
            var (kept, gone) = (link.From, link.To);
            Knots[kept] = new Knot(Point.Lerp(a.At, b.At, 0.5), Math.Max(a.Radius, b.Radius) + a.At.DistanceTo(b.At) / 2);
            Branches.Remove(link);
            foreach (var other in Branches)
            {
                if (other.From == gone) other.From = kept;
                if (other.To == gone) other.To = kept;
            }
        }
    }

    /// <summary>The stretches that begin or end at a knot; one that does both comes twice.</summary>
    public IEnumerable<(Branch Branch, bool AtStart)> At(int knot)
    {
        foreach (var branch in Branches)
        {
            if (branch.From == knot) yield return (branch, true);
            if (branch.To == knot) yield return (branch, false);
        }
    }

    private const double Spur = 1.35, Near = 0.8;

    private void JoinThrough(int knot)
    {
        if (At(knot).ToList() is not [var (one, oneStarts), var (other, otherStarts)]) return;
        if (ReferenceEquals(one, other))
        {
            one.Points.Add(Knots[knot].At);
            (one.From, one.To) = (Branch.Loop, Branch.Loop);
            return;
        }
        if (oneStarts) one.Turn();
        if (!otherStarts) other.Turn();
        one.Points = [.. one.Points, Knots[knot].At, .. other.Points];
        one.To = other.To;
        Branches.Remove(other);
    }
}
