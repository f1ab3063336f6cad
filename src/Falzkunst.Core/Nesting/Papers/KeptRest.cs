using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Papers;

/// <summary>What of a sheet is worth keeping once its pieces are cut out.</summary>
public static class KeptRest
{
    /// <summary>The rest stays this far away from what was cut, mm.</summary>
    private const double ClearMm = 1;

    /// <summary>Strips narrower than twice this are no paper to keep, mm.</summary>
    private const double HalfStripMm = 8;

    /// <summary>Corners of the outline nearer to a straight edge than this are left out, mm.</summary>
    private const double CoarseMm = 0.2;

    /// <summary>A smaller rest is thrown away, mm².</summary>
    private const double LeastArea = 900;

    /// <summary>A rectangle that ends so near to the border goes on to the sheet's edge, mm.</summary>
    private const double NearMm = 1.5;

    private const int QuarterEdges = 4;

    /// <summary>
    /// The largest connected part of what no piece takes, without its narrow strips: a morphological opening of the paper less
    /// the pieces. Openings of pieces count as taken. Null where nothing is left that is worth keeping.
    /// </summary>
    public static Offcut? FreePart(SheetLayout sheet, Design design, string name)
    {
        var free = PaperOf(sheet);
        foreach (var outline in Outlines(sheet, design))
            free = free.Minus(Region.FromRings(Flattening.Flatten(outline, CoarseMm / 4), []).Grow(ClearMm, Corners.Tangent, QuarterEdges));
        var opened = free.Grow(-HalfStripMm, Corners.Sharp, 1).Grow(HalfStripMm, Corners.Sharp, 1).And(free).Simplified(CoarseMm);
        if (opened.IsEmpty) return null;
        if (opened.Parts.Where(p => p.Outer.Length > 2).MaxBy(p => Math.Abs(Polygons.SignedArea(p.Outer))) is not { Outer: { } outer } largest) return null;
        return ToOffcut(name, outer, largest.Openings);
    }

    /// <summary>The largest upright rectangle that no piece touches, as far as the sheet's edge where it reaches the border; null where it is not worth keeping.</summary>
    public static Offcut? StraightPart(SheetLayout sheet, Design design, string name)
    {
        var (usable, box) = (sheet.Usable, LargestRectangle(sheet, design));
        if (box.Area <= 0) return null;
        if (sheet.Outline is null)
        {
            box = new Box(
                box.MinX - usable.MinX < NearMm ? 0 : box.MinX, box.MinY - usable.MinY < NearMm ? 0 : box.MinY,
                usable.MaxX - box.MaxX < NearMm ? sheet.Width : box.MaxX, usable.MaxY - box.MaxY < NearMm ? sheet.Height : box.MaxY);
        }
        return ToOffcut(name, Path.Rectangle(box.MinX, box.MinY, box.Width, box.Height).Flat.ToArray(), []);
    }

    /// <summary>The largest upright rectangle of a sheet that no piece touches, mm.</summary>
    public static Box LargestRectangle(SheetLayout sheet, Design design)
    {
        var known = Known.GetOrCreateValue(design);
        if (known.TryGetValue(sheet.Id, out var found) && ReferenceEquals(found.Of, sheet)) return found.Free;
        var rest = Rest.Largest(sheet.Usable, Outlines(sheet, design).Concat(sheet.Blocked), sheet.Outline);
        known[sheet.Id] = (sheet, rest);
        return rest;
    }

    /// <summary>What was found for the sheets of a design; every page of them asks.</summary>
    private static readonly ConditionalWeakTable<Design, ConcurrentDictionary<string, (SheetLayout Of, Box Free)>> Known = [];

    private static IEnumerable<Path> Outlines(SheetLayout sheet, Design design) =>
        sheet.Placements.Select(p => design.Find(p.Piece)?.Outline.Path.Map(p.Place)).OfType<Path>();

    private static Region PaperOf(SheetLayout sheet) => Region.FromRings(
        (sheet.Outline ?? Path.Rectangle(0, 0, sheet.Width, sheet.Height)).Flat.ToArray(), [.. sheet.Blocked.Select(b => b.Flat.ToArray())]);

    private static Offcut? ToOffcut(string name, Point[] outer, List<Point[]> holes)
    {
        var home = Affine.Move(Box.Around(outer).Min * -1);
        var offcut = new Offcut(name, Ring(outer), [.. holes.Select(Ring)]);
        return offcut.Area < LeastArea ? null : offcut;

        // To a hundredth of a millimetre: paper is not cut finer.
        Path Ring(Point[] ring) => Path.Polyline([.. ring.Select(home.Apply).Select(p => new Point(Math.Round(p.X, 2), Math.Round(p.Y, 2)))], closed: true);
    }
}
