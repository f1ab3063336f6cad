using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>The thin parts of the picked pieces grown to a width, or everything by a distance.</summary>
public sealed record ThickenAction([InMillimetres] double Amount, bool Even = false, [InMillimetres] double Gap = Thicken.UsualGapMm, bool Sharp = false) : BenchAction
{
    internal Thicken How => new(Even, Amount, Gap, Sharp ? Corners.Sharp : Corners.Round);

    public override Edit For(BenchContext c) => new ThickenPieces(c.Picked.SomePieces(), How);
}

/// <summary>A thickened form kept aside; the piece stays as it is.</summary>
public sealed record KeepThickenedAction(
    [InMillimetres] double Amount, string Name, bool Even = false, [InMillimetres] double Gap = Thicken.UsualGapMm, bool Sharp = false) : BenchAction
{
    public override Edit For(BenchContext c) => new KeepThickened(c.Picked.OnlyPiece(), new ThickenAction(Amount, Even, Gap, Sharp).How, Name);
}

/// <summary>Pieces made of the picked piece's outline, moved outward or inward.</summary>
/// <param name="By">How far, one piece for each.</param>
/// <param name="Stock">Key of their stock; null for the piece's own.</param>
/// <param name="Ring">Only a ring so wide; null or 0 for the whole.</param>
/// <param name="Sharp">Corners stay sharp.</param>
/// <param name="Open">Openings stay open.</param>
/// <param name="Left">More to the left, less where negative.</param>
/// <param name="Top">More upwards.</param>
/// <param name="Right">More to the right.</param>
/// <param name="Bottom">More downwards.</param>
public sealed record BorderAction(
    [InMillimetres] double[] By, string? Stock = null, [InMillimetres] double? Ring = null, bool Sharp = false, bool Open = false,
    [InMillimetres] double? Left = null, [InMillimetres] double? Top = null, [InMillimetres] double? Right = null, [InMillimetres] double? Bottom = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        var sides = (Left ?? Top ?? Right ?? Bottom) is null ? null : new SideMargins(Left ?? 0, Top ?? 0, Right ?? 0, Bottom ?? 0);
        var (corners, ring) = (Sharp ? Corners.Sharp : Corners.Round, Ring is > 0 ? Ring : null);
        return new MakeBorders(piece.Id, [.. By.Select(by => new Border(by, Stock ?? piece.Stock, corners, Open, ring) { Sides = sides })]);
    }
}

/// <summary>Other numbers for the picked border, which goes on following its piece; null leaves what it is.</summary>
public sealed record ChangeBorderAction([InMillimetres] double? By = null, string? Stock = null, [InMillimetres] double? Ring = null, bool? Sharp = null, bool? Open = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var piece = c.Design.Require(c.Picked.OnlyPiece());
        if (piece.Follows is not FromBorder { Border: var now }) throw new EditRefused(Reason.FollowsNothing);
        return new ChangeBorder(piece.Id, now with
        {
            ByMm = By ?? now.ByMm,
            Stock = Stock ?? piece.Stock,
            Corners = Sharp is { } sharp ? sharp ? Corners.Sharp : Corners.Round : now.Corners,
            KeepOpenings = Open ?? now.KeepOpenings,
            RingMm = Ring is { } ring ? ring > 0 ? ring : null : now.RingMm,
        });
    }
}

/// <summary>What is smaller taken out, or one such thing by its key.</summary>
public sealed record SmallThingsAction([InMillimetres] double Size, string? Key = null) : BenchAction
{
    public override Edit For(BenchContext c) => new TakeSmallThings(c.Picked.SomePieces(), Size, Key is null ? [] : [Key]);
}

/// <summary>The picked loose islands joined to the pieces around them.</summary>
public sealed record BridgeAction([InMillimetres] double Width, int Count = 2) : BenchAction
{
    public override Edit For(BenchContext c) => new BridgeIslands(c.Picked.SomePieces(), new Bridging(Width, Count));
}

/// <summary>The narrowest part that the picked piece's stock is trusted with; null goes back to the catalogue's.</summary>
public sealed record LeastWidthAction([InMillimetres] double? Width = null) : BenchAction
{
    public override Edit For(BenchContext c) => new SetLeastWidth(c.Design.Require(c.Picked.OnlyPiece()).Stock, Width);
}
