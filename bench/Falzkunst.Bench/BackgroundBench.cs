using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Pictures;
using Falzkunst.Formats.Pictures;

namespace Falzkunst.Bench;

/// <summary>A touch of the background of a photograph of 12 megapixels as the screen shows it, grain and falling light in it, up to the PNG that is sent.</summary>
[MemoryDiagnoser]
public class BackgroundBench
{
    private const int Width = 1600, Height = 1200;

    private PixelImage _image = null!;

    [Params(false, true)]
    public bool Everywhere { get; set; }

    [GlobalSetup]
    public void Make()
    {
        var random = new Random(3);
        var rgba = new byte[Width * Height * PixelImage.BytesEach];
        for (var i = 0; i < Width * Height; i++)
        {
            var (x, y) = (i % Width, i / Width);
            var (u, v) = (x - Width / 2.0, y - Height / 2.0);
            var far = Math.Sqrt(u * u + v * v) + 60 * Math.Sin(7 * Math.Atan2(v, u));
            var (r, g, b) = far < 380 && (int)(far / 40) % 3 != 0 ? (60 + (int)(far / 4), 90, 140) : (236 - x / 80, 232 - y / 80, 222);
            var grain = random.Next(-6, 7);
            var at = i * PixelImage.BytesEach;
            (rgba[at], rgba[at + 1], rgba[at + 2], rgba[at + 3]) = ((byte)(r + grain), (byte)(g + grain), (byte)(b + grain), 255);
        }
        _image = new PixelImage(Width, Height, rgba);
    }

    [Benchmark]
    public PixelImage Away() => PictureSteps.Apply(_image, [new BackgroundAway(0.02, 0.02, 0.08, Everywhere)], Budget.Unlimited);

    [Benchmark]
    public int AwayAndSent() => PictureWriter.Png(Away()).Length;
}
