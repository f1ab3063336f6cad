using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench.Nesting;

/// <summary>
/// A short hash of what the nester answers after so many rounds, whatever the clock says: before and after a change that must
/// not alter the search, the tables are the same.
/// </summary>
public static class AnswerTable
{
    private static readonly TimeSpan Never = TimeSpan.FromHours(1);

    public static void Write(int rounds)
    {
        foreach (var (name, job) in CardJobs.All()) Console.WriteLine($"{name,-20} {Hash(job, rounds)}");
        for (var seed = 1; seed <= 3; seed++) Console.WriteLine($"{$"puzzle {seed}",-20} {Hash(Puzzle.Make(8, seed, slack: 0.2, shrunk: false), rounds)}");
    }

    private static string Hash(NestJob job, int rounds)
    {
        var answer = Nester.Nest(job, new NestEffort(Never, Seed: 7, rounds));
        var text = string.Join('\n', answer.Sheets.SelectMany(s => s.Placements.Select(p =>
            string.Create(CultureInfo.InvariantCulture, $"{s.Sheet} {s.Number} {p.Id} {p.Copy} {p.Place}"))));
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..16];
    }
}
