using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Catalogue;

/// <summary>Outlines of rests as they are measured by hand.</summary>
public static class OffcutShapes
{
    /// <summary>Less than this is no offcut, mm².</summary>
    public const double LeastAreaMm2 = 100;

    private const double LeastSideMm = 5;
    private const double MostSideMm = 3000;
    private const int MostCorners = 400;

    /// <summary>A rectangle.</summary>
    public static Path Rectangle(double widthMm, double heightMm)
    {
        Side(widthMm, "offcutWidth");
        Side(heightMm, "offcutHeight");
        return Path.Rectangle(0, 0, widthMm, heightMm);
    }

    /// <summary>A rectangle without a smaller one at its lower right corner.</summary>
    /// <param name="widthMm">Width of it all.</param>
    /// <param name="heightMm">Height of it all.</param>
    /// <param name="goneWidthMm">Width of what is cut out.</param>
    /// <param name="goneHeightMm">Height of what is cut out.</param>
    /// <exception cref="EditRefused">A side is out of reach, or what is gone leaves no L.</exception>
    public static Path Angle(double widthMm, double heightMm, double goneWidthMm, double goneHeightMm)
    {
        Side(widthMm, "offcutWidth");
        Side(heightMm, "offcutHeight");
        DrawerRules.BetweenMm(goneWidthMm, LeastSideMm, widthMm - LeastSideMm, Measure.OffcutSide, "goneWidth");
        DrawerRules.BetweenMm(goneHeightMm, LeastSideMm, heightMm - LeastSideMm, Measure.OffcutSide, "goneHeight");
        var (x, y) = (widthMm - goneWidthMm, heightMm - goneHeightMm);
        return Path.Polyline([new(0, 0), new(widthMm, 0), new(widthMm, y), new(x, y), new(x, heightMm), new(0, heightMm)], closed: true);
    }

    /// <summary>What corners go round, with its box at 0, 0.</summary>
    /// <exception cref="EditRefused">They go round nothing, or cross themselves.</exception>
    public static Path Corners(IReadOnlyList<Point> corners)
    {
        if (corners.Count is < 3 or > MostCorners) throw EditRefused.Range(Measure.Corners, 3, MostCorners, "corners");
        var path = Path.Polyline([.. corners], closed: true);
        var at = path.Bounds.Min;
        return path.Map(Affine.Move(at * -1));
    }

    /// <summary>An offcut that something can be laid on.</summary>
    /// <exception cref="EditRefused">It is too small, too large, or its outline crosses itself.</exception>
    public static void Demand(Offcut offcut)
    {
        var box = offcut.Outline.Bounds;
        if (!box.Min.IsFinite || !double.IsFinite(box.Width + box.Height)) throw EditRefused.RangeMm(Measure.OffcutSide, LeastSideMm, MostSideMm, "corners");
        Side(box.Width, "offcutWidth");
        Side(box.Height, "offcutHeight");
        if (CrossesItself(offcut)) throw new EditRefused(Reason.OffcutCrosses) { Field = "corners" };
        if (!(offcut.Area >= LeastAreaMm2)) throw new EditRefused(Reason.OffcutTooSmall) { Field = "corners" };
    }

    /// <summary>
    /// A ring that crosses itself falls into parts of which some lie outside the others; a sound one is its own area. Where holes cross
    /// is mended when pieces are laid, if they do not cross without end.
    /// </summary>
    private static bool CrossesItself(Offcut offcut)
    {
        try
        {
            var area = Region.EvenOdd([offcut.Outline]);
            if (area.PartCount != 1 || area.OpeningCount != 0 || Math.Abs(area.Area - Math.Abs(Polygons.SignedArea(offcut.Outline.Flat.ToArray()))) > 1e-6 * Math.Max(1, area.Area)) return true;
            if (!offcut.Holes.IsEmpty) Region.EvenOdd([offcut.Outline, .. offcut.Holes]);
            return false;
        }
        catch (BudgetSpent)
        {
            return true;
        }
    }

    private static void Side(double mm, string field) => DrawerRules.BetweenMm(mm, LeastSideMm, MostSideMm, Measure.OffcutSide, field);
}
