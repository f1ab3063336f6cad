using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for whole pieces.</summary>
internal static class PieceCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("stock", "stock slate 220", "The paper for the picked pieces, by a part of its name.", (c, w) => new StockAction(StockNamed(c, w.Rest("a stock")))),
        new("quantity", "quantity 4", "How many of the piece one card takes; 0 leaves it out for now.", (_, w) => new QuantityAction(w.Count("a number"))),
        new("name", "name Left hill", "Another name for the piece.", (_, w) => new NameAction(w.Rest("a name"))),
        new("layer", "layer 3", "Another layer: a number from the lowest, or up, down, top, bottom.", (_, w) =>
            w.PeekIsNumber ? new LayerAction(w.Count("a layer"))
            : new LayerAction(To: w.OneOf("a layer", ("up", LayerStep.Up), ("down", LayerStep.Down), ("top", LayerStep.Top), ("bottom", LayerStep.Bottom)))),
        new("hide", "hide", "Does not show the picked pieces; they are made all the same.", (_, _) => new HideAction()),
        new("show", "show", "Shows the picked pieces again; “show all” shows every one.", (_, w) => w.Take("all") ? new ShowAllAction() : new HideAction(false)),
        new("lock", "lock", "Shape and place of the picked pieces cannot be changed.", (_, _) => new LockAction()),
        new("unlock", "unlock", "The picked pieces can be changed again.", (_, _) => new LockAction(false)),
        new("delete", "delete", "Takes the picked lines away, or the picked pieces out.", (_, _) => new DeleteAction()),
        new("take apart", "take apart keep", "Makes the picked closed lines, or all openings, pieces of their own; “keep” leaves the openings.", (_, w) => new TakeApartAction(w.Take("keep"))),
        new("merge", "merge", "Makes the picked pieces openings and lines of the one that holds them.", (_, _) => new MergeAction()),
        new("give to", "give to Viaduct", "Gives the picked lines to another piece.", (c, w) => new GiveToAction(PieceNamed(c, w.Rest("a piece")))),
        new("keep aside", "keep aside Wider arches", "Keeps the picked piece under a name; “all” keeps the whole design.", (_, w) =>
            w.Take("all") ? new KeepAsideAction(w.Rest("a name"), All: true) : new KeepAsideAction(w.Rest("a name"))),
        new("take up", "take up Wider arches", "Puts a variant where its original is.", (c, w) => new TakeUpAction(VariantNamed(c, w.Rest("a variant")))),
        new("let go", "let go Wider arches", "Keeps a variant no longer.", (c, w) => new LetGoAction(VariantNamed(c, w.Rest("a variant")))),
    ];

    internal static string StockNamed(BenchContext c, string wanted) =>
        c.Drawer.Stocks.FirstOrDefault(s => s.Key == wanted)?.Key
        ?? Only(c.Drawer.Stocks.Where(s => s.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), s => s.Name, "stock", wanted, c.Drawer.Stocks.Select(s => s.Name)).Key;

    internal static string PieceNamed(BenchContext c, string wanted) =>
        (c.Design.Find(wanted) ?? c.Design.Pieces.FirstOrDefault(p => p.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase)))?.Id
        ?? Only(c.Design.Pieces.Where(p => p.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), p => p.Name, "piece", wanted, []).Id;

    private static int VariantNamed(BenchContext c, string wanted) =>
        (c.Project.Variants.FirstOrDefault(v => v.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase))
        ?? c.Project.Variants.FirstOrDefault(v => v.Number.ToString(CultureInfo.InvariantCulture) == wanted)
        ?? Only(c.Project.Variants.Where(v => v.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), v => v.Name, "variant", wanted, c.Project.Variants.Select(v => v.Name))).Number;

    internal static T Only<T>(IEnumerable<T> fitting, Func<T, string> name, string kind, string wanted, IEnumerable<string> all)
    {
        var list = fitting.ToList();
        if (list.Count == 1) return list[0];
        throw list.Count > 1
            ? new EditRefused(Reason.NameFitsSeveral, kind, wanted, list.Take(5).Select(name).ToList())
            : new EditRefused(Reason.NoSuchName, kind, wanted, all.Take(12).ToList());
    }
}
