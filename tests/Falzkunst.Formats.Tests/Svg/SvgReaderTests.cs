using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Tests.Svg;

public sealed class SvgReaderTests
{
    private static Drawing Read(string attributes, string body) => ArtFile.Parse($"<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" {attributes}>{body}</svg>");

    private static string Box(DrawnShape shape)
    {
        var box = shape.Paths.Aggregate(Core.Geometry.Box.Empty, (b, p) => b.Include(p.Bounds));
        return FormattableString.Invariant($"{box.MinX:0.###},{box.MinY:0.###} {box.MaxX:0.###},{box.MaxY:0.###}");
    }

    [Theory]
    [InlineData("width='100mm' height='50mm' viewBox='0 0 100 50'", 100, 50, "10,10 30,20")]
    [InlineData("width='10cm' height='5cm' viewBox='0 0 200 100'", 100, 50, "5,5 15,10")]
    [InlineData("width='4in' height='2in' viewBox='0 0 400 200'", 101.6, 50.8, "2.54,2.54 7.62,5.08")]
    [InlineData("width='72pt' height='36pt'", 25.4, 12.7, "2.646,2.646 7.938,5.292")]
    [InlineData("width='960' height='480'", 254, 127, "2.646,2.646 7.938,5.292")]
    [InlineData("viewBox='0 0 96 48'", 25.4, 12.7, "2.646,2.646 7.938,5.292")]
    [InlineData("width='100%' height='100%' viewBox='0 0 96 48'", 25.4, 12.7, "2.646,2.646 7.938,5.292")]
    [InlineData("width='100mm' viewBox='0 0 200 100'", 100, 50, "5,5 15,10")]
    [InlineData("width='100mm' height='100mm' viewBox='0 0 200 100'", 100, 100, "5,30 15,35")]
    [InlineData("width='100mm' height='100mm' viewBox='0 0 200 100' preserveAspectRatio='xMinYMax meet'", 100, 100, "5,55 15,60")]
    [InlineData("width='100mm' height='100mm' viewBox='0 0 200 100' preserveAspectRatio='xMinYMin slice'", 100, 100, "10,10 30,20")]
    [InlineData("width='100mm' height='100mm' viewBox='0 0 200 100' preserveAspectRatio='none'", 100, 100, "5,10 15,20")]
    [InlineData("width='100mm' height='50mm' viewBox='-10 -20 100 50'", 100, 50, "20,30 40,40")]
    public void Files_come_in_at_true_size(string attributes, double width, double height, string box)
    {
        var drawing = Read(attributes, "<rect x='10' y='10' width='20' height='10'/>");
        Assert.Equal(width, drawing.Width, 1e-6);
        Assert.Equal(height, drawing.Height, 1e-6);
        Assert.Equal(box, Box(Assert.Single(drawing.Shapes)));
    }

    private const string Mm = "width='100mm' height='100mm' viewBox='0 0 100 100'";

    [Theory]
    [InlineData("<g transform='translate(10 5)'><g transform='scale(2)'><rect width='4' height='3'/></g></g>", "10,5 18,11")]
    [InlineData("<rect width='10' height='4' transform='rotate(90 10 0)'/>", "6,-10 10,0")]
    [InlineData("<rect width='10' height='4' transform='matrix(0,1,-1,0,20,0) translate(2,3)'/>", "13,2 17,12")]
    [InlineData("<rect width='10' height='10' transform='skewX(45)'/>", "0,0 20,10")]
    [InlineData("<svg x='10' y='10' width='50' height='50' viewBox='0 0 10 10'><rect width='2' height='2'/></svg>", "10,10 20,20")]
    [InlineData("<defs><g id='a'><rect width='2' height='3'/></g></defs><use href='#a' x='7' y='8'/>", "7,8 9,11")]
    [InlineData("<defs><rect id='a' width='2' height='3'/></defs><use xlink:href='#a' transform='translate(1 1)' x='7' y='8'/>", "8,9 10,12")]
    [InlineData("<symbol id='s' viewBox='0 0 10 10'><rect x='5' width='5' height='5'/></symbol><use href='#s' width='20' height='20'/>", "10,0 20,10")]
    [InlineData("<ellipse cx='20' cy='30' rx='5' ry='8'/>", "15,22 25,38")]
    [InlineData("<circle cx='20' cy='30' r='5'/>", "15,25 25,35")]
    [InlineData("<polygon points='1,2 11,2 6,9'/>", "1,2 11,9")]
    [InlineData("<polyline points='1 2 11 2 6 9' stroke='red'/>", "1,2 11,9")]
    [InlineData("<line x1='3' y1='4' x2='9' y2='4' stroke='red'/>", "3,4 9,4")]
    [InlineData("<rect x='2' y='2' width='20' height='10' rx='50'/>", "2,2 22,12")]
    [InlineData("<path d='M10 10h5v5h-5z'/>", "10,10 15,15")]
    [InlineData("<path d='M10,10l5,0 0,5'/>", "10,10 15,15")]
    [InlineData("<path d='M10 10Q15 0 20 10T30 10'/>", "10,5 30,15")]
    [InlineData("<path d='M10 10C10 0 20 0 20 10S30 20 30 10'/>", "10,2.5 30,17.5")]
    [InlineData("<path d='M10 10a5 5 0 0 1 10 0a5 5 0 01-10 0'/>", "10,5 20,15")]
    [InlineData("<path d='M.5.5.75.5-1-1e1'/>", "-1,-10 0.75,0.5")]
    [InlineData("<path d='m5 5 5 0m10 10 5 5z'/>", "5,5 25,20")]
    public void Shapes_lie_where_they_are_drawn(string body, string box) => Assert.Equal(box, Box(Read(Mm, body).Shapes[0]));

    [Theory]
    [InlineData("<rect width='9' height='9' fill='#abc'/>", "#AABBCC", null)]
    [InlineData("<rect width='9' height='9' fill='rgb(10, 20, 30)'/>", "#0A141E", null)]
    [InlineData("<rect width='9' height='9' style='fill:none;stroke:tomato'/>", null, "#FF6347")]
    [InlineData("<g fill='red'><rect width='9' height='9'/></g>", "#FF0000", null)]
    [InlineData("<g color='lime'><rect width='9' height='9' fill='currentColor'/></g>", "#00FF00", null)]
    [InlineData("<style>.a{fill:#123456} rect.b{stroke:#654321}</style><rect class='a b' width='9' height='9' fill='red'/>", "#123456", "#654321")]
    [InlineData("<style>#x{fill:blue} rect{fill:red}</style><rect id='x' width='9' height='9'/>", "#0000FF", null)]
    [InlineData("<style>g .a{fill:blue}</style><g><rect class='a' width='9' height='9'/></g>", "#0000FF", null)]
    [InlineData("<rect width='9' height='9' style='fill:red' fill='blue'/>", "#FF0000", null)]
    public void Paint_is_computed_as_a_browser_does(string body, string? fill, string? stroke)
    {
        var look = Read(Mm, body).Shapes.Single().Appearance;
        Assert.Equal((fill, stroke), (look.Fill?.ToUpperInvariant(), look.Stroke?.ToUpperInvariant()));
    }

    [Theory]
    [InlineData("<rect width='9' height='9' display='none'/>")]
    [InlineData("<g style='display:none'><rect width='9' height='9'/></g>")]
    [InlineData("<rect width='9' height='9' visibility='hidden'/>")]
    [InlineData("<defs><rect width='9' height='9'/></defs>")]
    [InlineData("<rect width='0' height='9'/>")]
    public void What_is_not_shown_is_not_read(string body) => Assert.Empty(Read(Mm, body).Shapes);

    [Theory]
    [InlineData("<text x='5' y='5'>Hello</text>", "text")]
    [InlineData("<image href='http://elsewhere/a.png' width='5' height='5'/>", "image")]
    [InlineData("<rect width='9' height='9' clip-path='url(#c)'/>", "clip-path")]
    [InlineData("<use href='#nowhere'/>", "reference")]
    [InlineData("<use href='other.svg#a'/>", "reference")]
    [InlineData("<path d='M0 0L5 5 oops'/>", "path-data")]
    [InlineData("<rect width='9' height='9' fill='url(#none)' stroke='red'/>", "pattern")]
    [InlineData("<script>alert(1)</script>", "script")]
    [InlineData("<wobble/>", "element")]
    [InlineData("<rect width='9' height='9' transform='turn(4)'/>", "transform")]
    public void What_is_not_understood_is_listed_by_place(string body, string code)
    {
        var note = Assert.Single(Read(Mm, body).Notes);
        Assert.Equal(code, note.Code);
        Assert.Contains("line 1", note.Where, StringComparison.Ordinal);
    }

    [Fact]
    public void Groups_and_declared_operations_are_kept()
    {
        var shape = Read(Mm, "<g id='card'><g id='score-folds'><path id='a' d='M0 0L5 5' stroke='red'/></g></g>").Shapes.Single();
        Assert.Equal(["card", "score-folds"], shape.Groups);
        Assert.Equal(Operation.Score, shape.Declared);
        Assert.Equal(Operation.Foil, Read(Mm, "<path d='M0 0L5 5' stroke='red' data-operation='foil'/>").Shapes.Single().Declared);
    }

    [Fact]
    public void What_is_written_back_reads_the_same()
    {
        foreach (var name in new[] { "nested-outlines", "compound-path", "many-copies", "pen-and-print" })
        {
            var drawing = ArtFile.Read(name);
            var again = ArtFile.Parse(Formats.Svg.SvgDrawingWriter.Write(drawing));
            Assert.Equal(drawing.SegmentCount, again.SegmentCount);
            foreach (var (before, after) in drawing.Shapes.Zip(again.Shapes))
            {
                Assert.Equal(before.Appearance.StrokeWidth, after.Appearance.StrokeWidth, 1e-6);
                Assert.Equal(before.Appearance.Dashes.Select(d => Math.Round(d, 5)), after.Appearance.Dashes.Select(d => Math.Round(d, 5)));
                Assert.Equal(before.Appearance with { Dashes = [], StrokeWidth = 0 }, after.Appearance with { Dashes = [], StrokeWidth = 0 });
                foreach (var (p, q) in before.Paths.Zip(after.Paths)) Assert.True(p.Start.DistanceTo(q.Start) < 2e-5 && p.End.DistanceTo(q.End) < 2e-5);
            }
        }
    }
}
