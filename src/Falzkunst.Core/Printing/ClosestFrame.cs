using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>
/// Registration marks drawn in: pieces are laid with the marks at the page's corners, and then the right and the lower marks come as
/// near as the pieces let them, so that a small job is read over a short way and leaves a straight rest.
/// </summary>
public static class ClosestFrame
{
    /// <summary>Frames are tried in steps of so much, mm.</summary>
    private const double StepMm = 1;

    /// <summary>The smallest frame with the page's upper left corner in which all print lies and that keeps its zones clear.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="design">The pieces on it.</param>
    /// <param name="how">How its stock is printed.</param>
    /// <returns>The frame; that of the whole page where none is smaller.</returns>
    public static Box Find(SheetLayout sheet, Design design, PagePrinting how)
    {
        var marks = how.Marks ?? throw new ArgumentException("A page without marks has no frame.", nameof(how));
        var whole = marks.Frame(sheet.Width, sheet.Height);
        var papers = sheet.Placements.Select(p => (Piece: design.Find(p.Piece), p.Place)).Where(p => p.Piece is not null)
            .Select(p => Region.FromRings(p.Piece!.Outline.Path.Map(p.Place).Flat.ToArray(), [])).ToList();
        if (papers.Count == 0) return whole;
        var all = Box.Around(papers.SelectMany(p => p.Rings).SelectMany(r => r)).Grow(how.BleedMm);
        var best = whole;
        for (var right = Math.Min(whole.MaxX, Math.Max(all.MaxX, whole.MinX + 2 * marks.ArmMm)); right <= whole.MaxX + 1e-9; right += StepMm)
        {
            for (var bottom = Math.Min(whole.MaxY, Math.Max(all.MaxY, whole.MinY + 2 * marks.ArmMm)); bottom <= whole.MaxY + 1e-9; bottom += StepMm)
            {
                var frame = whole with { MaxX = right, MaxY = bottom };
                if (frame.Width * frame.Height >= best.Width * best.Height) break;
                if (!IsClear(frame)) continue;
                best = frame;
                break;
            }
        }
        return best;

        bool IsClear(Box frame) => marks.Zones(frame, sheet.Width, sheet.Height).All(zone =>
        {
            var kept = Region.FromBox(zone).Grow(how.BleedMm, Corners.Round, Arcs.QuarterEdges(how.BleedMm));
            return papers.TrueForAll(p => p.And(kept).Area < 1e-6);
        });
    }
}
