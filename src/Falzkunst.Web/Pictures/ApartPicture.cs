using System.Globalization;
using System.Text;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Web.Pictures;

/// <summary>A place of an outline enlarged: what is printed, the cut, and the cut as far off as it may be.</summary>
public static class ApartPicture
{
    /// <summary>What is shown is so many times as wide as the distance, mm, within limits.</summary>
    private const double Times = 9, LeastMm = 1.5, MostMm = 14;

    /// <summary>SVG that belongs into an element of a size.</summary>
    /// <param name="outline">The cut, mm.</param>
    /// <param name="at">The place.</param>
    /// <param name="apartMm">How far off the cut may be.</param>
    /// <param name="bleedMm">How far print goes on past the cut.</param>
    /// <param name="side">Of the picture, dots.</param>
    public static string Draw(IReadOnlyList<Point> outline, Point at, double apartMm, double bleedMm, int side)
    {
        var scale = side / Math.Clamp(apartMm * Times, LeastMm, MostMm);
        Point On(Point p) => (p - at) * scale + new Point(side / 2.0, side / 2.0);
        var path = new StringBuilder();
        foreach (var (p, i) in outline.Select((p, i) => (On(p), i))) path.Append(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{p.X:0.#} {p.Y:0.#}");
        path.Append('Z');
        // Away from the outline's middle, which is the way that uncovers paper.
        var middle = outline.Aggregate(new Point(0, 0), (sum, p) => sum + p) * (1.0 / outline.Count);
        var way = at.DistanceTo(middle) is > 0 and var far ? (at - middle) * (apartMm * scale / far) : new Point(0, 0);
        return string.Create(CultureInfo.InvariantCulture,
            $"<g class=\"apart\"><path class=\"apart-print\" d=\"{path}\" stroke-width=\"{2 * bleedMm * scale:0.#}\"/><path class=\"apart-cut\" d=\"{path}\"/><path class=\"apart-off\" d=\"{path}\" transform=\"translate({way.X:0.#} {way.Y:0.#})\"/></g>");
    }
}
