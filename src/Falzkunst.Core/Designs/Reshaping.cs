using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>A piece's outline and openings as a region to work on, and back: what the work did not touch stays to the last digit.</summary>
internal static class Reshaping
{
    /// <summary>Outlines are looked at as corners this near to them, mm.</summary>
    public const double Flatness = 0.001;

    /// <summary>Fitted curves lie this near to what was found, mm: well above the flatness, or every corner of what was a curve would be kept.</summary>
    public const double FitMm = 0.008;

    /// <summary>Length over which a turn is judged to be a corner, mm.</summary>
    public const double WindowMm = 0.15;

    /// <summary>The lines that bound paper and have an extent, the outline first.</summary>
    public static ImmutableArray<Line> Rings(Piece piece) => [.. piece.RingLines.Where((l, i) => i == 0 || HasExtent(l.Path))];

    /// <summary>Rings without those of no extent; the first is the outline and stays.</summary>
    public static IEnumerable<Path> WithExtent(IEnumerable<Path> rings) => rings.Where((r, i) => i == 0 || HasExtent(r));

    private static bool HasExtent(Path ring) => Math.Abs(ring.SignedArea) > 1e-6;

    public static Stitching Stitching(ImmutableArray<Line> lines, double fit = FitMm, double window = WindowMm) =>
        new(lines.Select(l => l.Path), Flatness, fit, window);

    /// <summary>Parts smaller than this come of a line that crosses itself where it closes, mm².</summary>
    private const double Sliver = 0.001;

    /// <summary>The paper inside the first ring and outside the others, without the slivers that crossing lines leave.</summary>
    public static Region Material(IReadOnlyList<Point[]> rings)
    {
        var area = Region.FromRings(rings[0], [.. rings.Skip(1)]);
        return area.PartCount > 1 ? area.Where(part => part.Area >= Sliver, _ => true) : area;
    }

    /// <summary>The rings themselves where they neither cross nor touch, else those of the paper that they bound.</summary>
    public static IReadOnlyList<Point[]> Sound(IReadOnlyList<Point[]> rings, Region material) => material.IsMended ? [.. material.Rings] : rings;

    /// <summary>The piece with its outline and openings after a region that grew out of it; openings that are gone go, new ones come last.</summary>
    /// <returns>The piece, how many openings are gone, and how many bays of its outline became openings.</returns>
    public static (Piece Piece, int Closed, int Bays) Stitched(Piece piece, ImmutableArray<Line> lines, Stitching stitching, Region grown)
    {
        var (outer, openings) = grown.Parts.Single();
        var made = new Dictionary<string, Path> { [piece.Outline.Id] = stitching.Ring(outer).Path };
        var left = lines.Skip(1).Select(l => l.Id).ToHashSet();
        var more = new List<Line>();
        var bays = 0;
        foreach (var ring in openings)
        {
            var (path, from) = stitching.Ring(ring);
            var model = from > 0 ? lines[from] : Around(ring) ?? lines[0];
            if (model.Id == piece.Outline.Id) bays++;
            if (left.Remove(model.Id)) made[model.Id] = path;
            else more.Add(model with { Path = path, Operation = Operation.Cut, Ink = null, Settings = null });
        }
        var changed = piece.EachLine(made.Keys, l => l with { Path = made[l.Id] }).Without(left).Plus(more);
        return (changed, left.Count, bays);

        // An opening whose every corner is new lies in the one that it is left of.
        Line? Around(Point[] ring) =>
            Polygons.InteriorPoint(ring) is { } inside ? lines.Skip(1).FirstOrDefault(l => Polygons.Contains(l.Path.Flat, inside)) : null;
    }
}
