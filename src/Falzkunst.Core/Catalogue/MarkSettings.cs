using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>
/// Registration marks at three corners of a page, as the machine's reader wants them: L-shapes whose arms run inward along both
/// edges; the lower right corner has none, or a smaller one, so that a page laid the wrong way round is told.
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

    /// <summary>The lower right corner has a mark too, whose arms are shorter by <see cref="FourthArm"/>: three marks do not show how a lens bends a photo.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool HasFourth { get; init; }

    /// <summary>The fourth mark's arms by the others': short enough to be told from them, long enough to be read.</summary>
    public const double FourthArm = 0.6;

    /// <summary>The marks in a frame: outer corner, the way the arms run (1 to the right or down, -1 to the left or up), and their length, mm.</summary>
    public ImmutableArray<(Point Corner, int Right, int Down, double ArmMm)> Placed(Box frame) =>
    [
        (frame.Min, 1, 1, ArmMm), (new Point(frame.MaxX, frame.MinY), -1, 1, ArmMm), (new Point(frame.MinX, frame.MaxY), 1, -1, ArmMm),
        .. HasFourth ? new[] { (new Point(frame.MaxX, frame.MaxY), -1, -1, ArmMm * FourthArm) } : [],
    ];

    /// <summary>Each mark as one area.</summary>
    public ImmutableArray<Path> Shapes(Box frame) => [.. Placed(frame).Select(c =>
    {
        Point At(double x, double y) => c.Corner + new Point(x * c.Right, y * c.Down);
        return Path.Polyline([At(0, 0), At(c.ArmMm, 0), At(c.ArmMm, LineMm), At(LineMm, LineMm), At(LineMm, c.ArmMm), At(0, c.ArmMm)], closed: true);
    })];

    /// <summary>What the reader needs clear round each mark, as far as it is on the page.</summary>
    public ImmutableArray<Box> Zones(Box frame, double width, double height) => [.. Placed(frame).Select(c =>
    {
        var box = Box.Around([c.Corner, c.Corner + new Point(c.ArmMm * c.Right, c.ArmMm * c.Down)]).Grow(ClearMm);
        return new Box(Math.Max(0, box.MinX), Math.Max(0, box.MinY), Math.Min(width, box.MaxX), Math.Min(height, box.MaxY));
    })];
}
