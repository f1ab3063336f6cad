using System.Collections.Immutable;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>The picked pieces made one; or the picked closed lines of a piece and that piece.</summary>
/// <param name="How">United, the others taken out of the keeper, or what they share.</param>
/// <param name="Keeper">Id of the piece whose stock, name and lines remain; null for the lowest of them.</param>
/// <param name="Others">What becomes of the others; null lets them go.</param>
public sealed record CombineAction(Combination How, string? Keeper = null, WhatCuts? Others = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        if (c.Picked.IsLines) return new CombineLines(How, c.Picked.OnlyLines().Piece, c.Picked.OnlyLines().Ids);
        var pieces = c.Picked.SomePieces();
        if (pieces.Length < 2) throw new EditRefused(Reason.CombineTwo);
        return new CombinePieces(How, pieces, Keeper ?? c.Design.Pieces.First(p => pieces.Contains(p.Id)).Id, Others ?? WhatCuts.Goes);
    }
}

/// <summary>The piece of the picked line parted along it.</summary>
public sealed record PartAction : BenchAction
{
    public override Edit For(BenchContext c) => c.Picked.OnlyLine() is var (piece, line) ? new PartPiece(piece, line) : throw new EditRefused(Reason.OneLineOnly);
}

/// <summary>The picked pieces cut to the outline of one of them, which stays.</summary>
/// <param name="Shape">Id of that; null for the topmost.</param>
public sealed record CropAction(string? Shape = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var pieces = c.Picked.SomePieces();
        return new CropPieces(pieces, Shape ?? c.Design.Pieces.Last(p => pieces.Contains(p.Id)).Id);
    }
}

/// <summary>The picked open lines joined where their ends lie near each other.</summary>
/// <param name="Gap">Ends farther apart stay apart.</param>
public sealed record JoinEndsAction([InMillimetres] double Gap = 1) : BenchAction
{
    public override Edit For(BenchContext c) => new JoinEnds(c.Picked.OnlyLines(), Gap);
}
