using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench;

/// <summary>Two wavy rims of many cubics, the second turned a little, united and subtracted: they cross at every other wave.</summary>
[MemoryDiagnoser]
public class AreasBench
{
    private AreaRings _one = null!;
    private AreaRings _other = null!;

    [Params(500, 2_000, 8_000)]
    public int Segments { get; set; }

    [GlobalSetup]
    public void Make()
    {
        var rim = Rim(Segments);
        _one = AreaRings.Inside(rim);
        _other = AreaRings.Inside(rim.Map(Affine.Turn(360.0 / Segments * 0.7).Then(Affine.Move(0.3, 0.1))));
    }

    private static Path Rim(int count)
    {
        Point At(int i) => new Point(Math.Cos(2 * Math.PI * i / count), Math.Sin(2 * Math.PI * i / count)) * (i % 2 == 0 ? 100 : 98);
        return new Path(At(0), [.. Enumerable.Range(0, count).Select(i =>
        {
            var (before, from, to, after) = (At(i - 1), At(i), At(i + 1), At(i + 2));
            return Segment.Cubic(from + (to - before) * (1.0 / 6), to - (after - from) * (1.0 / 6), to);
        })], closed: true);
    }

    [Benchmark]
    public int Unite() => PathAreas.Combine(Combination.Unite, _one, _other).Length;

    [Benchmark]
    public int Subtract() => PathAreas.Combine(Combination.Subtract, _one, _other).Length;
}
