using System.Diagnostics;
using System.Text.Json;

namespace Falzkunst.Formats.Tests;

/// <summary>The lab as its users meet it: one JSON object out, exit codes, one line on bad input.</summary>
[Collection("One at a time")]
public sealed class LabTests
{
    private static (int Code, string Out, string Err) Lab(params string[] arguments)
    {
        var program = Path.Combine(AppContext.BaseDirectory, "Falzkunst.Lab.dll");
        using var process = Process.Start(new ProcessStartInfo("dotnet", [program, .. arguments]) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var error = process.StandardError.ReadToEndAsync();
        var output = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return (process.ExitCode, output, error.Result);
    }

    private static string Art(string name) => Path.Combine(AppContext.BaseDirectory, "Art", name + ".svg");

    private static JsonElement Good(params string[] arguments)
    {
        var (code, output, error) = Lab(arguments);
        Assert.True(code == 0, error);
        var json = JsonDocument.Parse(output).RootElement;
        Assert.True(json.GetProperty("elapsed_ms").GetDouble() >= 0);
        return json;
    }

    [Fact]
    public void Thin_finds_what_is_narrower_than_asked_and_the_narrowest_where_nothing_is()
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        var file = Path.Combine(folder, "bar.svg");
        File.WriteAllText(file, """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M5 5h20v14.75h10v-14.75h20v30h-20v-14.75h-10v14.75h-20Z"/></svg>""");
        var picture = Path.Combine(folder, "bar-thin.svg");
        var json = Good("thin", file, "--min", "0.8", "--svg", picture);
        var place = Assert.Single(json.GetProperty("places").EnumerateArray());
        Assert.Equal("strand", place.GetProperty("kind").GetString());
        Assert.InRange(place.GetProperty("width").GetDouble(), 0.49, 0.51);
        Assert.Equal(place.GetProperty("width").GetDouble(), json.GetProperty("narrowest").GetDouble());
        Assert.Contains("<circle", File.ReadAllText(picture), StringComparison.Ordinal);
        var wide = Good("thin", file, "--min", "0.3");
        Assert.Empty(wide.GetProperty("places").EnumerateArray());
        Assert.InRange(wide.GetProperty("narrowest").GetDouble(), 0.49, 0.51);
        Assert.Equal(2, Lab("thin", file).Code);
    }

    [Fact]
    public void Thicken_grows_thin_parts_and_keeps_the_dot_off_the_stem_unless_it_may_melt()
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        var file = Path.Combine(folder, "i.svg");
        File.WriteAllText(file, """<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="40mm" viewBox="0 0 30 40"><path d="M14.8 12h.4v20h-.4ZM13.9 10a1.1 1.1 0 1 0 2.2 0a1.1 1.1 0 1 0-2.2 0Z"/></svg>""");
        var picture = Path.Combine(folder, "i-thick.svg");
        var thin = Good("thicken", file, "--min", "0.8", "--svg", picture);
        Assert.InRange(thin.GetProperty("narrowest_before").GetDouble(), 0.39, 0.41);
        Assert.InRange(thin.GetProperty("narrowest_after").GetDouble(), 0.8, 0.83);
        Assert.Equal(20 * 0.4, thin.GetProperty("area_after").GetDouble() - thin.GetProperty("area_before").GetDouble(), 0.6);
        Assert.Contains("<path", File.ReadAllText(picture), StringComparison.Ordinal);
        int Merged(params string[] options) => Good(["thicken", file, "--min", "0.8", "--even", "0.7", .. options]).GetProperty("merged").GetInt32();
        Assert.Equal((0, 0, 1), (Merged(), Merged("--gap", "0.2"), Merged("--gap", "0")));
        Assert.Equal(2, Lab("thicken", file).Code);
        Assert.Equal(2, Lab("thicken", file, "--min", "0.8", "--even", "-1").Code);
    }

    [Fact]
    public void Combine_keeps_curves_and_openings()
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        string File(string name, string content)
        {
            var file = Path.Combine(folder, name);
            System.IO.File.WriteAllText(file, $"""<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60">{content}</svg>""");
            return file;
        }
        var target = Path.Combine(folder, "out.svg");
        JsonElement By(string file, string how) => Good("combine", file, "--by", how, "--to", target);
        double Area(string file, string how) => By(file, how).GetProperty("area").GetDouble();
        // Two circles of 10 whose middles are 10 apart: their lens has a known area.
        var circles = File("circles.svg", """<circle cx="30" cy="30" r="10"/><circle cx="40" cy="30" r="10"/>""");
        var (disc, lens) = (100 * Math.PI, 200 * Math.PI / 3 - 50 * Math.Sqrt(3));
        Assert.Equal(2 * disc - lens, Area(circles, "unite"), 0.01);
        Assert.Equal(disc - lens, Area(circles, "subtract"), 0.01);
        var shared = By(circles, "intersect");
        Assert.Equal(lens, shared.GetProperty("area").GetDouble(), 0.01);
        Assert.InRange(shared.GetProperty("segments").GetInt32(), 2, 8);
        Assert.Equal(lens, ArtFile.Assemble(ArtFile.Parse(System.IO.File.ReadAllText(target))).Pieces.Single().Paper.Area, 0.3);
        // A ring with a disc in it, less a bar across: the disc is not lost in the ring's opening.
        var target2 = File("target.svg", """<path d="M10 10h40v40h-40ZM15 15h30v30h-30ZM25 25h10v10h-10Z" fill-rule="evenodd"/><rect x="0" y="28" width="80" height="4"/>""");
        var rest = By(target2, "subtract");
        Assert.Equal((4, 40 * 40 - 30 * 30 + 10 * 10 - 10 * 4 - 10 * 4, 24), (rest.GetProperty("parts").GetInt32(), Math.Round(rest.GetProperty("area").GetDouble(), 6), rest.GetProperty("segments").GetInt32()));
        Assert.Equal(0, By(File("apart.svg", """<rect width="10" height="10"/><rect x="20" width="10" height="10"/>"""), "intersect").GetProperty("parts").GetInt32());
        Assert.Equal(2, Lab("combine", circles, "--by", "melt", "--to", target).Code);
        Assert.Equal(2, Lab("combine", File("one.svg", "<rect width=\"10\" height=\"10\"/>"), "--by", "unite", "--to", target).Code);
    }

    [Fact]
    public void Import_counts_and_writes_back()
    {
        var target = Path.Combine(Directory.CreateTempSubdirectory("lab").FullName, "back.svg");
        var json = Good("import", Art("nested-outlines"), "--svg", target);
        Assert.Equal((100, 80, 4), (json.GetProperty("width").GetDouble(), json.GetProperty("height").GetDouble(), json.GetProperty("lines").GetInt32()));
        Assert.Equal(0, json.GetProperty("images").GetInt32());
        Assert.Equal(0, json.GetProperty("warnings").GetArrayLength());
        Assert.Equal(4, ArtFile.Parse(File.ReadAllText(target)).LineCount);
    }

    [Fact]
    public void Pieces_have_area_openings_and_operations()
    {
        var pieces = Good("pieces", Art("loose-folds")).GetProperty("pieces");
        var piece = Assert.Single(pieces.EnumerateArray());
        Assert.Equal((4000, 100, 40, 0), (piece.GetProperty("area").GetDouble(), piece.GetProperty("width").GetDouble(), piece.GetProperty("height").GetDouble(), piece.GetProperty("holes").GetInt32()));
        Assert.Equal("""{"score":2,"cut":1}""", JsonSerializer.Serialize(piece.GetProperty("operations")));
        Assert.Single(Good("pieces", Art("nearly-closed")).GetProperty("orphans").EnumerateArray());
    }

    [Fact]
    public void Plan_lists_passes_in_order_with_times()
    {
        var json = Good("plan", Art("pen-and-print"), "--machine", "solo-305", "--stock", "kraft-240");
        Assert.Equal(["draw", "perforate", "cut"], json.GetProperty("passes").EnumerateArray().Select(p => p.GetProperty("operation").GetString()));
        Assert.Equal(json.GetProperty("seconds").GetDouble(), json.GetProperty("passes").EnumerateArray().Sum(p => p.GetProperty("seconds").GetDouble()), 0.01);
        Assert.True(json.GetProperty("tool_changes").GetInt32() >= 1);
    }

    [Fact]
    public void Export_writes_both_formats_and_names_the_pens()
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        var json = Good("export", Art("loose-folds"), "--as", "svg,hpgl", "--to", folder);
        Assert.Equal(2, json.GetProperty("files").GetArrayLength());
        Assert.All(json.GetProperty("files").EnumerateArray(), f => Assert.True(File.Exists(f.GetString())));
        Assert.Equal("""{"1":"score","2":"cut"}""", JsonSerializer.Serialize(json.GetProperty("pens")));
    }

    /// <summary>A page drawn by another renderer, turned, scaled and moved as its picture says.</summary>
    [Theory]
    [InlineData(200, "rotate(1.3) translate(3 1) scale(1.006 0.995)")]
    [InlineData(300, "translate(219 284) rotate(178.6) skewX(0.2)")]
    [InlineData(600, "translate(2 2)")]
    public void Marks_gives_the_map_from_sheet_to_scan(int dotsPerInch, string moved)
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        var (svg, png, layout) = (Path.Combine(folder, "page.svg"), Path.Combine(folder, "page.png"), Path.Combine(folder, "layout.json"));
        File.WriteAllText(layout, """{"width":215.9,"height":279.4,"marks":[{"x":10,"y":10,"arm":15,"line":0.5,"corner":"top-left"},{"x":205.9,"y":10,"arm":15,"line":0.5,"corner":"top-right"},{"x":10,"y":269.4,"arm":15,"line":0.5,"corner":"bottom-left"}]}""");
        File.WriteAllText(svg, $"""<svg xmlns="http://www.w3.org/2000/svg" width="225mm" height="290mm" viewBox="0 0 225 290"><path fill="#fff" d="M0 0h225v290H0Z"/><g transform="{moved}"><path d="M10 10h15v.5h-14.5v14.5h-.5Z"/><path d="M205.9 10h-15v.5h14.5v14.5h.5Z"/><path d="M10 269.4h15v-.5h-14.5v-14.5h-.5Z"/><path d="M60 60h40v30h-40Z" fill="#888"/></g></svg>""");
        using (var draw = Process.Start("rsvg-convert", ["-d", $"{dotsPerInch}", "-p", $"{dotsPerInch}", "-o", png, svg])) draw.WaitForExit();
        var json = Good("marks", png, "--layout", layout, "--dpi", $"{dotsPerInch}");
        Assert.Equal(3, json.GetProperty("found").GetArrayLength());
        var m = json.GetProperty("transform").EnumerateArray().Select(n => n.GetDouble()).ToArray();
        // What SVG's functions say, worked out by hand in their own words.
        (double X, double Y) True(double x, double y)
        {
            double Cos(double d) => Math.Cos(d * Math.PI / 180);
            double Sin(double d) => Math.Sin(d * Math.PI / 180);
            if (dotsPerInch == 600) return (x + 2, y + 2);
            if (dotsPerInch == 300)
            {
                var (u, v) = (x + y * Math.Tan(0.2 * Math.PI / 180), y);
                return (219 + u * Cos(178.6) - v * Sin(178.6), 284 + u * Sin(178.6) + v * Cos(178.6));
            }
            var (p, q) = (3 + x * 1.006, 1 + y * 0.995);
            return (p * Cos(1.3) - q * Sin(1.3), p * Sin(1.3) + q * Cos(1.3));
        }
        foreach (var (x, y) in new[] { (0.0, 0.0), (215.9, 0), (0, 279.4), (215.9, 279.4), (100, 100) })
        {
            Assert.Equal(True(x, y).X, m[0] * x + m[2] * y + m[4], 0.02);
            Assert.Equal(True(x, y).Y, m[1] * x + m[3] * y + m[5], 0.02);
        }
        Assert.InRange(json.GetProperty("residual").GetDouble(), 0, 0.05);
        var other = Path.Combine(folder, "other.json");
        File.WriteAllText(other, File.ReadAllText(layout).Replace("205.9", "195.9", StringComparison.Ordinal));
        var refused = Good("marks", png, "--layout", other, "--dpi", $"{dotsPerInch}");
        Assert.False(refused.TryGetProperty("transform", out _));
        Assert.NotEmpty(refused.GetProperty("message").GetString()!);
        Assert.True(refused.GetProperty("refused").TryGetProperty("reason", out _));
    }

    [Theory]
    [InlineData("{")]
    [InlineData("{}")]
    [InlineData("""{"width":200,"height":200,"marks":[]}""")]
    [InlineData("""{"width":200,"height":200,"marks":[{"x":10,"y":10,"arm":15,"line":0.5,"corner":"middle"}]}""")]
    [InlineData("""{"width":200,"height":200,"marks":[{"x":10,"y":10,"arm":15,"line":0.5,"corner":"top-left"},{"x":190,"y":10,"arm":15,"line":9,"corner":"top-right"},{"x":10,"y":190,"arm":15,"line":0.5,"corner":"bottom-left"}]}""")]
    [InlineData("""{"width":200,"height":200,"marks":[{"x":10,"y":10,"arm":15,"line":0.5,"corner":"top-left"},{"x":1e9,"y":10,"arm":15,"line":0.5,"corner":"top-right"},{"x":10,"y":190,"arm":15,"line":0.5,"corner":"bottom-left"}]}""")]
    public void A_layout_that_says_no_marks_is_one_line_and_exit_code_2(string layout)
    {
        var folder = Directory.CreateTempSubdirectory("lab").FullName;
        var path = Path.Combine(folder, "layout.json");
        File.WriteAllText(path, layout);
        var (code, _, error) = Lab("marks", Art("loose-folds"), "--layout", path);
        Assert.Equal(2, code);
        Assert.Single(error.Split('\n', StringSplitOptions.RemoveEmptyEntries));
        Assert.Contains("layout", error, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData()]
    [InlineData("fold")]
    [InlineData("import")]
    [InlineData("import", "no-such-file.svg")]
    [InlineData("import", "ART", "--colour", "red")]
    [InlineData("plan", "ART")]
    [InlineData("plan", "ART", "--machine", "none")]
    [InlineData("export", "ART", "--as", "tiff", "--to", "x")]
    [InlineData("export", "ART", "--as", "svg", "--to", "x", "--knife")]
    public void Bad_input_is_one_line_and_exit_code_2(params string[] arguments)
    {
        var (code, output, error) = Lab([.. arguments.Select(a => a == "ART" ? Art("loose-folds") : a)]);
        Assert.Equal(2, code);
        Assert.Empty(output);
        Assert.Single(error.Split('\n', StringSplitOptions.RemoveEmptyEntries));
    }
}
