using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pdf;
using Falzkunst.Formats.Production;
using Falzkunst.Tests;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Tests.Pdf;

/// <summary>Pages as poppler draws them. What is read by the clock does not run beside: drawing takes all cores.</summary>
[Collection("One at a time")]
public sealed class PrintPdfTests
{
    private static readonly FaceShelf Faces = new();

    private static byte[] Write(IReadOnlyList<PrintedPage> pages, PixelImage? dots = null) => PrintPdfWriter.Write(
        [.. pages.Select(p => (p, "Night tram, page 1"))], "Night tram", _ => dots, (words, capital) => LabelLetters.Of(Faces, words, capital));

    private static Line Outlining(Path path) => new("", path, Operation.Cut, Look.DrawnHere, null, null);

    private static Line Filled(Path path, string colour) => new("", path, Operation.Print, Look.DrawnHere, null, null) { Settings = new LineSettings { Print = new PrintLook(colour, null) } };

    private static Piece PieceOf(Path outline, params Item[] items) => Piece.FromLines("p1", "Tag", "chalk-200", Affine.Identity, [Outlining(outline)]).Plus(items);

    private static Design DesignOf(params Piece[] pieces) => new([.. pieces], [], [], pieces.Length + 1);

    private static SheetLayout Sheet(double width, double height, params Placement[] placements) =>
        new("s1", "chalk-200", 1, "page", width, height, new Borders(0, 0, 0, 0), [.. placements]);

    private static PictureItem Picture(PixelImage dots, Affine place, double width) =>
        new("", new string('a', 64), dots.Width, dots.Height, place, width, width * dots.Height / dots.Width) { Of = "i1", Key = "one" };

    /// <summary>Dots that are nowhere white and nowhere alike.</summary>
    private static PixelImage Motley(int width, int height)
    {
        var rgba = new byte[width * height * 4];
        for (var i = 0; i < width * height; i++)
            (rgba[4 * i], rgba[4 * i + 1], rgba[4 * i + 2], rgba[4 * i + 3]) = ((byte)(i * 7 % 180), (byte)(i / width * 5 % 200), (byte)(i * 13 % 160), 255);
        return new PixelImage(width, height, rgba);
    }

    /// <summary>Closed curves and polygons about 0, 0, some with deep bays.</summary>
    private static readonly Gen<Path> Outlines =
        from count in Gen.Int[3, 11]
        from radii in Gen.Double[9, 24].Array[count]
        from turn in Gen.Double[0, 6]
        from isSmooth in Gen.Bool
        select Around([.. radii.Select((r, i) => new Point(Math.Cos(turn + i * Math.Tau / count), Math.Sin(turn + i * Math.Tau / count)) * r)], isSmooth);

    private static Path Around(Point[] corners, bool isSmooth)
    {
        if (!isSmooth) return Path.Polyline(corners, closed: true);
        var n = corners.Length;
        return new Path(corners[0], [.. Enumerable.Range(0, n).Select(i =>
        {
            Point At(int k) => corners[((i + k) % n + n) % n];
            return Segment.Cubic(At(0) + (At(1) - At(-1)) * (1 / 6.0), At(1) - (At(2) - At(0)) * (1 / 6.0), At(1));
        })], closed: true);
    }

    [Fact]
    public void No_paper_shows_where_the_cut_is_off_by_less_than_the_bleed_whichever_way()
    {
        const double bleed = 2, off = bleed - 0.1, page = 64;
        const int perInch = 254;
        var dots = Motley(90, 90);
        (from outline in Outlines from art in Gen.Int[0, 2] from at in Gen.Double[-8, 8] select (outline, art, at)).ForAll((outline, art, at) =>
        {
            var box = outline.Bounds;
            var piece = PieceOf(outline, art switch
            {
                // Areas that end at the cut; areas that meet at it, of which one hangs over; a picture no larger than the piece.
                0 => [new PrintedFill("", "#7A3B2E")],
                1 => [Filled(outline, "#2E5A7A"), Filled(Path.Rectangle(-40, at, 80, 40), "#C07A2A"), Filled(Path.Rectangle(at, -40, 6, 80), "#3D7A3A")],
                _ => [Picture(dots, Affine.Move(box.Min), Math.Max(box.Width, box.Height))],
            });
            var sheet = Sheet(page, page, new Placement("p1", 1, Affine.Move(page / 2, page / 2)));
            using var pdf = new RenderedPdf(Write(PrintPages.For(sheet, DesignOf(piece), new PagePrinting("", 0, null, bleed) { IsBare = true }), dots));
            var seen = pdf.Page(perInch);
            Point At(int x, int y) => new((x + 0.5) * 25.4 / perInch - page / 2, (y + 0.5) * 25.4 / perInch - page / 2);
            var inside = new RegionIndex([outline.Flat.ToArray()]);
            var isPaper = new bool[seen.Width, seen.Height];
            for (var y = 0; y < seen.Height; y++) for (var x = 0; x < seen.Width; x++) isPaper[x, y] = inside.Contains(At(x, y));
            for (var way = 0; way < 16; way++)
            {
                var (sin, cos) = Math.SinCos(way * Math.Tau / 16);
                var (dx, dy) = ((int)Math.Round(cos * off * perInch / 25.4), (int)Math.Round(sin * off * perInch / 25.4));
                for (var y = Math.Max(dy, 0); y < seen.Height + Math.Min(dy, 0); y++)
                {
                    for (var x = Math.Max(dx, 0); x < seen.Width + Math.Min(dx, 0); x++)
                    {
                        if (!isPaper[x - dx, y - dy]) continue;
                        var i = seen.At(x, y);
                        if (seen.Rgba[i] > 235 && seen.Rgba[i + 1] > 235 && seen.Rgba[i + 2] > 235) Assert.Fail(FormattableString.Invariant($"paper at {At(x, y)} of {outline}, art {art} at {at}"));
                    }
                }
            }
        }, iter: 50);
    }

    [Fact]
    public void Marks_pieces_and_boxes_stand_where_they_belong_to_a_tenth_of_a_millimetre()
    {
        const int perInch = 600;
        var marks = MarkSettings.Usual;
        var piece = PieceOf(Path.Rectangle(0, 0, 60, 35), new PrintedFill("", "#B3361E"));
        var sheet = Sheet(215.9, 279.4, new Placement("p1", 1, Affine.Move(70.3, 90.7)), new Placement("p1", 2, Affine.Turn(90).Then(Affine.Move(180.2, 150.4))));
        using var pdf = new RenderedPdf(Write(PrintPages.For(sheet, DesignOf(piece), new PagePrinting("", 4.2, marks, 0) { IsBare = true })));
        var seen = pdf.Page(perInch);
        Assert.Equal(215.9, seen.Width * 25.4 / perInch, 0.05);
        Assert.Equal(279.4, seen.Height * 25.4 / perInch, 0.05);
        var black = BoxesOf(seen, perInch, (r, g, b) => r < 100 && g < 100 && b < 100);
        var red = BoxesOf(seen, perInch, (r, g, b) => r > 120 && g < 120);
        Near(black, [new(10, 10, 25, 25), new(190.9, 10, 205.9, 25), new(10, 254.4, 25, 269.4)]);
        Near(red, [new(70.3, 90.7, 130.3, 125.7), new(145.2, 150.4, 180.2, 210.4)]);
        // Pure black, as thick as it should be.
        var middle = seen.At((int)(17.5 / 25.4 * perInch), (int)(10.25 / 25.4 * perInch));
        Assert.Equal(new byte[] { 0, 0, 0 }, seen.Rgba[middle..(middle + 3)]);
        var boxes = pdf.Boxes();
        Near([boxes["MediaBox"], boxes["TrimBox"], boxes["BleedBox"]], [new(0, 0, 215.9, 279.4), new(70.3, 90.7, 180.2, 210.4), new(70.3, 90.7, 180.2, 210.4)]);
        Assert.Contains("No syntax or stream encoding errors found", pdf.Check(), StringComparison.Ordinal);
    }

    private static void Near(List<Box> found, Box[] wanted)
    {
        Assert.Equal(wanted.Length, found.Count);
        foreach (var (f, w) in found.OrderBy(b => b.MinY + b.MinX / 1000).Zip(wanted.OrderBy(b => b.MinY + b.MinX / 1000)))
        {
            Assert.Equal(w.MinX, f.MinX, 0.1);
            Assert.Equal(w.MinY, f.MinY, 0.1);
            Assert.Equal(w.MaxX, f.MaxX, 0.1);
            Assert.Equal(w.MaxY, f.MaxY, 0.1);
        }
    }

    /// <summary>The boxes of connected dots of a colour, mm.</summary>
    private static List<Box> BoxesOf(PixelImage image, int perInch, Func<byte, byte, byte, bool> isSeen)
    {
        var boxes = new List<Box>();
        var done = new bool[image.Width * image.Height];
        var open = new Stack<int>();
        for (var start = 0; start < done.Length; start++)
        {
            if (!Is(start)) continue;
            var box = Box.Empty;
            done[start] = true;
            open.Push(start);
            while (open.TryPop(out var i))
            {
                var (x, y) = (i % image.Width, i / image.Width);
                box = box.Include(new Point(x, y)).Include(new Point(x + 1, y + 1));
                foreach (var (nx, ny) in new[] { (x - 1, y), (x + 1, y), (x, y - 1), (x, y + 1) })
                {
                    if (nx < 0 || ny < 0 || nx >= image.Width || ny >= image.Height || !Is(ny * image.Width + nx)) continue;
                    done[ny * image.Width + nx] = true;
                    open.Push(ny * image.Width + nx);
                }
            }
            var mm = 25.4 / perInch;
            boxes.Add(new Box(box.MinX * mm, box.MinY * mm, box.MaxX * mm, box.MaxY * mm));
        }
        return boxes;

        bool Is(int i) => !done[i] && isSeen(image.Rgba[4 * i], image.Rgba[4 * i + 1], image.Rgba[4 * i + 2]);
    }

    [Fact]
    public void The_dots_of_a_photograph_arrive_as_they_are()
    {
        var dots = Motley(121, 83);
        var piece = PieceOf(Path.Rectangle(0, 0, 50, 30), Picture(dots, Affine.Turn(3).Then(Affine.Move(-2, -3)), 60));
        var sheet = Sheet(100, 100, new Placement("p1", 1, Affine.Move(20, 20)), new Placement("p1", 2, Affine.Move(20, 60)));
        using var pdf = new RenderedPdf(Write(PrintPages.For(sheet, DesignOf(piece), new PagePrinting("", 4.2, null, 0)), dots));
        // Listed once for each copy, though it is in the file once.
        var pictures = pdf.Pictures();
        Assert.Equal(2, pictures.Count);
        Assert.All(pictures, only => Assert.Equal(dots.Rgba, only.Rgba));
        Assert.True(pdf.Size < 1.2 * dots.Rgba.Length + 20_000);
    }

    [Fact]
    public void What_upper_layers_hide_is_left_out_but_for_the_strip_for_glue()
    {
        var below = PieceOf(Path.Rectangle(0, 0, 60, 60), new PrintedFill("", "#B3361E"));
        var above = PieceOf(Path.Rectangle(0, 0, 30, 30)) with { Id = "p2", Place = Affine.Move(15, 15) };
        var sheet = Sheet(80, 80, new Placement("p1", 1, Affine.Move(10, 10)));
        using var pdf = new RenderedPdf(Write(PrintPages.For(sheet, DesignOf(below, above), new PagePrinting("", 4.2, null, 0) { IsBare = true, GlueMm = 5 })));
        var seen = pdf.Page(254);
        bool IsRed(double x, double y) => seen.Rgba[seen.At((int)(x * 10), (int)(y * 10)) + 1] < 120;
        // The piece above lies from 25 to 55; 5 mm of that are printed.
        Assert.True(IsRed(24, 40) && IsRed(29.7, 40) && IsRed(50.4, 40));
        Assert.False(IsRed(30.3, 40) || IsRed(40, 40) || IsRed(49.6, 40));
    }

    [Theory]
    [InlineData(FlipEdge.Upright)]
    [InlineData(FlipEdge.Level)]
    public void The_back_lies_behind_its_piece_when_the_sheet_is_flipped(FlipEdge flip)
    {
        // A square at the upper left of the back, as one sees the back: behind the upper right of the face.
        var piece = PieceOf(
            Path.Rectangle(0, 0, 40, 20), Filled(Path.Rectangle(0, 0, 8, 8), "#1F2B33") with { Settings = new LineSettings { FromBack = true, Print = new PrintLook("#1F2B33", null) } });
        var sheet = Sheet(100, 120, new Placement("p1", 1, Affine.Move(11, 17)));
        using var pdf = new RenderedPdf(Write(PrintPages.For(sheet, DesignOf(piece), new PagePrinting("", 0, MarkSettings.Usual, 0) { IsBare = true, Flip = flip })));
        Assert.Equal(3, BoxesOf(pdf.Page(254), 254, (r, g, b) => r < 100).Count);
        var back = BoxesOf(pdf.Page(254, 2), 254, (r, g, b) => r is > 20 and < 100);
        // On the face the square would reach from 43 to 51 across and 17 to 25 down; the marks are there too, but black.
        Near(back, [flip == FlipEdge.Upright ? new(100 - 51, 17, 100 - 43, 25) : new(43, 120 - 25, 51, 120 - 17)]);
    }

    [Fact]
    public void A_cut_file_as_pdf_has_its_lines_where_the_svg_has_them_and_a_layer_for_each_operation()
    {
        const int perInch = 600;
        var page = new ProductionPage(90, 70,
        [
            new(Operation.Score, "Score", null, [Path.Polyline([new(12.3, 20), new(77.7, 20)], closed: false)]),
            new(Operation.Cut, "Outer cuts", null, [Path.Rectangle(10.2, 8.4, 70.1, 50.6)]),
        ]);
        using var pdf = new RenderedPdf(ProductionPdfWriter.Write(page, "Card"));
        var seen = pdf.Page(perInch);
        // By the colours of the operations; lines are a tenth of a millimetre wide.
        Near(BoxesOf(seen, perInch, (r, g, b) => r < 90 && g < 90 && b < 90), [new(10.15, 8.35, 80.35, 59.05)]);
        Near(BoxesOf(seen, perInch, (r, g, b) => r < 90 && g > 110), [new(12.3, 19.95, 77.7, 20.05)]);
        Assert.Contains("No syntax or stream encoding errors found", pdf.Check(), StringComparison.Ordinal);
        Assert.Equal(["cut", "score"], pdf.Layers().Order());
    }
}
