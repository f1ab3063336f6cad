using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>
/// Registration marks at three corners of a page, as the machine's reader wants them: L-shapes whose arms run inward along both
/// edges; the lower right corner has none, so that a page laid the wrong way round is told.
/// </summary>
/// <param name="InsetMm">From the page's edges to the outer corner of an L, mm.</param>
/// <param name="ArmMm">Length of an arm, from its outer corner, mm.</param>
/// <param name="LineMm">Width of an arm's line, mm.</param>
/// <param name="ClearMm">Paper that is kept clear round a mark, mm.</param>
public sealed record MarkSettings(double InsetMm, double ArmMm, double LineMm, double ClearMm)
{
    public static readonly MarkSettings Usual = new(10, 15, 0.5, 5);

    /// <summary>Limits, mm: what readers of marks can see.</summary>
    public const double LeastInsetMm = 3, MostInsetMm = 60, LeastArmMm = 6, MostArmMm = 40, LeastLineMm = 0.2, MostLineMm = 2, LeastClearMm = 1, MostClearMm = 20;

    /// <summary>The box whose corners are the outer corners of the marks, on a page where nothing draws them in.</summary>
    public Box Frame(double width, double height) => new(InsetMm, InsetMm, width - InsetMm, height - InsetMm);

    /// <summary>The outer corners of the marks in a frame and the way each runs: 1 to the right or down, -1 to the left or up.</summary>
    public static ImmutableArray<(Point Corner, int Right, int Down)> Corners(Box frame) =>
    [
        (frame.Min, 1, 1), (new Point(frame.MaxX, frame.MinY), -1, 1), (new Point(frame.MinX, frame.MaxY), 1, -1),
    ];

    /// <summary>Each mark as one area.</summary>
    public ImmutableArray<Path> Shapes(Box frame) => [.. Corners(frame).Select(c =>
    {
        Point At(double x, double y) => c.Corner + new Point(x * c.Right, y * c.Down);
        return Path.Polyline([At(0, 0), At(ArmMm, 0), At(ArmMm, LineMm), At(LineMm, LineMm), At(LineMm, ArmMm), At(0, ArmMm)], closed: true);
    })];

    /// <summary>What the reader needs clear round each mark, as far as it is on the page.</summary>
    public ImmutableArray<Box> Zones(Box frame, double width, double height) => [.. Corners(frame).Select(c =>
    {
        var box = Box.Around([c.Corner, c.Corner + new Point(ArmMm * c.Right, ArmMm * c.Down)]).Grow(ClearMm);
        return new Box(Math.Max(0, box.MinX), Math.Max(0, box.MinY), Math.Min(width, box.MaxX), Math.Min(height, box.MaxY));
    })];
}
