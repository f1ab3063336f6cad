using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>Areas combined by the corners of their flattened lines; stretches that stay are old segments, what is new is fitted.</summary>
internal static class FlatOverlay
{
    private const double Flatness = 0.001;
    private const double FitMm = 0.004;
    private const double WindowMm = 0.08;

    public static ImmutableArray<PathArea> Combine(Combination how, IReadOnlyList<AreaRings> areas)
    {
        var stitching = new Stitching(areas.SelectMany(a => a.Outlines.Concat(a.Openings)), Flatness, FitMm, WindowMm);
        var next = 0;
        var regions = areas.Select(a =>
        {
            var outlines = Take(a.Outlines.Length);
            var openings = Take(a.Openings.Length);
            return outlines.Minus(openings);
        }).ToList();
        var made = regions[0];
        for (var i = 1; i < regions.Count; i++)
        {
            made = how switch
            {
                Combination.Unite => made.Union(regions[i]),
                Combination.Subtract => made.Minus(regions[i]),
                _ => made.And(regions[i]),
            };
        }
        return [.. made.Parts.OrderByDescending(p => Math.Abs(Polygons.SignedArea(p.Outer)))
            .Select(p => new PathArea(stitching.Ring(p.Outer).Path, [.. p.Openings.Select(o => stitching.Ring(o).Path)]))];

        Region Take(int count)
        {
            var rings = Enumerable.Range(next, count).Select(i => Region.FromRings(stitching.Rings[i], [])).ToList();
            next += count;
            return Region.UnionOf(rings);
        }
    }
}
