using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for lines: what they are for, how they are worked.</summary>
internal static class LineCommands
{
    private static readonly (string, bool)[] OnOff = [("on", true), ("off", false)];

    public static readonly ImmutableArray<Command> All =
    [
        .. OperationWords.Choices.Select(o => new Command(o.Word(), o.Word(), $"The picked lines are for {o.Word()}.", (_, _) => new OperationAction(o))),
        new("fold valley", "fold valley", "The picked scores fold towards you.", (_, _) => new FoldAction(FoldDirection.Valley)),
        new("fold mountain", "fold mountain", "The picked scores fold away from you.", (_, _) => new FoldAction(FoldDirection.Mountain)),
        new("half cut", "half cut on", "Cuts through the top layer only, or through again with off.", (_, w) => new HalfCutAction(IsOn(w))),
        new("from back", "from back on", "Worked with the sheet face down, mirrored; off for the front.", (_, w) => new FromBackAction(IsOn(w))),
        new("leave out", "leave out", "No tool runs the picked lines this time.", (_, _) => new LeaveOutAction(true)),
        new("take along", "take along", "Lines that were left out run again.", (_, _) => new LeaveOutAction(false)),
        new("dash", "dash 2 1", "Dash and gap of a perforation; with one number the gap stays.",
            (_, w) => new DashAction(w.Length("a dash"), w.HasMore ? w.Length("a gap") : null)),
        new("tip", "tip 0.4", "Width of the pen's, foil's or embossing tip.", (_, w) => new TipAction(w.Length("a width"))),
        new("colour", "colour #7B4BA8", "Colour of the pen or foil.", (_, w) => new ColourAction(w.Word("a colour"))),
        new("tool", "tool Violet, fine", "A pen, foil or tip of the drawer for the picked lines.", (c, w) => new ToolAction(ToolNamed(c, w.Rest("a pen, foil or tip")))),
        new("fill", "fill parallel 0.4 at 45", "Fills the area: none, parallel, crossed or inward, with the distance of strokes and their angle; what is not said stays.", Fill),
        new("settings", "settings force 200 speed 80", "Numbers that differ from the stock's: force, speed, blade, heat, times; alone it goes back to the stock's.", Settings),
        new("lock size", "lock size", "The picked lines keep their size when their piece is scaled.", (_, _) => new LockSizeAction(true)),
        new("free size", "free size", "The picked lines scale with their piece again.", (_, _) => new LockSizeAction(false)),
        new("close", "close", "Closes an open cut by a straight way.", (_, _) => new CloseAction()),
        new("trim", "trim", "Ends a line at the edge of its piece.", (_, _) => new TrimAction()),
        new("draw out", "draw out", "Draws scores that stop short of the edge out to the distance kept from cuts.", (_, _) => new DrawOutAction()),
        new("edge line", "edge line 3 for draw", "A line so far inside the edge of the piece, which follows it; “sharp” keeps its corners.", EdgeLine),
        new("make plain", "make plain", "Lines that follow the edge become lines like any other.", (_, _) => new MakePlainAction()),
    ];

    private static bool IsOn(CommandWords w) => !w.HasMore || w.OneOf("on or off", OnOff);

    private static FillAction Fill(BenchContext c, CommandWords w)
    {
        var isByNumber = w.PeekIsNumber || w.PeekIs("at");
        var pattern = isByNumber ? null : w.OneOf<FillPattern?>("none, parallel, crossed or inward",
            ("none", null), ("parallel", FillPattern.Parallel), ("crossed", FillPattern.Crossed), ("inward", FillPattern.Inward));
        if (pattern is null && !isByNumber) return new FillAction();
        var distance = w.PeekIsNumber ? w.Length("a distance") : (double?)null;
        return new FillAction(pattern, distance, w.Take("at") ? w.Number("an angle") : null);
    }

    private static string ToolNamed(BenchContext c, string wanted) =>
        c.Drawer.Tools.FirstOrDefault(t => t.Key == wanted || t.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase))?.Key
        ?? PieceCommands.Only(c.Drawer.Tools.Where(t => !t.IsPutAway && t.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), t => t.Name, "pen, foil or tip", wanted, c.Drawer.Tools.Where(t => !t.IsPutAway).Select(t => t.Name)).Key;

    private static BenchAction Settings(BenchContext c, CommandWords w)
    {
        if (!w.HasMore) return new StockSettingsAction();
        var change = new SettingsAction();
        while (w.HasMore)
        {
            change = w.OneOf("force, speed, blade, heat or times", ("force", 0), ("speed", 1), ("blade", 2), ("heat", 3), ("times", 4)) switch
            {
                0 => change with { Force = w.Count("grams") },
                1 => change with { Speed = w.Number("mm per second") },
                2 => change with { BladeOut = w.Length("how far the blade stands out") },
                3 => change with { Heat = w.Count("°C") },
                _ => change with { Times = w.Count("how often") },
            };
        }
        return change;
    }

    private static EdgeLineAction EdgeLine(BenchContext c, CommandWords w)
    {
        var action = new EdgeLineAction(w.Length("a distance"), Sharp: w.Take("sharp"));
        if (w.Take("for")) action = action with { Operation = DrawCommands.OperationIn(w) };
        return action with { Sharp = action.Sharp | w.Take("sharp") };
    }
}
