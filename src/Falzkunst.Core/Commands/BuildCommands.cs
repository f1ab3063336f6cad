using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Geometry.Overlay;

namespace Falzkunst.Core.Commands;

/// <summary>Commands that make pieces of pieces.</summary>
internal static class BuildCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("unite", "unite into Viaduct", "Makes the picked pieces one; “into” says whose stock and name remain, “keep” leaves the others, “live” lets it follow them. With lines picked: their piece and them.", (c, w) => Combine(c, w, Combination.Unite)),
        new("subtract", "subtract keep from Viaduct", "Takes the other picked pieces out of one: the lowest, or that named. With lines picked: takes them out of their piece.", (c, w) => Combine(c, w, Combination.Subtract)),
        new("overlap", "overlap", "Keeps only what the picked pieces share; with lines picked, what of their piece lies in them.", (c, w) => Combine(c, w, Combination.Intersect)),
        new("part", "part", "Parts the piece of the picked line along it.", (_, _) => new PartAction()),
        new("crop", "crop to Viaduct", "Cuts the picked pieces to the outline of one of them: the topmost, or that named.", (c, w) => new CropAction(w.Take("to") ? PieceCommands.PieceNamed(c, w.Rest("a piece")) : null)),
        new("join ends", "join ends 1", "Joins the picked open lines where their ends lie no farther apart.", (_, w) => w.HasMore ? new JoinEndsAction(w.Length("a distance")) : new JoinEndsAction()),
        new("openings", "openings -1", "Makes the openings of the picked piece, or the picked ones, larger by a distance, smaller below 0; the outline stays.", (_, w) => new OpeningsAction(w.Length("a distance"))),
        new("shadow", "shadow 3 layers 2", "Lays so many layers under the picked piece, each larger than the one above by a step.", (_, w) =>
        {
            var step = w.Length("a step");
            return new ShadowAction(w.Take("layers") ? w.Count("a number") : 2, step);
        }),
        new("colours", "colours rim 3 close 0.3 down", "Makes the picked papers a stack inside the lowest of them: a rim ties each layer; loose parts are bridged, or handed “down”.", Colours),
        new("frames", "frames 3 step 12 backing 2 glue 5", "Makes the picked piece nested frames with backings; “glue” leaves out what is hidden but for that.", Frames),
        new("hold", "hold 3 0.4", "Leaves so many ties of a width in the picked cuts, or the outlines of the picked pieces; “shift” moves them along; 0 cuts all round.", (_, w) =>
        {
            var action = new HoldAction(w.Count("a number"));
            if (w.PeekIsNumber) action = action with { Width = w.Length("a width") };
            return w.Take("shift") ? action with { Shift = w.Length("a distance") } : action;
        }),
        new("move tie", "move tie 2 -5", "Moves one tie, counted from the line's beginning, so far along the picked cut.", (_, w) => new TieByAction(w.Count("a number") - 1, w.Length("a distance"))),
        new("place picture", "place picture scale 50 turn 15 at 2 -3", "Scales, turns and moves the picture on the picked piece: per cent, degrees, and how far its middle lies from the piece's; “pattern” or “once”.", PlacePicture),
        new("take off picture", "take off picture", "Takes the topmost picture off the picked piece.", (_, _) => new TakeOffPictureAction()),
        new("change rim", "change rim 4", "Other paper round the traced rim that the picked piece follows.", (_, w) => new ChangeRimAction(w.Length("a distance"))),
        new("change border", "change border 4", "Another distance for the picked border, which goes on following its piece.", (_, w) => new ChangeBorderAction(w.Length("a distance"))),
    ];

    private static PlacePictureAction PlacePicture(BenchContext c, CommandWords w)
    {
        var action = new PlacePictureAction();
        while (w.HasMore)
        {
            if (w.Take("scale")) action = action with { Percent = w.Number("per cent") };
            else if (w.Take("turn")) action = action with { Degrees = w.Number("degrees") };
            else if (w.Take("at")) action = action with { X = w.Length("a distance to the right"), Y = w.Length("a distance down") };
            else if (w.Take("pattern")) action = action with { Pattern = true };
            else if (w.Take("once")) action = action with { Pattern = false };
            else throw w.Lacking("scale, turn, at, pattern or once");
        }
        return action;
    }

    private static ColoursAction Colours(BenchContext c, CommandWords w)
    {
        var action = new ColoursAction();
        while (w.HasMore)
        {
            if (w.Take("rim")) action = action with { Rim = w.Length("a width") };
            else if (w.Take("close")) action = action with { Close = w.Length("a width") };
            else if (w.Take("bridge")) action = action with { Bridge = w.Length("a width") };
            else if (w.Take("down")) action = action with { Loose = LooseParts.HandDown };
            else throw w.Lacking("rim, close, bridge or down");
        }
        return action;
    }

    private static FramesAction Frames(BenchContext c, CommandWords w)
    {
        var action = new FramesAction(w.Count("a number"));
        while (w.HasMore)
        {
            if (w.Take("step")) action = action with { Step = w.Length("a distance") };
            else if (w.Take("backing")) action = action with { Backing = w.Length("a distance") };
            else if (w.Take("glue")) action = action with { Glue = w.Length("a distance") };
            else if (w.Take("on")) return action with { Stock = PieceCommands.StockNamed(c, w.Rest("a stock")) };
            else throw w.Lacking("step, backing, glue or on");
        }
        return action;
    }

    private static CombineAction Combine(BenchContext c, CommandWords w, Combination how)
    {
        var action = new CombineAction(how);
        while (w.HasMore)
        {
            if (w.Take("keep")) action = action with { Others = WhatCuts.Stays };
            else if (w.Take("live")) action = action with { Others = WhatCuts.IsFollowed };
            else if (w.Take("into") || w.Take("from")) return action with { Keeper = PieceCommands.PieceNamed(c, w.Rest("a piece")) };
            else throw w.Lacking("into, from, keep or live");
        }
        return action;
    }
}
