using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Tests.Production;

/// <summary>Readers that are not ours: librsvg for SVG, hp2xx for HPGL.</summary>
internal static partial class OtherReaders
{
    /// <summary>All corner points of an SVG as librsvg draws them, mm.</summary>
    public static List<Point> Svg(string svg)
    {
        var drawn = Run("rsvg-convert", ["-f", "svg"], svg);
        var points = new List<Point>();
        foreach (Match path in PathWithMatrix().Matches(drawn))
        {
            var m = path.Groups["matrix"].Success ? Numbers(path.Groups["matrix"].Value) : [1, 0, 0, 1, 0, 0];
            var n = Numbers(path.Groups["d"].Value);
            for (var i = 0; i + 1 < n.Count; i += 2)
            {
                // librsvg draws in CSS pixels.
                points.Add(new Point(m[0] * n[i] + m[2] * n[i + 1] + m[4], m[1] * n[i] + m[3] * n[i + 1] + m[5]) * (25.4 / 96));
            }
        }
        return points;
    }

    /// <summary>All points of an HPGL file by pen (1 to 7) as hp2xx plots them, mm from the leftmost and lowest point of the plot, y up.</summary>
    public static List<(int Pen, Point At)> Hpgl(string hpgl)
    {
        var folder = Directory.CreateTempSubdirectory("hpgl");
        try
        {
            var (source, target) = (System.IO.Path.Combine(folder.FullName, "plot.hpgl"), System.IO.Path.Combine(folder.FullName, "plot.svg"));
            File.WriteAllText(source, hpgl);
            // One colour a pen tells the pens apart in what hp2xx writes.
            Run("hp2xx", ["-q", "-t", "-c", "1234567", "-m", "svg", "-f", target, source], "");
            var points = new List<(int Pen, Point At)>();
            var pen = 0;
            foreach (Match part in ColourOrPath().Matches(File.ReadAllText(target)))
            {
                if (part.Groups["colour"].Success)
                {
                    pen = Array.IndexOf(Colours, part.Groups["colour"].Value) + 1;
                    continue;
                }
                var n = Numbers(part.Groups["d"].Value);
                for (var i = 0; i + 1 < n.Count; i += 2) points.Add((pen, new Point(n[i], n[i + 1]) * (25.4 / 72)));
            }
            var bottom = points.Max(p => p.At.Y);
            return [.. points.Select(p => (p.Pen, new Point(p.At.X, bottom - p.At.Y)))];
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static readonly string[] Colours =
        ["rgb(0,0,0)", "rgb(255,0,0)", "rgb(0,255,0)", "rgb(0,0,255)", "rgb(0,255,255)", "rgb(255,0,255)", "rgb(255,255,0)"];

    private static List<double> Numbers(string text) =>
        [.. Number().Matches(text).Select(m => double.Parse(m.Value, CultureInfo.InvariantCulture))];

    /// <summary>What a program says to some input; it fails the test where the program fails.</summary>
    public static string Run(string program, string[] arguments, string input)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments)
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        })!;
        process.StandardInput.Write(input);
        process.StandardInput.Close();
        var output = process.StandardOutput.ReadToEnd();
        Assert.True(process.WaitForExit(20_000));
        Assert.True(process.ExitCode == 0, $"{program}: {process.StandardError.ReadToEnd()}");
        return output;
    }

    [GeneratedRegex(@"<path [^>]*?\bd=""(?<d>[^""]*)""(?:[^>]*?transform=""matrix\((?<matrix>[^)]*)\)"")?")]
    private static partial Regex PathWithMatrix();

    [GeneratedRegex(@"stroke:(?<colour>rgb\([0-9,]*\))|<path d=""(?<d>[^""]*)""")]
    private static partial Regex ColourOrPath();

    [GeneratedRegex(@"-?\d+(\.\d+)?([eE]-?\d+)?")]
    private static partial Regex Number();
}
