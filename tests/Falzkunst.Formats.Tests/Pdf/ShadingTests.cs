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

/// <summary>Gradients of a drawing on the printed page, poppler's dots beside those that librsvg makes of the drawing itself.</summary>
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
    };

    [Theory]
    [MemberData(nameof(Drawings))]
    public async Task They_are_printed_as_they_are_drawn(string defs, string inside)
    {
        var svg = Svg(defs, inside);
        var drawing = ArtReader.Read(Encoding.UTF8.GetBytes(svg));
        Assert.DoesNotContain(drawing.Notes, n => n.Code == "gradient");
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
        Demand(Rendered(svg), pdf.Page(PerInch));
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

    /// <summary>All but the dots along edges, which each smooths its own way, are of one colour to a few parts in 255.</summary>
    private static void Demand(PixelImage drawn, PixelImage printed)
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
                if (Enumerable.Range(0, 3).Max(c => Math.Abs(drawn.Rgba[a + c] - printed.Rgba[b + c])) > 6) off++;
            }
        }
        Assert.InRange(off, 0, drawn.Width * drawn.Height / 60);
        // Something is there.
        Assert.True(Enumerable.Range(0, drawn.Rgba.Length / 4).Count(i => drawn.Rgba[4 * i] < 200) > 1000);
    }
}
