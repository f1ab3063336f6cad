using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>A shape drawn in card coordinates.</summary>
/// <param name="Operation">What is done along it.</param>
/// <param name="OnPiece">
/// It lies on the one picked piece, or on none. Where nothing is said a closed cut is a piece of its own, an aid lies on none, and
/// any other line on the picked piece.
/// </param>
public abstract record DrawAction(Operation Operation, bool? OnPiece) : BenchAction, ISketched
{
    public IEnumerable<Path> Sketch(BenchContext c) => [Shape().ToPath()];

    /// <summary>The shape.</summary>
    /// <exception cref="EditRefused">Its numbers are out of reach.</exception>
    protected abstract BasicShape Shape();

    public override Edit For(BenchContext c)
    {
        var shape = Shape();
        var isOn = OnPiece ?? !(Operation == Operation.Aid || (Operation == Operation.Cut && shape.ToPath().IsClosed));
        return new DrawShape(isOn && c.Picked.PieceIds is [var only] ? only : null, shape, Operation);
    }
}

/// <summary>A shape in a box, from the left, from the top, width and height, mm.</summary>
public abstract record FramedAction(double X, double Y, double Width, double Height, Operation Operation, bool? OnPiece) : DrawAction(Operation, OnPiece)
{
    public override Edit For(BenchContext c) =>
        Width > 0 && Height > 0 ? base.For(c) : throw new EditRefused(Reason.NoWidth) { Field = Width > 0 ? "height" : "width" };

    protected static int Counted(int count, int least, string field) =>
        count >= least && count <= BasicShape.MostCorners ? count : throw EditRefused.Range(Measure.Corners, least, BasicShape.MostCorners, field);
}

/// <summary>With one radius for all corners, or four from the upper left, clockwise.</summary>
public sealed record DrawRectangleAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    [InMillimetres] double Radius = 0, [InMillimetres] double? Second = null, [InMillimetres] double? Third = null, [InMillimetres] double? Fourth = null,
    Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    protected override BasicShape Shape() => new RectangleShape(
        X, Y, Width, Height, Rounded(Radius, "radius"), Rounded(Second ?? Radius, "second"), Rounded(Third ?? Radius, "third"), Rounded(Fourth ?? Radius, "fourth"));

    private static double Rounded(double radius, string field) =>
        radius is >= 0 and <= Arranging.MostMm ? radius : throw EditRefused.RangeMm(Measure.CornerRadius, 0, Arranging.MostMm, field);
}

public sealed record DrawEllipseAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    protected override BasicShape Shape() => new EllipseShape(X, Y, Width, Height);
}

public sealed record DrawArchAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    protected override BasicShape Shape() => new ArchShape(X, Y, Width, Height);
}

public sealed record DrawSlotAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    protected override BasicShape Shape() => new SlotShape(X, Y, Width, Height);
}

public sealed record DrawPolygonAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    int Corners = 6, Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    protected override BasicShape Shape() => new PolygonShape(X, Y, Width, Height, Counted(Corners, 3, "corners"));
}

/// <summary>The inner corners lie so many per cent out.</summary>
public sealed record DrawStarAction(
    [InMillimetres] double X, [InMillimetres] double Y, [InMillimetres] double Width, [InMillimetres] double Height,
    int Points = 5, double Inner = 45, Operation Operation = Operation.Cut, bool? OnPiece = null) : FramedAction(X, Y, Width, Height, Operation, OnPiece)
{
    private const double LeastInner = 3;
    private const double MostInner = 99;

    protected override BasicShape Shape() => Inner is >= LeastInner and <= MostInner
        ? new StarShape(X, Y, Width, Height, Counted(Points, 3, "points"), Inner / 100)
        : throw EditRefused.Range(Measure.StarDepth, LeastInner, MostInner, "inner");
}

/// <summary>From one place to another; held exactly level, upright or at 45 degrees.</summary>
public sealed record DrawLineAction(
    [InMillimetres] double FromX, [InMillimetres] double FromY, [InMillimetres] double ToX, [InMillimetres] double ToY, bool Held = false,
    Operation Operation = Operation.Score, bool? OnPiece = null) : DrawAction(Operation, OnPiece)
{
    protected override BasicShape Shape()
    {
        var line = new StraightShape(new(FromX, FromY), new(ToX, ToY));
        return Held ? line.Held() : line;
    }
}

/// <summary>From a place by two handles to another place.</summary>
public sealed record DrawCurveAction(
    [InMillimetres] double FromX, [InMillimetres] double FromY, [InMillimetres] double FirstX, [InMillimetres] double FirstY,
    [InMillimetres] double SecondX, [InMillimetres] double SecondY, [InMillimetres] double ToX, [InMillimetres] double ToY,
    Operation Operation = Operation.Draw, bool? OnPiece = null) : DrawAction(Operation, OnPiece)
{
    protected override BasicShape Shape() => new CurveShape(new(FromX, FromY), new(FirstX, FirstY), new(SecondX, SecondY), new(ToX, ToY));
}

/// <summary>Work on one node of the one picked line; nodes and segments count from 0, places are the card's.</summary>
public abstract record NodeAction : BenchAction, ISketched
{
    protected abstract NodeChange Change();

    public IEnumerable<Path> Sketch(BenchContext c)
    {
        var (piece, line) = c.Picked.OnlyLine();
        return [Reworking.Bent(c.Design.Require(piece), line, Change())];
    }

    public override Edit For(BenchContext c)
    {
        var (piece, line) = c.Picked.OnlyLine();
        return new BendLine(piece, line, Change());
    }
}

public sealed record NodeMoveAction(int Node, [InMillimetres] double X, [InMillimetres] double Y) : NodeAction
{
    protected override NodeChange Change() => new MoveNode(Node, new(X, Y));
}

public sealed record NodeHandleAction(int Segment, bool First, [InMillimetres] double X, [InMillimetres] double Y) : NodeAction
{
    protected override NodeChange Change() => new MoveHandle(Segment, First, new(X, Y));
}

/// <summary>One more node where the line runs nearest to a place.</summary>
public sealed record NodeAddNearAction([InMillimetres] double X, [InMillimetres] double Y) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var (piece, line) = c.Picked.OnlyLine();
        var place = PathNearest.Find(Reworking.OnCard(c.Design.Require(piece), line), new Point(X, Y)).Place;
        return new BendLine(piece, line, new AddNode(place.Segment, place.T));
    }
}

/// <summary>One more node so many per cent along a segment.</summary>
public sealed record NodeAddAction(int Segment, double Percent = 50) : NodeAction
{
    protected override NodeChange Change() => new AddNode(Segment, Percent / 100);
}

public sealed record NodeDeleteAction(int Node) : NodeAction
{
    protected override NodeChange Change() => new DeleteNode(Node);
}

public sealed record NodeSmoothAction(int Node) : NodeAction
{
    protected override NodeChange Change() => new SmoothNode(Node);
}

public sealed record NodeCornerAction(int Node) : NodeAction
{
    protected override NodeChange Change() => new CornerNode(Node);
}
