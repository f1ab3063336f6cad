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
                    var paint = fill.Colour;
                    if (fill.Shading is { } shading)
                    {
                        var (gradient, id) = Gradient(shading.Under(map));
                        svg.Append(gradient);
                        paint = $"url(#{id})";
                    }
                    svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{Data(fill.Rings, map)}\" fill=\"{paint}\" fill-rule=\"{(fill.EvenOdd ? "evenodd" : "nonzero")}\"/>");
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

    /// <summary>A shading as a gradient of SVG, and its id: the same one has the same.</summary>
    private static (string Svg, string Id) Gradient(Shading shading)
    {
        var stops = string.Concat(shading.Stops.Select(s => FormattableString.Invariant($"<stop offset=\"{s.At:0.####}\" stop-color=\"{s.Colour}\"/>")));
        var at = $"gradientUnits=\"userSpaceOnUse\" gradientTransform=\"{Matrix(shading.Place)}\"";
        var id = "s" + ContentHash.Short(at + stops + FormattableString.Invariant($"{shading.Kind} {shading.FocusX} {shading.FocusY}"), 10);
        return (shading.Kind == ShadingKind.Linear
            ? $"<linearGradient id=\"{id}\" x1=\"0\" y1=\"0\" x2=\"1\" y2=\"0\" {at}>{stops}</linearGradient>"
            : FormattableString.Invariant($"<radialGradient id=\"{id}\" cx=\"0\" cy=\"0\" r=\"1\" fx=\"{shading.FocusX:0.####}\" fy=\"{shading.FocusY:0.####}\" {at}>{stops}</radialGradient>"), id);
    }

    private static string Matrix(Affine m) => FormattableString.Invariant($"matrix({m.A:0.#####} {m.B:0.#####} {m.C:0.#####} {m.D:0.#####} {m.E:0.###} {m.F:0.###})");

    private static string Picture(PictureItem item, string address, Affine map)
    {
        var matrix = Matrix(item.Place.Then(map));
        var (image, size) = ($"href=\"{WebUtility.HtmlEncode(address)}\"", FormattableString.Invariant($"width=\"{item.Width:0.###}\" height=\"{item.Height:0.###}\" preserveAspectRatio=\"none\""));
        if (!item.IsPattern) return $"<image {image} {size} transform=\"{matrix}\"/>";
        return $"<pattern id=\"t{item.Id}\" patternUnits=\"userSpaceOnUse\" {size} patternTransform=\"{matrix}\"><image {image} {size}/></pattern><rect width=\"100%\" height=\"100%\" fill=\"url(#t{item.Id})\"/>";
    }
}
