using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>Sheets of a layout as pages for a printer.</summary>
public static class PrintPages
{
    /// <summary>The line of words and its rule of 100 mm take so much room, mm.</summary>
    public const double LabelWidthMm = 104, LabelHeightMm = 8;

    /// <summary>Trim marks begin so far from a piece's corner, and are so long, mm.</summary>
    private const double TrimGapMm = 1, TrimMm = 4;

    /// <summary>Boxes that touch do not overlap, mm.</summary>
    private const double TouchMm = 0.01;

    /// <summary>Paper between the label and anything else, mm.</summary>
    private const double LabelGapMm = 2;

    /// <summary>Places for the label are looked for in steps of so much, mm.</summary>
    private const double LabelStepMm = 4;

    /// <summary>The sides of a sheet that are printed, the face first.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="design">The pieces on it, as they are made.</param>
    /// <param name="how">How its stock is printed.</param>
    public static ImmutableArray<PrintedPage> For(SheetLayout sheet, Design design, PagePrinting how)
    {
        var pieces = sheet.Placements.Select(p => p.Piece).Distinct().Select(design.Find).OfType<Piece>().ToList();
        var face = Side(sheet, design, how, pieces, back: false);
        return how.Flip is null ? [face] : [face, Side(sheet, design, how, pieces, back: true)];
    }

    /// <summary>The box whose corners the marks of a sheet have.</summary>
    public static Box FrameOf(SheetLayout sheet, MarkSettings marks) => sheet.MarkFrame ?? marks.Frame(sheet.Width, sheet.Height);

    /// <summary>From a sheet's coordinates, seen from its face, to those of its back.</summary>
    public static Affine ToBack(SheetLayout sheet, FlipEdge flip) =>
        flip == FlipEdge.Upright ? Affine.FromBehind(sheet.Width) : Affine.Scale(1, -1).Then(Affine.Move(0, sheet.Height));

    /// <summary>What is printed of a piece.</summary>
    public static PrintedPiece PieceOf(Design design, Piece piece, PagePrinting how, bool back)
    {
        var layers = PrintedArt.On(piece, back);
        var seen = back ? PieceBack.Seen(piece) : piece;
        var bled = BledOf(seen, layers, how.BleedMm);
        // Upper layers lie on the face and hide nothing of the back.
        var clip = !back && how.GlueMm is { } glue && !layers.IsEmpty && HiddenParts.Of(design, piece, glue) is { IsEmpty: false } hidden ? bled.Clip.Minus(hidden) : bled.Clip;
        return new(seen, layers, bled, clip, how.BleedMm);
    }

    private static Bled BledOf(Piece piece, ImmutableArray<PrintLayer> layers, double mm)
    {
        try
        {
            return Bleeding.Of(piece, layers, mm);
        }
        catch (BudgetSpent)
        {
            // An outline that crosses itself so often bounds no paper that print could be clipped to but its box.
            return new(Region.FromBox(piece.Size), [], []);
        }
    }

    private static PrintedPage Side(SheetLayout sheet, Design design, PagePrinting how, List<Piece> pieces, bool back)
    {
        var flip = back ? ToBack(sheet, how.Flip!.Value) : Affine.Identity;
        var kinds = pieces.ToDictionary(p => p.Id, p => PieceOf(design, p, how, back));
        ImmutableArray<PrintedCopy> copies = [.. sheet.Placements.Where(p => kinds.ContainsKey(p.Piece)).Select(p => new PrintedCopy(
            p.Piece, p.Copy, (back ? PieceBack.Turn(design.Require(p.Piece)) : Affine.Identity).Then(p.Place).Then(flip), kinds[p.Piece]))];
        var cuts = copies.Select(c => c.What.Piece.Outline.Path.BoundsUnder(c.Place)).ToList();
        var trim = cuts.Aggregate(Box.Empty, (all, b) => all.Include(b));
        var page = Box.FromSize(sheet.Width, sheet.Height);
        var marks = how.Marks is { } m ? m.Shapes(FrameOf(sheet, m)) : [];
        var bleeds = copies.Any(c => !c.What.Layers.IsEmpty) ? how.BleedMm : 0;
        return new(
            sheet.Width, sheet.Height, copies, marks.IsEmpty ? [] : [.. marks.Select(p => p.Map(flip))],
            how.IsCut ? [] : [.. copies.SelectMany((c, i) => TrimsOf(cuts[i], Math.Max(bleeds, TrimGapMm)).Where(t => !cuts.Where((_, k) => k != i).Any(other => other.Grow(-TouchMm).Overlaps(t.Bounds))))
                .Where(t => IsIn(t, page.Grow(-how.MarginMm)))],
            trim.IsEmpty ? page : Within(trim, page), trim.IsEmpty ? page : Within(trim.Grow(bleeds), page),
            how.IsBare || back ? null : LabelPlace(sheet, how, cuts.Select(c => c.Grow(bleeds + LabelGapMm))));
    }

    private static bool IsIn(Path path, Box box) => !box.IsEmpty && box.Contains(path.Bounds, 1e-6);

    private static Box Within(Box inner, Box page) =>
        new(Math.Max(inner.MinX, page.MinX), Math.Max(inner.MinY, page.MinY), Math.Min(inner.MaxX, page.MaxX), Math.Min(inner.MaxY, page.MaxY));

    /// <summary>Two short lines at each corner of a piece's box, outside its bleed.</summary>
    private static IEnumerable<Path> TrimsOf(Box cut, double gap)
    {
        foreach (var (x, right) in new[] { (cut.MinX, -1), (cut.MaxX, 1) })
        {
            foreach (var (y, down) in new[] { (cut.MinY, -1), (cut.MaxY, 1) })
            {
                yield return Path.Polyline([new(x + right * gap, y), new(x + right * (gap + TrimMm), y)], closed: false);
                yield return Path.Polyline([new(x, y + down * gap), new(x, y + down * (gap + TrimMm))], closed: false);
            }
        }
    }

    /// <summary>Room for the label as low on the page as there is any, on paper that is printed and in no mark's zone.</summary>
    private static Box? LabelPlace(SheetLayout sheet, PagePrinting how, IEnumerable<Box> taken)
    {
        var room = Box.FromSize(sheet.Width, sheet.Height).Grow(-Math.Max(how.MarginMm, 1));
        List<Box> full = [.. taken, .. how.Marks is { } marks ? marks.Zones(FrameOf(sheet, marks), sheet.Width, sheet.Height).Select(z => z.Grow(LabelGapMm)) : []];
        for (var y = room.MaxY - LabelHeightMm; y >= room.MinY; y -= LabelStepMm)
        {
            // From the middle outward.
            var middle = room.Centre.X - LabelWidthMm / 2;
            for (var off = 0.0; off <= room.Width / 2; off += LabelStepMm)
            {
                foreach (var x in new[] { middle - off, middle + off })
                {
                    var place = new Box(x, y, x + LabelWidthMm, y + LabelHeightMm);
                    if (room.Contains(place, 1e-9) && !full.Exists(place.Overlaps)) return place;
                }
            }
        }
        return null;
    }
}
