using System.Collections.Immutable;
using System.Diagnostics;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Nesting;

/// <summary>
/// Puts pieces on sheets in true shape: a first answer by <see cref="ConstructivePlacement"/>, then better ones by <see cref="Separation"/>
/// until the time is over or nothing can be gained. Two workers go on from the best of both after each round
/// (see docs/decisions/nesting-by-separation.md).
/// </summary>
public static class Nester
{
    private const int Workers = 2;

    /// <summary>The best layout found.</summary>
    /// <param name="job">What goes on what.</param>
    /// <param name="effort">When it ends.</param>
    /// <param name="onBetter">Called with each better answer, the first one included, on the thread that called.</param>
    /// <param name="stop">Ends the work; the best so far is returned.</param>
    /// <exception cref="NestRefused">The job cannot be read as one: sizes that are none, pins that are not valid.</exception>
    public static NestResult Nest(NestJob job, NestEffort effort, Action<NestProgress>? onBetter = null, CancellationToken stop = default)
    {
        var clock = Stopwatch.StartNew();
        NestRules.Demand(job);
        var task = new NestTask(job);
        var workers = Enumerable.Range(0, Workers).Select(w => new SearchWorker(task, Dice.For(effort.Seed, w), effort.Tuning)).ToArray();
        // The first answer is carried to its end: it is there soon, and a part of one is none.
        workers[0].Begin(() => stop.IsCancellationRequested);
        var best = workers[0].Best;
        var answer = Valid(job, NestAnswer.FromIncumbent(task, best));
        onBetter?.Invoke(new NestProgress(answer, 0));
        var betterAt = clock.Elapsed;
        for (var round = 1; !IsOver() && !(effort.Rounds < round) && !workers.Any(w => w.IsContent); round++)
        {
            foreach (var worker in workers) if (worker.Best.Score.CompareTo(best.Score) != 0) worker.Adopt(best);
            Parallel.ForEach(workers, OnAllCores.OfCaller, w => w.Work(effort.RoundOfLooks * Math.Min(round, NestEffort.LongestRounds), IsOver));
            foreach (var worker in workers)
            {
                if (!worker.Best.Score.IsBetterThan(best.Score)) continue;
                var better = NestAnswer.FromIncumbent(task, worker.Best);
                // The search works in single precision with a little room to spare; what is handed out is checked against the true curves.
                if (NestCheck.Faults(job, better).Any()) continue;
                (best, answer, betterAt) = (worker.Best, better, clock.Elapsed);
                onBetter?.Invoke(new NestProgress(answer, round));
            }
        }
        return answer;

        bool IsOver() => stop.IsCancellationRequested || clock.Elapsed >= effort.Time || clock.Elapsed - betterAt >= effort.Patience;
    }

    /// <summary>The answer without copies that the exact check objects to, of which there should be none.</summary>
    private static NestResult Valid(NestJob job, NestResult answer)
    {
        var pinned = job.Pins.Select(p => (p.Piece, p.Copy)).ToHashSet();
        while (true)
        {
            var faulty = NestCheck.Faults(job, answer)
                .Select(f => (f.Sheet, Copy: answer.Sheets[f.Sheet].Placements[f.Placement], Other: f.Other is { } o ? answer.Sheets[f.Sheet].Placements[o] : null))
                .Select(f => f.Other is null || !pinned.Contains((f.Copy.Id, f.Copy.Copy)) ? (f.Sheet, f.Copy) : (f.Sheet, Copy: f.Other))
                .FirstOrDefault(f => !pinned.Contains((f.Copy.Id, f.Copy.Copy)));
            if (faulty.Copy is null) return answer;
            var sheet = answer.Sheets[faulty.Sheet];
            answer = new NestResult(
                [.. answer.Sheets.Replace(sheet, sheet with { Placements = sheet.Placements.Remove(faulty.Copy) }).Where(s => s.Placements.Length > 0)],
                answer.Left.Add(new NotNested(faulty.Copy.Id, 1, new Unfit(UnfitCode.NotExact))));
        }
    }
}
