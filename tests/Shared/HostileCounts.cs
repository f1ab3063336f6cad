using System.Globalization;
using System.Text;

namespace Falzkunst.Tests.Shared;

/// <summary>
/// Files of ordinary things in numbers that nobody draws: rings, dashes, words, openings, copies, cut-offs, colours, each in several
/// sizes, so that what takes more than n log n shows.
/// </summary>
internal static class HostileCounts
{
    private const string Page = "width=\"200mm\" height=\"200mm\" viewBox=\"0 0 200 200\"";

    private static readonly int[] Sizes = [300, 1_000, 3_000, 10_000, 30_000];

    public static IEnumerable<HostileFile> All() =>
    [
        .. InSizes("rings-for-the-pen", n => OnPlate(Grid(n, (i, x, y, d) => $"<circle id=\"draw-{i}\" cx=\"{x}\" cy=\"{y}\" r=\"{d * 0.4:0.###}\" fill=\"none\" stroke=\"#24C\"/>"))),
        .. InSizes("rings-that-cross", n => OnPlate(Grid(n, (i, x, y, d) => $"<circle id=\"draw-{i}\" cx=\"{x}\" cy=\"{y}\" r=\"{d * 0.9:0.###}\" fill=\"none\" stroke=\"#24C\"/>"))),
        .. InSizes("rings-in-one-path", n => OnPlate($"<path id=\"draw-1\" fill=\"none\" stroke=\"#24C\" d=\"{Grid(n, (_, x, y, d) => $"M{x} {y}h{d * 0.7:0.###}v{d * 0.7:0.###}h-{d * 0.7:0.###}z")}\"/>")),
        .. InSizes("rings-in-rings", n => OnPlate(Many(n, i => $"<circle id=\"draw-{i}\" cx=\"100\" cy=\"100\" r=\"{90.0 * (i + 1) / n:0.####}\" fill=\"none\" stroke=\"#24C\"/>"))),
        .. InSizes("dashes-for-the-pen", n => OnPlate(Grid(n, (i, x, y, d) => $"<path id=\"draw-{i}\" d=\"M{x} {y}h{d * 0.5:0.###}\" stroke=\"#83A\"/>"))),
        .. InSizes("cut-openings", n => OnPlate(Grid(n, (_, x, y, d) => $"<rect x=\"{x}\" y=\"{y}\" width=\"{d * 0.5:0.###}\" height=\"{d * 0.5:0.###}\" fill=\"#fff\"/>"))),
        .. InSizes("slits-across-each-other", n => OnPlate(Many(n, i => string.Create(CultureInfo.InvariantCulture, $"<path d=\"M{5 + 190 * Math.Cos(i) * Math.Cos(i):0.###} 5L{5 + 190 * Math.Sin(i) * Math.Sin(i):0.###} 195\" stroke=\"#e00\" fill=\"none\"/>")))),
        .. InSizes("plates-one-over-another", n => Svg(Many(n, i => string.Create(CultureInfo.InvariantCulture, $"<rect x=\"{i * 50.0 / n:0.####}\" y=\"{i * 40.0 / n:0.####}\" width=\"120\" height=\"120\" fill=\"#{i * 37 % 4096:x3}\"/>")))),
        .. InSizes("gradients-that-follow-each-other", n => Svg($"<defs>{Many(n, i => $"<linearGradient id=\"g{i}\" href=\"#g{i + 1}\"/>")}</defs>{Grid(n, (i, x, y, d) => $"<rect x=\"{x}\" y=\"{y}\" width=\"{d * 0.8:0.###}\" height=\"{d * 0.8:0.###}\" fill=\"url(#g{i})\"/>")}")),
        .. InSizes("cut-offs-of-their-own", n => Svg($"<defs>{Many(n, i => $"<clipPath id=\"c{i}\"><circle cx=\"{i % 200}\" cy=\"{i / 200 % 200}\" r=\"30\"/></clipPath>")}</defs>{Many(n, i => $"<rect clip-path=\"url(#c{i})\" x=\"{i % 190}\" y=\"{i / 190 % 190}\" width=\"20\" height=\"20\" fill=\"#345\"/>")}")),
        .. InSizes("words-of-a-letter", n => OnPlate(Grid(n, (i, x, y, d) => $"<text x=\"{x}\" y=\"{y}\" font-size=\"{d:0.###}\">{(char)('a' + i % 26)}</text>"))),
        .. InSizes("views-in-views-of-nothing", n => Svg(Many(n, i => $"<svg x=\"{i % 190}\" y=\"{i / 190 % 190}\" width=\"9\" height=\"9\" viewBox=\"0 0 {(i % 2 == 0 ? "0 9" : "9 9")}\"><rect width=\"8\" height=\"8\" fill=\"#345\"/></svg>"))),
    ];

    private static IEnumerable<HostileFile> InSizes(string name, Func<int, string> svg) =>
        Sizes.Select(n => new HostileFile("numbers of ordinary things", string.Create(CultureInfo.InvariantCulture, $"{n}-{name}"), () => Encoding.UTF8.GetBytes(svg(n))));

    private static string Svg(string inside) => $"<svg xmlns=\"http://www.w3.org/2000/svg\" {Page}>{inside}</svg>";

    private static string OnPlate(string inside) => Svg($"<rect width=\"199\" height=\"199\" fill=\"#C9A66B\"/>{inside}");

    private static string Many(int count, Func<int, string> one)
    {
        var text = new StringBuilder();
        for (var i = 0; i < count; i++) text.Append(one(i));
        return text.ToString();
    }

    /// <summary>So many of something over the page: number, place, and distance from one to the next.</summary>
    private static string Grid(int count, Func<int, string, string, double, string> one)
    {
        var across = (int)Math.Ceiling(Math.Sqrt(count));
        var step = 180.0 / across;
        static string Text(double mm) => mm.ToString("0.###", CultureInfo.InvariantCulture);
        return Many(count, i => one(i, Text(10 + i % across * step), Text(10 + i / across * step), step));
    }
}
