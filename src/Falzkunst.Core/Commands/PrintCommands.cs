using System.Collections.Immutable;
using Falzkunst.Core.Actions;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for what is printed and for the pages it is printed on.</summary>
internal static class PrintCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("print fill", "print fill #E9DFC6", "The picked lines bound a printed colour; “none” leaves the paper.", (_, w) => new PaintAction(Fill: w.Word("a colour"))),
        new("print line", "print line #24313A 0.8 dash 2 1 round", "A printed stroke along the picked lines: colour, width, dash and gap; what is not said stays.", (_, w) => Line(w)),
        new("print over", "print over #E9DFC6 2 dash 1 3", "A second stroke over the first, such as sleepers across a track; “none” takes it off.", (_, w) => Over(w)),
        new("print ground", "print ground #E9DFC6", "A colour printed all over the picked pieces; “none” takes it off.", (_, w) => new PrintGroundAction(w.Word("a colour"))),
        new("print border", "print border 3 width 0.8 dash 2 1", "A printed border so far inside the edge of the picked pieces, which follows it.", (_, w) => Border(w)),
        new("cut only outside", "cut only outside", "Cuts only the outer edge of the picked pieces and prints what is inside; several become one.", (_, _) => new CutOnlyOutsideAction()),
        new("follow print", "follow print", "The outline grows round printed areas that hang over it.", (_, _) => new FollowPrintAction()),
        new("cover picture", "cover picture", "The topmost picture becomes so large that it covers its piece and the bleed.", (_, _) => new CoverPictureAction()),
        new("turn picture", "turn picture back", "The topmost picture goes on the back of its piece, or on its face.", (_, w) => new TurnPictureAction(OnBack: w.OneOf("back or face", ("back", true), ("face", false)))),
        new("print pages", "print pages marks", "The stock's sheets are printed: with marks for the machine, plain to be trimmed by hand, or off.", Pages),
        new("bleed", "bleed 2", "How far print goes past the cut.", (_, w) => new PrintPagesAction(Bleed: w.Length("a distance"))),
        new("save ink", "save ink 5", "Prints nothing under upper layers but a strip of that width for glue; “off” prints all.",
            (_, w) => w.Take("off") ? new PrintPagesAction(SavesInk: false) : new PrintPagesAction(SavesInk: true, Glue: w.HasMore ? w.Length("a width") : null)),
        new("both sides", "both sides upright", "Prints both sides, the sheet flipped about its upright or its level edge; “off” prints one.",
            (_, w) => new PrintPagesAction(Flip: w.OneOf("upright, level or off", ("upright", "upright"), ("level", "level"), ("off", PaintAction.None)))),
        new("draw marks", "draw marks in", "Registration marks come as near as the pieces let them, with “out” they go to the page's corners.",
            (_, w) => new DrawMarksAction(In: w.OneOf("in or out", ("in", true), ("out", false)))),
    ];

    private static PaintAction Line(CommandWords w)
    {
        var action = new PaintAction();
        while (w.HasMore)
        {
            action = w.PeekIsNumber ? action with { Width = w.Length("a width") }
                : w.Take("dash") ? action with { Dash = w.Length("a dash"), Gap = w.PeekIsNumber ? w.Length("a gap") : null }
                : w.Take("round") ? action with { Round = true } : w.Take("square") ? action with { Round = false }
                : action with { Colour = w.Word("a colour") };
        }
        return action == new PaintAction() ? throw w.Lacking("a colour or a width") : action;
    }

    private static PaintAction Over(CommandWords w)
    {
        var line = Line(w);
        return new PaintAction(OverColour: line.Colour, OverWidth: line.Width, OverDash: line.Dash, OverGap: line.Gap);
    }

    private static PrintBorderAction Border(CommandWords w)
    {
        var action = new PrintBorderAction(w.Length("a distance"));
        while (w.HasMore)
        {
            action = w.Take("width") ? action with { Width = w.Length("a width") }
                : w.Take("dash") ? action with { Dash = w.Length("a dash"), Gap = w.PeekIsNumber ? w.Length("a gap") : 0 }
                : w.Take("round") ? action with { Round = true }
                : action with { Colour = w.Word("a colour") };
        }
        return action;
    }

    private static BenchAction Pages(BenchContext c, CommandWords w)
    {
        var marks = w.OneOf<bool?>("marks, plain or off", ("marks", true), ("plain", false), ("off", null));
        if (marks is { } with) return new PrintPagesAction(Marks: with);
        return new PrintNothingAction(PrintPagesAction.StockOf(c));
    }
}
