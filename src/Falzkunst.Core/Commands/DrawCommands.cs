using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Commands;

/// <summary>Commands that draw shapes, and work on nodes.</summary>
internal static class DrawCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("draw rectangle", "draw rectangle 10 10 40 30 radius 3", "From the left, from the top, width, height; with one radius, or four.", (_, w) => For(w, Rectangle(w))),
        new("draw ellipse", "draw ellipse 10 10 40 30", "From the left, from the top, width, height.", (_, w) => Framed(w, (x, y, a, b) => new DrawEllipseAction(x, y, a, b))),
        new("draw arch", "draw arch 10 10 20 40", "A doorway: from the left, from the top, width, height.", (_, w) => Framed(w, (x, y, a, b) => new DrawArchAction(x, y, a, b))),
        new("draw slot", "draw slot 10 10 30 4", "Round ends: from the left, from the top, width, height.", (_, w) => Framed(w, (x, y, a, b) => new DrawSlotAction(x, y, a, b))),
        new("draw polygon", "draw polygon 10 10 30 30 corners 6", "From the left, from the top, width, height, corners.", (_, w) =>
        {
            var (x, y, width, height) = Frame(w);
            var action = new DrawPolygonAction(x, y, width, height);
            return For(w, w.Take("corners") ? action with { Corners = w.Count("how many corners") } : action);
        }),
        new("draw star", "draw star 10 10 30 30 points 5 inner 45", "From the left, from the top, width, height, points, depth in per cent.", (_, w) =>
        {
            var (x, y, width, height) = Frame(w);
            var action = new DrawStarAction(x, y, width, height);
            if (w.Take("points")) action = action with { Points = w.Count("how many points") };
            return For(w, w.Take("inner") ? action with { Inner = w.Number("a percentage") } : action);
        }),
        new("draw line", "draw line 10 10 50 10", "From one place to another; with “held” level, upright or at 45 degrees.", (_, w) =>
        {
            var ((x, y), (toX, toY)) = (Place(w), Place(w));
            return For(w, new DrawLineAction(x, y, toX, toY, w.Take("held")));
        }),
        new("draw curve", "draw curve 10 10 20 0 40 20 50 10", "From a place by two handles to another place.", (_, w) =>
        {
            var ((x, y), (x1, y1), (x2, y2), (toX, toY)) = (Place(w), Place(w), Place(w), Place(w));
            return For(w, new DrawCurveAction(x, y, x1, y1, x2, y2, toX, toY));
        }),
        new("node", "node 2 delete", "Node work on the picked line: move to a place, add, delete, smooth, corner, handle.", Node),
    ];

    /// <summary>The operation that a word names.</summary>
    internal static Operation OperationIn(CommandWords w) =>
        w.OneOf("an operation", [.. OperationWords.Choices.Select(o => (o.Word(), o))]);

    /// <summary>An operation's word says what the line is for; "on piece" draws on the picked piece, "apart" on none.</summary>
    private static DrawAction For(CommandWords w, DrawAction action)
    {
        while (w.HasMore)
        {
            if (w.Take("for")) action = action with { Operation = OperationIn(w) };
            else if (w.Take("apart")) action = action with { OnPiece = false };
            else if (w.Take("on") && w.Take("piece")) action = action with { OnPiece = true };
            else break;
        }
        return action;
    }

    private static DrawRectangleAction Rectangle(CommandWords w)
    {
        var (x, y, width, height) = Frame(w);
        var action = new DrawRectangleAction(x, y, width, height);
        if (!w.Take("radius")) return action;
        action = action with { Radius = w.Length("a radius") };
        return !w.PeekIsNumber ? action : action with
        {
            Second = w.Length("a second radius"),
            Third = w.Length("a third radius"),
            Fourth = w.Length("a fourth radius"),
        };
    }

    private static BenchAction Node(BenchContext c, CommandWords w)
    {
        var number = w.Count("the node's number") - 1;
        switch (w.OneOf("what to do with it", ("move", 0), ("delete", 1), ("smooth", 2), ("corner", 3), ("add", 4), ("handle", 5)))
        {
            case 0:
                var (x, y) = Place(w);
                return new NodeMoveAction(number, x, y);
            case 1: return new NodeDeleteAction(number);
            case 2: return new NodeSmoothAction(number);
            case 3: return new NodeCornerAction(number);
            case 4: return w.HasMore ? new NodeAddAction(number, w.Number("a share in per cent")) : new NodeAddAction(number);
            default:
                var isFirst = w.OneOf("first or second", ("first", true), ("second", false));
                var (toX, toY) = Place(w);
                return new NodeHandleAction(number, isFirst, toX, toY);
        }
    }

    private static DrawAction Framed(CommandWords w, Func<double, double, double, double, DrawAction> make)
    {
        var (x, y, width, height) = Frame(w);
        return For(w, make(x, y, width, height));
    }

    private static (double X, double Y, double Width, double Height) Frame(CommandWords w) =>
        (w.Length("a place from the left"), w.Length("a place from the top"), w.Length("a width"), w.Length("a height"));

    private static (double X, double Y) Place(CommandWords w) => (w.Length("a place across"), w.Length("a place down"));
}
