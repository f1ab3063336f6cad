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
        new("change border", "change border 4", "Another distance for the picked border, which goes on following its piece.", (_, w) => new ChangeBorderAction(w.Length("a distance"))),
    ];

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
