using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench;

/// <summary>Survey and thickening of one lace-like piece: a plate full of openings with walls of 0.6 mm and more.</summary>
[MemoryDiagnoser]
public class WidthBench
{
    private List<Path> _rings = null!;
    private Piece _piece = null!;

    [Params(20_000, 100_000)]
    public int Vertices { get; set; }

    [GlobalSetup]
    public void Make()
    {
        const int perRing = 50;
        var count = Vertices / perRing;
        var side = (int)Math.Ceiling(Math.Sqrt(count));
        _rings = [Path.Rectangle(0, 0, side * 5 + 4, side * 5 + 4)];
        for (var i = 0; i < count; i++)
        {
            var (x, y) = (i % side * 5 + 4.5, i / side * 5 + 4.5);
            _rings.Add(Path.Polyline(Enumerable.Range(0, perRing).Select(k => 2 * Math.PI * k / perRing)
                .Select(a => new Point(x + 2.1 * Math.Cos(a) * (1 + 0.05 * Math.Cos(6 * a)), y + 2.1 * Math.Sin(a))), closed: true));
        }
        foreach (var ring in _rings) _ = ring.Flat.Length;
        _piece = Piece.FromLines("p1", "Lace", "chalk-200", Affine.Identity, _rings.Select(r => new Line("", r, Operation.Cut, Look.DrawnHere, null, null)));
    }

    [Benchmark]
    public int Survey() => WidthSurvey.ThinPlaces(_rings, 0.8).Count;

    [Benchmark]
    public double ThinPartsTo08() => Thickening.Grow(_piece, new Thicken(IsEven: false, 0.8, KeptGapMm: 0.4)).AreaAfter;

    [Benchmark]
    public double EverythingBy01() => Thickening.Grow(_piece, new Thicken(IsEven: true, 0.1, KeptGapMm: 0.4)).AreaAfter;
}
