using System.Diagnostics;
using System.Text;
using System.Text.Json;
using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;
using Falzkunst.Tests;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Tests.Fonts;

/// <summary>Faces: against a reader that is not ours, every script's pairs as one outline, characters that lack, files that are no faces.</summary>
public sealed class FaceTests
{
    private const double CapitalMm = 20, TrueTo = 0.01;
    private static readonly FaceShelf Shelf = new();

    private static string FileOf(string key) => System.IO.Path.Combine(AppContext.BaseDirectory, "Faces", $"{key}.ttf");

    /// <summary>Words with pairs that are kerned, without those that faces join to one glyph.</summary>
    private static readonly string[] Ten = ["AVATAR", "To You", "Wave", "LTJ", "Yak", "night 7", "Depot", "P. A.", "RAW", "Ty"];

    [Theory]
    [InlineData("plain")]
    [InlineData("book")]
    [InlineData("slab")]
    [InlineData("round")]
    [InlineData("poster")]
    public void Widths_kerning_and_outlines_are_as_another_reader_has_them(string key)
    {
        var told = Read(key);
        var face = (OutlineFace)Shelf.Find(key)!;
        var capital = told.GetProperty("capital").GetDouble();
        Assert.Equal(capital, face.CapitalUnits);
        var mm = CapitalMm / capital;
        for (var w = 0; w < Ten.Length; w++)
        {
            var other = told.GetProperty("words")[w];
            var shaped = face.Shape(Ten[w]);
            var set = TextSetting.InBox(shaped, Ten[w], new TextStyle(CapitalMm));
            Assert.Equal(other.GetProperty("width").GetDouble() * mm, set.Width, TrueTo);
            Assert.Equal(other.GetProperty("stands").EnumerateArray().Select(x => Math.Round(x.GetDouble() * mm, 3)), set.Glyphs.Select(g => Math.Round(g.Place.E, 3)));
            var ours = Letters.Placed(shaped, set).SelectMany(l => l).SelectMany(p => p.Segments.Select(s => s.End).Append(p.Start)).ToList();
            var theirs = other.GetProperty("points").EnumerateArray().Select(p => new Point(p[0].GetDouble() * mm, CapitalMm - p[1].GetDouble() * mm)).ToList();
            Assert.NotEmpty(theirs);
            Assert.All(theirs, p => Assert.Contains(ours, q => q.DistanceTo(p) <= TrueTo));
            Assert.All(ours, p => Assert.Contains(theirs, q => q.DistanceTo(p) <= TrueTo));
        }
    }

    private static JsonElement Read(string key)
    {
        using var process = Process.Start(new ProcessStartInfo("/usr/bin/python3", [System.IO.Path.Combine(AppContext.BaseDirectory, "Fonts", "read_words.py"), FileOf(key)])
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        })!;
        process.StandardInput.Write(JsonSerializer.Serialize(Ten));
        process.StandardInput.Close();
        var output = process.StandardOutput.ReadToEnd();
        Assert.True(process.WaitForExit(30_000));
        Assert.True(process.ExitCode == 0, process.StandardError.ReadToEnd());
        return JsonDocument.Parse(output).RootElement;
    }

    /// <summary>A flat capital is as high as was asked for, in plain faces and single-line ones.</summary>
    [Theory]
    [InlineData("plain")]
    [InlineData("open")]
    [InlineData("book")]
    [InlineData("slab")]
    [InlineData("poster")]
    [InlineData("stencil")]
    [InlineData("line-plain")]
    [InlineData("line-simple")]
    [InlineData("line-square")]
    public void Capitals_are_as_high_as_they_should_be(string key)
    {
        var paths = Letters.Placed(Shelf.Shape(key, "H")!, TextSetting.InBox(Shelf.Shape(key, "H")!, "H", new TextStyle(CapitalMm))).Single();
        Assert.Equal(CapitalMm, paths.Max(p => p.Bounds.MaxY) - paths.Min(p => p.Bounds.MinY), 0.05);
        // It stands on the baseline; strokes may begin a little off it.
        Assert.Equal(CapitalMm, paths.Max(p => p.Bounds.MaxY), key.StartsWith("line-", StringComparison.Ordinal) ? 1 : 0.05);
    }

    [Fact]
    public void Every_face_that_ships_has_the_letters_of_western_and_central_europe()
    {
        const string Letters = "ÄÖÜäöüßàâçéèêëîïôûùæÆñÑáíóúÁÍÓÚãõåÅøØąćęłńśźżĄĆĘŁŃŚŹŻčďěňřšťůžČĎĚŇŘŠŤŮŽőűŐŰăâîđĐľĺŕ–’“”„&";
        Assert.All(FaceShelf.Shipped.Where(f => f.Kind != FaceKind.SingleLine), f => Assert.Empty(Shelf.Shape(f.Key, Letters)!.Missing));
        Assert.Equal(14, FaceShelf.Shipped.Count(f => f.Kind != FaceKind.SingleLine));
        Assert.Equal(5, FaceShelf.Shipped.Count(f => f.Kind == FaceKind.Script));
        Assert.All(FaceShelf.Shipped.Where(f => f.Kind == FaceKind.SingleLine), f =>
        {
            var shaped = Shelf.Shape(f.Key, "Night tram, ÄÖÜ äöü ß é")!;
            Assert.True(shaped.IsStroke);
            Assert.Empty(shaped.Missing);
            Assert.Contains(shaped.Glyphs.SelectMany(g => g.Paths), p => !p.IsClosed);
        });
    }

    [Fact]
    public void What_a_face_lacks_is_named_by_its_character() => Assert.Equal(["漢", "😀"], Shelf.Shape("book", "a漢b😀\n漢")!.Missing);

    /// <summary>Of every script face a tenth of all pairs of letters: no outline crosses another or itself, and there are as many parts as an independent union counts.</summary>
    [Theory]
    [InlineData("ribbon")]
    [InlineData("quill")]
    [InlineData("garland")]
    [InlineData("brush")]
    [InlineData("marker")]
    public void Letters_of_scripts_that_overlap_are_one_outline(string key)
    {
        const string Alphabet = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";
        var pairs = Alphabet.SelectMany(a => Alphabet.Where(char.IsLower).Select(b => $"{a}{b}")).ToArray();
        var chosen = Gen.Shuffle(pairs, pairs.Length / 10, pairs.Length / 10).Fixed($"pairs of {key}");
        Assert.True(chosen.Length > 100);
        // One after the other: what reads files by the clock goes on beside.
        foreach (var pair in chosen)
        {
            var shaped = Shelf.Shape(key, pair)!;
            var letters = Letters.Placed(shaped, TextSetting.InBox(shaped, pair, new TextStyle(CapitalMm))).ToList();
            var one = Letters.AsOne(letters);
            // Another way to the same, which nodes all contours and asks each face how it is wound.
            var (filled, parts) = ByWinding(letters.SelectMany(l => l).ToList());
            var area = Region.EvenOdd(one);
            Assert.True(Math.Abs(area.Area - filled) < 0.02 + filled * 2e-4, $"{key} {pair}: {area.Area} of {filled} mm²");
            Assert.Equal(parts, area.PartCount);
            // Outlines that cross would make more rings of themselves than there are.
            Assert.Equal(one.Length, area.Rings.Count());
        }
    }

    /// <summary>Area and parts by winding: outlines that turn one way united, those that turn the other way taken out where nothing else lies over them.</summary>
    private static (double Area, int Parts) ByWinding(List<Path> contours)
    {
        var all = new NetTopologySuite.Geometries.GeometryFactory();
        NetTopologySuite.Geometries.Geometry Flat(Path p) => NetTopologySuite.Geometries.Utilities.GeometryFixer.Fix(all.CreatePolygon([.. Flattened(p).Append(Flattened(p)[0])]));
        var outer = contours.Where(p => p.SignedArea > 0).Select(Flat).ToList();
        var counters = contours.Where(p => p.SignedArea < 0).Select(Flat).ToList();
        if (Math.Abs(contours.Where(p => p.SignedArea < 0).Sum(p => p.SignedArea)) > contours.Where(p => p.SignedArea > 0).Sum(p => p.SignedArea)) (outer, counters) = (counters, outer);
        var noded = NetTopologySuite.Operation.OverlayNG.UnaryUnionNG.Union(outer.Concat(counters).Select(g => g.Boundary).ToList(), new NetTopologySuite.Geometries.PrecisionModel(1e6));
        var faces = new NetTopologySuite.Operation.Polygonize.Polygonizer();
        faces.Add(noded);
        var filled = faces.GetPolygons().Where(face =>
        {
            var inside = face.InteriorPoint;
            return outer.Count(o => o.Covers(inside)) - counters.Count(c => c.Covers(inside)) > 0;
        }).ToList();
        var united = NetTopologySuite.Operation.OverlayNG.UnaryUnionNG.Union(filled, new NetTopologySuite.Geometries.PrecisionModel(1e6));
        return (united.Area, Enumerable.Range(0, united.NumGeometries).Count(i => united.GetGeometryN(i).Area > 0.01));
    }

    private static NetTopologySuite.Geometries.Coordinate[] Flattened(Path p)
    {
        var flat = p.Flat;
        var corners = new NetTopologySuite.Geometries.Coordinate[flat.Length];
        for (var i = 0; i < flat.Length; i++) corners[i] = new(flat[i].X, flat[i].Y);
        return corners;
    }

    [Theory]
    [InlineData("שלום", true)]
    [InlineData("Night שלום 7", false)]
    [InlineData("", false)]
    public void Words_are_read_the_way_they_are_written(string words, bool isRightToLeft)
    {
        var paragraph = Shelf.Shape("open", words)!.Paragraphs.Single();
        Assert.Equal(isRightToLeft, paragraph.IsRightToLeft);
        if (isRightToLeft) Assert.Equal([3, 2, 1, 0], paragraph.Glyphs.Select(g => g.Cluster));
        if (words.Length == 12) Assert.Equal([0, 1, 2, 3, 4, 5, 9, 8, 7, 6, 10, 11], paragraph.Glyphs.Select(g => g.Cluster));
    }

    public static TheoryData<string, byte[]> NoFaces()
    {
        var sound = File.ReadAllBytes(FileOf("plain"));
        byte[] Damaged(int at, params byte[] bytes)
        {
            var copy = (byte[])sound.Clone();
            bytes.CopyTo(copy, at);
            return copy;
        }
        byte[] Svg(string inside) => Encoding.UTF8.GetBytes($"<svg xmlns=\"http://www.w3.org/2000/svg\"><defs>{inside}</defs></svg>");
        return new()
        {
            { "empty", [] },
            { "one byte", [0] },
            { "text", "Not a face at all, but long enough to be looked at."u8.ToArray() },
            { "only a head", sound[..12] },
            { "cut off in its directory", sound[..60] },
            { "cut off after its directory", sound[..300] },
            { "a collection", [.. "ttcf"u8, .. sound[4..]] },
            { "packed for the web", [.. "wOF2"u8, .. sound[4..]] },
            { "more tables than there are", Damaged(4, 0xFF, 0xFF) },
            { "no tables", Damaged(4, 0, 0) },
            { "zeros", new byte[4096] },
            { "a head and zeros", [0, 1, 0, 0, .. new byte[4096]] },
            { "larger than any", [.. sound, .. new byte[FaceFile.MostBytes]] },
            { "not well formed", "<svg xmlns=\"http://www.w3.org/2000/svg\"><font>"u8.ToArray() },
            { "a drawing", Svg("<path d=\"M0 0L1 1\"/>") },
            { "a font without glyphs", Svg("<font><font-face units-per-em=\"1000\"/></font>") },
            { "a font of outlines", Svg("<font><glyph unicode=\"a\" d=\"M0 0L500 0L500 500Z\"/></font>") },
            { "glyphs of nothing", Svg("<font><glyph unicode=\"a\" d=\"\"/><glyph unicode=\"b\"/></font>") },
            { "ten thousand levels", Svg(string.Concat(Enumerable.Repeat("<g>", 10_000))) },
            { "entities in entities", Encoding.UTF8.GetBytes("<!DOCTYPE svg [<!ENTITY a \"aaaaaaaaaa\">" + string.Concat(Enumerable.Range(1, 8).Select(i => $"<!ENTITY a{i} \"{string.Concat(Enumerable.Repeat(i == 1 ? "&a;" : $"&a{i - 1};", 10))}\">")) + "]><svg xmlns=\"http://www.w3.org/2000/svg\"><font><glyph unicode=\"a\" d=\"&a8;\"/></font></svg>") },
        };
    }

    [Theory, MemberData(nameof(NoFaces))]
    public void A_file_that_is_no_face_is_told_in_a_sentence(string what, byte[] file)
    {
        var refused = Assert.Throws<ReadRefused>(() => FaceFile.Read(file));
        Assert.True(refused.Message.Length > 12 && refused.Message.EndsWith('.'), $"{what}: {refused.Message}");
    }

    /// <summary>Damage anywhere in a sound file: it is a face still, or a sentence says that it is none; nothing else comes of it.</summary>
    [Fact]
    public void Damaged_faces_are_read_or_refused()
    {
        var sound = File.ReadAllBytes(FileOf("plain"));
        Gen.Select(Gen.Int[12, sound.Length - 1], Gen.Byte).Array[40].ForAll(damage =>
        {
            var copy = (byte[])sound.Clone();
            foreach (var (at, value) in damage) copy[at] = value;
            try
            {
                using var face = FaceFile.Read(copy);
                Assert.NotNull(face.Shape("Night tram 7 ÄÖ").Glyphs.ToString());
            }
            catch (ReadRefused refused)
            {
                Assert.NotEmpty(refused.Message);
            }
        }, iter: 30);
    }
}
