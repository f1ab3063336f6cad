using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Texts;

/// <summary>Letters as areas: what overlaps is one, by winding as faces mean it and never by even and odd.</summary>
public static class Letters
{
    /// <summary>Outlines are looked at as corners this near to them, mm.</summary>
    private const double Flatness = 0.001;

    /// <summary>Fitted curves lie this near to what was found, mm.</summary>
    private const double FitMm = 0.004;

    /// <summary>Length over which a turn is judged to be a corner, mm.</summary>
    private const double WindowMm = 0.08;

    /// <summary>Less is no part of a letter that a blade could follow, mm².</summary>
    private const double Sliver = 0.001;

    /// <summary>All letters as they are set.</summary>
    public static IEnumerable<ImmutableArray<Path>> Placed(ShapedText text, SetText set) =>
        set.Glyphs.Select(g => text.Glyphs[g.Index].Paths).Zip(set.Glyphs, (paths, g) => paths.Select(p => p.Map(g.Place)).ToImmutableArray()).Where(p => !p.IsEmpty);

    /// <summary>
    /// The outlines of letters with overlaps gone. Letters that overlap none, and are sound, stay as they are to the last bit, and so does
    /// every stretch of the others that is still at an edge.
    /// </summary>
    /// <exception cref="BudgetSpent">They cross more often than can be mended.</exception>
    public static ImmutableArray<Path> AsOne(IReadOnlyList<ImmutableArray<Path>> letters)
    {
        var all = letters.SelectMany(l => l).Where(p => Math.Abs(p.SignedArea) > Sliver).ToImmutableArray();
        if (all.IsEmpty) return [];
        var stitching = new Stitching(all, Flatness, FitMm, WindowMm);
        var rings = stitching.Rings;
        var areas = new List<Region>();
        var next = 0;
        foreach (var letter in letters)
        {
            var count = letter.Count(p => Math.Abs(p.SignedArea) > Sliver);
            areas.AddRange(Parts([.. Enumerable.Range(next, count).Select(i => rings[i])]));
            next += count;
        }
        var united = Region.UnionOf(areas).Where(part => part.Area > Sliver, opening => opening.Area > Sliver);
        return [.. united.Rings.Select(r => stitching.Ring(r).Path)];
    }

    /// <summary>The areas that a glyph is of: each outline that winds like its largest, without the counters in it.</summary>
    private static IEnumerable<Region> Parts(Point[][] rings)
    {
        if (rings.Length == 0) yield break;
        var areas = Array.ConvertAll(rings, r => Polygons.SignedArea(r));
        var winds = Math.Sign(areas.MaxBy(Math.Abs));
        var outer = Enumerable.Range(0, rings.Length).Where(i => Math.Sign(areas[i]) == winds).ToList();
        var counters = outer.ToDictionary(i => i, _ => new List<Point[]>());
        for (var i = 0; i < rings.Length; i++)
        {
            if (Math.Sign(areas[i]) == winds) continue;
            // By winding a counter takes one layer away: that of the smallest outline around it.
            var around = outer.Where(o => Array.TrueForAll(rings[i], p => Polygons.Contains(rings[o], p))).OrderBy(o => Math.Abs(areas[o])).Select(o => (int?)o).FirstOrDefault();
            if (around is { } o) counters[o].Add(rings[i]);
        }
        foreach (var o in outer) yield return Region.FromRings(rings[o], counters[o]);
    }
}
