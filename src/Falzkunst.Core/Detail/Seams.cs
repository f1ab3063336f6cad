using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// What a sweep leaves where it changes from one stretch to the next: where the square end of one meets the round end of another, or
/// a slanted end cuts the balls off on one side before the other, a slit as fine as a hair stays between what was added, or a spur
/// stands out. Slits are filled by a morphological closing, spurs taken off by an opening (Serra 1982), both only where they are
/// deeper than a fillet, so that no corner of the piece is rounded and no coordinate of it moves.
/// </summary>
internal static class Seams
{
    /// <summary>Slits and spurs are finer than twice this share of the width that is grown to.</summary>
    private const double RadiusShare = 0.1;

    /// <summary>Of a kept gap no more than this is taken for a slit's half width.</summary>
    private const double GapShare = 0.3;

    /// <summary>The fillet of a square corner has 0.21 of the radius squared, that of a notch of 20 degrees 4.2: what is larger than this is a slit, or a notch so sharp that its bottom may fill.</summary>
    private const double LeastArea = 0.6;

    /// <summary>Parts are joined and taken off with this much of what lies beside them, mm, so that no hair of air or paper stays.</summary>
    private const double Overlap = 0.002;

    private const int QuarterEdges = 6;

    /// <summary>The addition with its slits filled and its spurs taken off.</summary>
    /// <param name="material">The paper as it was.</param>
    /// <param name="added">What was swept.</param>
    /// <param name="how">How the piece is grown.</param>
    public static Region Closed(Region material, Region added, Thicken how)
    {
        if (added.IsEmpty) return added;
        var radius = RadiusShare * how.LeastWidthMm;
        if (how.KeptGapMm > 0) radius = Math.Min(radius, GapShare * how.KeptGapMm);
        var least = LeastArea * radius * radius;
        var near = added.Grow(4 * radius, Corners.Round, 2).And(material).Union(added);
        var slits = Parts(near.Grow(radius, Corners.Round, QuarterEdges).Grow(-radius, Corners.Round, QuarterEdges).Minus(near), least, added);
        // Where the paper was cut off about the addition the closing rounds a corner that is none.
        var filled = added.Union(slits.Minus(material).Grow(Overlap, Corners.Round, 1));
        var all = near.Union(filled);
        var spurs = Parts(filled.Minus(all.Grow(-radius, Corners.Round, QuarterEdges).Grow(radius + Overlap, Corners.Round, QuarterEdges)), least, filled).Minus(material);
        return spurs.IsEmpty ? filled : filled.Minus(spurs.Grow(Overlap, Corners.Round, 1));
    }

    /// <summary>The parts that are more than a fillet and touch what was added.</summary>
    private static Region Parts(Region of, double least, Region added) =>
        of.Where(part => part.Area >= least && !part.Grow(2 * Overlap, Corners.Round, 1).And(added).IsEmpty, _ => true);
}
