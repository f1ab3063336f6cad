using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for lines: what they are for, how they are worked, drawing new ones.</summary>
internal static class LineCommands
{
    private static readonly (string, bool)[] OnOff = [("on", true), ("off", false)];

    public static readonly ImmutableArray<Command> All =
    [
        .. OperationWords.Choices.Select(o => new Command(o.Word(), o.Word(), $"The picked lines are for {o.Word()}.",
            (c, _) => new SetOperation(c.Picked.OnlyPiece(), Lines(c), o))),
        new("fold valley", "fold valley", "The picked scores fold towards you.", (c, _) => Fold(c, FoldDirection.Valley)),
        new("fold mountain", "fold mountain", "The picked scores fold away from you.", (c, _) => Fold(c, FoldDirection.Mountain)),
        new("half cut", "half cut on", "Cuts through the top layer only, or through again with off.",
            (c, w) => Set(c, m => m with { HalfCut = !w.HasMore || w.OneOf("on or off", OnOff) })),
        new("from back", "from back on", "Worked with the sheet face down, mirrored; off for the front.",
            (c, w) => Set(c, m => m with { FromBack = !w.HasMore || w.OneOf("on or off", OnOff) })),
        new("leave out", "leave out", "No tool runs the picked lines this time.", (c, _) => Set(c, m => m with { LeftOut = true })),
        new("take along", "take along", "Lines that were left out run again.", (c, _) => Set(c, m => m with { LeftOut = false })),
        new("dash", "dash 2 1", "Dash and gap of a perforation.",
            (c, w) => Set(c, m => m with { Dashes = new PerforationDashes(w.Length("a dash"), w.Length("a gap")) })),
        new("tip", "tip 0.4", "Width of the pen's, foil's or embossing tip.", (c, w) => Set(c, m => m with { TipMm = w.Length("a width") })),
        new("colour", "colour #7B4BA8", "Colour of the pen or foil.", (c, w) => new SetInk(c.Picked.OnlyPiece(), Lines(c), w.Word("a colour"))),
        new("fill", "fill parallel 0.4 at 45", "Fills the area: none, parallel, crossed or inward, with the distance of strokes and their angle.", Fill),
        new("settings", "settings force 200 speed 80", "Numbers that differ from the stock's: force, speed, blade, heat, times; alone it goes back to the stock's.", Settings),
        new("lock size", "lock size", "The picked lines keep their size when their piece is scaled.", (c, _) => new LockSize(c.Picked.OnlyPiece(), Lines(c), true)),
        new("free size", "free size", "The picked lines scale with their piece again.", (c, _) => new LockSize(c.Picked.OnlyPiece(), Lines(c), false)),
        new("close", "close", "Closes an open cut by a straight way.", (c, _) => new CloseOutline(c.Picked.OnlyPiece(), Lines(c)[0])),
        new("trim", "trim", "Ends a line at the edge of its piece.", (c, _) => new EndAtEdge(c.Picked.OnlyPiece(), Lines(c)[0], ShareOut: false)),
        new("draw rectangle", "draw rectangle 10 10 40 30 radius 3", "From the left, from the top, width, height; with one radius, or four.", (c, w) =>
        {
            var (x, y, width, height) = Frame(w);
            if (!w.Take("radius")) return Draw(c, w, new RectangleShape(x, y, width, height));
            var r = w.Length("a radius");
            if (!w.PeekIsNumber) return Draw(c, w, new RectangleShape(x, y, width, height, r, r, r, r));
            return Draw(c, w, new RectangleShape(x, y, width, height, r, w.Length("a second radius"), w.Length("a third radius"), w.Length("a fourth radius")));
        }),
        new("draw ellipse", "draw ellipse 10 10 40 30", "From the left, from the top, width, height.", (c, w) => Framed(c, w, (x, y, a, b) => new EllipseShape(x, y, a, b))),
        new("draw arch", "draw arch 10 10 20 40", "A doorway: from the left, from the top, width, height.", (c, w) => Framed(c, w, (x, y, a, b) => new ArchShape(x, y, a, b))),
        new("draw slot", "draw slot 10 10 30 4", "Round ends: from the left, from the top, width, height.", (c, w) => Framed(c, w, (x, y, a, b) => new SlotShape(x, y, a, b))),
        new("draw polygon", "draw polygon 10 10 30 30 corners 6", "From the left, from the top, width, height, corners.", (c, w) =>
        {
            var (x, y, width, height) = Frame(w);
            return Draw(c, w, new PolygonShape(x, y, width, height, w.Take("corners") ? Corners(w.Count("how many corners"), 3) : 6));
        }),
        new("draw star", "draw star 10 10 30 30 points 5 inner 45", "From the left, from the top, width, height, points, depth in per cent.", (c, w) =>
        {
            var (x, y, width, height) = Frame(w);
            var points = w.Take("points") ? Corners(w.Count("how many points"), 3) : 5;
            var inner = w.Take("inner") ? w.Number("a percentage") / 100 : 0.45;
            return inner is > 0.02 and < 1 ? Draw(c, w, new StarShape(x, y, width, height, points, inner)) : throw new EditRefused("The inner corners lie between 3 and 99 per cent out.");
        }),
        new("draw line", "draw line 10 10 50 10", "From one place to another; with “held” level, upright or at 45 degrees.", (c, w) =>
        {
            var line = new StraightShape(Place(w), Place(w));
            return Draw(c, w, w.Take("held") ? line.Held() : line, Operation.Score);
        }),
        new("draw curve", "draw curve 10 10 20 0 40 20 50 10", "From a place by two handles to another place.",
            (c, w) => Draw(c, w, new CurveShape(Place(w), Place(w), Place(w), Place(w)), Operation.Draw)),
        new("node", "node 2 delete", "Node work on the picked line: move to a place, add, delete, smooth, corner, handle.", Node),
    ];

    private static ImmutableArray<string> Lines(CommandContext c) =>
        c.Picked.IsLines ? c.Picked.Lines : throw new EditRefused("Pick the lines first: touch one on the light table, or a kind of line in the tray.");

    private static SetManner Set(CommandContext c, Func<Manner, Manner> change)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var lines = Lines(c);
        // Lines that are worked in different ways all become like the first.
        return new SetManner(piece.Id, lines, change(piece.Lines[piece.Require(lines)[0]].Way));
    }

    private static SetManner Fold(CommandContext c, FoldDirection fold) => Set(c, m => m with { Fold = fold });

    private static SetManner Fill(CommandContext c, CommandWords w)
    {
        var pattern = w.OneOf<FillPattern?>("none, parallel, crossed or inward",
            ("none", null), ("parallel", FillPattern.Parallel), ("crossed", FillPattern.Crossed), ("inward", FillPattern.Inward));
        if (pattern is null) return Set(c, m => m with { Fill = null });
        var distance = w.PeekIsNumber ? w.Length("a distance") : (double?)null;
        var angle = w.Take("at") ? w.Number("an angle") : 45;
        return Set(c, m => m with { Fill = new AreaFill(pattern.Value, distance, angle) });
    }

    private static SetManner Settings(CommandContext c, CommandWords w)
    {
        var change = new SettingsChange();
        while (w.HasMore)
        {
            change = w.OneOf("force, speed, blade, heat or times", ("force", 0), ("speed", 1), ("blade", 2), ("heat", 3), ("times", 4)) switch
            {
                0 => change with { ForceGrams = w.Count("grams") },
                1 => change with { SpeedMmPerSecond = w.Number("mm per second") },
                2 => change with { BladeOutMm = w.Length("how far the blade stands out") },
                3 => change with { TemperatureCelsius = w.Count("°C") },
                _ => change with { Times = w.Count("how often") },
            };
        }
        return Set(c, m => m with { Settings = change == new SettingsChange() ? null : change });
    }

    private static BendLine Node(CommandContext c, CommandWords w)
    {
        var number = w.Count("the node's number") - 1;
        NodeChange change = w.OneOf("what to do with it", ("move", 0), ("delete", 1), ("smooth", 2), ("corner", 3), ("add", 4), ("handle", 5)) switch
        {
            0 => new MoveNode(number, Place(w)),
            1 => new DeleteNode(number),
            2 => new SmoothNode(number),
            3 => new CornerNode(number),
            4 => new AddNode(number, w.HasMore ? w.Number("a share in per cent") / 100 : 0.5),
            _ => new MoveHandle(number, w.OneOf("first or second", ("first", true), ("second", false)), Place(w)),
        };
        return new BendLine(c.Picked.OnlyPiece(), Lines(c) is [var only] ? only : throw new EditRefused("Nodes are worked on one line at a time. Pick one line."), change);
    }

    private static DrawShape Framed(CommandContext c, CommandWords w, Func<double, double, double, double, BasicShape> shape)
    {
        var (x, y, width, height) = Frame(w);
        return Draw(c, w, shape(x, y, width, height));
    }

    /// <summary>On the picked piece if one is; "apart" draws on none, and an operation's word says what the line is for.</summary>
    private static DrawShape Draw(CommandContext c, CommandWords w, BasicShape shape, Operation usual = Operation.Cut)
    {
        var operation = usual;
        var isApart = w.Take("apart");
        if (w.Take("for") && !OperationWords.TryRead(w.Word("an operation"), out operation))
            throw new EditRefused($"A line is for one of {string.Join(", ", OperationWords.Choices.Select(o => o.Word()))}.");
        isApart |= w.Take("apart");
        return new DrawShape(isApart || c.Picked.Pieces is not [var only] ? null : only, shape, operation);
    }

    private static (double X, double Y, double Width, double Height) Frame(CommandWords w) =>
        (w.Length("a place from the left"), w.Length("a place from the top"), w.Length("a width"), w.Length("a height")) is var f && f.Item3 > 0 && f.Item4 > 0
            ? f
            : throw new EditRefused("A shape has a width and a height above 0.");

    private static Point Place(CommandWords w) => new(w.Length("a place across"), w.Length("a place down"));

    private static int Corners(int count, int least) => count >= least && count <= BasicShape.MostCorners
        ? count
        : throw new EditRefused($"Between {least} and {BasicShape.MostCorners}.");
}
