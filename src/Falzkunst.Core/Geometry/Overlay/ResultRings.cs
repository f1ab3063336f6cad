using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>An edge of the result, run with the area on the side that its direction is turned to by a quarter from x towards y.</summary>
/// <param name="Stretch">The stretch whose curve it is.</param>
/// <param name="Backwards">It runs against that.</param>
internal readonly record struct ResultEdge(Stretch Stretch, bool Backwards)
{
    public int Begin => Backwards ? Stretch.End : Stretch.Begin;
    public int End => Backwards ? Stretch.Begin : Stretch.End;
}

/// <summary>Puts the edges of a result together to rings, and those to paths in which whole segments are the old ones.</summary>
internal sealed class ResultRings(Arrangement all)
{
    /// <summary>At a node edges are told apart by where they are so far from it, mm, or a part of the shortest of them.</summary>
    private const double Reach = 0.02;

    /// <summary>The rings; null where at some node not as many edges come as go, so that something was told wrongly.</summary>
    public List<List<ResultEdge>>? Join(List<ResultEdge> edges)
    {
        var going = new Dictionary<int, List<int>>();
        var coming = new Dictionary<int, List<int>>();
        for (var i = 0; i < edges.Count; i++)
        {
            Add(going, edges[i].Begin, i);
            Add(coming, edges[i].End, i);
        }
        if (coming.Count != going.Count || going.Any(g => !coming.TryGetValue(g.Key, out var there) || there.Count != g.Value.Count)) return null;
        var next = Paired(edges, going, coming);
        var done = new bool[edges.Count];
        var rings = new List<List<ResultEdge>>();
        for (var i = 0; i < edges.Count; i++)
        {
            if (done[i]) continue;
            var ring = new List<ResultEdge>();
            for (var at = i; !done[at]; at = next[at])
            {
                done[at] = true;
                ring.Add(edges[at]);
            }
            if (ring[^1].End != ring[0].Begin) return null;
            AddSimple(ring, rings);
        }
        return rings;

        static void Add(Dictionary<int, List<int>> byNode, int node, int edge)
        {
            if (!byNode.TryGetValue(node, out var there)) byNode[node] = there = [];
            there.Add(edge);
        }
    }

    /// <summary>The edge that goes on after each: that which bounds the same part of the area at the node.</summary>
    private int[] Paired(List<ResultEdge> edges, Dictionary<int, List<int>> going, Dictionary<int, List<int>> coming)
    {
        var next = new int[edges.Count];
        foreach (var (node, ways) in going)
        {
            var arriving = coming[node];
            if (ways.Count == 1)
            {
                next[arriving[0]] = ways[0];
                continue;
            }
            var reach = ways.Concat(arriving).Min(i => Math.Min(Reach, 0.25 * Extent(edges[i].Stretch)));
            var angles = ways.ToDictionary(i => i, i => AngleAt(edges[i].Stretch, fromEnd: edges[i].Backwards, reach));
            var free = ways.ToHashSet();
            foreach (var i in arriving)
            {
                var back = AngleAt(edges[i].Stretch, fromEnd: !edges[i].Backwards, reach);
                // The area lies on the turned side: from the way back, against the turn from x to y.
                next[i] = free.MinBy(o => (back - angles[o] + 4 * Math.PI) % (2 * Math.PI));
                free.Remove(next[i]);
            }
        }
        return next;
    }

    private double Extent(Stretch s)
    {
        var curve = all.Curves[s.Curve];
        var (a, m, b) = (curve.At(s.From), curve.At((s.From + s.To) / 2), curve.At(s.To));
        return a.DistanceTo(m) + m.DistanceTo(b);
    }

    /// <summary>Direction from a stretch's end to where it is so far from that.</summary>
    private double AngleAt(Stretch s, bool fromEnd, double reach)
    {
        var curve = all.Curves[s.Curve];
        var (near, far) = fromEnd ? (s.To, s.From) : (s.From, s.To);
        var at = curve.At(near);
        // The first place that is so far away: found from near by, since the stretch may come back.
        var (low, high) = (0.0, 1.0);
        for (var share = 1.0 / 64; share < 1; share *= 2)
        {
            if (curve.At(near + (far - near) * share).DistanceTo(at) < reach) continue;
            high = share;
            break;
        }
        for (var i = 0; i < 40; i++)
        {
            var middle = (low + high) / 2;
            if (curve.At(near + (far - near) * middle).DistanceTo(at) < reach) low = middle;
            else high = middle;
        }
        var way = curve.At(near + (far - near) * high) - at;
        return Math.Atan2(way.Y, way.X);
    }

    /// <summary>A ring that passes a node twice is two.</summary>
    private static void AddSimple(List<ResultEdge> ring, List<List<ResultEdge>> rings)
    {
        var open = new List<ResultEdge>();
        var at = new Dictionary<int, int>();
        foreach (var edge in ring)
        {
            at[edge.Begin] = open.Count;
            open.Add(edge);
            if (!at.TryGetValue(edge.End, out var from)) continue;
            var part = open.GetRange(from, open.Count - from);
            open.RemoveRange(from, open.Count - from);
            foreach (var gone in part) at.Remove(gone.Begin);
            rings.Add(part);
        }
    }

    /// <summary>A ring as a path: the old path itself where it is all of that, else stretches of old segments, whole ones to the last bit.</summary>
    public Path PathOf(List<ResultEdge> ring)
    {
        var runs = Runs(ring);
        if (Whole(runs) is { } old) return old;
        // The way round that most of it had before.
        if (runs.Count(r => r.Backwards) * 2 > runs.Count)
        {
            runs.Reverse();
            runs = [.. runs.Select(r => r with { Backwards = !r.Backwards })];
        }
        var segments = ImmutableArray.CreateBuilder<Segment>(runs.Count);
        Point? start = null;
        foreach (var run in runs)
        {
            var part = all.Curves[run.Curve].Between(run.From, run.To);
            if (run.Backwards) part = part.Reversed();
            start ??= part.Start;
            segments.Add(part.Segment);
        }
        // Where two lines cross they meet to within rounding; a closed path ends where it starts.
        var last = segments[^1];
        if (last.End != start!.Value && last.End.DistanceTo(start.Value) < 0.001) segments[^1] = last with { End = start.Value };
        return new Path(start.Value, segments.ToImmutable(), closed: true);
    }

    private readonly record struct Run(int Curve, double From, double To, bool Backwards);

    /// <summary>Stretches that follow each other on one curve are one again.</summary>
    private static List<Run> Runs(List<ResultEdge> ring)
    {
        var runs = new List<Run>();
        foreach (var edge in ring)
        {
            var run = new Run(edge.Stretch.Curve, edge.Stretch.From, edge.Stretch.To, edge.Backwards);
            if (runs.Count > 0 && Joined(runs[^1], run) is { } longer) runs[^1] = longer;
            else runs.Add(run);
        }
        if (runs.Count > 1 && Joined(runs[^1], runs[0]) is { } round)
        {
            runs[0] = round;
            runs.RemoveAt(runs.Count - 1);
        }
        return runs;

        static Run? Joined(Run a, Run b) => a.Curve != b.Curve || a.Backwards != b.Backwards ? null
            : !a.Backwards && a.To == b.From ? a with { To = b.To }
            : a.Backwards && a.From == b.To ? a with { From = b.From } : null;
    }

    private Path? Whole(List<Run> runs)
    {
        var ring = all.Rings[all.RingOf[runs[0].Curve]];
        if (runs.Count != ring.Count || runs.Exists(r => r.From > 0 || r.To < 1 || r.Backwards != runs[0].Backwards)) return null;
        var step = runs[0].Backwards ? -1 : 1;
        for (var i = 0; i < runs.Count; i++)
        {
            var following = ring.First + ((runs[i].Curve - ring.First + step) % ring.Count + ring.Count) % ring.Count;
            if (all.RingOf[runs[i].Curve] != all.RingOf[runs[0].Curve] || runs[(i + 1) % runs.Count].Curve != following) return null;
        }
        return ring.Path;
    }
}
