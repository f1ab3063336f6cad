using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>
/// Makes pieces stronger: evenly, or only where they are thin. In order: width survey; dilation, by an offset or by a sweep of
/// variable width along the medial line; seams of the sweep closed; clearance to other parts, by half-way lines; union, guarded by the topology; stitching
/// back to paths; survey of the result. What is not touched stays as it is to the last digit; lines that are not cut through stay
/// as they are altogether.
/// </summary>
public static class Thickening
{
    /// <summary>Fitted curves lie nearer than <see cref="Reshaping.FitMm"/> to what was found where amounts are small, mm.</summary>
    private const double FinestFitMm = 0.003;

    /// <summary>Strands grow by so many tolerances of the fit more than was asked for, so that fitted curves stay wide enough.</summary>
    private const double Spare = 2.5;

    /// <summary>Parts that lie no farther apart than twice this touch each other, mm.</summary>
    private const double Touching = 0.005;

    /// <summary>A pocket of air that growth shuts in fills below this share of the square of the width grown to.</summary>
    private const double PocketShare = 0.25;

    /// <summary>A place counts as mended from this share of the wanted width on.</summary>
    private const double Enough = 0.98;

    /// <summary>Makes a piece stronger.</summary>
    /// <param name="piece">The piece; degenerate lines are left alone, crossing ones are mended where they are touched.</param>
    /// <param name="how">How.</param>
    /// <param name="neighbours">Outlines and openings of other parts of the same layer, in the piece's coordinates, which it must not grow into.</param>
    /// <param name="budget">What ends the work altogether; null for nothing.</param>
    /// <exception cref="EditRefused">The numbers are out of reach, the piece is cut into parts by its own openings, or it is too intricate.</exception>
    public static Thickened Grow(Piece piece, Thicken how, IReadOnlyList<Path>? neighbours = null, Budget? budget = null)
    {
        if (how.Refusal is { } refusal) throw refusal;
        try
        {
            var drawn = PieceWidths.BudgetOfMending(budget);
            var first = Grown(piece, how, neighbours, drawn);
            return how.IsEven || first.Limited.IsEmpty || ReferenceEquals(first.Piece, piece) ? first : Again(first, how, neighbours, drawn);
        }
        catch (BudgetSpent)
        {
            budget?.Look();
            throw new EditRefused(Reason.TooIntricate, piece.Name);
        }
    }

    /// <summary>
    /// Where the first sweep met a joint it may leave a place short of the width: its middle is another one now, along which it is swept
    /// once more. Taken only where that is better.
    /// </summary>
    private static Thickened Again(Thickened first, Thicken how, IReadOnlyList<Path>? neighbours, Budget budget)
    {
        var second = Grown(first.Piece, how, neighbours, budget);
        var isBetter = second.NarrowestAfterMm > first.NarrowestAfterMm || second.Limited.Length < first.Limited.Length;
        return !isBetter || ReferenceEquals(second.Piece, first.Piece) ? first : second with
        {
            NarrowestBeforeMm = first.NarrowestBeforeMm,
            AreaBefore = first.AreaBefore,
            Merged = first.Merged + second.Merged,
            ClosedOpenings = first.ClosedOpenings + second.ClosedOpenings,
        };
    }

    private static Thickened Grown(Piece piece, Thicken how, IReadOnlyList<Path>? neighbours, Budget budget)
    {
        var shape = Prepare(piece, how, neighbours);
        var (balls, places) = WidthSurvey.Material(shape.Rings, WidthSurvey.Flat(PieceWidths.Slits(piece), areClosed: false), how.LeastWidthMm, budget);
        var narrowest = Narrowest(piece, places, how.LeastWidthMm);
        if (!how.IsEven && places.Count == 0) return Unchanged(piece, narrowest, []);
        var dilated = Dilate(shape, how, balls, places);
        if (!how.IsEven) dilated = Seams.Closed(shape.Material, dilated, how);
        if (!how.MayMelt && neighbours is { Count: > 0 }) dilated = dilated.Minus(Region.EvenOdd(neighbours));
        var (most, near) = how.IsEven ? (how.AmountMm, null) : (how.AmountMm / 2, Near(balls, places, how.AmountMm + how.KeptGapMm));
        var clearance = new Growth(shape.Rings, shape.Around, how.KeptGapMm, most, near, budget);
        var grown = Union(shape.Material, clearance.Limited(dilated, isStrict: false), how);
        if (!how.MayMelt && !IsSameTopology(shape.Joined, grown)) grown = Union(shape.Material, clearance.Limited(dilated, isStrict: true), how);
        if (grown.PartCount > 1) throw new EditRefused(Reason.CutIntoParts, piece.Name, grown.PartCount);
        if (!how.MayMelt && !IsSameTopology(shape.Joined, grown)) return Unchanged(piece, narrowest, places);
        return Resurvey(piece, Reshaping.Stitched(piece, shape.Lines, shape.Stitching, grown), how, narrowest, shape.Around, budget);
    }

    /// <summary>A piece made ready to be grown.</summary>
    /// <param name="Lines">The lines that bound it.</param>
    /// <param name="Stitching">The way back from flat rings to their paths.</param>
    /// <param name="Material">The paper.</param>
    /// <param name="Joined">The paper where parts that touch in a point alone, as lines drawn to meet often do, are one: growth makes a neck of the point.</param>
    /// <param name="Rings">Its flat rings, sound.</param>
    /// <param name="Around">Flat rings of the neighbours.</param>
    /// <param name="FitMm">Fitted curves lie no farther off.</param>
    private sealed record Shape(
        ImmutableArray<Line> Lines, Stitching Stitching, Region Material, Region Joined, IReadOnlyList<Point[]> Rings, List<Point[]> Around, double FitMm);

    private static Shape Prepare(Piece piece, Thicken how, IReadOnlyList<Path>? neighbours)
    {
        var lines = Reshaping.Rings(piece);
        var fit = Math.Clamp(how.AmountMm / 100, FinestFitMm, Reshaping.FitMm);
        var stitching = Reshaping.Stitching(lines, fit, Math.Clamp(how.AmountMm / 4, Reshaping.WindowMm / 3, Reshaping.WindowMm));
        var material = Reshaping.Material(stitching.Rings);
        var joined = material.PartCount == 1 ? material : material.Grow(Touching, Corners.Round, 2);
        return new Shape(lines, stitching, material, joined, Reshaping.Sound(stitching.Rings, material), WidthSurvey.Flat(neighbours ?? []), fit);
    }

    /// <summary>The paper offset outward; or discs of the wanted width swept along the medial line of each thin place.</summary>
    private static Region Dilate(Shape shape, Thicken how, MedialBalls balls, List<NarrowPlace> places) => how.IsEven
        ? shape.Material.Grow(how.AmountMm, how.Corners, Arcs.QuarterEdges(how.AmountMm))
        : Growth.Sweep(balls, places, how.AmountMm + Spare * shape.FitMm);

    /// <summary>The paper with what was added to it, without what a kept gap has cut off from it and without pockets of air that growth has shut in.</summary>
    private static Region Union(Region material, Region added, Thicken how)
    {
        var grown = material.Union(added);
        var whole = grown.PartCount == 1 ? grown : grown.Where(part => !part.And(material).IsEmpty, _ => true);
        return WithoutPockets(material, whole, PocketShare * how.LeastWidthMm * how.LeastWidthMm);
    }

    /// <summary>
    /// The bottom of a notch, or a corner of an opening, that grew together before it: too small to come out, it fills. What is left of
    /// an opening at its largest stays an opening, however small.
    /// </summary>
    private static Region WithoutPockets(Region material, Region grown, double least)
    {
        if (grown.OpeningCount <= material.OpeningCount) return grown;
        var before = material.Parts.SelectMany(p => p.Openings).Select(o => (Ring: o, Box: Box.Around(o))).ToList();
        var left = grown.Parts.SelectMany(p => p.Openings).Select(o => (Area: Math.Abs(Polygons.SignedArea(o)), Home: Home(o))).ToList();
        var largest = left.Where(o => o.Home >= 0).GroupBy(o => o.Home).ToDictionary(g => g.Key, g => g.Max(o => o.Area));
        return grown.Where(_ => true, hole => hole.Area >= least || (hole.Parts.First().Outer is var ring && Home(ring) is >= 0 and var home && Math.Abs(Polygons.SignedArea(ring)) >= largest[home]));

        int Home(Point[] ring) => Polygons.InteriorPoint(ring) is { } inside ? before.FindIndex(o => o.Box.Contains(inside) && Polygons.Contains(o.Ring, inside)) : -1;
    }

    /// <summary>As many parts and openings as before: the guard that nothing melted together and nothing closed.</summary>
    private static bool IsSameTopology(Region before, Region after) => after.PartCount == before.PartCount && after.OpeningCount == before.OpeningCount;

    /// <summary>A piece that was left as it is.</summary>
    public static Thickened Unchanged(Piece piece) => Unchanged(piece, null, []);

    private static Thickened Unchanged(Piece piece, double? narrowest, IReadOnlyList<NarrowPlace> places) =>
        new(piece, narrowest, narrowest, 0, 0, piece.Area, piece.Area, [.. places.Select(p => p.Place)], Nodes(piece));

    /// <summary>What came of it, measured on the new paths.</summary>
    private static Thickened Resurvey(Piece before, (Piece Piece, int Closed, int Bays) grown, Thicken how, double? narrowest, List<Point[]> neighbours, Budget budget)
    {
        var after = grown.Piece;
        var least = how.LeastWidthMm;
        var (rings, slits) = (PieceWidths.Sound(after), WidthSurvey.Flat(PieceWidths.Slits(after), areClosed: false));
        var thin = WidthSurvey.Material(rings, slits, least, budget).Places;
        var now = Narrowest(after, thin, least);
        var limited = thin.Where(p => p.Place.WidthMm < Enough * least).Select(p => p.Place).ToImmutableArray();
        return new Thickened(after, narrowest, now, grown.Bays + Touched(after, neighbours), grown.Closed, before.Area, after.Area, limited, Nodes(after));
    }

    /// <summary>The narrowest of the places below a width, else what is narrowest above it.</summary>
    private static double? Narrowest(Piece piece, List<NarrowPlace> places, double least) =>
        places.Count > 0 ? places.Min(p => p.Place.WidthMm) : PieceWidths.Narrowest(piece, 2 * least);

    /// <summary>Neighbours that a piece now lies on.</summary>
    private static int Touched(Piece piece, List<Point[]> neighbours)
    {
        if (neighbours.Count == 0) return 0;
        var own = new RegionIndex(WidthSurvey.Flat(PieceWidths.Rings(piece)));
        return neighbours.Count(n => own.Bounds.Overlaps(Box.Around(n)) && n.Any(own.Contains));
    }

    private static int Nodes(Piece piece) => PieceWidths.Rings(piece).Sum(PathNodes.Count);

    /// <summary>Tells whether a point lies about the thin places.</summary>
    private static Func<Point, bool> Near(MedialBalls balls, IEnumerable<NarrowPlace> places, double distance)
    {
        (int, int) Cell(Point p) => ((int)Math.Floor(p.X / distance), (int)Math.Floor(p.Y / distance));
        var cells = new HashSet<(int, int)>();
        foreach (var (x, y) in places.SelectMany(p => p.Samples).Select(i => Cell(balls.Centre(i))).Distinct())
        {
            for (var dx = -1; dx <= 1; dx++)
            {
                for (var dy = -1; dy <= 1; dy++) cells.Add((x + dx, y + dy));
            }
        }
        return p => cells.Contains(Cell(p));
    }
}
