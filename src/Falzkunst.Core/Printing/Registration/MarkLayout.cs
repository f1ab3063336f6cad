using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>The corner of a sheet that a mark stands in, as the sheet is laid out.</summary>
public enum MarkCorner
{
    TopLeft,
    TopRight,
    BottomLeft,
    BottomRight,
}

/// <summary>Where the marks of a sheet stand.</summary>
/// <param name="Width">Of the sheet, mm.</param>
/// <param name="Height">Of the sheet, mm.</param>
/// <param name="Marks">Each mark, no two in one corner; at least three to be found.</param>
public sealed record MarkLayout(double Width, double Height, ImmutableArray<LayoutMark> Marks)
{
    public const int LeastMarks = 3;

    /// <summary>A pattern is printed between the marks whose edges look like marks here and there; shapes near a mark are no reason to refuse it then.</summary>
    public bool HasGround { get; init; }

    /// <summary>The layout of a page that is printed with marks.</summary>
    /// <param name="marks">How they look.</param>
    /// <param name="frame">The box whose corners are their outer corners, mm.</param>
    /// <param name="width">Of the page, mm.</param>
    /// <param name="height">Of the page, mm.</param>
    public static MarkLayout Of(MarkSettings marks, Box frame, double width, double height) => new(width, height,
        [.. marks.Placed(frame).Select(m => new LayoutMark(CornerOf(m.Right, m.Down), m.Corner, m.ArmMm, marks.LineMm))]);

    /// <summary>The marks as seen from the other side of the sheet, flipped about its upright edge.</summary>
    public MarkLayout Flipped() => this with { Marks = [.. Marks.Select(m => m with { Corner = CornerOf(-m.Right, m.Down), Outer = new Point(Width - m.Outer.X, m.Outer.Y) })] };

    public Point Centre => new(Width / 2, Height / 2);

    public double Diagonal => new Point(Width, Height).Length;

    /// <summary>The arms of all marks.</summary>
    public IEnumerable<LayoutArm> Arms => Marks.SelectMany(m => m.Arms);

    /// <summary>The corners that have no mark: by which of them is bare a turned sheet is told.</summary>
    public IEnumerable<MarkCorner> Bare => Enum.GetValues<MarkCorner>().Except(Marks.Select(m => m.Corner));

    private static MarkCorner CornerOf(int right, int down) => (right, down) switch
    {
        (1, 1) => MarkCorner.TopLeft,
        (-1, 1) => MarkCorner.TopRight,
        (1, -1) => MarkCorner.BottomLeft,
        _ => MarkCorner.BottomRight,
    };
}

/// <summary>One registration mark: an L whose arms run inward along both edges of the sheet.</summary>
/// <param name="Corner">Where it stands.</param>
/// <param name="Outer">The outer corner of the L, mm.</param>
/// <param name="ArmMm">Length of an arm from the outer corner, mm.</param>
/// <param name="LineMm">Width of its line, mm.</param>
public sealed record LayoutMark(MarkCorner Corner, Point Outer, double ArmMm, double LineMm)
{
    /// <summary>1 where its level arm runs to the right, -1 where to the left.</summary>
    public int Right => Corner is MarkCorner.TopLeft or MarkCorner.BottomLeft ? 1 : -1;

    /// <summary>1 where its upright arm runs down, -1 where up.</summary>
    public int Down => Corner is MarkCorner.TopLeft or MarkCorner.TopRight ? 1 : -1;

    /// <summary>Level arm, upright arm.</summary>
    public ImmutableArray<LayoutArm> Arms => [new(this, true), new(this, false)];

    /// <summary>Outer corner, and the outer corners of both arms' ends, the arm first from which a quarter turn clockwise leads to the other.</summary>
    public (Point Corner, Point First, Point Second) Form
    {
        get
        {
            var (level, upright) = (Outer + new Point(ArmMm * Right, 0), Outer + new Point(0, ArmMm * Down));
            return Right * Down > 0 ? (Outer, level, upright) : (Outer, upright, level);
        }
    }

    /// <summary>Which way the first arm of <see cref="Form"/> runs, degrees, clockwise on the sheet from its x.</summary>
    public double HeadingDegrees => Corner switch
    {
        MarkCorner.TopLeft => 0,
        MarkCorner.TopRight => 90,
        MarkCorner.BottomRight => 180,
        _ => 270,
    };
}

/// <summary>One arm of a mark by its centre line, which ink that spreads does not move.</summary>
/// <param name="Mark">Its mark.</param>
/// <param name="IsLevel">It runs along x; otherwise along y.</param>
public sealed record LayoutArm(LayoutMark Mark, bool IsLevel)
{
    /// <summary>The way it runs, a unit.</summary>
    public Point Along => IsLevel ? new(Mark.Right, 0) : new(0, Mark.Down);

    /// <summary>From its centre line into the sheet, a unit.</summary>
    public Point Across => IsLevel ? new(0, Mark.Down) : new(Mark.Right, 0);

    /// <summary>A place by its distance along the arm from the outer end and across from the centre line, mm.</summary>
    public Point At(double along, double across) => Mark.Outer + Along * along + Across * (across + Mark.LineMm / 2);

    /// <summary>The coordinate that all of its centre line shares: y of a level arm, x of an upright one, mm.</summary>
    public double Level => IsLevel ? At(0, 0).Y : At(0, 0).X;
}
