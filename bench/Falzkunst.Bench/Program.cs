using System.Globalization;
using BenchmarkDotNet.Running;
using Falzkunst.Bench.Nesting;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["puzzles", var count, var seeds, var seconds, .. var rest])
{
    PuzzleTable.Write(int.Parse(count), int.Parse(seeds), double.Parse(seconds), rest.Contains("shrunk"), rest.FirstOrDefault(r => r.StartsWith("from=", StringComparison.Ordinal)) is { } first ? int.Parse(first[5..]) : 1);
    return;
}
if (args is ["cards", var times, .. var name])
{
    CardTable.Write([.. times.Split(',').Select(double.Parse)], name.FirstOrDefault());
    return;
}
if (args is ["answers", var rounds])
{
    AnswerTable.Write(int.Parse(rounds));
    return;
}
if (args is ["tuning", var turns, var each])
{
    TuningTable.Write(int.Parse(turns), int.Parse(each));
    return;
}
if (args is ["growth"])
{
    GrowthTable.Write();
    return;
}
BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
