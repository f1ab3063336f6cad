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

/// <summary>Openings of the picked piece, or the picked openings, larger by a distance, smaller where it is negative; the outline stays.</summary>
public sealed record OpeningsAction([InMillimetres] double By) : BenchAction
{
    public override Edit For(BenchContext c) => c.Picked.IsLines ? new GrowOpenings(c.Picked.OnlyLines().Piece, c.Picked.OnlyLines().Ids, By) : new GrowOpenings(c.Picked.OnlyPiece(), [], By);
}

/// <summary>The picked papers as a stack inside the outline of one of them.</summary>
/// <param name="Rim">Width of the rim that all layers share.</param>
/// <param name="Close">Gaps and slivers narrower than this are closed.</param>
/// <param name="Loose">What becomes of parts that hang on nothing.</param>
/// <param name="Bridge">Width of bridges.</param>
/// <param name="Outline">Id of the piece that is the outline; null for the lowest.</param>
public sealed record ColoursAction(
    [InMillimetres] double Rim = 3, [InMillimetres] double Close = 0.3, LooseParts Loose = LooseParts.Bridge, [InMillimetres] double Bridge = 1, string? Outline = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var pieces = c.Picked.SomePieces();
        if (pieces.Length < 2) throw new EditRefused(Reason.CombineTwo);
        var outer = Outline ?? c.Design.Pieces.First(p => pieces.Contains(p.Id)).Id;
        return new StackColours(outer, [.. pieces.Where(p => p != outer)], new ColourStackOptions(Rim, Close, Loose, Bridge));
    }
}

/// <summary>The picked piece as nested frames.</summary>
/// <param name="Count">How many, the innermost whole.</param>
/// <param name="Step">By how much each is smaller all round.</param>
/// <param name="Backing">By how much a backing shows; 0 for none.</param>
/// <param name="Stock">Key of the backings' stock; null for the first that is another.</param>
/// <param name="Glue">How far what is hidden goes on under what covers it; null leaves nothing out.</param>
public sealed record FramesAction(int Count = 3, [InMillimetres] double Step = 12, [InMillimetres] double Backing = 2, string? Stock = null, [InMillimetres] double? Glue = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        return new StackFrames(piece.Id, new FrameStackOptions(Count, Step, Backing, Stock ?? c.Drawer.Offered.FirstOrDefault(s => s.Key != piece.Stock)?.Key ?? piece.Stock, Glue));
    }
}

/// <summary>Several layers under the picked piece, each larger than the one above by a step.</summary>
/// <param name="Count">How many.</param>
/// <param name="Step">By how much each is larger.</param>
/// <param name="Stocks">Keys of their stocks from the uppermost; where they end they begin again.</param>
public sealed record ShadowAction(int Count = 2, [InMillimetres] double Step = 3, string[]? Stocks = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        if (Count is < 1 or > Mats.MostAtOnce) throw EditRefused.Range(Measure.Borders, 1, Mats.MostAtOnce, "count");
        string[] stocks = Stocks is { Length: > 0 } ? Stocks : [.. c.Drawer.Offered.Where(s => s.Key != piece.Stock).Select(s => s.Key).Take(1).DefaultIfEmpty(piece.Stock)];
        return new MakeBorders(piece.Id, [.. Enumerable.Range(1, Count).Select(i => new Border(i * Step, stocks[(i - 1) % stocks.Length]))]);
    }
}

/// <summary>The picked open lines joined where their ends lie near each other.</summary>
/// <param name="Gap">Ends farther apart stay apart.</param>
public sealed record JoinEndsAction([InMillimetres] double Gap = 1) : BenchAction
{
    public override Edit For(BenchContext c) => new JoinEnds(c.Picked.OnlyLines(), Gap);
}

/// <summary>Other paper round the traced rim that the picked piece follows.</summary>
public sealed record ChangeRimAction([InMillimetres] double Border) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeRim(c.Picked.OnlyPiece(), Border);
}
