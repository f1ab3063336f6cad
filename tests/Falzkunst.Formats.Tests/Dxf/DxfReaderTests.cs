using System.Diagnostics;
using System.Text;
using System.Text.Json;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Formats.Dxf;
using Falzkunst.Tests;

namespace Falzkunst.Formats.Tests.Dxf;

/// <summary>Files by a library that is not ours, with the points that it says their lines run through.</summary>
public sealed class DxfFiles
{
    public string Folder { get; } = Directory.CreateTempSubdirectory("dxf").FullName;

    public DxfFiles()
    {
        var script = System.IO.Path.Combine(AppContext.BaseDirectory, "Dxf", "make_dxf.py");
        using var process = Process.Start(new ProcessStartInfo("/usr/bin/python3", [script, Folder]) { RedirectStandardError = true })!;
        var error = process.StandardError.ReadToEnd();
        process.WaitForExit();
        Assert.True(process.ExitCode == 0, error);
    }

    public byte[] Bytes(string name) => File.ReadAllBytes(System.IO.Path.Combine(Folder, name + ".dxf"));

    public List<Point[]> Lines(string name) =>
        [.. JsonSerializer.Deserialize<double[][][]>(File.ReadAllText(System.IO.Path.Combine(Folder, name + ".json")))!.Select(l => l.Select(p => new Point(p[0], p[1])).ToArray())];
}

public sealed class DxfReaderTests(DxfFiles files) : IClassFixture<DxfFiles>
{
    private const double TrueTo = 0.02;

    /// <summary>Distance to the nearest line that comes within half a millimetre; infinite where none does.</summary>
    private static double Distance(Point p, IEnumerable<(Point[] Line, Box Box)> lines) => lines.Where(l => l.Box.Grow(0.5).Contains(p))
        .Select(l => Enumerable.Range(1, l.Line.Length - 1).Min(i => Polygons.DistanceToStretch(p, l.Line[i - 1], l.Line[i])))
        .DefaultIfEmpty(double.PositiveInfinity).Min();

    private static (Point[] Line, Box Box) Boxed(IEnumerable<Point> line)
    {
        Point[] points = [.. line];
        return (points, points.Aggregate(Box.Empty, (b, p) => b.Include(p)));
    }

    private static Point[] Flat(Core.Geometry.Path path) => path.IsClosed ? [.. path.Flat, path.Flat[0]] : path.Flat.ToArray();

    [Theory]
    [InlineData("millimetres")]
    [InlineData("inches")]
    [InlineData("centimetres")]
    public void Every_kind_of_line_is_where_another_library_has_it(string name)
    {
        var drawing = ArtReader.Read(files.Bytes(name));
        var expected = files.Lines(name);
        // The page begins at the box of all lines, y down.
        var box = expected.SelectMany(l => l).Aggregate(Box.Empty, (b, p) => b.Include(p));
        Assert.Equal(box.Width, drawing.Width, TrueTo);
        Assert.Equal(box.Height, drawing.Height, TrueTo);
        var onPage = expected.Select(l => Boxed(l.Select(p => new Point(p.X - box.MinX, box.MaxY - p.Y)))).ToList();
        var read = drawing.Shapes.SelectMany(s => s.Paths).Select(p => Boxed(Flat(p))).ToList();
        foreach (var p in onPage.SelectMany(l => l.Line)) Assert.True(Distance(p, read) <= TrueTo, $"{p} is missing by {Distance(p, read):0.000} mm");
        foreach (var p in read.SelectMany(l => l.Line)) Assert.True(Distance(p, onPage) <= TrueTo, $"{p} is too much by {Distance(p, onPage):0.000} mm");
        Assert.Equal(["text"], drawing.Notes.Select(n => n.Code));
    }

    [Fact]
    public void Layers_colours_and_dashes_reach_the_rules()
    {
        var drawing = ArtReader.Read(files.Bytes("millimetres"));
        var folds = drawing.Shapes.Where(s => s.Groups.Contains("folds")).ToList();
        Assert.NotEmpty(folds);
        Assert.All(folds, s => Assert.True(s.Appearance is { Stroke: "#0000FF", IsDashed: true }));
        Assert.Contains(drawing.Shapes, s => s.Groups.Contains("cuts") && s.Appearance is { Stroke: "#FF0000", IsDashed: false });
        // A block's lines on layer 0 are on the layer that it was inserted on.
        Assert.All(drawing.Shapes, s => Assert.NotEmpty(s.Groups));
        var design = ArtFile.Assemble(drawing);
        Assert.All(design.Pieces.SelectMany(p => p.Lines).Where(l => l.Look.Layer == "folds"), l => Assert.Equal(Operation.Score, l.Operation));
    }

    [Fact]
    public void An_outline_of_separate_strokes_becomes_one_piece()
    {
        var text = new StringBuilder("0\nSECTION\n2\nENTITIES\n");
        (double, double)[] corners = [(0, 0), (40, 0), (40, 30), (0, 30)];
        for (var i = 0; i < 4; i++)
        {
            var ((x0, y0), (x1, y1)) = (corners[i], corners[(i + 1) % 4]);
            text.Append(System.Globalization.CultureInfo.InvariantCulture, $"0\nLINE\n8\n0\n10\n{x0}\n20\n{y0}\n11\n{x1}\n21\n{y1}\n");
        }
        var drawing = ArtReader.Read(Encoding.ASCII.GetBytes(text + "0\nENDSEC\n0\nEOF\n"));
        Assert.Equal("no-units", Assert.Single(drawing.Notes).Code);
        Assert.Equal(1200, Assert.Single(ArtFile.Assemble(drawing).Pieces).Area, 1e-6);
    }

    [Theory]
    [InlineData("0\nSECTION\n2\nENTITIES\n0\nLINE\n10", "damaged-dxf")]
    [InlineData("0\nSECTION\nx\nENTITIES\n", "damaged-dxf")]
    [InlineData("0\nSECTION\n\0\n", "binary-dxf")]
    [InlineData("Dear all,", "not-svg")]
    public void What_cannot_be_read_is_refused_with_a_sentence(string text, string code)
    {
        var refusal = Assert.Throws<ReadRefused>(() => ArtReader.Read(Encoding.ASCII.GetBytes(text)));
        Assert.Equal(code, refusal.Code);
        Assert.EndsWith(".", refusal.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Blocks_that_repeat_without_end_are_stopped_and_circles_of_blocks_are_noted()
    {
        static string Block(int i) => $"0\nBLOCK\n2\nB{i}\n10\n0\n20\n0\n" + string.Concat(Enumerable.Repeat($"0\nINSERT\n2\nB{i - 1}\n8\n0\n", 10)) + "0\nENDBLK\n";
        var text = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nB0\n10\n0\n20\n0\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK\n"
            + string.Concat(Enumerable.Range(1, 12).Select(Block)) + "0\nENDSEC\n0\nSECTION\n2\nENTITIES\n0\nINSERT\n2\nB12\n8\n0\n0\nENDSEC\n0\nEOF\n";
        Assert.Throws<ReadRefused>(() => ArtReader.Read(Encoding.ASCII.GetBytes(text)));
        var circle = text.Replace("0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n", "0\nINSERT\n2\nB2\n8\n0\n", StringComparison.Ordinal);
        Assert.Contains(ArtReader.Read(Encoding.ASCII.GetBytes(circle.Replace("B12", "B2", StringComparison.Ordinal))).Notes, n => n.Code == "reference");
    }

    [Fact]
    public void Damaged_files_never_break_the_reader()
    {
        var whole = files.Bytes("millimetres");
        var from = whole.AsSpan().IndexOf("ENTITIES"u8);
        Gen.Select(Gen.Int[from, whole.Length - 1].Array[1, 20], Gen.Byte.Array[20]).ForAll((places, bytes) =>
        {
            var damaged = (byte[])whole.Clone();
            for (var i = 0; i < places.Length; i++) damaged[places[i]] = bytes[i];
            try
            {
                ArtFile.Assemble(ArtReader.Read(damaged));
            }
            catch (ReadRefused)
            {
                // the clear answer
            }
        }, iter: 150);
    }
}
