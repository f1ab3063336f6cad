namespace Falzkunst.Core.Pictures;

/// <summary>
/// How the brightness of the paper goes over a page: a surface of second order through the light part of each block, fitted again and again
/// without the blocks that are darker than it.
/// </summary>
public sealed class PaperLight
{
    /// <summary>What paper is levelled to.</summary>
    public const int White = 255;

    /// <summary>Light that differs by less over the page, of 255, is even.</summary>
    private const double Even = 8;

    /// <summary>A block that is darker than the paper around it by more than this, of 255, is no paper.</summary>
    private const double NoPaper = 14;

    /// <summary>Light below this is too little to tell.</summary>
    private const double Darkest = 40;

    /// <summary>At most so many blocks across, of at least so many dots: the lighter third of fewer dots is mostly noise.</summary>
    private const int Blocks = 32, LeastBlock = 12, LeastBlocks = 8;

    private const int Rounds = 6, SamplesAcross = 10;

    private readonly double[] _surface;
    private readonly int _width, _height;

    private PaperLight(double[] surface, int width, int height) => (_surface, _width, _height) = (surface, width, height);

    /// <summary>The light at a place, 0 to 255 and a little more.</summary>
    public double At(double x, double y) => Math.Max(1, Value(_surface, x / _width - 0.5, y / _height - 0.5));

    /// <summary>The light of a channel of a picture; null where it is even and the paper white already, or too little paper is seen.</summary>
    internal static PaperLight? Find(PixelImage image, int channel) => Find(image.Width, image.Height, (x, y) => image.Rgba[image.At(x, y) + channel], isWhite: false);

    /// <summary>The light of a page; null where it is even, or too little paper is seen.</summary>
    /// <param name="width">Dots across.</param>
    /// <param name="height">Dots down.</param>
    /// <param name="brightness">Of a dot, 0 to 255.</param>
    /// <param name="isWhite">Paper that is grey all over may stay so.</param>
    public static PaperLight? Find(int width, int height, Func<int, int, int> brightness, bool isWhite = true)
    {
        var (across, down) = (Math.Clamp(width / LeastBlock, Math.Min(LeastBlocks, width), Blocks), Math.Clamp(height / LeastBlock, Math.Min(LeastBlocks, height), Blocks));
        var samples = new List<(double U, double V, double Light)>(across * down);
        for (var j = 0; j < down; j++)
        {
            for (var i = 0; i < across; i++)
            {
                samples.Add(((i + 0.5) / across - 0.5, (j + 0.5) / down - 0.5, Paper(brightness, i * width / across, j * height / down, (i + 1) * width / across, (j + 1) * height / down)));
            }
        }
        var kept = samples;
        double[]? surface = null;
        for (var round = 0; round < Rounds; round++)
        {
            surface = Surface(kept);
            if (surface is null) return null;
            var near = samples.Where(s => s.Light >= Value(surface, s.U, s.V) - NoPaper).ToList();
            if (near.Count < samples.Count * 3 / 10) return null;
            if (near.Count == kept.Count) break;
            kept = near;
        }
        var lights = samples.Select(s => Value(surface!, s.U, s.V)).ToList();
        var isEven = lights.Max() - lights.Min() < Even && (isWhite || lights.Min() > White - Even);
        return isEven || lights.Min() < Darkest ? null : new PaperLight(surface!, width, height);
    }

    /// <summary>The brightness that the lighter third of a block passes, of a sample of it.</summary>
    private static double Paper(Func<int, int, int> brightness, int fromX, int fromY, int toX, int toY)
    {
        Span<int> counts = stackalloc int[256];
        counts.Clear();
        var count = 0;
        var step = Math.Max(1, (toX - fromX) / SamplesAcross);
        for (var y = fromY; y < Math.Max(toY, fromY + 1); y += step)
        {
            for (var x = fromX; x < Math.Max(toX, fromX + 1); x += step, count++) counts[brightness(x, y)]++;
        }
        var walked = 0;
        for (var light = 255; light >= 0; light--)
        {
            walked += counts[light];
            if (walked * 3 >= count) return light;
        }
        return 0;
    }

    /// <summary>Least squares for 1, u, v, u², uv, v²; null where the samples do not tell them.</summary>
    private static double[]? Surface(List<(double U, double V, double Light)> samples)
    {
        const int N = 6;
        var m = new double[N, N + 1];
        Span<double> t = stackalloc double[N];
        foreach (var (u, v, light) in samples)
        {
            (t[0], t[1], t[2], t[3], t[4], t[5]) = (1, u, v, u * u, u * v, v * v);
            for (var i = 0; i < N; i++)
            {
                for (var j = 0; j < N; j++) m[i, j] += t[i] * t[j];
                m[i, N] += t[i] * light;
            }
        }
        for (var k = 0; k < N; k++)
        {
            var pivot = k;
            for (var i = k + 1; i < N; i++) if (Math.Abs(m[i, k]) > Math.Abs(m[pivot, k])) pivot = i;
            if (Math.Abs(m[pivot, k]) < 1e-9) return null;
            for (var j = 0; j <= N; j++) (m[k, j], m[pivot, j]) = (m[pivot, j], m[k, j]);
            for (var i = 0; i < N; i++)
            {
                if (i == k) continue;
                var times = m[i, k] / m[k, k];
                for (var j = k; j <= N; j++) m[i, j] -= times * m[k, j];
            }
        }
        return [.. Enumerable.Range(0, N).Select(k => m[k, N] / m[k, k])];
    }

    private static double Value(double[] s, double u, double v) => s[0] + s[1] * u + s[2] * v + s[3] * u * u + s[4] * u * v + s[5] * v * v;
}
