using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Bench;

/// <summary>Rows on sheets for many copies.</summary>
[MemoryDiagnoser]
public class RowsBench
{
    private NestJob _job = null!;

    [Params(100, 1_000)]
    public int Copies { get; set; }

    [GlobalSetup]
    public void Make()
    {
        var random = new Random(7);
        _job = new NestJob(
            [new NestSheet("s", 304.8, 304.8, new Borders(5, 5, 5, 5), 1000)],
            [.. Enumerable.Range(0, Copies / 10).Select(i => new NestPiece($"p{i}", Falzkunst.Core.Geometry.Path.Rectangle(0, 0, 10 + random.Next(90), 10 + random.Next(90)), 10))],
            2);
    }

    [Benchmark]
    public NestResult Rows() => new RowNester().Nest(_job);
}
