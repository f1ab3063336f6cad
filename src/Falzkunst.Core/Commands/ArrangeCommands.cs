using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for where things lie, which way round and how large.</summary>
internal static class ArrangeCommands
{
    private static readonly (string, AlignEdge)[] Edges =
    [
        ("left", AlignEdge.Left), ("centre", AlignEdge.Centre), ("right", AlignEdge.Right),
        ("top", AlignEdge.Top), ("middle", AlignEdge.Middle), ("bottom", AlignEdge.Bottom),
    ];

    public static readonly ImmutableArray<Command> All =
    [
        new("move", "move 10 -5", "Moves what is picked: across, then down.",
            (_, w) => new MoveAction(w.Length("how far across"), w.Length("how far down"))),
        new("place", "place 0 0", "Puts its upper left corner at a place of the card.",
            (_, w) => new PlaceAction(w.Length("how far from the left"), w.Length("how far from the top"))),
        new("size", "size 40 30", "Makes it so wide and high; with one number the ratio is kept.", (_, w) =>
        {
            var width = w.Length("a width");
            return w.Take("x") | w.Take("×") | w.Take("by") || w.HasMore ? new ResizeAction(width, w.Length("a height")) : new ResizeAction(width);
        }),
        new("width", "width 40", "Makes it so wide; with “free” behind it the height stays.", (_, w) => new ResizeAction(Width: w.Length("a width"), KeepRatio: !w.Take("free"))),
        new("height", "height 30", "Makes it so high; with “free” behind it the width stays.", (_, w) => new ResizeAction(Height: w.Length("a height"), KeepRatio: !w.Take("free"))),
        new("scale", "scale 150", "Makes it so many per cent of what it is.", (_, w) => new ScaleAction(w.Number("a percentage"))),
        new("turn", "turn 90", "Turns it by degrees, clockwise.", (_, w) => new TurnAction(w.Number("degrees"))),
        new("mirror", "mirror across", "Mirrors it: across (left to right) or down (top to bottom).",
            (_, w) => new MirrorAction(!w.HasMore || w.OneOf("across or down", ("across", true), ("down", false)))),
        new("duplicate", "duplicate", "A second one, a little aside.", (_, _) => new DuplicateAction()),
        new("rows", "rows 2 columns 3 gap 5 5", "Repeats it in rows and columns, with gaps across and down.", Rows),
        new("around", "around 8", "So many around the middle of the card (lines: of their piece); “at 50 50” names another centre, “upright” leaves them unturned.", Around),
        new("reflect", "reflect right", "A mirrored copy beyond its left, right, top or bottom edge.",
            (_, w) => new ReflectAction(w.OneOf("an edge", Edges[0], Edges[2], Edges[3], Edges[5]))),
        new("align", "align left card", "Lines up left, centre, right, top, middle or bottom: with each other, or with “card” or “piece”.",
            (_, w) => new AlignAction(w.OneOf("an edge", Edges), w.Take("card") ? AlignTo.Card : w.Take("piece") ? AlignTo.Piece : AlignTo.EachOther)),
        new("centre", "centre card", "Centres it both ways on the card; with “piece” lines on their piece.", (_, w) =>
        {
            var isOnPiece = w.Take("piece");
            w.Take("card");
            return new CentreAction(isOnPiece);
        }),
        new("spread", "spread across", "Equal gaps across or down between three or more.",
            (_, w) => new SpreadAction(w.OneOf("across or down", ("across", true), ("down", false)))),
    ];

    private static RepeatAction Rows(BenchContext c, CommandWords w)
    {
        var rows = w.Count("how many rows");
        var columns = w.Take("columns") ? w.Count("how many columns") : 1;
        if (!w.Take("gap")) return new RepeatAction(rows, columns);
        var gap = w.Length("a gap");
        return new RepeatAction(rows, columns, gap, w.HasMore ? w.Length("a gap down") : gap);
    }

    private static AroundAction Around(BenchContext c, CommandWords w)
    {
        var count = w.Count("how many");
        var isUpright = w.Take("upright");
        (double X, double Y)? at = w.Take("at") ? (w.Length("the centre's place across"), w.Length("its place down")) : null;
        return new AroundAction(count, isUpright | w.Take("upright"), at?.X, at?.Y);
    }
}
