using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>Finds and takes out what is smaller than a size: openings, specks, hairline slits, and lines that lie on others.</summary>
public static class SmallThings
{
    /// <summary>Limits of the size, mm.</summary>
    public const double LeastMm = 0.02;
    public const double MostMm = 5;

    /// <summary>Why a size cannot be asked for; null where it can.</summary>
    public static string? Refusal(double sizeMm) => sizeMm is >= LeastMm and <= MostMm ? null : $"Small things are between {LeastMm} and {MostMm} mm.";

    /// <summary>All small things of a piece, in the order of their kinds.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="sizeMm">What is narrower is small.</param>
    public static ImmutableArray<SmallThing> Of(Piece piece, double sizeMm)
    {
        if (Refusal(sizeMm) is { } refusal) throw new EditRefused(refusal);
        var things = ImmutableArray.CreateBuilder<SmallThing>();
        if (WidestOf(piece.Shape.Paths[0], sizeMm) is { } speck)
            return [new SmallThing(SmallKind.Speck, null, piece.Size.Centre, speck)];
        foreach (var i in PieceWidths.RingLines(piece).Skip(1))
        {
            if (WidestOf(piece.Shape.Paths[i], sizeMm) is { } width) things.Add(new SmallThing(SmallKind.Opening, piece.Lines[i].Id, piece.Shape.Paths[i].Bounds.Centre, width));
        }
        var small = things.Select(t => t.Line).ToHashSet();
        var openings = things.Select(t => piece.Shape.Paths[piece.IndexOf(t.Line!)]).ToList();
        things.AddRange(Slits(piece, sizeMm).Places.Where(p => !openings.Exists(o => Polygons.Contains(o.Flat, p.Place.At))).Select(p => new SmallThing(SmallKind.Slit, null, p.Place.At, p.Place.WidthMm)));
        foreach (var finding in Checks.Of(Design.Empty with { Pieces = [piece] }).Where(f => f is { Code: "doubled-line" or "no-length", Line: not null }))
        {
            if (small.Add(finding.Line) && piece.IndexOf(finding.Line!) is > 0 and var at) things.Add(new SmallThing(SmallKind.Line, finding.Line, piece.Shape.Paths[at].Bounds.Centre, 0));
        }
        return things.ToImmutable();
    }

    /// <summary>The piece without some of its small things; null where it is one itself and is taken.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="sizeMm">The size they were looked for with.</param>
    /// <param name="keys">The keys of those that go; empty for all.</param>
    /// <exception cref="EditRefused">One of them is not there.</exception>
    public static Piece? Without(Piece piece, double sizeMm, ImmutableArray<string> keys)
    {
        var all = Of(piece, sizeMm);
        var gone = keys.IsEmpty ? all : [.. all.Where(t => keys.Contains(t.Key))];
        if (gone.Length < Math.Max(keys.Length, 1))
            throw new EditRefused(all.IsEmpty ? $"{piece.Name} has nothing that small." : "That small thing is no longer there. Reload the page to see what is there now.");
        if (gone.Any(t => t.Kind == SmallKind.Speck)) return null;
        var slits = gone.Where(t => t.Kind == SmallKind.Slit).ToList();
        // The lines go last: closing a slit may number them anew.
        var closed = slits.Count == 0 ? piece : WithoutSlits(piece, sizeMm, slits);
        var at = gone.Where(t => t.Line is not null).Select(t => closed.IndexOf(t.Line!)).Where(i => i > 0).ToImmutableArray();
        return at.IsEmpty ? closed : closed.Without(at);
    }

    /// <summary>Width at the widest spot inside a closed line, if it is below a size.</summary>
    private static double? WidestOf(Path ring, double sizeMm)
    {
        if (Math.Min(ring.Bounds.Width, ring.Bounds.Height) >= sizeMm * 40 && Math.Abs(ring.SignedArea) > sizeMm * ring.Length) return null;
        var inside = Region.Of([.. ring.Flat], []);
        if (!inside.Grow(-sizeMm / 2, Corners.Round, 8).IsEmpty) return null;
        var (low, high) = (0.0, sizeMm);
        while (high - low > 0.005)
        {
            var middle = (low + high) / 2;
            if (inside.Grow(-middle / 2, Corners.Round, 8).IsEmpty) high = middle;
            else low = middle;
        }
        return low;
    }

    private static (MedialBalls Balls, List<NarrowPlace> Places) Slits(Piece piece, double sizeMm)
    {
        var (balls, places) = WidthSurvey.Air(WidthSurvey.Flat(PieceWidths.Rings(piece)), sizeMm);
        return (balls, [.. places.Where(p => p.Place.Kind == ThinKind.Gap)]);
    }

    /// <summary>The slits filled: what growing by half the size and shrinking again adds about them (morphological closing).</summary>
    private static Piece WithoutSlits(Piece piece, double sizeMm, List<SmallThing> slits)
    {
        var (balls, places) = Slits(piece, sizeMm);
        var chosen = places.Where(p => slits.Any(s => s.At == p.Place.At)).SelectMany(p => p.Samples).Select(balls.Centre).ToList();
        var lines = Reshaping.Rings(piece);
        var stitching = Reshaping.Stitching(piece, lines);
        var material = Reshaping.Material(stitching.Rings);
        var quarter = Growth.QuarterEdges(sizeMm);
        // Slightly more than the size, so that a slit that is only just narrow enough closes as well.
        var by = sizeMm / 2 + Reshaping.FitMm;
        var filled = material.Grow(by, Corners.Round, quarter).Grow(-by, Corners.Round, quarter).Minus(material);
        var taken = filled.Where(part => chosen.Exists(part.Contains), _ => true);
        var whole = material.Union(taken);
        return whole.PartCount == 1 ? Reshaping.Stitched(piece, lines, stitching, whole).Piece : throw new EditRefused($"{piece.Name} is cut into parts by its own lines. Mend that first.");
    }
}
