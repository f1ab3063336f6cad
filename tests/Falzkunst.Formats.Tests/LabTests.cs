using System.Diagnostics;
using System.Text.Json;

namespace Falzkunst.Formats.Tests;

/// <summary>The lab as its users meet it: one JSON object out, exit codes, one line on bad input.</summary>
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
