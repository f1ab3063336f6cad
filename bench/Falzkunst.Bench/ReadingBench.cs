using System.Globalization;
using System.Text;
using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Formats;

namespace Falzkunst.Bench;

/// <summary>From file to order of travel, on lace of a given number of segments: rosettes with openings, as bought files have them.</summary>
[MemoryDiagnoser]
public class ReadingBench
{
    private byte[] _file = [];
    private Drawing _drawing = null!;
    private List<Falzkunst.Core.Geometry.Path> _lines = [];

    [Params(4_000, 40_000)]
    public int Segments { get; set; }

    [GlobalSetup]
    public void Make()
    {
        _file = Lace.Svg(Segments);
        _drawing = ArtReader.Read(_file);
        _lines = [.. _drawing.Shapes.SelectMany(s => s.Paths)];
    }

    [Benchmark]
    public Drawing Read() => ArtReader.Read(_file);

    [Benchmark]
    public Design Assemble() => Assembler.Assemble(_drawing, [], _ => "chalk-200");

    [Benchmark]
    public int Travel() => TravelOrder.Arrange(_lines, new Point(0, 0)).Count;
}

/// <summary>A made-up file of rosettes.</summary>
public static class Lace
{
    private const int PerRosette = 100;

    public static byte[] Svg(int segments)
    {
        var count = segments / PerRosette;
        var side = (int)Math.Ceiling(Math.Sqrt(count));
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{side * 10}mm\" height=\"{side * 10}mm\" viewBox=\"0 0 {side * 10} {side * 10}\" fill=\"none\" stroke=\"#000\" stroke-width=\".1\">");
        for (var i = 0; i < count; i++)
        {
            text.Append("<path d=\"");
            Ring(text, i % side * 10 + 5, i / side * 10 + 5, 4.4, 60);
            Ring(text, i % side * 10 + 5, i / side * 10 + 5, 2, 40);
            text.Append("\"/>");
        }
        return Encoding.UTF8.GetBytes(text.Append("</svg>").ToString());
    }

    private static void Ring(StringBuilder text, double x, double y, double radius, int segments)
    {
        for (var k = 0; k <= segments; k++)
        {
            var angle = 2 * Math.PI * k / segments;
            var r = radius * (1 + 0.12 * Math.Cos(5 * angle));
            var h = radius * 0.05;
            var (px, py) = (x + r * Math.Cos(angle), y + r * Math.Sin(angle));
            if (k == 0) text.Append(CultureInfo.InvariantCulture, $"M{px:0.####} {py:0.####}");
            else text.Append(CultureInfo.InvariantCulture, $"S{px + h * Math.Sin(angle):0.####} {py - h * Math.Cos(angle):0.####} {px:0.####} {py:0.####}");
        }
        text.Append('Z');
    }
}
