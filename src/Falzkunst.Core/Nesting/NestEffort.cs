namespace Falzkunst.Core.Nesting;

/// <summary>How long and from which seed a job is worked on.</summary>
/// <param name="Time">The time limit.</param>
/// <param name="Seed">Equal seeds and rounds give equal answers, time limits aside.</param>
/// <param name="Rounds">Rounds of work; null for as many as the time allows.</param>
public sealed record NestEffort(TimeSpan Time, int Seed = 1, int? Rounds = null)
{
    /// <summary>
    /// Looks at pairs of shapes in the first round of each worker; later rounds are longer, up to <see cref="LongestRounds"/> times,
    /// since one worker waits for the other at their ends. Between rounds a better answer is handed out.
    /// </summary>
    public long RoundOfLooks { get; init; } = 400_000;

    /// <summary>Rounds become no longer than this many times the first.</summary>
    public const int LongestRounds = 5;

    /// <summary>Ends the work when no better answer has come for so long; null for never.</summary>
    public TimeSpan? Patience { get; init; }

    /// <summary>The numbers of the search.</summary>
    public SearchTuning Tuning { get; init; } = SearchTuning.Usual;

    /// <summary>The first answer alone.</summary>
    public static readonly NestEffort FirstAnswer = new(TimeSpan.Zero, Rounds: 0);
}

/// <summary>The best answer so far.</summary>
/// <param name="Best">Valid as it is.</param>
/// <param name="Rounds">Rounds of work done.</param>
public sealed record NestProgress(NestResult Best, int Rounds);
