using System.Text;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Wire;
using Falzkunst.Tests;

namespace Falzkunst.Formats.Tests;

/// <summary>What the reading process sends is the drawing to the last bit, and is trusted no more than a file.</summary>
public sealed class ReadingWireTests
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static byte[] Sent(Drawing drawing)
    {
        using var pipe = new MemoryStream();
        ReadingWire.WriteDrawing(pipe, drawing);
        return pipe.ToArray();
    }

    [Theory]
    [InlineData("many-copies")]
    [InlineData("layers")]
    public async Task A_drawing_arrives_as_it_was_sent(string art)
    {
        var path = Path.Combine(AppContext.BaseDirectory, "Art", art + ".svg");
        if (!File.Exists(path)) path = Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "Art"), "*.svg").Order().First();
        var drawing = ArtReader.Read(File.ReadAllBytes(path));
        var back = await ReadingWire.ReadAnswerAsync(new MemoryStream(Sent(drawing)), Stop);
        Assert.Equal((drawing.Width, drawing.Height, drawing.Images), (back.Width, back.Height, back.Images));
        Assert.Equal(drawing.Notes, back.Notes);
        Assert.Equal(drawing.Shapes.Length, back.Shapes.Length);
        foreach (var (was, now) in drawing.Shapes.Zip(back.Shapes))
        {
            Assert.Equal(was.Paths.Select(p => p.ToString()), now.Paths.Select(p => p.ToString()));
            Assert.Equal(was.Appearance with { Dashes = [] }, now.Appearance with { Dashes = [] });
            Assert.Equal(was.Appearance.Dashes, now.Appearance.Dashes);
            Assert.Equal((was.Name, was.Declared, was.Place), (now.Name, now.Declared, now.Place));
            Assert.Equal(was.Groups, now.Groups);
        }
    }

    private static byte[] Sent(ShapedText shaped)
    {
        using var pipe = new MemoryStream();
        ReadingWire.WriteShaped(pipe, shaped);
        return pipe.ToArray();
    }

    [Theory]
    [InlineData("quill")]
    [InlineData("line-ribbon")]
    public async Task Shaped_words_arrive_as_they_were_sent(string face)
    {
        const string words = "Depot\n\nשלום 7 \u2603";
        var shaped = new FaceShelf().Shape(face, words)!;
        var back = await ReadingWire.ReadShapedAsync(new MemoryStream(Sent(shaped)), words, Stop);
        Assert.Equal(shaped.Paragraphs.SelectMany(p => p.Glyphs), back.Paragraphs.SelectMany(p => p.Glyphs));
        Assert.Equal(shaped.Glyphs.SelectMany(g => g.Paths).Select(p => p.ToString()), back.Glyphs.SelectMany(g => g.Paths).Select(p => p.ToString()));
        Assert.Equal((shaped.IsStroke, string.Concat(shaped.Missing)), (back.IsStroke, string.Concat(back.Missing)));
        Assert.Equal(shaped.Paragraphs.Select(p => (p.Glyphs.Length, p.IsRightToLeft)), back.Paragraphs.Select(p => (p.Glyphs.Length, p.IsRightToLeft)));
    }

    [Fact]
    public void Whatever_a_process_that_was_taken_over_sends_is_these_words_or_none()
    {
        const string words = "Depot\nat 9";
        var whole = Sent(new FaceShelf().Shape("line-plain", words)!);
        Gen.Select(Gen.Int[0, whole.Length - 1].Array[1, 6], Gen.Byte.Array[6], Gen.Int[0, whole.Length]).ForAll((places, bytes, length) =>
        {
            var damaged = (byte[])whole.Clone();
            for (var i = 0; i < places.Length; i++) damaged[places[i]] = bytes[i];
            try
            {
                var shaped = ReadingWire.ReadShapedAsync(new MemoryStream(damaged[..Math.Max(length, damaged.Length / 2)]), words, Stop).GetAwaiter().GetResult();
                Assert.Equal(2, shaped.Paragraphs.Length);
                foreach (var style in new TextStyle[] { new(5), new(5) { BoxWidthMm = 12 } }) Assert.NotNull(Letters.Placed(shaped, TextSetting.InBox(shaped, words, style)).ToList());
            }
            catch (Exception e) when (e is InvalidDataException or EndOfStreamException or ReadRefused)
            {
                // none
            }
        }, iter: 5_000);
    }

    [Fact]
    public void Whatever_a_process_that_was_taken_over_sends_is_a_sane_drawing_or_none()
    {
        var whole = Sent(ArtReader.Read(Encoding.UTF8.GetBytes(
            "<svg xmlns='http://www.w3.org/2000/svg' width='9mm' height='9mm'><g id='a'><path stroke='red' stroke-dasharray='1 2' d='M0 0C1 2 3 4 5 6L7 8z'/></g><text/></svg>")));
        Gen.Select(Gen.Int[0, whole.Length - 1].Array[1, 6], Gen.Byte.Array[6], Gen.Int[0, whole.Length]).ForAll((places, bytes, length) =>
        {
            var damaged = (byte[])whole.Clone();
            for (var i = 0; i < places.Length; i++) damaged[places[i]] = bytes[i];
            try
            {
                var drawing = ReadingWire.ReadAnswerAsync(new MemoryStream(damaged[..Math.Max(length, damaged.Length / 2)]), Stop).GetAwaiter().GetResult();
                Assert.All(drawing.Shapes.SelectMany(s => s.Paths), p => Assert.True(double.IsFinite(p.Start.X) && p.Segments.All(s => double.IsFinite(s.End.X + s.End.Y))));
            }
            catch (Exception e) when (e is InvalidDataException or EndOfStreamException or ReadRefused)
            {
                // none
            }
        }, iter: 20_000);
    }
}
