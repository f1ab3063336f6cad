using System.Collections.Immutable;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>How areas become one.</summary>
public enum Combination
{
    /// <summary>What lies in any of them.</summary>
    Unite,

    /// <summary>What lies in the first and in none of the others.</summary>
    Subtract,

    /// <summary>What lies in all of them.</summary>
    Intersect,
}

/// <summary>
/// Areas with curved edges united, subtracted and intersected, curve against curve. Stages: split all lines where they meet
/// (<see cref="Arrangement"/>); tell on both sides of each stretch which areas lie there (<see cref="Sides"/>, by winding); keep the
/// stretches with the result on one side; join them to rings (<see cref="ResultRings"/>). What is not split stays to the last bit.
/// Lines may cross themselves, touch, repeat each other and wind either way; lines of no length or area add nothing. Where rounding makes
/// the stretches fit no rings, the corners of the flattened lines are overlaid instead and curves taken over or fitted
/// (<see cref="Stitching"/>), which keeps within 0.01 mm.
/// </summary>
public static class PathAreas
{
    /// <summary>Rings thinner than this on the whole are what rounding left, mm: area over length.</summary>
    private const double Sliver = 1e-5;

    /// <summary>Steps for pairs of curves that are near each other: some four million of them.</summary>
    private const long MostWork = 250_000_000;

    /// <summary>Areas made one.</summary>
    /// <returns>The connected parts, the largest first.</returns>
    /// <exception cref="BudgetSpent">Their lines meet more often than can be worked out.</exception>
    public static ImmutableArray<PathArea> Combine(Combination how, params IReadOnlyList<AreaRings> areas) => Overlay(how, areas, out _);

    /// <summary>As <see cref="Combine"/>; tells whether the flattened lines had to serve.</summary>
    internal static ImmutableArray<PathArea> Overlay(Combination how, IReadOnlyList<AreaRings> areas, out bool byCorners)
    {
        byCorners = false;
        areas = [.. areas.Select(Sound)];
        if (areas.Count == 0) return [];
        var all = new Arrangement(areas, Budget.OfWork(MostWork));
        var rings = new ResultRings(all);
        if (rings.Join(Kept(how, all, areas.Count)) is { } joined && Parts([.. joined.Select(rings.PathOf)]) is { } parts) return parts;
        byCorners = true;
        return FlatOverlay.Combine(how, areas);
    }

    private static AreaRings Sound(AreaRings area) => new([.. area.Outlines.Where(IsSound)], [.. area.Openings.Where(IsSound)]);

    private static bool IsSound(Path path) => !path.Segments.IsEmpty && path.Start.IsFinite && path.Segments.All(s => s.End.IsFinite && s.Handle1.IsFinite && s.Handle2.IsFinite);

    private static bool Holds(Combination how, bool[] inside) => how switch
    {
        Combination.Unite => Array.Exists(inside, i => i),
        Combination.Subtract => inside[0] && !Array.Exists(inside[1..], i => i),
        _ => Array.TrueForAll(inside, i => i),
    };

    /// <summary>The edges with the result on one side alone.</summary>
    private static List<ResultEdge> Kept(Combination how, Arrangement all, int areas)
    {
        var sides = new Sides(all, areas);
        var degree = new int[all.Nodes.Count];
        foreach (var edge in all.Edges)
        {
            degree[edge[0].Begin]++;
            degree[edge[0].End]++;
        }
        var kept = new List<ResultEdge>();
        (bool Turned, bool Other)? last = null;
        List<Stretch>? before = null;
        foreach (var edge in all.Edges)
        {
            // Past a node at which nothing else ends, a line has the same on its sides as before.
            var goesOn = before is [var b] && edge is [var e] && all.RingOf[b.Curve] == all.RingOf[e.Curve] && b.End == e.Begin && degree[e.Begin] == 2;
            if (!goesOn || last is null)
            {
                var (turned, other) = sides.Of(edge);
                last = (Holds(how, turned), Holds(how, other));
            }
            before = edge;
            if (last.Value.Turned != last.Value.Other) kept.Add(new ResultEdge(edge[0], Backwards: last.Value.Other));
        }
        return kept;
    }

    /// <summary>Rings as outlines with the openings that lie in them; null where an opening lies in none.</summary>
    private static ImmutableArray<PathArea>? Parts(List<Path> rings)
    {
        var sound = rings.Where(r => Math.Abs(r.SignedArea) > Sliver * r.Length).ToList();
        if (sound.Count == 0) return [];
        return Nest(sound);
    }

    /// <summary>Rings that do not cross, each an outline or an opening by how many others it lies in.</summary>
    internal static ImmutableArray<PathArea>? Nest(IReadOnlyList<Path> rings)
    {
        if (rings.Count == 1) return [new PathArea(rings[0], [])];
        var sizes = rings.Select(r => Math.Abs(r.SignedArea)).ToArray();
        var order = Enumerable.Range(0, rings.Count).OrderByDescending(i => sizes[i]).ToArray();
        var tree = new BoxTree([.. rings.Select(r => r.Bounds)]);
        var around = new int[rings.Count];
        var depth = new int[rings.Count];
        var openings = new Dictionary<int, List<Path>>();
        foreach (var i in order)
        {
            var holders = tree.Meeting(rings[i].Bounds).Where(k => k != i && sizes[k] > sizes[i] && LiesIn(rings[i], rings[k])).ToList();
            depth[i] = holders.Count;
            around[i] = holders.Count == 0 ? -1 : holders.MinBy(k => sizes[k]);
            if (depth[i] % 2 == 0) openings[i] = [];
            else if (openings.TryGetValue(around[i], out var list)) list.Add(rings[i]);
            else return null;
        }
        return [.. order.Where(openings.ContainsKey).Select(i => new PathArea(rings[i], [.. openings[i]]))];
    }

    /// <summary>A ring lies in another that it does not cross; where they touch, other points tell.</summary>
    private static bool LiesIn(Path inner, Path outer)
    {
        if (!outer.Bounds.Contains(inner.Bounds, 1e-3)) return false;
        var inside = Sampling.Midpoints(inner, inner.Length / 9, 9).Count(p => Polygons.Contains(outer.Flat, p));
        return inside > 4;
    }
}
