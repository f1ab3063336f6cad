using System.Diagnostics;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench.Nesting;

/// <summary>
/// The nester against rows and the greedy layout on the card jobs. Fill is the pieces' area over the paper used, where the new
/// sheet with the largest rest counts from its upper edge to the lower edge of the lowest piece plus the border.
/// </summary>
public static class CardTable
{
    public static void Write(double[] seconds, string? only)
    {
        Console.WriteLine($"| job | pieces | area | rows | greedy | {string.Join(" | ", seconds.Select(s => $"{s} s"))} |");
        Console.WriteLine($"|---|---|---|---|---|{string.Concat(seconds.Select(_ => "---|"))}");
        var sums = new double[seconds.Length + 2];
        var jobs = 0;
        foreach (var (name, job) in CardJobs.All())
        {
            if (only is not null && !name.Contains(only)) continue;
            jobs++;
            var area = job.Pieces.Sum(p => p.Area * p.Quantity);
            var clock = Stopwatch.StartNew();
            var rows = Baselines.Rows(job); var greedy = only is null ? Baselines.Greedy(job) : rows;
            var greedySeconds = clock.Elapsed.TotalSeconds;
            var cells = new List<string> { Cell(rows.Sheets, rows.Left, 0), Cell(greedy.Sheets, greedy.Left, 1) };
            for (var t = 0; t < seconds.Length; t++)
            {
                var result = Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(seconds[t])));
                if (NestCheck.Faults(job, result).FirstOrDefault() is { } fault) throw new InvalidOperationException($"{name}: {fault}");
                cells.Add(Cell(Depths(job, result), result.Left.Length, t + 2));
            }
            var room = job.Sheets[^1].Usable.Area;
            Console.WriteLine($"| {name} | {job.Pieces.Sum(p => p.Quantity)} | {area / room:0.00} sheets | {string.Join(" | ", cells)} | (greedy {greedySeconds:0.0} s)");

            string Cell(List<(NestSheet Sheet, double Depth)> sheets, int left, int column)
            {
                var fill = Fill(area, sheets);
                sums[column] += fill;
                return $"{sheets.Count}: {fill:P1}{(left > 0 ? $" ({left} left)" : "")}";
            }
        }
        Console.WriteLine($"| mean | | | {string.Join(" | ", sums.Select(s => $"{s / jobs:P1}"))} |");
    }

    /// <summary>The share of the paper used that is pieces, 0 to 1.</summary>
    public static double Fill(NestJob job, NestResult result) => Fill(job.Pieces.Sum(p => p.Area * p.Quantity), Depths(job, result));

    private static double Fill(double area, List<(NestSheet Sheet, double Depth)> sheets)
    {
        var candidates = sheets.Any(s => !s.Sheet.IsOffcut) ? sheets.Where(s => !s.Sheet.IsOffcut) : sheets;
        var used = sheets.Sum(s => s.Sheet.PaperArea) - candidates.Max(s => s.Sheet.PaperArea * (s.Sheet.Usable.MaxY - s.Depth) / s.Sheet.Height);
        return area / used;
    }

    private static List<(NestSheet Sheet, double Depth)> Depths(NestJob job, NestResult result) => [.. result.Sheets.Select(s => (
        job.Sheets.First(q => q.Id == s.Sheet), s.Placements.Max(p => job.Pieces.First(q => q.Id == p.Id).Outline.BoundsUnder(p.Place).MaxY)))];
}
