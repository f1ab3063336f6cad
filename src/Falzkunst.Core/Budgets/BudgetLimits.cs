namespace Falzkunst.Core.Budgets;

/// <summary>How much a file from outside, and what is computed of it, may ask for.</summary>
public sealed record BudgetLimits
{
    /// <summary>For a file that somebody waits for.</summary>
    public static readonly BudgetLimits Reading = new();

    /// <summary>For assembling what was read: the more intricate half of the work has been done by then.</summary>
    public static readonly BudgetLimits Assembling = new() { Time = TimeSpan.FromSeconds(1.5) };

    /// <summary>Of the processor. With assembling, and what a page needs besides, an answer comes within five seconds on a quiet machine.</summary>
    public TimeSpan Time { get; init; } = TimeSpan.FromSeconds(3);

    /// <summary>Steps; one is about ten nanoseconds, so that on a fast machine the time comes to an end first or at the same time.</summary>
    public long Work { get; init; } = 1_000_000_000;

    /// <summary>How deep elements, blocks and reuse of them may lie in each other. A level takes about a kilobyte of stack.</summary>
    public int Depth { get; init; } = 256;

    public int Bytes { get; init; } = 20 * 1024 * 1024;
    public int Elements { get; init; } = 300_000;
    public int Shapes { get; init; } = 100_000;

    /// <summary>A segment takes 56 bytes; a million of them, read, sent and assembled, stay below 300 MB.</summary>
    public int Segments { get; init; } = 1_000_000;

    /// <summary>Sixteen bytes each.</summary>
    public int Points { get; init; } = 4_000_000;

    /// <summary>The largest sheets of motifs that were met have some 900.</summary>
    public int Pieces { get; init; } = 10_000;
}
