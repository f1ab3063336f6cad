using System.Collections.Immutable;
using BenchmarkDotNet.Attributes;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Bench;

/// <summary>Bleeds: of areas round an outline of many segments, and of a picture's dots round an A5 sheet.</summary>
[MemoryDiagnoser]
public class PrintBench
{
    private Piece _lace = null!;
    private Piece _photo = null!;
    private PictureItem _picture = null!;
    private PixelImage _dots = null!;
    private ImmutableArray<EdgeStretch> _edge;

    [Params(200, 2000)]
    public int Segments { get; set; }

    [GlobalSetup]
    public void Prepare()
    {
        var outline = Path.Polyline(Enumerable.Range(0, Segments).Select(i =>
        {
            var (sin, cos) = Math.SinCos(Math.Tau * i / Segments);
            return new Point(cos, sin) * (60 + 4 * Math.Sin(i * 0.7));
        }), closed: true);
        _lace = PieceOf(outline).Plus(
            new PrintedFill("", "#E9DFC6"), new Line("", Path.Rectangle(-80, -10, 160, 20), Operation.Print, Look.DrawnHere, null, null));
        _picture = new PictureItem("", "", 1748, 2480, Affine.Identity, 148, 210) { Of = "i1", Key = "k" };
        _photo = PieceOf(Path.Rectangle(0, 0, 148, 210)).Plus(_picture);
        _dots = new PixelImage(1748, 2480, [.. Enumerable.Repeat((byte)120, 1748 * 2480 * PixelImage.BytesEach)]);
        _edge = Bleeding.Of(_photo, PrintedArt.On(_photo), 2).Edge;
    }

    private static Piece PieceOf(Path outline) => Piece.FromLines("p1", "", "", Affine.Identity, [new Line("", outline, Operation.Cut, Look.DrawnHere, null, null)]);

    [Benchmark]
    public Bled Areas() => Bleeding.Of(_lace, PrintedArt.On(_lace), PagePrinting.UsualBleedMm);

    [Benchmark]
    public CarriedDots? Dots() => CarriedEdge.Of(_edge, 0, _picture, _dots, PagePrinting.UsualBleedMm);
}
