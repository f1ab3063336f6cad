using System.Text;
using CsCheck;
using Falzkunst.Core.Budgets;
using Falzkunst.Formats.Svg;
using Falzkunst.Tests;

namespace Falzkunst.Formats.Tests.Svg;

/// <summary>Files that want to do harm get a clear answer, quickly.</summary>
public sealed class HostileSvgTests
{
    private const string Open = "<svg xmlns='http://www.w3.org/2000/svg' width='10mm' height='10mm' viewBox='0 0 10 10'>";

    private static string CodeOf(string text, BudgetLimits? limits = null) =>
        Assert.Throws<ReadRefused>(() => ArtReader.Read(Encoding.UTF8.GetBytes(text), limits is null ? null : new Budget(limits))).Code;

    [Fact]
    public void Entities_that_grow_without_end_are_stopped()
    {
        var bomb = new StringBuilder("<!DOCTYPE svg [<!ENTITY a 'lollollollollollollollollollol'>");
        for (var c = 'b'; c <= 'k'; c++) bomb.Append(System.Globalization.CultureInfo.InvariantCulture, $"<!ENTITY {c} '{string.Concat(Enumerable.Repeat($"&{(char)(c - 1)};", 10))}'>");
        CodeOf(bomb + $"]>{Open}<desc>&k;</desc></svg>");
    }

    [Fact]
    public void Nothing_outside_the_file_is_ever_read()
    {
        var secret = Path.GetTempFileName();
        File.WriteAllText(secret, "M0 0L9 9");
        try
        {
            var text = $"<!DOCTYPE svg [<!ENTITY x SYSTEM 'file://{secret}'>]>{Open}<path stroke='red' d='&x;'/></svg>";
            try
            {
                Assert.Empty(ArtReader.Read(Encoding.UTF8.GetBytes(text)).Shapes);
            }
            catch (ReadRefused e)
            {
                Assert.DoesNotContain("9 9", e.Message, StringComparison.Ordinal);
            }
        }
        finally
        {
            File.Delete(secret);
        }
    }

    [Fact]
    public void Reuse_that_doubles_at_every_step_is_stopped()
    {
        var text = new StringBuilder(Open).Append("<path id='u0' d='M0 0L1 1' stroke='red'/>");
        for (var i = 1; i <= 40; i++) text.Append(System.Globalization.CultureInfo.InvariantCulture, $"<g id='u{i}'><use href='#u{i - 1}'/><use href='#u{i - 1}'/></g>");
        Assert.Contains(CodeOf(text + "</svg>"), new[] { "too-many-shapes", "too-slow", "too-many-segments" });
    }

    [Fact]
    public void Reuse_in_a_circle_is_noted()
    {
        var drawing = ArtFile.Parse($"{Open}<g id='a'><use href='#b'/></g><g id='b'><use href='#a'/></g></svg>");
        Assert.Contains(drawing.Notes, n => n.Code == "reference");
    }

    [Theory]
    [InlineData("")]
    [InlineData("hello")]
    [InlineData("<html></html>")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><g></svg>")]
    [InlineData("<?xml version='1.0' encoding='nothing-known'?><svg/>")]
    public void What_is_no_svg_is_refused_with_a_sentence(string text)
    {
        var refusal = Assert.Throws<ReadRefused>(() => ArtReader.Read(Encoding.UTF8.GetBytes(text)));
        Assert.EndsWith(".", refusal.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Depth_size_and_number_have_limits()
    {
        CodeOf(Open + string.Concat(Enumerable.Repeat("<g>", 5000)) + string.Concat(Enumerable.Repeat("</g>", 5000)) + "</svg>");
        Assert.Equal("too-large", CodeOf(Open + new string(' ', 200) + "</svg>", new BudgetLimits { Bytes = 100 }));
        CodeOf(Open + string.Concat(Enumerable.Repeat("<g/>", 50)) + "</svg>", new BudgetLimits { Elements = 20 });
        CodeOf(Open + "<path stroke='red' d='M0 0" + string.Concat(Enumerable.Repeat("L1 1L2 2", 50)) + "'/></svg>", new BudgetLimits { Segments = 20 });
    }

    [Fact]
    public void Style_sheets_that_match_everything_everywhere_are_read_in_time()
    {
        var rules = string.Concat(Enumerable.Range(0, 400).Select(i => $"g g g .c{i} path {{fill:red}}"));
        var body = string.Concat(Enumerable.Repeat("<path class='c1 c2 c3' d='M0 0L1 1' stroke='red'/>", 3000));
        var text = $"{Open}<style>{rules}</style><g><g><g>{body}</g></g></g></svg>";
        try
        {
            Assert.Equal(3000, ArtReader.Read(Encoding.UTF8.GetBytes(text)).Shapes.Length);
        }
        catch (ReadRefused e)
        {
            Assert.Equal("too-slow", e.Code);
        }
    }

    [Fact]
    public void Numbers_that_are_none_or_far_away_do_no_harm()
    {
        foreach (var d in new[] { "M1e999 0L1 1", "MNaN 0L1 1", "M0 0L1e300 1e300", "M0 0A0 0 0 0 0 1 1", "M0 0A1e-300 1 9 1 1 5 5", "L", "M", "Z", "M0 0Z Z Z", "M0 0C1 1" })
            ArtFile.Parse($"{Open}<path d='{d}' stroke='red' transform='scale(1e200)'/><path d='{d}' stroke='red'/></svg>");
    }

    [Fact]
    public void Damaged_files_are_read_in_part_or_refused_but_never_break_the_reader()
    {
        var whole = File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Art", "many-copies.svg"));
        Gen.Select(Gen.Int[0, whole.Length - 1].Array[1, 12], Gen.Byte.Array[12]).ForAll((places, bytes) =>
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
        }, iter: 2000);
    }
}
