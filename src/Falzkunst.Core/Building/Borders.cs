using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Outlines grown or shrunk into pieces for another layer.</summary>
public static class Borders
{
    /// <summary>What of a shrunk piece is smaller than this is no piece, mm².</summary>
    private const double LeastArea = 0.5;

    /// <summary>The parts that a border has, in the piece's own coordinates, the largest first. Of words cut of paper all parts are bordered together.</summary>
    /// <exception cref="EditRefused">The numbers are out of reach, or nothing would be left.</exception>
    public static ImmutableArray<PathArea> Offset(Piece piece, Border border)
    {
        if (border.Refusal is { } refusal) throw refusal;
        var motif = PieceAreas.Motif(piece);
        var stitching = new Stitching(motif.SelectMany(m => Reshaping.WithExtent([m.Outline, .. m.Openings])), Reshaping.Flatness, Reshaping.FitMm, Reshaping.WindowMm);
        var material = Material(motif, stitching);
        var start = border.KeepOpenings ? material : material.Where(_ => true, _ => false);
        var whole = start.Grow(border.ByMm, border.Corners, Arcs.QuarterEdges(Math.Max(Math.Abs(border.ByMm), 0.1)));
        if (border.Sides is { } sides) whole = whole.GrowSides(sides.Left, sides.Top, sides.Right, sides.Bottom);
        if (!border.KeepOpenings && border.ByMm > 0) whole = whole.Where(_ => true, _ => false);
        if (border.RingMm is { } ring) whole = whole.Minus(whole.Grow(-ring, border.Corners, Arcs.QuarterEdges(ring)));
        var parts = whole.Parts.Where(p => Math.Abs(Polygons.SignedArea(p.Outer)) >= LeastArea).OrderByDescending(p => Math.Abs(Polygons.SignedArea(p.Outer))).ToList();
        if (parts.Count == 0) throw new EditRefused(Reason.NothingLeft, piece.Name) { Field = "by" };
        return [.. parts.Select(p => new PathArea(stitching.Ring(p.Outer).Path, [.. p.Openings.Select(o => stitching.Ring(o).Path)]))];
    }

    private static Region Material(ImmutableArray<PathArea> motif, Stitching stitching)
    {
        var next = 0;
        var parts = new List<Region>(motif.Length);
        foreach (var part in motif)
        {
            var count = Reshaping.WithExtent([part.Outline, .. part.Openings]).Count();
            parts.Add(Reshaping.Material([.. Enumerable.Range(next, count).Select(i => stitching.Rings[i])]));
            next += count;
        }
        return parts is [var only] ? only : Region.UnionOf(parts);
    }
}
