using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>A piece's outline and openings as a region to work on, and back: what the work did not touch stays to the last digit.</summary>
internal static class Reshaping
{
    /// <summary>Outlines are looked at as corners this near to them, mm.</summary>
    public const double Flatness = 0.001;

    /// <summary>Fitted curves lie this near to what was found, mm: well above the flatness, or every corner of what was a curve would be kept.</summary>
    public const double FitMm = 0.008;

    /// <summary>Length over which a turn is judged to be a corner, mm.</summary>
    public const double WindowMm = 0.15;

    /// <summary>Indices of the lines that bound paper and have an extent, the outline first.</summary>
    public static ImmutableArray<int> Rings(Piece piece) =>
        [.. PieceWidths.RingLines(piece).Where(i => i == 0 || Math.Abs(piece.Shape.Paths[i].SignedArea) > 1e-6)];

    public static Stitching Stitching(Piece piece, ImmutableArray<int> lines, double fit = FitMm, double window = WindowMm) =>
        new(lines.Select(i => piece.Shape.Paths[i]), Flatness, fit, window);

    /// <summary>Parts smaller than this come of a line that crosses itself where it closes, mm².</summary>
    private const double Sliver = 0.001;

    /// <summary>The paper inside the first ring and outside the others, without the slivers that crossing lines leave.</summary>
    public static Region Material(IReadOnlyList<Point[]> rings)
    {
        var area = Region.Of(rings[0], [.. rings.Skip(1)]);
        return area.PartCount > 1 ? area.Where(part => part.Area >= Sliver, _ => true) : area;
    }

    /// <summary>The rings themselves where they neither cross nor touch, else those of the paper that they bound.</summary>
    public static IReadOnlyList<Point[]> Sound(IReadOnlyList<Point[]> rings, Region material) => material.IsMended ? [.. material.Rings] : rings;

    /// <summary>The piece with its outline and openings after a region that grew out of it; openings that are gone go, new ones come last.</summary>
    /// <returns>The piece, how many openings are gone, and how many bays of its outline became openings.</returns>
    public static (Piece Piece, int Closed, int Bays) Stitched(Piece piece, ImmutableArray<int> lines, Stitching stitching, Region grown)
    {
        var (outer, openings) = grown.Parts.Single();
        var paths = piece.Shape.Paths.ToBuilder();
        paths[0] = stitching.Ring(outer).Path;
        var left = lines.Skip(1).ToHashSet();
        var more = new List<(Line Model, Path Path)>();
        var bays = 0;
        foreach (var ring in openings)
        {
            var (path, from) = stitching.Ring(ring);
            var line = from > 0 ? lines[from] : Around(ring);
            if (line == 0) bays++;
            if (line > 0 && left.Remove(line)) paths[line] = path;
            else more.Add((piece.Lines[line] with { Role = LineRole.Opening }, path));
        }
        var changed = piece with { Shape = new PieceShape(paths.ToImmutable()) };
        if (left.Count > 0) changed = changed.Without([.. left]);
        foreach (var (model, path) in more) changed = changed.With(model with { Id = changed.NextLine }, path);
        return (changed, left.Count, bays);

        // An opening whose every corner is new lies in the one that it is left of.
        int Around(Point[] ring)
        {
            if (Polygons.InteriorPoint(ring) is not { } inside) return 0;
            foreach (var i in lines.Skip(1))
            {
                if (Polygons.Contains(piece.Shape.Paths[i].Flat, inside)) return i;
            }
            return 0;
        }
    }
}
