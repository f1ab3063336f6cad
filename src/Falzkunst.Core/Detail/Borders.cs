using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>A border to be made of a piece's outline.</summary>
/// <param name="ByMm">How far the outline is moved outward, inward where negative, mm.</param>
/// <param name="Stock">Stock of the new piece.</param>
/// <param name="Corners">What becomes of corners.</param>
/// <param name="KeepOpenings">Openings of the piece stay open, smaller by as much; else they are filled.</param>
/// <param name="RingMm">Only a ring so wide along the new outline is made; null for the whole.</param>
public sealed record Border(double ByMm, string Stock, Corners Corners = Corners.Round, bool KeepOpenings = false, double? RingMm = null)
{
    /// <summary>Limits of what can be asked for, mm.</summary>
    public const double MostMm = 100;
    public const double LeastRingMm = 0.2;

    /// <summary>Why it cannot be made so; null where it can.</summary>
    [JsonIgnore]
    public EditRefused? Refusal =>
        !(Math.Abs(ByMm) <= MostMm) ? EditRefused.RangeMm(Measure.BorderDistance, -MostMm, MostMm, "by")
        : RingMm is { } ring && !(ring is >= LeastRingMm and <= MostMm) ? EditRefused.RangeMm(Measure.RingWidth, LeastRingMm, MostMm, "ring")
        : null;
}

/// <summary>Outlines grown or shrunk into pieces for another layer.</summary>
public static class Borders
{
    /// <summary>What of a shrunk piece is smaller than this is no piece, mm².</summary>
    private const double LeastArea = 0.5;

    /// <summary>The outlines and openings of a border, in the piece's own coordinates; one for each part that a shrunk piece falls into, the largest first.</summary>
    /// <exception cref="EditRefused">The numbers are out of reach, or nothing would be left.</exception>
    public static ImmutableArray<ImmutableArray<Path>> Offset(Piece piece, Border border)
    {
        if (border.Refusal is { } refusal) throw refusal;
        var lines = Reshaping.Rings(piece);
        var stitching = Reshaping.Stitching(lines);
        var material = Reshaping.Material(stitching.Rings);
        var start = border.KeepOpenings ? material : material.Where(_ => true, _ => false);
        var whole = start.Grow(border.ByMm, border.Corners, Growth.QuarterEdges(Math.Max(Math.Abs(border.ByMm), 0.1)));
        if (border.RingMm is { } ring) whole = whole.Minus(whole.Grow(-ring, border.Corners, Growth.QuarterEdges(ring)));
        var parts = whole.Parts.Where(p => Math.Abs(Polygons.SignedArea(p.Outer)) >= LeastArea).OrderByDescending(p => Math.Abs(Polygons.SignedArea(p.Outer))).ToList();
        if (parts.Count == 0) throw new EditRefused(Reason.NothingLeft, piece.Name) { Field = "by" };
        return [.. parts.Select(p => p.Openings.Prepend(p.Outer).Select(r => stitching.Ring(r).Path).ToImmutableArray())];
    }
}
