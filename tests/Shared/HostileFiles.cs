using System.Globalization;
using System.Text;

namespace Falzkunst.Tests.Shared;

/// <summary>One file that asks for more than it should, made when it is asked for.</summary>
/// <param name="Family">What it attacks.</param>
/// <param name="Name">What it is, in words that do for a file name.</param>
/// <param name="Make">The bytes.</param>
public sealed record HostileFile(string Family, string Name, Func<byte[]> Make)
{
    public override string ToString() => $"{Family}: {Name}";
}

/// <summary>
/// Files made to break a reader or what comes after it: eleven families, each case asking for time, stack or memory in its own
/// way. Every one is answered with pieces or a sentence in seconds.
/// </summary>
public static class HostileFiles
{
    private const string Square = "M0 0H10V10H0z";

    public static IReadOnlyList<HostileFile> All { get; } =
    [
        .. Style(), .. Selectors(), .. Properties(), .. Nesting(), .. Reuse(), .. Numbers(), .. Extent(), .. Counts(), .. Names(), .. Kinds(), .. HostileCounts.All(),
    ];

    private static HostileFile Make(string family, string name, Func<string> svg) => new(family, name, () => Encoding.UTF8.GetBytes(svg()));

    private static string Svg(string inside, string attributes = "width=\"100mm\" height=\"100mm\" viewBox=\"0 0 100 100\"") =>
        $"<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" {attributes}>{inside}</svg>";

    private static string Styled(string style, string inside = $"<path class=\"a b c\" d=\"{Square}\"/>") => Svg($"<style>{style}</style>{inside}");

    private static string Many(int count, Func<int, string> one)
    {
        var text = new StringBuilder();
        for (var i = 0; i < count; i++) text.Append(one(i));
        return text.ToString();
    }

    private static string Repeat(string text, int times) => new StringBuilder(text.Length * times).Insert(0, text, times).ToString();

    private static IEnumerable<HostileFile> Style()
    {
        yield return Make("style", "blocks-in-blocks", () => Styled(Repeat(".a{", 60_000) + "fill:red" + Repeat("}", 60_000)));
        yield return Make("style", "media-in-media", () => Styled(Repeat("@media all{", 40_000) + ".a{fill:red}" + Repeat("}", 40_000)));
        yield return Make("style", "functions-in-functions", () => Styled(".a{fill:" + Repeat("calc(", 50_000) + "1" + Repeat(")", 50_000) + "}"));
        yield return Make("style", "brackets-in-brackets", () => Styled(Repeat("[", 100_000) + Repeat("]", 100_000) + "{fill:red}"));
        yield return Make("style", "parentheses-unclosed", () => Styled(".a{fill:url" + Repeat("((", 100_000)));
        yield return Make("style", "fifty-thousand-rules", () => Styled(Many(50_000, i => $".a{i}{{fill:#{i % 999:000}}}"), Many(2_000, i => $"<path class=\"a{i}\" d=\"{Square}\"/>")));
        yield return Make("style", "thousand-style-elements", () => Svg(Many(1_500, _ => "<style>.a{fill:red}.b{fill:blue}</style>") + Many(3_000, _ => $"<path class=\"a b\" d=\"{Square}\"/>")));
        yield return Make("style", "imports-and-faces", () => Styled(Many(5_000, i => $"@import url('file:///etc/passwd{i}');@font-face{{font-family:f{i};src:url(http://x/{i})}}")));
        yield return Make("style", "comment-unclosed", () => Styled(".a{fill:red}/*" + Repeat("*", 400_000)));
        yield return Make("style", "escapes", () => Styled(Repeat("\\", 200_000) + "{fill:red}"));
    }

    private static IEnumerable<HostileFile> Selectors()
    {
        static string Deep(int levels) => Repeat("<g class=\"a\">", levels) + $"<path class=\"z\" d=\"{Square}\"/>" + Repeat("</g>", levels);
        yield return Make("selectors", "descendants-backtrack", () => Styled($".q {Repeat(".a ", 30)}.z{{fill:red}}", Deep(200)));
        yield return Make("selectors", "descendants-and-children", () => Styled($".q > .a {Repeat(".a > .a ", 40)}.z{{fill:red}}", Deep(240)));
        yield return Make("selectors", "long-chain", () => Styled(Repeat("g ", 60_000) + "{fill:red}"));
        yield return Make("selectors", "long-list", () => Styled(Many(80_000, i => $".s{i},") + ".z{fill:red}"));
        yield return Make("selectors", "functions-nested", () => Styled(Repeat(":not(", 30_000) + ".a" + Repeat(")", 30_000) + "{fill:red}"));
        yield return Make("selectors", "rules-times-elements", () => Styled(Many(4_000, i => $"g path[d]{{stroke-width:{i % 3}}}"), "<g>" + Many(30_000, _ => $"<path d=\"{Square}\"/>") + "</g>"));
        yield return Make("selectors", "hundred-thousand-classes", () => Styled(Many(300, i => $".c{i} .c{i + 1}{{fill:red}}"), $"<g class=\"{Many(100_000, i => $"c{i} ")}\"><path class=\"{Many(100_000, i => $"c{i} ")}\" d=\"{Square}\"/></g>"));
        yield return Make("selectors", "one-compound-of-many", () => Styled(Repeat(".a", 200_000) + "{fill:red}", Many(5_000, _ => $"<path class=\"a\" d=\"{Square}\"/>")));
    }

    private static IEnumerable<HostileFile> Properties()
    {
        yield return Make("properties", "custom-chain-doubling", () => Styled(".a{" + Many(60, i => $"--v{i + 1}:var(--v{i}) var(--v{i});") + "--v0:1;fill:var(--v60)}"));
        yield return Make("properties", "custom-chain-long", () => Styled(".a{" + Many(20_000, i => $"--v{i}:var(--v{i + 1});") + "fill:var(--v0)}"));
        yield return Make("properties", "custom-circle", () => Styled(".a{--x:var(--y);--y:var(--x);fill:var(--x)}"));
        yield return Make("properties", "inline-declarations", () => Svg(Many(400, _ => $"<path style=\"{Repeat("fill:red;", 5_000)}\" d=\"{Square}\"/>")));
        yield return Make("properties", "fallback-chain", () => Svg($"<path fill=\"{Repeat("url(#x) ", 100_000)}red\" d=\"{Square}\"/>"));
        yield return Make("properties", "stops-times-declarations", () => Svg(
            $"<style>{Many(2_000, i => $"stop.s{{stop-color:#{i % 999:000}}}")}</style><linearGradient id=\"g\">{Repeat("<stop class=\"s\"/>", 3_000)}</linearGradient>"
            + Many(4_000, _ => $"<path fill=\"url(#g)\" d=\"{Square}\"/>")));
        yield return Make("properties", "gradients-in-a-chain", () => Svg(Many(20_000, i => $"<linearGradient id=\"g{i}\" xlink:href=\"#g{i + 1}\"/>") + Many(5_000, i => $"<path fill=\"url(#g{i})\" d=\"{Square}\"/>")));
        yield return Make("properties", "dashes", () => Svg($"<path stroke=\"red\" stroke-dasharray=\"{Repeat("1 ", 500_000)}\" d=\"{Square}\"/>"));
        yield return Make("properties", "long-colour", () => Svg($"<path fill=\"rgb({Repeat("1,", 500_000)})\" d=\"{Square}\"/>"));
        yield return Make("properties", "clip-of-clips", () => Svg(Many(5_000, i => $"<clipPath id=\"c{i}\" clip-path=\"url(#c{i + 1})\"><path d=\"{Square}\"/></clipPath>") + Many(500, _ => $"<path clip-path=\"url(#c0)\" d=\"{Square}\"/>")));
        yield return Make("properties", "clip-of-many", () => Svg($"<clipPath id=\"c\">{Many(20_000, i => $"<circle cx=\"{i % 100}\" cy=\"{i / 200}\" r=\"3\"/>")}</clipPath>" + Many(3_000, i => $"<circle clip-path=\"url(#c)\" cx=\"{i % 90}\" cy=\"50\" r=\"20\"/>")));
    }

    private static IEnumerable<HostileFile> Nesting()
    {
        yield return Make("nesting", "groups", () => Svg(Repeat("<g>", 200_000) + Repeat("</g>", 200_000)));
        yield return Make("nesting", "viewports", () => Svg(Repeat("<svg viewBox=\"0 0 10 10\">", 250) + $"<path d=\"{Square}\"/>" + Repeat("</svg>", 250)));
        yield return Make("nesting", "unclosed", () => "<svg xmlns=\"http://www.w3.org/2000/svg\">" + Repeat("<g>", 500_000));
        yield return Make("nesting", "switches", () => Svg(Repeat("<switch><g>", 120) + $"<path d=\"{Square}\"/>" + Repeat("</g></switch>", 120)));
        yield return Make("nesting", "named-groups", () => Svg(Many(240, i => $"<g id=\"{i}-{Repeat("name", 200)}\">") + Many(5_000, _ => $"<path d=\"{Square}\"/>") + Repeat("</g>", 240)));
        yield return Make("nesting", "entities", () =>
            "<!DOCTYPE svg [<!ENTITY a \"aaaaaaaaaa\">" + Many(9, i => $"<!ENTITY a{i + 1} \"{Repeat(i == 0 ? "&a;" : $"&a{i};", 10)}\">") + "]>" + Svg("<g id=\"&a9;\"/>"));
        yield return Make("nesting", "outlines", () => Svg("<path fill=\"none\" stroke=\"black\" d=\"" + Many(10_000, i => FormattableString.Invariant($"M{i * 0.004} {i * 0.004}H{100 - i * 0.004}V{100 - i * 0.004}H{i * 0.004}z")) + "\"/>"));
        yield return Make("nesting", "filled-outlines", () => Svg(Many(10_000, i => FormattableString.Invariant($"<path fill=\"#{i % 4096:x3}\" d=\"M{i * 0.004} {i * 0.004}H{100 - i * 0.004}V{100 - i * 0.004}H{i * 0.004}z\"/>"))));
    }

    private static IEnumerable<HostileFile> Reuse()
    {
        yield return Make("reuse", "doubling", () => Svg("<defs>" + Many(40, i => $"<g id=\"u{i + 1}\"><use href=\"#u{i}\"/><use href=\"#u{i}\"/></g>") + $"<path id=\"u0\" d=\"{Square}\"/></defs><use href=\"#u40\"/>"));
        yield return Make("reuse", "nested-viewports-in-groups", () => Svg(
            "<defs>" + Many(20, i => $"<g id=\"v{i + 1}\">{Repeat("<g><svg>", 60)}<use href=\"#v{i}\"/>{Repeat("</svg></g>", 60)}</g>") + $"<path id=\"v0\" d=\"{Square}\"/></defs><use href=\"#v20\"/>"));
        yield return Make("reuse", "deep-chain", () => Svg("<defs>" + Many(5_000, i => $"<use id=\"w{i + 1}\" href=\"#w{i}\"/>") + $"<path id=\"w0\" d=\"{Square}\"/></defs><use href=\"#w5000\"/>"));
        yield return Make("reuse", "itself", () => Svg("<g id=\"i\"><use href=\"#i\"/><use href=\"#i\"/><use href=\"#j\"/></g><g id=\"j\"><use href=\"#i\"/></g>"));
        yield return Make("reuse", "symbols-nested", () => Svg("<defs>" + Many(23, i => $"<symbol id=\"s{i + 1}\" viewBox=\"0 0 10 10\">{Repeat($"<use href=\"#s{i}\"/>", 8)}</symbol>") + $"<symbol id=\"s0\"><path d=\"{Square}\"/></symbol></defs><use href=\"#s23\"/>"));
        yield return Make("reuse", "long-path-often", () => Svg($"<defs><path id=\"p\" d=\"M0 0{Many(20_000, i => $"L{i % 100} {i % 97}")}\"/></defs>" + Repeat("<use href=\"#p\"/>", 5_000)));
        yield return Make("reuse", "hidden-doubling", () => Svg("<defs>" + Many(40, i => $"<g id=\"h{i + 1}\"><use href=\"#h{i}\"/><use href=\"#h{i}\"/></g>") + "<g id=\"h0\"/></defs><use href=\"#h40\"/>"));
    }

    private static IEnumerable<HostileFile> Numbers()
    {
        yield return Make("numbers", "long-number", () => Svg($"<path d=\"M0 0L{Repeat("1", 5_000_000)} 1\"/>"));
        yield return Make("numbers", "exponents", () => Svg("<path d=\"M1e308 1e308L-1e308 1e308 1e-320 5z\"/><rect width=\"1e400\" height=\"1e-400\"/><circle r=\"1e300\"/>"));
        yield return Make("numbers", "not-numbers", () => Svg("<rect x=\"NaN\" y=\"Infinity\" width=\"-Infinity\" height=\"5\"/><path d=\"MNaN 0L5 5z\"/>", "width=\"NaNmm\" height=\"0\" viewBox=\"NaN 0 1 Infinity\""));
        yield return Make("numbers", "transforms", () => Svg($"<g transform=\"{Repeat("scale(1e200) ", 4)}\"><path d=\"{Square}\"/></g><g transform=\"{Repeat("rotate(1)", 200_000)}\"><path d=\"{Square}\"/></g>"));
        yield return Make("numbers", "arcs", () => Svg("<path d=\"M0 0" + Many(100_000, i => $"A1e9 1e-9 {i} 1 0 {i % 100} {i % 91}") + "\"/>"));
        yield return Make("numbers", "curves-far-out", () => Svg(Many(5_000, i => $"<path fill=\"none\" stroke=\"black\" d=\"M0 0C900000 {i} -900000 {i} 50 50C-900000 0 900000 {i} {i % 100} 0\"/>")));
        yield return Make("numbers", "zero-view", () => Svg($"<path d=\"{Square}\"/>", "width=\"100\" height=\"100\" viewBox=\"0 0 0 0\""));
        yield return Make("numbers", "negative-size", () => Svg($"<path d=\"{Square}\"/>", "width=\"-100\" height=\"-100\""));
        yield return Make("numbers", "tiny-steps", () => Svg("<path stroke=\"red\" d=\"M0 0" + Many(200_000, i => "l0.0001 0.0001 0.0001 -0.0001") + "\"/>"));
    }

    private static IEnumerable<HostileFile> Extent()
    {
        yield return Make("extent", "kilometre-square", () => Svg("<path d=\"M0 0H1000000V1000000H0z\"/>", "width=\"900m\" height=\"900m\""));
        yield return Make("extent", "kilometre-strip", () => Svg("<rect width=\"900000\" height=\"0.4\" fill=\"#123456\"/>", "width=\"900000mm\" height=\"1mm\" viewBox=\"0 0 900000 1\""));
        yield return Make("extent", "fine-comb", () => Svg("<path d=\"M0 0" + Many(20_000, i => FormattableString.Invariant($"V90000h0.2V1h0.2")) + "V0z\"/>", "width=\"9000mm\" height=\"90000mm\" viewBox=\"0 0 9000 90000\""));
        yield return Make("extent", "sixty-thousand-spikes", () => Svg("<path d=\"M50 50" + Many(60_000, i => FormattableString.Invariant($"L{50 + 49 * Math.Cos(i * 0.0001047):0.#####} {50 + 49 * Math.Sin(i * 0.0001047):0.#####}L{50 + 20 * Math.Cos(i * 0.0001047 + 0.00005):0.#####} {50 + 20 * Math.Sin(i * 0.0001047 + 0.00005):0.#####}")) + "z\"/>"));
        yield return Make("extent", "tiny-beside-huge", () => Svg("<rect width=\"0.01\" height=\"0.01\"/><rect x=\"800000\" y=\"800000\" width=\"90000\" height=\"90000\"/>", "width=\"900000mm\" height=\"900000mm\" viewBox=\"0 0 900000 900000\""));
        yield return Make("extent", "star-of-slivers", () => Svg("<path fill-rule=\"evenodd\" d=\"M50 0" + Many(20_000, i => FormattableString.Invariant($"L{50 + 50 * Math.Cos(i * 2.4):0.####} {50 + 50 * Math.Sin(i * 2.4):0.####}")) + "z\"/>"));
        yield return Make("extent", "spiral", () => Svg("<path fill=\"none\" stroke=\"black\" d=\"M50 50" + Many(200_000, i => FormattableString.Invariant($"L{50 + i * 0.2 * Math.Cos(i * 0.01):0.###} {50 + i * 0.2 * Math.Sin(i * 0.01):0.###}")) + "z\"/>"));
    }

    private static IEnumerable<HostileFile> Counts()
    {
        yield return Make("counts", "small-shapes", () => Svg(Many(150_000, i => $"<rect x=\"{i % 400}\" y=\"{i / 400}\" width=\"0.5\" height=\"0.5\"/>")));
        yield return Make("counts", "elements", () => Svg(Repeat("<g/>", 2_000_000)));
        yield return Make("counts", "segments", () => Svg("<path d=\"M0 0" + Repeat("h1v1h-1v-1", 1_800_000) + "\"/>"));
        yield return Make("counts", "twenty-megabyte-path", () => Svg("<path d=\"M0 0" + Repeat("9 ", 9_900_000) + "\"/>"));
        yield return Make("counts", "same-square", () => Svg(Repeat($"<path d=\"{Square}\"/>", 60_000)));
        yield return Make("counts", "stacked-squares", () => Svg(Many(20_000, i => FormattableString.Invariant($"<path fill=\"#{i % 4096:x3}\" d=\"M{i * 1e-4} 0H50V50H0z\"/>"))));
        yield return Make("counts", "lines-over-pieces", () => Svg(Many(2_000, i => FormattableString.Invariant($"<rect fill=\"#{i % 4096:x3}\" x=\"{i * 0.01}\" y=\"{i * 0.01}\" width=\"60\" height=\"60\"/>")) + Many(10_000, i => FormattableString.Invariant($"<path stroke=\"red\" fill=\"none\" d=\"M{i * 0.005} 0L{90 - i * 0.005} 90\"/>"))));
        yield return Make("counts", "strokes-meeting-in-one-point", () => Svg(Many(40_000, i => $"<path stroke=\"black\" fill=\"none\" d=\"M50 50L{i % 200} {i / 200}\"/>")));
        yield return Make("counts", "chain-of-strokes", () => Svg(Many(60_000, i => FormattableString.Invariant($"<path stroke=\"black\" fill=\"none\" d=\"M{i * 0.5} {i % 7}L{(i + 1) * 0.5} {(i + 1) % 7}\"/>"))));
    }

    private static IEnumerable<HostileFile> Names()
    {
        yield return Make("names", "long-id", () => Svg($"<path id=\"{Repeat("a", 3_000_000)}\" d=\"{Square}\"/>"));
        yield return Make("names", "id-of-hex-and-dashes", () => Svg($"<path id=\"path{Repeat("0-a_", 500_000)}!\" d=\"{Square}\"/>"));
        yield return Make("names", "id-of-blanks", () => Svg($"<path id=\"a{Repeat(" ", 1_000_000)}b\" d=\"{Square}\"/>"));
        yield return Make("names", "same-name-often", () => Svg(Many(20_000, i => $"<rect id=\"Star\" x=\"{i % 200 * 2}\" y=\"{i / 200 * 2}\" width=\"1\" height=\"1\" fill=\"red\"/>")));
        yield return Make("names", "markup", () => Svg("<g id=\"&lt;img src=x onerror=alert(1)&gt;\"><path id=\"&lt;button hx-post='/x' hx-trigger='load'&gt;\" d=\"" + Square + "\"/></g>"));
        yield return Make("names", "controls-and-nul", () => Svg("<path id=\"a&#x85;&#x202E;&#xFEFF;b\" d=\"" + Square + "\"/>"));
        yield return new HostileFile("names", "nul-bytes", () => [.. Encoding.UTF8.GetBytes(Svg("<path d=\"M0 0")), 0, 0, .. Encoding.UTF8.GetBytes("H10V10z\"/>")]);
        yield return Make("names", "many-attributes", () => Svg($"<path {Many(100_000, i => $"a{i}=\"1\" ")}d=\"{Square}\"/>"));
    }

    private static IEnumerable<HostileFile> Kinds()
    {
        yield return new HostileFile("kinds", "empty", () => []);
        yield return new HostileFile("kinds", "zeros", () => new byte[4_000_000]);
        yield return new HostileFile("kinds", "png-called-svg", () => [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, .. new byte[1000]]);
        yield return new HostileFile("kinds", "dxf-insert-array", () => Encoding.ASCII.GetBytes(Dxf(
            "0\nBLOCK\n2\nB\n10\n0\n20\n0\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK\n",
            "0\nINSERT\n2\nB\n10\n0\n20\n0\n70\n1000\n71\n1000\n44\n2\n45\n2\n")));
        yield return new HostileFile("kinds", "dxf-blocks-doubling", () => Encoding.ASCII.GetBytes(Dxf(
            Many(22, i => $"0\nBLOCK\n2\nB{i + 1}\n10\n0\n20\n0\n{Repeat($"0\nINSERT\n2\nB{i}\n10\n0\n20\n0\n", 4)}0\nENDBLK\n") + "0\nBLOCK\n2\nB0\n0\nLINE\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK\n",
            "0\nINSERT\n2\nB22\n10\n0\n20\n0\n")));
        yield return new HostileFile("kinds", "dxf-spline", () => Encoding.ASCII.GetBytes(Dxf("",
            Many(300, s => $"0\nSPLINE\n71\n11\n{Many(1_012, i => $"40\n{i.ToString(CultureInfo.InvariantCulture)}\n")}{Many(1_000, i => $"10\n{(i * 7919 + s) % 100000}\n20\n{i * 104729 % 100000}\n")}"))));
        yield return new HostileFile("kinds", "dxf-tags", () => Encoding.ASCII.GetBytes("0\nSECTION\n2\nENTITIES\n" + Repeat("8\n0\n", 4_000_000)));
        yield return new HostileFile("kinds", "dxf-long-line", () => Encoding.ASCII.GetBytes("0\nSECTION\n2\n" + Repeat("A", 15_000_000)));
        yield return new HostileFile("kinds", "utf16-odd", () => [.. Encoding.Unicode.GetPreamble(), .. Encoding.Unicode.GetBytes(Svg($"<path d=\"{Square}\"/>")), 7]);
        yield return Make("kinds", "doctype-outside", () => "<!DOCTYPE svg SYSTEM \"file:///etc/passwd\" [<!ENTITY % x SYSTEM \"http://127.0.0.1/x\">%x;]>" + Svg($"<path d=\"{Square}\"/>"));
        yield return Make("kinds", "html", () => $"<!doctype html><html><body><svg><path d='{Square}'></svg>");
    }

    private static string Dxf(string blocks, string entities) =>
        $"0\nSECTION\n2\nBLOCKS\n{blocks}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n{entities}0\nENDSEC\n0\nEOF\n";
}
