using System.Globalization;
using BenchmarkDotNet.Running;
using Falzkunst.Bench.Nesting;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["puzzles", var count, var seeds, var seconds, .. var rest])
{
    PuzzleTable.Write(int.Parse(count), int.Parse(seeds), double.Parse(seconds), rest.Contains("shrunk"));
    return;
}
if (args is ["cards", var times, .. var name])
{
    CardTable.Write([.. times.Split(',').Select(double.Parse)], name.FirstOrDefault());
    return;
}
if (args is ["growth"])
{
    GrowthTable.Write();
    return;
}
BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
