using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Lab;

/// <summary>What the lab found, drawn in a file of the art's size.</summary>
internal static class Pictures
{
    /// <summary>The paper with a ring round each thin place.</summary>
    public static string Places(Drawing drawing, Design design, IEnumerable<ThinPlace> places, double least) => Picture(drawing, svg =>
    {
        foreach (var piece in design.Pieces) Paper(svg, piece, "#D9D1C3");
        foreach (var p in places)
        {
            var colour = p.Kind switch { ThinKind.Gap => "#2D6CDF", ThinKind.Hole => "#0E6E66", _ => "#8C2D62" };
            svg.Append(CultureInfo.InvariantCulture, $"<circle cx=\"{p.At.X:0.###}\" cy=\"{p.At.Y:0.###}\" r=\"{least:0.###}\" fill=\"none\" stroke=\"{colour}\" stroke-width=\"{least / 5:0.###}\"/>");
        }
    });

    /// <summary>Each piece in one colour, and on it in another what it was before; what did not change is drawn by its lines alone.</summary>
    public static string Pieces(Drawing drawing, IEnumerable<(Piece Before, Piece After)> pieces) => Picture(drawing, svg =>
    {
        foreach (var (before, after) in pieces)
        {
            var isSame = ReferenceEquals(before, after);
            Paper(svg, after, isSame ? "none" : "#0E6E66");
            if (!isSame) Paper(svg, before, "#D9D1C3");
        }
    });

    private static string Picture(Drawing drawing, Action<StringBuilder> draw)
    {
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{drawing.Width}mm\" height=\"{drawing.Height}mm\" viewBox=\"0 0 {drawing.Width} {drawing.Height}\">");
        draw(svg);
        return svg.Append("</svg>").ToString();
    }

    private static void Paper(StringBuilder svg, Piece piece, string fill)
    {
        var d = string.Concat(piece.Paper.Rings.Select(p => PathText.Write(p.Map(piece.Place), 4)));
        svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{d}\" fill=\"{fill}\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".03\"/>");
    }
}
