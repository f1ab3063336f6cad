using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;

namespace Falzkunst.Bench;

/// <summary>A picture of wavy rings, drawn smoothly, traced in each way.</summary>
[MemoryDiagnoser]
public class TraceBench
{
    private PixelImage _image = null!;

    [Params(1000, 3500)]
    public int Side { get; set; }

    [Params(TraceMode.Areas, TraceMode.MiddleLines, TraceMode.Colours)]
    public TraceMode Mode { get; set; }

    [GlobalSetup]
    public void Make()
    {
        var rgba = new byte[Side * Side * PixelImage.BytesEach];
        for (var y = 0; y < Side; y++)
        {
            for (var x = 0; x < Side; x++)
            {
                var (u, v) = (x - Side / 2.0, y - Side / 2.0);
                var far = Math.Sqrt(u * u + v * v) + 6 * Math.Sin(12 * Math.Atan2(v, u));
                // Strokes of eight dots every 60, their edges one dot wide.
                var paper = (byte)Math.Clamp((Math.Abs(far % 60 - 30) - 4 + 0.5) * 255, 0, 255);
                var at = (y * Side + x) * PixelImage.BytesEach;
                (rgba[at], rgba[at + 1], rgba[at + 2], rgba[at + 3]) = (paper, paper, paper, 255);
            }
        }
        _image = new PixelImage(Side, Side, rgba);
    }

    [Benchmark]
    public int Trace() => PictureTrace.Run(_image, new TraceHow(Mode), Budget.Unlimited).Segments;
}
