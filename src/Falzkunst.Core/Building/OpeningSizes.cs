using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Openings made larger or smaller all round while the outline stays.</summary>
public static class OpeningSizes
{
    private const double FitMm = 0.008, WindowMm = 0.15, Flatness = 0.001;

    /// <summary>What is left of an opening is none if it is smaller, mm².</summary>
    private const double LeastArea = 0.02;

    /// <summary>All openings of a piece, or some of them, grown by a distance; those that shrink to nothing are closed.</summary>
    /// <param name="design">The design.</param>
    /// <param name="piece">Id of the piece.</param>
    /// <param name="lines">Ids of the openings; none for all.</param>
    /// <param name="byMm">How far their edge moves outward, mm; inward where negative.</param>
    /// <exception cref="EditRefused">There are no openings, or the distance is out of reach.</exception>
    public static Design Grow(Design design, string piece, ImmutableArray<string> lines, double byMm)
    {
        if (!(Math.Abs(byMm) is > 0 and <= Border.MostMm)) throw EditRefused.RangeMm(Measure.BorderDistance, -Border.MostMm, Border.MostMm, "by");
        return design.With(piece, p =>
        {
            var chosen = Mats.Unlocked(p).RingLines.Skip(1).Where(l => (lines.IsEmpty || lines.Contains(l.Id)) && p.Worked(l.Id) is Line).ToList();
            if (chosen.Count == 0) throw new EditRefused(Reason.NoOpenings, p.Name);
            var grown = chosen.ToDictionary(l => l.Id, l => Grown(l.Path, byMm));
            var changed = p.EachLine(grown.Keys, l => grown[l.Id] is [var first, ..] ? l with { Path = first } : l);
            // An opening that falls apart is several.
            var more = chosen.SelectMany(l => grown[l.Id].Skip(1).Select(path => l with { Path = path }));
            return changed.Without(grown.Where(g => g.Value.IsEmpty).Select(g => g.Key)).Plus(more);
        });
    }

    private static ImmutableArray<Path> Grown(Path opening, double by) =>
    [
        .. Region.FromRings(Flattening.Flatten(opening, Flatness), []).Grow(by, Corners.Round, Arcs.QuarterEdges(Math.Abs(by))).Parts
            .Select(p => p.Outer).Where(r => Math.Abs(Polygons.SignedArea(r)) > LeastArea).OrderByDescending(r => Math.Abs(Polygons.SignedArea(r)))
            .Select(r => CurveFit.Closed(r, FitMm, WindowMm)),
    ];
}
