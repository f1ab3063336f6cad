using System.Globalization;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;
using Falzkunst.Formats;
using Falzkunst.Formats.Pictures;

namespace Falzkunst.Lab;

/// <summary>Lines from a picture.</summary>
internal static class TraceVerb
{
    private static readonly Dictionary<string, TraceMode> Modes = new()
    {
        ["areas"] = TraceMode.Areas,
        ["rim"] = TraceMode.Rim,
        ["centre"] = TraceMode.MiddleLines,
        ["colours"] = TraceMode.Colours,
    };

    /// <summary>Path data is rounded to a thousandth of a dot.</summary>
    private const int Decimals = 3;

    /// <summary>A picture of 60 megapixels takes more work than a drawing may; the time is that of any file.</summary>
    private static readonly Budget Tracing = new(ArtFile.Reading.Limits with { Work = long.MaxValue - 1 });

    /// <summary>A wavy ring and a square in it on white, with grain where that is wanted: every stage has something to do.</summary>
    private static PixelImage WarmUp(bool grain)
    {
        const int side = 96;
        var rgba = new byte[side * side * PixelImage.BytesEach];
        for (var i = 0; i < side * side; i++)
        {
            var (x, y) = (i % side - side / 2, i / side - side / 2);
            var far = Math.Sqrt(x * x + y * y) + 3 * Math.Sin(5 * Math.Atan2(y, x));
            var paper = Math.Max(Math.Abs(x), Math.Abs(y)) < 12 ? 0 : Math.Clamp((Math.Abs(far - 34) - 5) * 255, 0, 255);
            rgba.AsSpan(i * PixelImage.BytesEach, 3).Fill((byte)Math.Clamp(paper + (grain ? i * 37 % 61 - 30 : 0), 0, 255));
            rgba[i * PixelImage.BytesEach + 3] = 255;
        }
        return new PixelImage(side, side, rgba);
    }

    private const double InchMm = 25.4, UsualDotsPerInch = 96;

    public static object Run(Arguments arguments)
    {
        var named = arguments.Option("--mode") ?? "areas";
        if (!Modes.TryGetValue(named, out var mode)) throw new LabRefused($"--mode takes {string.Join(", ", Modes.Keys)}, not “{named}”");
        var to = arguments.Option("--to") ?? throw new LabRefused("trace needs --to, the file to write");
        var (bytes, path) = arguments.File();
        var picture = Read(bytes, path);
        var how = new TraceHow(mode)
        {
            Threshold = arguments.Number("--threshold", 0.01, 0.99),
            Tolerance = arguments.Number("--tolerance", 0.05, 20) ?? TraceHow.UsualTolerance,
            Colours = (int)(arguments.Number("--colours", 2, TraceHow.MostColours) ?? 8),
        };
        // Code is made ready first, on pictures of its own, so that the computation alone is measured.
        foreach (var grain in new[] { false, true, false, true }) PictureTrace.Run(WarmUp(grain), how, Tracing);
        var (traced, milliseconds) = Timed.Run(() => PictureTrace.Run(picture.Image, how, Tracing));
        var mm = MmPerDot(picture);
        Arguments.WriteText(to, Svg(traced, picture.Image.Width, picture.Image.Height, mm));
        return new
        {
            Outlines = traced.Paths.Count(),
            traced.Segments,
            Width = Math.Round(picture.Image.Width * mm, 4),
            Height = Math.Round(picture.Image.Height * mm, 4),
            Threshold = Math.Round(traced.Threshold, 4),
            traced.Specks,
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>Size of a dot: as the file says, else as browsers take it.</summary>
    internal static double MmPerDot(ReadPicture picture) => InchMm / (picture.DotsPerInch ?? UsualDotsPerInch);

    internal static ReadPicture Read(byte[] bytes, string path)
    {
        try
        {
            return PictureReader.Read(bytes);
        }
        catch (ReadRefused refused)
        {
            throw new LabRefused($"{path}: {refused.Message}");
        }
    }

    private static string Svg(Traced traced, int width, int height, double mm)
    {
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width * mm:0.####}mm\" height=\"{height * mm:0.####}mm\" viewBox=\"0 0 {width} {height}\">");
        foreach (var area in traced.Areas)
            text.Append(CultureInfo.InvariantCulture, $"<path fill=\"{area.Colour}\" fill-rule=\"evenodd\" d=\"{string.Concat(area.Openings.Prepend(area.Outline).Select(p => PathText.Write(p, Decimals)))}\"/>");
        foreach (var line in traced.Lines)
            text.Append(CultureInfo.InvariantCulture, $"<path fill=\"none\" stroke=\"#24313A\" stroke-linecap=\"round\" stroke-linejoin=\"round\" stroke-width=\"{line.Width:0.###}\" d=\"{PathText.Write(line.Path, Decimals)}\"/>");
        return text.Append("</svg>").ToString();
    }
}
