using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>The paper of the picked pieces, by the stock's key.</summary>
public sealed record StockAction(string Stock) : BenchAction
{
    public override Edit For(BenchContext c) => new SetStock(c.Picked.SomePieces(), Stock);
}

/// <summary>How many of the piece one card takes; 0 leaves it out for now.</summary>
public sealed record QuantityAction(int Quantity) : BenchAction
{
    public override Edit For(BenchContext c) => new SetQuantity(c.Picked.OnlyPiece(), Quantity);
}

public sealed record NameAction(string Name) : BenchAction
{
    public override Edit For(BenchContext c) => new RenamePiece(c.Picked.OnlyPiece(), Name);
}

/// <summary>Where a piece goes in the order of layers.</summary>
public enum LayerStep
{
    Up,
    Down,
    Top,
    Bottom,
}

/// <summary>Another layer: its number from the lowest, or a step.</summary>
public sealed record LayerAction(int? Layer = null, LayerStep? To = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var (now, top) = (c.Design.Pieces.IndexOf(piece) + 1, c.Design.Pieces.Length);
        return new OrderPiece(piece.Id, To switch
        {
            LayerStep.Up => Math.Min(top, now + 1),
            LayerStep.Down => Math.Max(1, now - 1),
            LayerStep.Top => top,
            LayerStep.Bottom => 1,
            _ => Layer ?? now,
        });
    }
}

/// <summary>Not shown, or shown again.</summary>
public sealed record HideAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new HidePieces(c.Picked.SomePieces(), On);
}

public sealed record ShowAllAction : BenchAction
{
    public override Edit For(BenchContext c) => new HidePieces([.. c.Design.Pieces.Select(p => p.Id)], false);
}

public sealed record LockAction(bool On = true) : BenchAction
{
    public override Edit For(BenchContext c) => new LockPieces(c.Picked.SomePieces(), On);
}

/// <summary>The picked lines taken away, or the picked pieces taken out.</summary>
public sealed record DeleteAction : BenchAction
{
    public override Edit For(BenchContext c) => c.Picked.IsLines ? new RemoveLines(c.Picked.Lines) : new RemovePieces(c.Picked.SomePieces());
}

/// <summary>The picked closed lines, or all openings of the picked piece, made pieces of their own.</summary>
public sealed record TakeApartAction(bool Keep = false) : BenchAction
{
    public override Edit For(BenchContext c) => new TakeApart(c.Picked.OnlyPiece(), c.Picked.IsLines ? c.Picked.OnlyLines().Ids : [], Keep);
}

public sealed record MergeAction : BenchAction
{
    public override Edit For(BenchContext c) => new MergePieces(c.Picked.SomePieces());
}

/// <summary>The picked lines given to another piece, by its id.</summary>
public sealed record GiveToAction(string To) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var lines = c.Picked.OnlyLines();
        return new GiveLines(lines.Piece, lines.Ids, To);
    }
}

/// <summary>The picked piece, or all of the design, kept under a name.</summary>
public sealed record KeepAsideAction(string Name, bool All = false) : BenchAction
{
    public override Edit For(BenchContext c) => new KeepVariant(All ? null : c.Picked.OnlyPiece(), Name);
}

/// <summary>A variant put where its original is, by its number.</summary>
public sealed record TakeUpAction(int Variant) : BenchAction
{
    public override Edit For(BenchContext c) => new TakeVariant(Variant, Named(c, Variant));

    internal static string Named(BenchContext c, int number) =>
        c.Project.Variants.FirstOrDefault(v => v.Number == number)?.Name ?? throw new EditRefused(Reason.VariantGone);
}

public sealed record LetGoAction(int Variant) : BenchAction
{
    public override Edit For(BenchContext c) => new DropVariant(Variant, TakeUpAction.Named(c, Variant));
}
