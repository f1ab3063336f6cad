using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>Finds and takes out what is smaller than a size: openings, specks, hairline slits, and lines that lie on others.</summary>
public static class SmallThings
{
    /// <summary>Limits of the size, mm.</summary>
    public const double LeastMm = 0.02;
    public const double MostMm = 5;

    /// <summary>Why a size cannot be asked for; null where it can.</summary>
    public static EditRefused? Refusal(double sizeMm) => sizeMm is >= LeastMm and <= MostMm ? null : EditRefused.RangeMm(Measure.SmallSize, LeastMm, MostMm, "size");

    /// <summary>All small things of a piece, in the order of their kinds.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="sizeMm">What is narrower is small.</param>
    /// <exception cref="EditRefused">Nobody looks for things of that size, or the piece is too intricate.</exception>
    public static ImmutableArray<SmallThing> Find(Piece piece, double sizeMm)
    {
        if (Refusal(sizeMm) is { } refusal) throw refusal;
        try
        {
            var known = Known.GetOrCreateValue(piece);
            if (known.TryGetValue(sizeMm, out var found)) return found;
            return known[sizeMm] = Search(piece, sizeMm);
        }
        catch (BudgetSpent)
        {
            throw new EditRefused(Reason.TooIntricate, piece.Name);
        }
    }

    /// <summary>What was found on pieces, by size, for as long as they live.</summary>
    private static readonly ConditionalWeakTable<Piece, ConcurrentDictionary<double, ImmutableArray<SmallThing>>> Known = [];

    private static ImmutableArray<SmallThing> Search(Piece piece, double sizeMm)
    {
        var things = ImmutableArray.CreateBuilder<SmallThing>();
        if (WidestOf(piece.Outline.Path, sizeMm) is { } speck)
            return [new SmallThing(SmallKind.Speck, null, piece.Size.Centre, speck)];
        var openings = new List<Path>();
        foreach (var line in piece.RingLines.Skip(1))
        {
            if (WidestOf(line.Path, sizeMm) is not { } width) continue;
            things.Add(new SmallThing(SmallKind.Opening, line.Id, line.Path.Bounds.Centre, width));
            openings.Add(line.Path);
        }
        var small = things.Select(t => t.Line).ToHashSet();
        things.AddRange(Slits(piece, sizeMm).Places.Where(p => !openings.Exists(o => Polygons.Contains(o.Flat, p.Place.At))).Select(p => new SmallThing(SmallKind.Slit, null, p.Place.At, p.Place.WidthMm)));
        foreach (var finding in Checks.Findings(Design.Empty with { Pieces = [piece] }).Where(f => f is { Code: FindingCodes.DoubledLine or FindingCodes.NoLength, Line: not null }))
        {
            if (small.Add(finding.Line) && finding.Line != piece.Outline.Id && piece.Find(finding.Line!) is { } line) things.Add(new SmallThing(SmallKind.Line, line.Id, line.Path.Bounds.Centre, 0));
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
        var all = Find(piece, sizeMm);
        var gone = keys.IsEmpty ? all : [.. all.Where(t => keys.Contains(t.Key))];
        if (gone.Length < Math.Max(keys.Length, 1))
            throw all.IsEmpty ? new EditRefused(Reason.NothingSmall, piece.Name) : new EditRefused(Reason.SmallThingGone);
        if (gone.Any(t => t.Kind == SmallKind.Speck)) return null;
        var slits = gone.Where(t => t.Kind == SmallKind.Slit).ToList();
        var closed = slits.Count == 0 ? piece : WithoutSlits(piece, sizeMm, slits);
        return closed.Without(gone.Select(t => t.Line).OfType<string>());
    }

    /// <summary>Width at the widest spot inside a closed line, if it is below a size.</summary>
    private static double? WidestOf(Path ring, double sizeMm)
    {
        if (Math.Min(ring.Bounds.Width, ring.Bounds.Height) >= sizeMm * 40 && Math.Abs(ring.SignedArea) > sizeMm * ring.Length) return null;
        var inside = Region.FromRings([.. ring.Flat], []);
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
        var (balls, places) = WidthSurvey.Air(WidthSurvey.Flat(PieceWidths.Rings(piece)), sizeMm, PieceWidths.BudgetOfSurvey());
        return (balls, [.. places.Where(p => p.Place.Kind == ThinKind.Gap)]);
    }

    /// <summary>The slits filled: what growing by half the size and shrinking again adds about them (morphological closing).</summary>
    private static Piece WithoutSlits(Piece piece, double sizeMm, List<SmallThing> slits)
    {
        var (balls, places) = Slits(piece, sizeMm);
        var chosen = places.Where(p => slits.Any(s => s.At == p.Place.At)).SelectMany(p => p.Samples).Select(balls.Centre).ToList();
        var lines = Reshaping.Rings(piece);
        var stitching = Reshaping.Stitching(lines);
        var material = Reshaping.Material(stitching.Rings);
        var quarter = Arcs.QuarterEdges(sizeMm);
        // Slightly more than the size, so that a slit that is only just narrow enough closes as well.
        var by = sizeMm / 2 + Reshaping.FitMm;
        var filled = material.Grow(by, Corners.Round, quarter).Grow(-by, Corners.Round, quarter).Minus(material);
        var taken = filled.Where(part => chosen.Exists(part.Contains), _ => true);
        var whole = material.Union(taken);
        return whole.PartCount == 1 ? Reshaping.Stitched(piece, lines, stitching, whole).Piece : throw new EditRefused(Reason.CutIntoParts, piece.Name, whole.PartCount);
    }
}
