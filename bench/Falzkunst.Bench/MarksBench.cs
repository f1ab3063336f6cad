using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;

namespace Falzkunst.Bench;

/// <summary>Marks found on a scan of a letter page that lies askew, and on a photo of twelve megapixels.</summary>
[MemoryDiagnoser]
public class MarksBench
{
    private const double Width = 215.9, Height = 279.4;

    private MarkLayout _page = null!;
    private InkRaster _scan = null!;
    private InkRaster _photo = null!;
    private double _dots;

    [Params(200, 300, 600)]
    public int DotsPerInch { get; set; }

    [GlobalSetup]
    public void Prepare()
    {
        _dots = DotsPerInch / 25.4;
        _page = MarkLayout.Of(MarkSettings.Usual, MarkSettings.Usual.Frame(Width, Height), Width, Height);
        var lies = Affine.Turn(1.2).Then(Affine.Move(8, 4)).Then(Affine.Scale(_dots, _dots));
        _scan = PageScan.Take(_page, [], new ScanFaults((int)((Width + 12) * _dots), (int)((Height + 12) * _dots), Projection.From(lies), 1) { Noise = 0.04, BlurDots = 1, LightFall = 0.2 });
        var leans = new Projection(12, 0.4, 200, -0.3, 11.6, 300, 2e-4, 3e-4, 1);
        _photo = PageScan.Take(_page, [], new ScanFaults(3000, 4000, leans, 1) { Noise = 0.02, BlurDots = 1, LightFall = 0.2 });
    }

    [Benchmark(Baseline = true)]
    public MarkReading Scan() => MarkFinder.Find(_scan, _page, _dots, PictureTaker.Scanner);

    [Benchmark]
    public MarkReading Photo() => MarkFinder.Find(_photo, _page, null, PictureTaker.Camera);
}
