using System.Diagnostics;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pdf;
using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Wire;

namespace Falzkunst.Formats.Tests.Pdf;

/// <summary>Gradients and patterns of a drawing on the printed page, poppler's dots beside those that librsvg makes of the drawing itself.</summary>
[Collection("One at a time")]
public sealed class ShadingTests
{
    private const int PerInch = 127;
    private const double Width = 80, Height = 50;

    private static string Svg(string defs, string inside) =>
        $"<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='80mm' height='50mm' viewBox='0 0 80 50'><defs>{defs}</defs><rect width='80' height='50' fill='#ffffff' stroke='none'/>{inside}</svg>";

    public static TheoryData<string, string> Drawings() => new()
    {
        { "<linearGradient id='g'><stop offset='0' stop-color='#c02010'/><stop offset='1' stop-color='#1040b0'/></linearGradient>", "<rect id='print-a' x='5' y='5' width='60' height='20' fill='url(#g)'/>" },
        { "<linearGradient id='g' gradientUnits='userSpaceOnUse' x1='10' y1='10' x2='50' y2='30' gradientTransform='rotate(20) skewX(10)'><stop offset='.1' stop-color='#c02010'/><stop offset='.4' stop-color='#f0d040'/><stop offset='.4' stop-color='#20a060'/><stop offset='.9' stop-color='#1040b0'/></linearGradient>", "<circle id='print-a' cx='35' cy='25' r='20' fill='url(#g)'/>" },
        { "<linearGradient id='s'><stop offset='0%' stop-color='#ffe080'/><stop offset='60%' style='stop-color:#d05020'/><stop offset='100%' stop-color='#401020'/></linearGradient><radialGradient id='g' xlink:href='#s' cx='.4' cy='.5' r='.6' fx='.25' fy='.3'/>", "<ellipse id='print-a' cx='40' cy='25' rx='35' ry='18' fill='url(#g)'/>" },
        { "<radialGradient id='g' gradientUnits='userSpaceOnUse' cx='20' cy='20' r='15'><stop offset='0' stop-color='#2040a0' stop-opacity='.2'/><stop offset='1' stop-color='#2040a0'/></radialGradient>", "<g transform='translate(12 4) rotate(12) scale(1.3 .9)'><rect id='print-a' x='4' y='6' width='34' height='30' fill='url(#g)'/></g>" },
        { "<linearGradient id='g' x1='0' x2='0' y2='1'><stop offset='0' stop-color='#103020'/><stop offset='1' stop-color='#e0f0c0'/></linearGradient>", "<path id='print-a' fill-rule='evenodd' fill='url(#g)' d='M5 5H75V45H5zM20 15V35H60V15z'/>" },
        { "<pattern id='g' patternUnits='userSpaceOnUse' x='1' y='2' width='8' height='6' patternTransform='rotate(30) scale(1.1 .8)'><circle cx='4' cy='3' r='2.2' fill='#b04020'/></pattern>", "<circle id='print-a' cx='40' cy='25' r='22' fill='url(#g)'/>" },
        { "<pattern id='g' width='.1' height='.25' patternContentUnits='objectBoundingBox'><rect x='.01' y='.03' width='.06' height='.15' fill='#205080'/></pattern>", "<rect id='print-a' x='6' y='5' width='60' height='36' fill='url(#g) #112233'/>" },
    };

    [Theory]
    [MemberData(nameof(Drawings))]
    public async Task They_are_printed_as_they_are_drawn(string defs, string inside)
    {
        var svg = Svg(defs, inside);
        var drawing = ArtReader.Read(Encoding.UTF8.GetBytes(svg));
        Assert.DoesNotContain(drawing.Notes, n => n.Code is "gradient" or "pattern");
        // As it comes from the reading process.
        using var pipe = new MemoryStream();
        ReadingWire.WriteDrawing(pipe, drawing);
        pipe.Position = 0;
        drawing = await ReadingWire.ReadAnswerAsync(pipe, TestContext.Current.CancellationToken);
        var piece = Assert.Single(ArtFile.Assemble(drawing).Pieces);
        var sheet = new SheetLayout("s1", piece.Stock, 1, "page", Width, Height, new Borders(0, 0, 0, 0), [new Placement(piece.Id, 1, piece.Place)]);
        using var pdf = new RenderedPdf(PrintPdfWriter.Write(
            [.. PrintPages.For(sheet, new Design([piece], [], [], 2), new PagePrinting("", 0, null, 0) { IsBare = true }).Select(p => (p, "page"))], "Shadings", _ => null, (words, capital) => LabelLetters.Of(new FaceShelf(), words, capital)));
        Assert.Contains("No syntax", pdf.Check(), StringComparison.Ordinal);
        // librsvg makes a picture of a tile first, whose edges are soft.
        Demand(Rendered(svg), pdf.Page(PerInch), most: defs.Contains("<pattern", StringComparison.Ordinal) ? 100 : 6);
    }

    [Fact]
    public void A_tile_is_fitted_into_its_view_and_what_it_lacks_it_takes_from_another_pattern()
    {
        var drawing = ArtReader.Read(Encoding.UTF8.GetBytes(Svg(
            "<pattern id='s' viewBox='0 0 10 10'><rect x='1' y='1' width='6' height='8' fill='#30704a'/><path d='M0 0H10' stroke='#204080'/></pattern><pattern id='g' xlink:href='#s' patternUnits='userSpaceOnUse' width='7' height='9'/>",
            "<rect id='print-a' x='7' y='9' width='14' height='9' fill='url(#g)'/>")));
        // Ten by ten into seven by nine: seven tenths as large, a millimetre of air above and below; a stroke along the edge of a tile is there.
        var tiles = drawing.Shapes.Where(s => s.Appearance.Fill == "#30704A").Select(s => s.Paths[0].Bounds).ToList();
        Assert.Equal(2, tiles.Count);
        Assert.Equal(0, tiles[0].Min.DistanceTo(new Point(7.7, 10.7)), 1e-6);
        Assert.Equal(0, new Point(tiles[1].MaxX, tiles[1].MaxY).DistanceTo(new Point(18.9, 16.3)), 1e-6);
        Assert.All(drawing.Shapes.Skip(2), s => Assert.Equal(Operation.Print, s.Declared));
        Assert.Equal(2, drawing.Shapes.Count(s => s.Appearance.Stroke == "#204080"));
    }

    [Theory]
    [InlineData("<pattern id='g' patternUnits='userSpaceOnUse' width='.01' height='.01'><rect width='.005' height='.01'/></pattern>")]
    [InlineData("<pattern id='g' patternUnits='userSpaceOnUse' width='20' height='20'><rect width='10' height='10' fill='url(#g)'/></pattern>")]
    [InlineData("<pattern id='g' patternUnits='userSpaceOnUse' width='20' height='1e-300'><rect width='10' height='10'/></pattern>")]
    public void A_pattern_of_too_many_tiles_or_of_itself_is_told(string pattern)
    {
        var drawing = ArtReader.Read(Encoding.UTF8.GetBytes(Svg(pattern, "<rect id='print-a' x='5' y='5' width='60' height='20' fill='url(#g)'/>")));
        Assert.Contains(drawing.Notes, n => n.Code == "pattern");
        Assert.Equal("#FFFFFF", drawing.Shapes.First(s => s.Name == "print-a").Appearance.Fill);
    }

    [Fact]
    public void A_shading_goes_where_its_line_goes_and_a_chosen_colour_ends_it()
    {
        var drawing = ArtReader.Read(Encoding.UTF8.GetBytes(Svg("<linearGradient id='g'><stop offset='0' stop-color='#c02010'/><stop offset='1' stop-color='#1040b0'/></linearGradient>", "<rect id='print-a' x='5' y='5' width='60' height='20' fill='url(#g)'/>")));
        var line = ArtFile.Assemble(drawing).Pieces[0].Drawn.Single(l => l.Operation == Operation.Print);
        var map = Affine.Scale(2, 0.5).Then(Affine.Turn(30)).Then(Affine.Move(3, 4));
        var moved = PrintLook.Of(line.Under(map)).Shading!.Place.Apply(new Point(1, 0.25));
        Assert.Equal(0, moved.DistanceTo(map.Apply(new Point(65, 10))), 1e-9);
        var wider = new LineSettings { Print = PrintLook.Of(line) with { Band = new PrintBand("#112233", 1), Shading = null } };
        Assert.NotNull(PrintLook.Of(line with { Settings = wider }).Shading);
        Assert.Null(PrintLook.Of(line with { Settings = wider with { Print = wider.Print with { Fill = "#445566" } } }).Shading);
    }

    /// <summary>The drawing as librsvg makes it.</summary>
    private static PixelImage Rendered(string svg)
    {
        var start = new ProcessStartInfo("rsvg-convert", ["--format=png", "--background-color=white", $"--dpi-x={PerInch}", $"--dpi-y={PerInch}"]) { RedirectStandardInput = true, RedirectStandardOutput = true };
        using var process = Process.Start(start)!;
        process.StandardInput.Write(svg);
        process.StandardInput.Close();
        using var png = new MemoryStream();
        process.StandardOutput.BaseStream.CopyTo(png);
        process.WaitForExit();
        return PictureWriter.FromPng(png.ToArray());
    }

    /// <summary>All but some dots along edges, which each smooths its own way, are of one colour to so many parts in 255.</summary>
    private static void Demand(PixelImage drawn, PixelImage printed, int most)
    {
        // A page is rounded up to whole dots.
        Assert.InRange(printed.Width - drawn.Width, 0, 1);
        Assert.InRange(printed.Height - drawn.Height, 0, 1);
        var off = 0;
        for (var y = 0; y < drawn.Height; y++)
        {
            for (var x = 0; x < drawn.Width; x++)
            {
                var (a, b) = (drawn.At(x, y), printed.At(x, y));
                if (Enumerable.Range(0, 3).Max(c => Math.Abs(drawn.Rgba[a + c] - printed.Rgba[b + c])) > most) off++;
            }
        }
        Assert.InRange(off, 0, drawn.Width * drawn.Height / 60);
        // Something is there.
        Assert.True(Enumerable.Range(0, drawn.Rgba.Length / 4).Count(i => drawn.Rgba[4 * i] < 200) > 1000);
    }
}
