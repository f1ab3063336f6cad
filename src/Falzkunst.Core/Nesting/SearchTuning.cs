namespace Falzkunst.Core.Nesting;

/// <summary>
/// The numbers of the search. What each gains is told by the bench (<c>tuning 3 2</c>: mean fill of card jobs after so many rounds
/// with each number halved and doubled).
/// </summary>
public sealed record SearchTuning
{
    public static readonly SearchTuning Usual = new();

    /// <summary>Rounds of separation without progress until it gives up once.</summary>
    public int Patience { get; init; } = 90;

    /// <summary>How often in a row separation may give up before an attempt has failed.</summary>
    public int Strikes { get; init; } = 2;

    /// <summary>Thorough constructive placements before anything is separated.</summary>
    public int Restarts { get; init; } = 3;

    /// <summary>More copies than this are not placed anew: that takes longer than it is worth.</summary>
    public int MostCopiesOfRestart { get; init; } = 100;

    /// <summary>Share of the open area that no arrangement fills more of: less room than that asks for is not tried.</summary>
    public double MostFill { get; init; } = 0.998;

    public ShrinkTuning Shrink { get; init; } = new();
    public DropTuning Drop { get; init; } = new();
    public LiftTuning Lift { get; init; } = new();
    public JigsawTuning Jigsaw { get; init; } = new();
}

/// <summary>Taking strips off the last board. Steps are shares of the depth that is used.</summary>
public sealed record ShrinkTuning
{
    public double FirstStep { get; init; } = 0.08;
    public double MostStep { get; init; } = 0.25;

    /// <summary>Below it a strip is narrower than what separation can tell from nothing on a common sheet.</summary>
    public double LeastStep { get; init; } = 0.003;

    /// <summary>The step times this after it went, and after it did not: a step that goes three times in four stays as it is.</summary>
    public double StepUp { get; init; } = 1.4;
    public double StepDown { get; init; } = 0.6;

    /// <summary>A strip is this share of the step, by chance between the two.</summary>
    public double LeastOfStep { get; init; } = 0.5;
    public double MostOfStep { get; init; } = 1.2;

    /// <summary>Larger steps either go soon or are not worth the time: they get <see cref="BoldPatience"/> rounds and one strike.</summary>
    public double BoldStep { get; init; } = 0.03;

    /// <summary>Rounds of separation without progress.</summary>
    public int BoldPatience { get; init; } = 20;

    /// <summary>One attempt in so many goes on from where the last one nearly went.</summary>
    public int NearMissOneIn { get; init; } = 2;

    /// <summary>One copy in so many of those that are cut goes elsewhere instead of up.</summary>
    public int ElsewhereOneIn { get; init; } = 3;
}

/// <summary>Taking boards away.</summary>
public sealed record DropTuning
{
    /// <summary>A board is taken away where the others would be filled no more than this share; it grows with every attempt of any kind.</summary>
    public double FirstFill { get; init; } = 0.8;
    public double FillGrowth { get; init; } = 0.005;

    /// <summary>The share of all looks that goes into it at most.</summary>
    public double WorkShare { get; init; } = 0.25;

    /// <summary>How often it is tried, 0 to 1, divided by one more than the failures in a row.</summary>
    public double Chance { get; init; } = 0.5;

    /// <summary>Where one nearly went, one attempt in so many begins anew all the same.</summary>
    public int AnewOneIn { get; init; } = 4;

    /// <summary>Pairs of copies that change places at most before going on from where one nearly went.</summary>
    public int MostSwaps { get; init; } = 3;

    /// <summary>Where it nearly went, the search goes on from there unless the overlap is so many times what was found before.</summary>
    public double MuchWorse { get; init; } = 1.3;
}

/// <summary>Lifting single copies off the last board.</summary>
public sealed record LiftTuning
{
    /// <summary>How often a copy is lifted instead of a strip taken off, 0 to 1: nearly always while that goes, now and then when not.</summary>
    public double MostOften { get; init; } = 0.9;
    public double LeastOften { get; init; } = 0.3;

    /// <summary>It goes as long as more than this share of the lifts went lately.</summary>
    public double GoodSuccess { get; init; } = 0.2;

    /// <summary>What one lift counts in that share: the last ten make two thirds of it.</summary>
    public double SuccessShare { get; init; } = 0.1;

    /// <summary>Rounds of separation without progress: one board's copies part soon or not at all.</summary>
    public int Patience { get; init; } = 25;
}

/// <summary>Laying as a jigsaw.</summary>
public sealed record JigsawTuning
{
    /// <summary>Partial layouts kept at first, how that grows with each attempt, and as far as it goes: some seconds for one attempt then.</summary>
    public int FirstWidth { get; init; } = 6;
    public double WidthGrowth { get; init; } = 1.7;
    public int MostWidth { get; init; } = 3000;

    /// <summary>How far chance changes the order of partial layouts, in parts of their score, so that no two attempts are the same.</summary>
    public double Noise { get; init; } = 0.05;

    /// <summary>Share of the copies that may be left to separation.</summary>
    public double MostUnlaid { get; init; } = 0.6;

    /// <summary>One attempt in so many is left to the other moves.</summary>
    public int PauseOneIn { get; init; } = 3;
}
