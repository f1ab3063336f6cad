using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>Moved across and down.</summary>
public sealed record MoveAction([InMillimetres] double Dx, [InMillimetres] double Dy) : BenchAction
{
    public override Edit For(BenchContext c) => new MovePicked(c.Picked, Dx, Dy);
}

/// <summary>Its upper left corner put at a place of the card, or lines at a place of their piece; null leaves that distance.</summary>
public sealed record PlaceAction(
    [InMillimetres] double? Left = null, [InMillimetres] double? Top = null,
    [InMillimetres] double? PieceLeft = null, [InMillimetres] double? PieceTop = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var corner = c.Picked.Box(c.Design).Min;
        var piece = PieceLeft is null && PieceTop is null ? default : Picked.OfPieces(c.Picked.OnlyPiece()).Box(c.Design).Min;
        return new MovePicked(
            c.Picked,
            (Left ?? (PieceLeft is { } x ? piece.X + x : corner.X)) - corner.X,
            (Top ?? (PieceTop is { } y ? piece.Y + y : corner.Y)) - corner.Y);
    }
}

/// <summary>Another width, height or both; with one of them alone and the ratio kept the other follows.</summary>
public sealed record ResizeAction([InMillimetres] double? Width = null, [InMillimetres] double? Height = null, bool KeepRatio = true) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var now = Arranging.SizeNow(c.Design, c.Picked);
        return new ResizePicked(
            c.Picked,
            Width ?? (KeepRatio && Height is { } h && now.Height > 0 ? now.Width * h / now.Height : now.Width),
            Height ?? (KeepRatio && Width is { } w && now.Width > 0 ? now.Height * w / now.Width : now.Height));
    }
}

/// <summary>So many per cent of what it is.</summary>
public sealed record ScaleAction(double Percent) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var now = Arranging.SizeNow(c.Design, c.Picked);
        return new ResizePicked(c.Picked, now.Width * Percent / 100, now.Height * Percent / 100);
    }
}

/// <summary>Turned, clockwise.</summary>
public sealed record TurnAction(double Degrees) : BenchAction
{
    public override Edit For(BenchContext c) => new TurnPicked(c.Picked, Degrees);
}

public sealed record MirrorAction(bool LeftRight = true) : BenchAction
{
    public override Edit For(BenchContext c) => new MirrorPicked(c.Picked, LeftRight);
}

public sealed record DuplicateAction : BenchAction
{
    public override Edit For(BenchContext c) => new DuplicatePicked(c.Picked);
}

/// <summary>In rows and columns, with gaps between their boxes.</summary>
public sealed record RepeatAction(int Rows, int Columns = 1, [InMillimetres] double GapX = 0, [InMillimetres] double GapY = 0) : BenchAction
{
    public override Edit For(BenchContext c) => new RepeatPicked(c.Picked, Rows, Columns, GapX, GapY);
}

/// <summary>So many around a centre: where none is given that of the card, of lines that of their piece.</summary>
public sealed record AroundAction(int Count, bool Upright = false, [InMillimetres] double? CentreX = null, [InMillimetres] double? CentreY = null) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        var usual = c.Picked.IsLines ? Picked.OfPieces(c.Picked.OnlyPiece()).Box(c.Design).Centre : Targets.Card(c).Centre;
        return new RingPicked(c.Picked, Count, new Point(CentreX ?? usual.X, CentreY ?? usual.Y), !Upright);
    }
}

public sealed record ReflectAction(AlignEdge Edge) : BenchAction
{
    public override Edit For(BenchContext c) => new ReflectPicked(c.Picked, Edge);
}

public sealed record AlignAction(AlignEdge Edge, AlignTo To = AlignTo.EachOther) : BenchAction
{
    public override Edit For(BenchContext c) => new AlignPicked(c.Picked, Edge, To);
}

/// <summary>Centred both ways on the card, or lines on their piece.</summary>
public sealed record CentreAction(bool OnPiece = false) : BenchAction
{
    public override Edit For(BenchContext c)
    {
        if (OnPiece && !c.Picked.IsLines) throw new EditRefused(Reason.CentreLinesOnly);
        var target = OnPiece ? Picked.OfPieces(c.Picked.OnlyPiece()).Box(c.Design) : Targets.Card(c);
        var by = target.Centre - c.Picked.Box(c.Design).Centre;
        return new MovePicked(c.Picked, by.X, by.Y);
    }
}

/// <summary>Equal gaps across or down.</summary>
public sealed record SpreadAction(bool Across) : BenchAction
{
    public override Edit For(BenchContext c) => new DistributePicked(c.Picked, Across);
}

internal static class Targets
{
    public static Box Card(BenchContext c) => Box.FromSize(c.Project.SetOut.Card.OpenWidth, c.Project.SetOut.Card.OpenHeight);
}
