using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;

namespace Falzkunst.Web.Pictures;

/// <summary>A small picture of what was read from a file; nothing of the file itself goes into it.</summary>
public static class DrawingPicture
{
    public const double Width = 120;
    public const double Height = 84;
    private const double Edge = 4;
    private const int CoarsePoints = 60;

    /// <summary>Shapes that are shown; of a drawing of more the lowest.</summary>
    private const int MostShapes = 1500;

    public static string Svg(Drawing drawing)
    {
        var map = SmallPicture.Fit(drawing.Extent, Width, Height, Edge);
        int? coarse = drawing.SegmentCount > SmallPicture.MostSegments ? CoarsePoints : null;
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{Width}\" height=\"{Height}\" viewBox=\"0 0 {Width} {Height}\">");
        foreach (var shape in drawing.Shapes.Take(MostShapes))
        {
            svg.Append("<path d=\"");
            foreach (var path in shape.Paths) svg.Append(SmallPicture.Data(path.Map(map), coarse));
            svg.Append(CultureInfo.InvariantCulture, $"\" fill=\"{shape.Appearance.Fill ?? "none"}\" fill-rule=\"evenodd\" stroke=\"{shape.Appearance.Stroke ?? "#24313A"}\" stroke-width=\".6\"/>");
        }
        return svg.Append("</svg>").ToString();
    }
}
