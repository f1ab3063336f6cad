using System.Globalization;
using BenchmarkDotNet.Running;
using Falzkunst.Bench.Nesting;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["puzzles", var count, var seeds, var seconds, .. var rest])
{
    PuzzleTable.Write(int.Parse(count), int.Parse(seeds), double.Parse(seconds), rest.Contains("shrunk"));
    return;
}
BenchmarkSwitcher.FromAssembly(typeof(Program).Assembly).Run(args);
