using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Tests.Svg;

/// <summary>Text in a drawing: set where the file has it, in the nearest face, and said so.</summary>
public sealed class SvgWordsTests
{
    private static Drawing Read(string body) => ArtReader.Read(Encoding.UTF8.GetBytes($"""<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">{body}</svg>"""));

    private static Box BoxOf(DrawnShape shape) => shape.Paths.Aggregate(Box.Empty, (b, p) => b.Include(p.Bounds));

    [Fact]
    public void Words_stand_on_their_baseline_as_large_as_their_em_says()
    {
        var shape = Assert.Single(Read("""<text x="10" y="50" font-size="20" font-family="Some Sans">HHH</text>""").Shapes);
        Assert.Equal(50, BoxOf(shape).MaxY, 0.05);
        // Capitals are about seven tenths of the em.
        Assert.InRange(BoxOf(shape).Height, 13, 15.5);
        Assert.InRange(BoxOf(shape).MinX, 10, 12.5);
        Assert.Equal(3, shape.Paths.Length);
        Assert.Equal(Operation.Draw, shape.Declared);
    }

    [Theory]
    [InlineData("start", 50, 50)]
    [InlineData("middle", 50, 0)]
    [InlineData("end", 50, -50)]
    public void Anchors_hold_the_beginning_the_middle_or_the_end(string anchor, double at, double side)
    {
        var box = BoxOf(Read($"""<text x="{at}" y="50" font-size="8" text-anchor="{anchor}">H<tspan font-weight="bold">HH</tspan>H</text>""").Shapes.Select(s => s).Aggregate((a, b) => a with { Paths = [.. a.Paths, .. b.Paths] }));
        if (side == 0) Assert.Equal(at, box.Centre.X, 0.6);
        else if (side > 0) Assert.InRange(box.MinX, at, at + 1.5);
        else Assert.InRange(box.MaxX, at - 1.5, at);
    }

    [Fact]
    public void Places_of_single_letters_lines_and_shifts_are_taken()
    {
        var shapes = Read("""<text x="10 30 50" y="20" font-size="8">HHH<tspan x="10" dy="20">H</tspan></text>""").Shapes;
        Assert.Equal([10, 30, 50, 10], shapes.Select(s => Math.Round(BoxOf(s).MinX - 0.6)));
        Assert.Equal([20, 20, 20, 40], shapes.Select(s => Math.Round(BoxOf(s).MaxY)));
    }

    [Fact]
    public void The_face_is_said_and_what_it_lacks_and_a_layer_decides_what_is_done()
    {
        var drawing = Read("""<g id="foil-stars"><text y="20" font-family="'Curly Script', cursive">Stern漢</text></g><text y="50"> </text>""");
        Assert.All(drawing.Shapes, s => Assert.Equal(Operation.Foil, s.Declared));
        Assert.Contains(drawing.Notes, n => n.Code == "text" && n.Message.Contains("Quill", StringComparison.Ordinal) && n.Message.Contains("Curly Script", StringComparison.Ordinal));
        Assert.Contains(drawing.Notes, n => n.Code == "text-letters" && n.Message.Contains('漢', StringComparison.Ordinal));
    }

    [Fact]
    public void Blanks_are_one_and_hidden_text_is_not_there()
    {
        Assert.Equal(BoxOf(Read("<text y='20'>\n  A   B\n</text>").Shapes[0]), BoxOf(Read("<text y='20'>A B</text>").Shapes[0]));
        Assert.Empty(Read("<text y='20' display='none'>A</text><text y='20' visibility='hidden'>A</text><text y='20' fill='none'>A</text>").Shapes);
    }

    [Theory]
    [InlineData(60_000, 1)]
    [InlineData(10, 5_000)]
    public void Long_and_deep_text_ends_in_a_sentence(int letters, int depth)
    {
        var deep = string.Concat(Enumerable.Repeat("<tspan>", depth)) + new string('a', letters) + string.Concat(Enumerable.Repeat("</tspan>", depth));
        Assert.Throws<ReadRefused>(() => Read($"<text y='20'>{deep}</text>"));
    }
}
