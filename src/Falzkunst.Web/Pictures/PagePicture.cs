using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Pictures;

/// <summary>Small true pictures of printed pages, and of the corner of a piece with its bleed.</summary>
internal static class PagePicture
{
    /// <summary>Side of the pictures of pictures, dots.</summary>
    private const int Side = 240;

    /// <summary>The paper that a corner shows, and how far off the dashed cut is, mm.</summary>
    private const double CornerWide = 17, CornerHigh = 10, CornerEdge = 4;

    /// <summary>A page with its marks and pieces, to fit a picture.</summary>
    public static string Page(PrintedPage page, double width, double height)
    {
        var map = SmallPicture.Fit(Box.FromSize(page.Width, page.Height), width, height, 1);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPrint.Data([Path.Rectangle(0, 0, page.Width, page.Height)], map)}\" fill=\"#FFFFFF\" stroke=\"#24313A\" stroke-opacity=\".5\" stroke-width=\".7\"/>");
        foreach (var copy in page.Copies)
        {
            Append(svg, copy.What, copy.Place.Then(map));
            svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPrint.Data([copy.What.Piece.Outline.Path], copy.Place.Then(map))}\" fill=\"none\" stroke=\"#24313A\" stroke-width=\".5\"/>");
        }
        if (!page.Marks.IsEmpty) svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPrint.Data(page.Marks, map)}\" fill=\"#000000\" stroke=\"#000000\" stroke-width=\".4\"/>");
        return svg.ToString();
    }

    /// <summary>A stretch of a piece's edge as it is printed with a bleed: the cut, and where it would be if it were off by so much.</summary>
    public static string Corner(PrintedPiece piece, Point at, double offMm, double width, double height)
    {
        var box = new Box(at.X - CornerEdge, at.Y - CornerEdge, at.X - CornerEdge + CornerWide, at.Y - CornerEdge + CornerHigh);
        var map = SmallPicture.Fit(box, width, height, 0);
        var svg = new StringBuilder("<rect width=\"100%\" height=\"100%\" fill=\"#FFFFFF\"/>");
        Append(svg, piece, map);
        var cut = piece.Piece.Paper.Rings;
        var off = Affine.Move(-offMm, -offMm);
        svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPrint.Data(cut, off.Then(map))}\" fill=\"none\" stroke=\"#B3361E\" stroke-width=\"1.2\" stroke-dasharray=\"3 2\"/>");
        svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{SmallPrint.Data(cut, map)}\" fill=\"none\" stroke=\"#24313A\" stroke-width=\"1.6\"/>");
        return svg.ToString();
    }

    private static void Append(StringBuilder svg, PrintedPiece piece, Affine map)
    {
        if (piece.Layers.IsEmpty) return;
        var paper = SmallPrint.Data(piece.Clip.Rings.Select(r => Path.Polyline(r, closed: true)), map);
        // Several such pictures stand on one page; what is alike may share its name, and the same picture has the same names again.
        var clip = "clip-" + ContentHash.Short(paper, 12);
        svg.Append(CultureInfo.InvariantCulture, $"<clipPath id=\"{clip}\"><path clip-rule=\"evenodd\" d=\"{paper}\"/></clipPath><g clip-path=\"url(#{clip})\">");
        svg.Append(SmallPrint.Svg(piece.Bleed.Under.Concat(piece.Layers), map, p => $"?handler=Dots&picture={p.Of}&side={Side}&v={p.Key}"));
        svg.Append("</g>");
    }
}
