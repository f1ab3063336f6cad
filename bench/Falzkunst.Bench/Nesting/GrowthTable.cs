using System.Diagnostics;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench.Nesting;

/// <summary>What the first answer to a growing job costs, and what ten seconds of search make of it.</summary>
public static class GrowthTable
{
    public static void Write()
    {
        Console.WriteLine("| pieces | first answer | sheets | after 10 s | most memory |\n|---|---|---|---|---|");
        foreach (var copies in new[] { 100, 300, 1_000 })
        {
            var job = CardJobs.Many(copies);
            double first = 0;
            var sheets = 0;
            var clock = Stopwatch.StartNew();
            var result = Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(10)), p =>
            {
                if (first == 0) (first, sheets) = (clock.Elapsed.TotalSeconds, p.Best.Sheets.Length);
            });
            if (NestCheck.Faults(job, result).Any()) throw new InvalidOperationException("not valid");
            Console.WriteLine($"| {copies} | {first:0.00} s | {sheets} | {result.Sheets.Length} | {Process.GetCurrentProcess().PeakWorkingSet64 / 1_048_576} MB |");
        }
    }
}
