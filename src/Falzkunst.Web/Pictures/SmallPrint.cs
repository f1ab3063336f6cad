using System.Globalization;
using System.Net;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;

namespace Falzkunst.Web.Pictures;

/// <summary>What is printed on a piece, in small pictures.</summary>
internal static class SmallPrint
{
    /// <summary>Layers as SVG under a map.</summary>
    /// <param name="layers">The layers, lowest first.</param>
    /// <param name="map">From the piece's coordinates to the picture's.</param>
    /// <param name="addressOf">The address of a picture's dots; null leaves it out.</param>
    public static string Svg(IEnumerable<PrintLayer> layers, Affine map, Func<PictureItem, string?> addressOf)
    {
        var svg = new StringBuilder();
        foreach (var layer in layers)
        {
            switch (layer)
            {
                case FillLayer fill:
                    svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{Data(fill.Rings, map)}\" fill=\"{fill.Colour}\" fill-rule=\"{(fill.EvenOdd ? "evenodd" : "nonzero")}\"/>");
                    break;
                case StrokeLayer stroke:
                    svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{Data(stroke.Strokes, map)}\" fill=\"none\" stroke=\"{stroke.Colour}\" stroke-width=\"{stroke.WidthMm * map.MeanScale:0.##}\" stroke-linecap=\"{(stroke.RoundEnds ? "round" : "butt")}\"/>");
                    break;
                case PictureLayer { Picture: var picture } when addressOf(picture) is { } address:
                    svg.Append(Picture(picture, address, map));
                    break;
            }
        }
        return svg.ToString();
    }

    /// <summary>Path data of several lines under a map.</summary>
    public static string Data(IEnumerable<Core.Geometry.Path> paths, Affine map) => string.Concat(paths.Select(p => SmallPicture.Data(p.Map(map))));

    private static string Picture(PictureItem item, string address, Affine map)
    {
        var m = item.Place.Then(map);
        var matrix = FormattableString.Invariant($"matrix({m.A:0.#####} {m.B:0.#####} {m.C:0.#####} {m.D:0.#####} {m.E:0.###} {m.F:0.###})");
        var (image, size) = ($"href=\"{WebUtility.HtmlEncode(address)}\"", FormattableString.Invariant($"width=\"{item.Width:0.###}\" height=\"{item.Height:0.###}\" preserveAspectRatio=\"none\""));
        if (!item.IsPattern) return $"<image {image} {size} transform=\"{matrix}\"/>";
        return $"<pattern id=\"t{item.Id}\" patternUnits=\"userSpaceOnUse\" {size} patternTransform=\"{matrix}\"><image {image} {size}/></pattern><rect width=\"100%\" height=\"100%\" fill=\"url(#t{item.Id})\"/>";
    }
}
