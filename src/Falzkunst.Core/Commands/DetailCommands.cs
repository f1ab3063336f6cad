using System.Collections.Immutable;
using Falzkunst.Core.Actions;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for fine detail.</summary>
internal static class DetailCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("thicken", "thicken 0.8 gap 0.4", "Grows the thin parts of the picked pieces to a width; “thicken by 0.3” grows everything, with “sharp” corners if you like; “gap 0” lets parts melt together.",
            (_, w) => Thickening(w)),
        new("keep thickened", "keep thickened 0.8 gap 0.4 as Stronger wires", "Keeps a thickened form of the piece aside; the piece stays as it is.", (_, w) =>
        {
            var how = Thickening(w);
            return new KeepThickenedAction(how.Amount, w.Take("as") ? w.Rest("a name") : throw w.Lacking("a name"), how.Even, how.Gap, how.Sharp);
        }),
        new("border", "border 3 sharp on kraft 240", "Makes a piece of the outline, moved outward or inward (−2); “3 6” makes two; “ring 2” only a ring; “open” keeps the openings.", Border),
        new("small things", "small things 0.5", "Takes out what is smaller: openings, specks, hairline slits, doubled lines; a key takes out one alone.",
            (_, w) => new SmallThingsAction(w.Length("a size"), w.HasMore ? w.Word("a key") : null)),
        new("bridge", "bridge 1.5 2", "Joins the picked loose islands to the pieces around them by bridges so wide and so many.", (_, w) =>
        {
            var action = new BridgeAction(w.Length("a width"));
            return w.HasMore ? action with { Count = w.Count("a number of bridges") } : action;
        }),
        new("least width", "least width 0.6", "The narrowest part that the picked piece's stock is trusted with in this project; “catalogue” goes back.",
            (_, w) => new LeastWidthAction(w.Take("catalogue") ? null : w.Length("a width"))),
    ];

    private static ThickenAction Thickening(CommandWords w)
    {
        var isEven = w.Take("by");
        var action = new ThickenAction(w.Length("a width"), isEven, Sharp: w.Take("sharp"));
        return w.Take("gap") ? action with { Gap = w.Length("a gap") } : action;
    }

    private static BorderAction Border(BenchContext c, CommandWords w)
    {
        List<double> by = [w.Length("a distance")];
        while (w.PeekIsNumber) by.Add(w.Length("a distance"));
        var isSharp = w.Take("sharp");
        double? ring = w.Take("ring") ? w.Length("a width") : null;
        var isOpen = w.Take("open");
        return new BorderAction([.. by], w.Take("on") ? PieceCommands.StockNamed(c, w.Rest("a stock")) : null, ring, isSharp, isOpen);
    }
}
