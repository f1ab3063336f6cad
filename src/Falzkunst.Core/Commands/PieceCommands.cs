using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Commands;

/// <summary>Commands for whole pieces.</summary>
internal static class PieceCommands
{
    public static readonly ImmutableArray<Command> All =
    [
        new("stock", "stock slate 220", "The paper for the picked pieces, by a part of its name.", (c, w) => new SetStock(Pieces(c), StockNamed(c, w.Rest("a stock")))),
        new("quantity", "quantity 4", "How many of the piece one card takes.", (c, w) => new SetQuantity(c.Picked.OnlyPiece(), w.Count("a number"))),
        new("name", "name Left hill", "Another name for the piece.", (c, w) => new RenamePiece(c.Picked.OnlyPiece(), w.Rest("a name"))),
        new("layer", "layer 3", "Another layer: a number from the lowest, or up, down, top, bottom.", Layer),
        new("hide", "hide", "Does not show the picked pieces; they are made all the same.", (c, _) => new HidePieces(Pieces(c), true)),
        new("show", "show", "Shows the picked pieces again; “show all” shows every one.", (c, w) => new HidePieces(w.Take("all") ? [.. c.Design.Pieces.Select(p => p.Id)] : Pieces(c), false)),
        new("lock", "lock", "Shape and place of the picked pieces cannot be changed.", (c, _) => new LockPieces(Pieces(c), true)),
        new("unlock", "unlock", "The picked pieces can be changed again.", (c, _) => new LockPieces(Pieces(c), false)),
        new("delete", "delete", "Takes the picked lines away, or the picked pieces out.",
            (c, _) => c.Picked.IsLines ? new RemoveLines(c.Picked.OnlyPiece(), c.Picked.Lines) : new RemovePieces(Pieces(c))),
        new("take apart", "take apart keep", "Makes the picked closed lines, or all openings, pieces of their own; “keep” leaves the openings.",
            (c, w) => new TakeApart(c.Picked.OnlyPiece(), c.Picked.Lines, w.Take("keep"))),
        new("merge", "merge", "Makes the picked pieces openings and lines of the one that holds them.", (c, _) => new MergePieces(Pieces(c))),
        new("give to", "give to Viaduct", "Gives the picked lines to another piece.",
            (c, w) => new GiveLines(c.Picked.OnlyPiece(), c.Picked.IsLines ? c.Picked.Lines : throw new EditRefused("Pick the lines first."), PieceNamed(c, w.Rest("a piece")))),
        new("keep aside", "keep aside Wider arches", "Keeps the picked piece under a name; “all” keeps the whole design.", (c, w) =>
            w.Take("all") ? new KeepVariant(null, w.Rest("a name")) : new KeepVariant(c.Picked.OnlyPiece(), w.Rest("a name"))),
        new("take up", "take up Wider arches", "Puts a variant where its original is.", (c, w) =>
        {
            var variant = VariantNamed(c, w.Rest("a variant"));
            return new TakeVariant(variant.Number, variant.Name);
        }),
        new("let go", "let go Wider arches", "Keeps a variant no longer.", (c, w) =>
        {
            var variant = VariantNamed(c, w.Rest("a variant"));
            return new DropVariant(variant.Number, variant.Name);
        }),
    ];

    internal static ImmutableArray<string> Pieces(CommandContext c) =>
        c.Picked.IsEmpty ? throw new EditRefused("Nothing is picked. Touch a piece first.") : c.Picked.Pieces;

    private static OrderPiece Layer(CommandContext c, CommandWords w)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var (now, top) = (c.Design.Pieces.IndexOf(piece) + 1, c.Design.Pieces.Length);
        if (w.Take("up")) return new OrderPiece(piece.Id, Math.Min(top, now + 1));
        if (w.Take("down")) return new OrderPiece(piece.Id, Math.Max(1, now - 1));
        if (w.Take("top")) return new OrderPiece(piece.Id, top);
        return w.Take("bottom") ? new OrderPiece(piece.Id, 1) : new OrderPiece(piece.Id, w.Count("a layer"));
    }

    internal static string StockNamed(CommandContext c, string wanted) =>
        c.Drawer.Stocks.FirstOrDefault(s => s.Key == wanted)?.Key
        ?? Only(c.Drawer.Stocks.Where(s => s.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), s => s.Name, "stock", wanted, c.Drawer.Stocks.Select(s => s.Name)).Key;

    private static string PieceNamed(CommandContext c, string wanted) =>
        (c.Design.Find(wanted) ?? c.Design.Pieces.FirstOrDefault(p => p.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase)))?.Id
        ?? Only(c.Design.Pieces.Where(p => p.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), p => p.Name, "piece", wanted, []).Id;

    private static Variant VariantNamed(CommandContext c, string wanted) =>
        c.Project.Variants.FirstOrDefault(v => v.Name.Equals(wanted, StringComparison.OrdinalIgnoreCase))
        ?? c.Project.Variants.FirstOrDefault(v => v.Number.ToString(CultureInfo.InvariantCulture) == wanted)
        ?? Only(c.Project.Variants.Where(v => v.Name.Contains(wanted, StringComparison.OrdinalIgnoreCase)), v => v.Name, "variant", wanted, c.Project.Variants.Select(v => v.Name));

    private static T Only<T>(IEnumerable<T> fitting, Func<T, string> name, string kind, string wanted, IEnumerable<string> all)
    {
        var list = fitting.ToList();
        if (list.Count == 1) return list[0];
        throw new EditRefused(list.Count > 1
            ? $"“{wanted}” fits {string.Join(", ", list.Take(5).Select(name))}. Write more of the name."
            : $"There is no {kind} “{wanted}”.{(all.Any() ? $" There are {string.Join(", ", all.Take(12))}." : "")}");
    }
}
