using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Tests.Svg;

/// <summary>Clip paths and viewports cut the geometry itself, and leave what they do not cut as it is.</summary>
public sealed class ClippingTests
{
    private static Drawing Parse(string inside) => ArtFile.Parse(
        $"<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='100mm' height='100mm' viewBox='0 0 100 100'>{inside}</svg>");

    private static double Area(DrawnShape shape) => Math.Abs(shape.Paths.Sum(p => p.SignedArea));

    [Theory]
    [InlineData("<title>a hole</title><circle cx='50' cy='50' r='20' fill='white'/>", 1256.64, "")]
    [InlineData("<circle cx='50' cy='50' r='20' fill='#808080'/>", 10000, "mask")]
    [InlineData("<g><circle cx='50' cy='50' r='20' fill='white'/></g>", 10000, "mask")]
    [InlineData("<circle cx='50' cy='50' r='20' fill='white' opacity='.5'/>", 10000, "mask")]
    public void A_mask_of_nothing_but_white_is_a_clip_and_any_other_is_told(string inside, double area, string note)
    {
        var drawing = Parse($"<mask id='m' maskUnits='userSpaceOnUse' width='100' height='100'>{inside}</mask><rect width='100' height='100' fill='#345' mask='url(#m)'/>");
        // Cut edges are flattened where they are fitted anew.
        Assert.Equal(area, Area(Assert.Single(drawing.Shapes)), 1.0);
        Assert.Equal(note, string.Concat(drawing.Notes.Select(n => n.Code)));
    }

    [Theory]
    [InlineData("viewBox='0 0 0 20'", 0)]
    [InlineData("viewBox='0 0 20 0'", 0)]
    [InlineData("viewBox='0 0 -3 20'", 1)]
    [InlineData("viewBox=''", 1)]
    [InlineData("viewBox='0 0 20 20'", 1)]
    public void A_view_of_no_width_or_height_shows_nothing_and_one_that_is_none_is_as_if_it_were_not_there(string view, int shapes) =>
        Assert.Equal(shapes, Parse($"<svg x='10' y='10' width='20' height='20' {view}><rect width='8' height='8'/></svg>").Shapes.Length);

    [Fact]
    public void A_filled_shape_keeps_its_share_of_the_clip_and_its_curves()
    {
        var drawing = Parse("<clipPath id='c'><rect x='0' y='0' width='50' height='100'/></clipPath><circle cx='50' cy='50' r='40' clip-path='url(#c)'/>");
        var half = Assert.Single(drawing.Shapes);
        Assert.Empty(drawing.Notes);
        Assert.Equal(Math.PI * 40 * 40 / 2, Area(half), 1.0);
        Assert.Equal(new Box(10, 10, 50, 90), half.Paths[0].Bounds, (a, b) => a.Contains(b, 0.01) && b.Contains(a, 0.01));
        // Two quarter arcs and the straight edge along the clip.
        Assert.InRange(half.Paths[0].Segments.Count(s => s.IsCubic), 2, 4);
    }

    [Fact]
    public void What_lies_in_the_clip_altogether_stays_to_the_last_bit_and_what_lies_outside_goes()
    {
        var drawing = Parse(
            "<clipPath id='c'><circle cx='50' cy='50' r='45'/></clipPath><g clip-path='url(#c)'><path id='in' d='M40 40C45 30 55 30 60 40L60 60z'/><rect id='out' x='0' y='0' width='5' height='5'/></g>");
        var kept = Assert.Single(drawing.Shapes);
        Assert.Equal("in", kept.Name);
        Assert.Equal(Parse("<path d='M40 40C45 30 55 30 60 40L60 60z'/>").Shapes[0].Paths, kept.Paths);
    }

    [Fact]
    public void A_line_that_is_only_stroked_keeps_its_parts_inside()
    {
        var drawing = Parse("<clipPath id='c'><path d='M20 0h20v100h-20zM60 0h20v100h-20z'/></clipPath><path fill='none' stroke='red' d='M0 50H100' clip-path='url(#c)'/>");
        var shape = Assert.Single(drawing.Shapes);
        Assert.Equal([(20.0, 40.0), (60.0, 80.0)], shape.Paths.Select(p => (Math.Round(p.Start.X, 4), Math.Round(p.End.X, 4))).Order());
    }

    [Theory]
    [InlineData("<rect width='50' height='50' clip-path='url(#c)'/>", 2500)] // the very same rectangle: a shared edge all round
    [InlineData("<rect x='25' y='25' width='50' height='50' clip-path='url(#c)'/>", 625)]
    [InlineData("<rect x='50' y='0' width='50' height='50' clip-path='url(#c)'/>", 0)] // beside it, edge to edge
    [InlineData("<path fill-rule='evenodd' d='M0 0h50v50h-50zM10 10h30v30h-30z' clip-path='url(#c)'/>", 1600)]
    public void Shared_edges_and_openings_come_out_right(string shape, double area)
    {
        var drawing = Parse("<clipPath id='c'><rect width='50' height='50'/></clipPath>" + shape);
        Assert.Equal(area, drawing.Shapes.Sum(s => s.Appearance.FillEvenOdd ? Region.EvenOdd(s.Paths).Area : Area(s)), 0.02);
    }

    [Fact]
    public void Clip_paths_of_several_shapes_of_a_box_and_of_each_other_are_followed()
    {
        var several = Parse("<clipPath id='c'><rect width='30' height='100'/><rect x='20' width='30' height='100'/></clipPath><rect width='100' height='10' clip-path='url(#c)'/>");
        Assert.Equal(500, several.Shapes.Sum(Area), 0.05);
        var box = Parse("<clipPath id='c' clipPathUnits='objectBoundingBox'><rect width='0.5' height='1'/></clipPath><rect x='40' y='0' width='20' height='10' clip-path='url(#c)'/>");
        Assert.Equal((100.0, 50.0), (Math.Round(box.Shapes.Sum(Area), 1), Math.Round(box.Shapes[0].Paths[0].Bounds.MaxX, 2)));
        var nested = Parse("<clipPath id='d'><rect width='100' height='5'/></clipPath><clipPath id='c' clip-path='url(#d)'><rect width='10' height='100'/></clipPath><rect width='100' height='100' clip-path='url(#c)'/>");
        Assert.Equal(50, nested.Shapes.Sum(Area), 0.02);
        Assert.Contains(Parse("<rect width='9' height='9' clip-path='url(#nowhere)'/>").Notes, n => n.Code == "clip-path");
    }

    [Fact]
    public void An_inner_svg_cuts_off_at_its_viewport_unless_its_overflow_shows()
    {
        Assert.Equal(100, Parse("<svg x='10' y='10' width='10' height='10'><rect width='50' height='50'/></svg>").Shapes.Sum(Area), 0.01);
        Assert.Equal(2500, Parse("<svg x='10' y='10' width='10' height='10' overflow='visible'><rect width='50' height='50'/></svg>").Shapes.Sum(Area), 0.01);
        Assert.Equal(2500, Parse("<svg width='10' height='10' style='overflow:visible'><rect width='50' height='50'/></svg>").Shapes.Sum(Area), 0.01);
    }

    [Fact]
    public void An_svg_reached_by_a_use_keeps_its_own_place()
    {
        var drawing = Parse("<defs><svg id='s' x='5' y='6' width='10' height='10'><rect width='2' height='2'/></svg></defs><use href='#s' x='20' y='30'/>");
        Assert.Equal(new Box(25, 36, 27, 38), drawing.Shapes.Single().Paths[0].Bounds, (a, b) => a.Contains(b, 1e-6) && b.Contains(a, 1e-6));
    }

    [Theory]
    [InlineData("rect{fill:red}", "style='fill:blue'", "#0000FF")]
    [InlineData("rect{fill:red!important}", "style='fill:blue'", "#FF0000")]
    [InlineData("rect{fill:red ! important}", "style='fill:blue!important'", "#0000FF")]
    [InlineData("rect{fill:red!important} #r{fill:lime}", "", "#FF0000")]
    [InlineData("#r{fill:lime} rect{fill:red}", "fill='blue'", "#00FF00")]
    [InlineData(".a{fill:red}.b{fill:lime}", "class='b a'", "#00FF00")]
    [InlineData("/* } */ rect /* { */ { fill : lime ; }", "", "#00FF00")]
    [InlineData("@media print{rect{fill:red}} rect{fill:lime}", "", "#00FF00")]
    [InlineData("svg > g rect{fill:lime}", "", "#00FF00")]
    [InlineData("svg > rect{fill:red}", "fill='#00FF00'", "#00FF00")]
    [InlineData(".\\31 a{fill:lime}", "class='1a'", "#00FF00")]
    [InlineData("rect{fill:red;--x:blue;fill:var(--x)}", "", "#FF0000")]
    public void Styles_cascade_as_the_standard_says(string sheet, string attributes, string fill) =>
        Assert.Equal(fill, Parse($"<style>{sheet}</style><g><rect id='r' width='9' height='9' {attributes}/></g>").Shapes.Single().Appearance.Fill);

    [Fact]
    public void Embedded_pictures_are_kept_with_their_place()
    {
        var pixel = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";
        var drawing = Parse($"<rect width='1' height='1'/><g id='photo' transform='translate(10 20)'><image x='1' y='2' width='30' height='40' xlink:href='data:image/png;base64,{pixel}'/></g><image href='http://elsewhere/x.png' width='1' height='1'/>");
        var picture = Assert.Single(drawing.Pictures);
        Assert.Equal(2, drawing.Images);
        Assert.Equal(("image/png", 30.0, 40.0, 1), (picture.MediaType, picture.Width, picture.Height, picture.Above));
        Assert.Equal(new Point(11, 22), picture.Place.Apply(new Point(0, 0)), (a, b) => a.DistanceTo(b) < 1e-9);
        Assert.Equal(Convert.FromBase64String(pixel), picture.Content);
        Assert.Equal(["photo"], picture.Groups);
    }

    [Theory]
    [InlineData("width='0' height='50mm' viewBox='0 0 20 40'")]
    [InlineData("width='-5mm' height='NaN' viewBox='0 0 20 40'")]
    public void A_size_of_nothing_is_said_and_taken_from_the_view(string size)
    {
        var drawing = ArtFile.Parse($"<svg xmlns='http://www.w3.org/2000/svg' {size}><rect width='9' height='9'/></svg>");
        Assert.Contains(drawing.Notes, n => n.Code == "page-size");
        Assert.Equal(drawing.Width * 2, drawing.Height, 1e-6);
        Assert.Single(drawing.Shapes);
    }

    [Theory]
    [InlineData("89504E470D0A1A0A", "PNG")]
    [InlineData("FFD8FFE0", "JPEG")]
    [InlineData("504B0304", "ZIP")]
    [InlineData("", "empty")]
    public void A_file_of_another_kind_is_called_by_its_name(string begin, string kind)
    {
        var refused = Assert.Throws<ReadRefused>(() => ArtReader.Read(Convert.FromHexString(begin)));
        Assert.Equal("other-kind", refused.Code);
        Assert.Contains(kind, refused.Message, StringComparison.Ordinal);
    }
}
