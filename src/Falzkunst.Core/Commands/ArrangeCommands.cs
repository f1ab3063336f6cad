using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
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
            (c, w) => new MovePicked(c.Picked, w.Length("how far across"), w.Length("how far down"))),
        new("place", "place 0 0", "Puts its upper left corner at a place of the card.", (c, w) =>
        {
            var corner = c.Picked.Box(c.Design).Min;
            return new MovePicked(c.Picked, w.Length("how far from the left") - corner.X, w.Length("how far from the top") - corner.Y);
        }),
        new("size", "size 40 30", "Makes it so wide and high; with one number the ratio is kept.", Size),
        new("width", "width 40", "Makes it so wide; with “free” behind it the height stays.", (c, w) => OneSide(c, w, isWidth: true)),
        new("height", "height 30", "Makes it so high; with “free” behind it the width stays.", (c, w) => OneSide(c, w, isWidth: false)),
        new("scale", "scale 150", "Makes it so many per cent of what it is.", (c, w) =>
        {
            var (now, by) = (Arranging.SizeNow(c.Design, c.Picked), w.Number("a percentage") / 100);
            return new ResizePicked(c.Picked, now.Width * by, now.Height * by);
        }),
        new("turn", "turn 90", "Turns it by degrees, clockwise.", (c, w) => new TurnPicked(c.Picked, w.Number("degrees"))),
        new("mirror", "mirror across", "Mirrors it: across (left to right) or down (top to bottom).",
            (c, w) => new MirrorPicked(c.Picked, !w.HasMore || w.OneOf("across or down", ("across", true), ("down", false)))),
        new("duplicate", "duplicate", "A second one, a little aside.", (c, _) => new DuplicatePicked(c.Picked)),
        new("rows", "rows 2 columns 3 gap 5 5", "Repeats it in rows and columns, with gaps across and down.", Rows),
        new("around", "around 8", "So many around the middle of the card (lines: of their piece); “at 50 50” names another centre, “upright” leaves them unturned.", Around),
        new("reflect", "reflect right", "A mirrored copy beyond its left, right, top or bottom edge.",
            (c, w) => new ReflectPicked(c.Picked, w.OneOf("an edge", Edges[0], Edges[2], Edges[3], Edges[5]))),
        new("align", "align left card", "Lines up left, centre, right, top, middle or bottom: with each other, or with “card” or “piece”.",
            (c, w) => new AlignPicked(c.Picked, w.OneOf("an edge", Edges), w.Take("card") ? AlignTo.Card : w.Take("piece") ? AlignTo.Piece : AlignTo.EachOther)),
        new("centre", "centre card", "Centres it both ways on the card; with “piece” lines on their piece.", Centre),
        new("spread", "spread across", "Equal gaps across or down between three or more.",
            (c, w) => new DistributePicked(c.Picked, w.OneOf("across or down", ("across", true), ("down", false)))),
    ];

    private static ResizePicked Size(CommandContext c, CommandWords w)
    {
        var now = Arranging.SizeNow(c.Design, c.Picked);
        var width = w.Length("a width");
        if (w.Take("x") | w.Take("×") | w.Take("by") || w.HasMore) return new ResizePicked(c.Picked, width, w.Length("a height"));
        return new ResizePicked(c.Picked, width, Follow(now.Height, width, now.Width));
    }

    private static ResizePicked OneSide(CommandContext c, CommandWords w, bool isWidth)
    {
        var now = Arranging.SizeNow(c.Design, c.Picked);
        var to = w.Length(isWidth ? "a width" : "a height");
        var isFree = w.Take("free");
        return isWidth
            ? new ResizePicked(c.Picked, to, isFree ? now.Height : Follow(now.Height, to, now.Width))
            : new ResizePicked(c.Picked, isFree ? now.Width : Follow(now.Width, to, now.Height), to);
    }

    private static double Follow(double other, double to, double now) => now > 0 ? other * to / now : other;

    private static RepeatPicked Rows(CommandContext c, CommandWords w)
    {
        var rows = w.Count("how many rows");
        var columns = w.Take("columns") ? w.Count("how many columns") : 1;
        var (gapX, gapY) = (0.0, 0.0);
        if (w.Take("gap"))
        {
            gapX = gapY = w.Length("a gap");
            if (w.HasMore) gapY = w.Length("a gap down");
        }
        return new RepeatPicked(c.Picked, rows, columns, gapX, gapY);
    }

    private static RingPicked Around(CommandContext c, CommandWords w)
    {
        var count = w.Count("how many");
        var centre = c.Picked.IsLines
            ? Picked.Whole(c.Picked.OnlyPiece()).Box(c.Design).Centre
            : Box.FromSize(c.Project.SetOut.Card.OpenWidth, c.Project.SetOut.Card.OpenHeight).Centre;
        var isUpright = w.Take("upright");
        if (w.Take("at")) centre = new Point(w.Length("the centre's place across"), w.Length("its place down"));
        return new RingPicked(c.Picked, count, centre, !(isUpright | w.Take("upright")));
    }

    private static MovePicked Centre(CommandContext c, CommandWords w)
    {
        var target = w.Take("piece")
            ? c.Picked.IsLines ? Picked.Whole(c.Picked.OnlyPiece()).Box(c.Design) : throw new EditRefused("Only lines are centred on their piece. Pick lines, or centre on the card.")
            : Box.FromSize(c.Project.SetOut.Card.OpenWidth, c.Project.SetOut.Card.OpenHeight);
        w.Take("card");
        var by = target.Centre - c.Picked.Box(c.Design).Centre;
        return new MovePicked(c.Picked, by.X, by.Y);
    }
}
