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

    /// <summary>What is still being read then hangs: its budget has ended it long before on any machine.</summary>
    private static readonly TimeSpan Hangs = TimeSpan.FromMinutes(2);

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
    public void Every_file_is_answered(string name)
    {
        var file = HostileFiles.All.Single(f => f.Name == name).Make();
        var answer = "";
        var reading = new Thread(() => answer = Answer(file), StackBytes);
        reading.Start();
        Assert.True(reading.Join(Hangs), "It is still being read.");
        Assert.EndsWith(".", answer, StringComparison.Ordinal);
    }

    private static string Answer(byte[] file)
    {
        var budget = new Budget(BudgetLimits.Reading);
        try
        {
            var design = Assembler.Assemble(ArtReader.Read(file, budget), [], _ => "card", budget: budget);
            return $"{design.Pieces.Length} pieces, {Checks.Findings(design).Length} findings.";
        }
        catch (Exception e) when (e is ReadRefused or BudgetSpent)
        {
            return e is BudgetSpent spent ? ReadRefused.ForBudget(spent).Message : e.Message;
        }
    }

    [Fact]
    public void There_are_eleven_families_of_at_least_six_files()
    {
        Assert.Equal(11, HostileFiles.All.Select(f => f.Family).Distinct().Count());
        Assert.All(HostileFiles.All.GroupBy(f => f.Family), g => Assert.InRange(g.Count(), 6, 60));
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
