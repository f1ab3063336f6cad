using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Actions;

/// <summary>How many cards are made.</summary>
public sealed record CardsAction(int Count) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeSetOut(c.Project.SetOut with { Cards = Count });
}

/// <summary>Another size for the folded card.</summary>
public sealed record CardSizeAction([InMillimetres] double Width, [InMillimetres] double Height) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeSetOut(c.Project.SetOut with { Card = CardFormat.Sized(Width, Height, c.Project.SetOut.Card.Fold) });
}

/// <summary>What lengths are shown in.</summary>
public sealed record UnitsAction(Units Units) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeSetOut(c.Project.SetOut with { Units = Units });
}

/// <summary>How far scores stop short of every cut.</summary>
public sealed record ClearanceAction([InMillimetres] double Distance) : BenchAction
{
    public override Edit For(BenchContext c) => new ChangeSetOut(c.Project.SetOut with { ScoreClearanceMm = Distance });
}

/// <summary>The base piece made of a stock.</summary>
public sealed record BaseAction(string Stock) : BenchAction
{
    public override Edit For(BenchContext c) => new MakeBase(Stock);
}

/// <summary>The base piece changed to the card as it is set now.</summary>
public sealed record FitBaseAction : BenchAction
{
    public override Edit For(BenchContext c) => BasePiece.Of(c.Design) is { } piece ? new FitBase(piece.Id) : throw new EditRefused(Reason.NoBase);
}

/// <summary>All pieces put on sheets of their stock.</summary>
public sealed record PutOnSheetsAction([InMillimetres] double Spacing) : BenchAction
{
    public override Edit For(BenchContext c) => Spacing is >= 0 and <= SetOut.MostSpacingMm
        ? new PutOnSheets(Spacing, Guid.NewGuid()) : throw EditRefused.RangeMm(Measure.Spacing, 0, SetOut.MostSpacingMm, "spacing");
}
