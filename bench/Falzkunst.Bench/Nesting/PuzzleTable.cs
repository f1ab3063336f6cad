using System.Diagnostics;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench.Nesting;

/// <summary>How many puzzles come back on one sheet within their time.</summary>
public static class PuzzleTable
{
    private const double SlackMm = 0.2;

    public static void Write(int count, int seeds, double seconds, bool shrunk, int first = 1)
    {
        var solved = 0;
        double fill = 0, time = 0;
        for (var seed = first; seed < first + seeds; seed++)
        {
            var job = Puzzle.Make(count, seed, SlackMm, shrunk);
            using var stop = new CancellationTokenSource();
            var clock = Stopwatch.StartNew();
            var result = Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(seconds)), p =>
            {
                if (p.Best.Sheets.Length == 1) stop.Cancel();
            }, stop.Token);
            var isWhole = result.Sheets.Length == 1 && result.Left.IsEmpty;
            if (NestCheck.Faults(job, result).Any()) throw new InvalidOperationException("not valid");
            var first1 = result.Sheets.Max(s => s.Filled(job));
            if (isWhole) solved++;
            fill += first1;
            time += clock.Elapsed.TotalSeconds;
            Console.WriteLine($"  {count} pieces, seed {seed}: {(isWhole ? "whole" : $"{first1:P1}"),-7} {clock.Elapsed.TotalSeconds:0.0} s");
        }
        Console.WriteLine($"{count} pieces, slack {(shrunk ? "about each piece" : "about the whole")}: {solved} of {seeds} whole within {seconds} s; first sheet {fill / seeds:P1} full; mean {time / seeds:0.0} s");
    }
}
