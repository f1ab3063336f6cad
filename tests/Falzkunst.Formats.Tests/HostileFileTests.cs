using System.Diagnostics;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Tests.Shared;

namespace Falzkunst.Formats.Tests;

/// <summary>Files made to break the reader get pieces or a sentence, within the time that somebody waits for them.</summary>
public sealed class HostileFileTests
{
    /// <summary>The usual thread of a server: what needs more stack than this would end it.</summary>
    private const int StackBytes = 1_000_000;

    /// <summary>Reading has three and a half seconds; the rest is for a machine that is busy with other tests.</summary>
    private static readonly TimeSpan Most = TimeSpan.FromSeconds(9);

    /// <summary>Every tenth file, from each family one at least; all of them where FALZKUNST_HOSTILE is "all". FALZKUNST_SEED says where it begins.</summary>
    public static TheoryData<string> Chosen()
    {
        var all = HostileFiles.All;
        if (Environment.GetEnvironmentVariable("FALZKUNST_HOSTILE") == "all") return new(all.Select(f => f.Name));
        var seed = int.TryParse(Environment.GetEnvironmentVariable("FALZKUNST_SEED"), NumberStyles.None, CultureInfo.InvariantCulture, out var given) ? given : 14;
        return new(all.GroupBy(f => f.Family).Select((g, i) => g.ElementAt((seed + i) % g.Count()).Name));
    }

    [Theory]
    [MemberData(nameof(Chosen))]
    public void Every_file_is_answered_in_time(string name)
    {
        var file = HostileFiles.All.Single(f => f.Name == name).Make();
        var (answer, took) = ("", TimeSpan.Zero);
        var reading = new Thread(() => (answer, took) = Answer(file), StackBytes);
        reading.Start();
        Assert.True(reading.Join(TimeSpan.FromSeconds(60)), "It is still being read after a minute.");
        Assert.EndsWith(".", answer, StringComparison.Ordinal);
        Assert.True(took < Most, $"It took {took.TotalSeconds:0.0} s: {answer}");
    }

    private static (string Answer, TimeSpan Took) Answer(byte[] file)
    {
        var clock = Stopwatch.StartNew();
        var budget = new Budget(BudgetLimits.Reading);
        try
        {
            var design = Assembler.Assemble(ArtReader.Read(file, budget), [], _ => "card", budget: budget);
            return ($"{design.Pieces.Length} pieces, {Checks.Findings(design).Length} findings.", clock.Elapsed);
        }
        catch (Exception e) when (e is ReadRefused or BudgetSpent)
        {
            return (e is BudgetSpent spent ? ReadRefused.ForBudget(spent).Message : e.Message, clock.Elapsed);
        }
    }

    [Fact]
    public void There_are_ten_families_of_at_least_six_files()
    {
        Assert.Equal(10, HostileFiles.All.Select(f => f.Family).Distinct().Count());
        Assert.All(HostileFiles.All.GroupBy(f => f.Family), g => Assert.InRange(g.Count(), 6, 20));
        Assert.Distinct(HostileFiles.All.Select(f => f.Name));
    }

    /// <summary>For scripts/hostile, which sends them to a real server.</summary>
    [Fact]
    public void The_files_are_written_where_that_is_asked()
    {
        if (Environment.GetEnvironmentVariable("FALZKUNST_HOSTILE_TO") is not { Length: > 0 } folder) return;
        foreach (var file in HostileFiles.All) File.WriteAllBytes(Path.Combine(folder, $"{file.Family}-{file.Name}.svg"), file.Make());
    }
}
