using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Writes a drawing back as it was understood: same size, place, paint and order.</summary>
public static class SvgDrawingWriter
{
    private const int Decimals = 5;

    public static string Write(Drawing drawing)
    {
        var text = new StringBuilder();
        SvgText.Open(text, drawing.Width, drawing.Height);
        foreach (var shape in drawing.Shapes)
        {
            var a = shape.Appearance;
            text.Append("<path d=\"");
            foreach (var path in shape.Paths) text.Append(PathText.Write(path, Decimals));
            text.Append('"');
            Attribute(text, "fill", a.Fill ?? "none");
            if (a.Fill is not null && a.FillOpacity < 1) Attribute(text, "fill-opacity", Number(a.FillOpacity));
            if (a.Fill is not null && a.FillEvenOdd) Attribute(text, "fill-rule", "evenodd");
            if (a.Opacity < 1) Attribute(text, "opacity", Number(a.Opacity));
            if (a.Stroke is not null) Stroke(text, a);
            text.Append("/>\n");
        }
        text.Append("</svg>\n");
        return text.ToString();
    }

    private static void Stroke(StringBuilder text, Appearance a)
    {
        Attribute(text, "stroke", a.Stroke!);
        Attribute(text, "stroke-width", Number(a.StrokeWidth));
        if (a.StrokeOpacity < 1) Attribute(text, "stroke-opacity", Number(a.StrokeOpacity));
        if (a.LineCap != "butt") Attribute(text, "stroke-linecap", a.LineCap);
        if (a.LineJoin != "miter") Attribute(text, "stroke-linejoin", a.LineJoin);
        if (a.MiterLimit != 4) Attribute(text, "stroke-miterlimit", Number(a.MiterLimit));
        if (a.Dashes.IsEmpty) return;
        Attribute(text, "stroke-dasharray", string.Join(' ', a.Dashes.Select(Number)));
        if (a.DashOffset != 0) Attribute(text, "stroke-dashoffset", Number(a.DashOffset));
    }

    private static void Attribute(StringBuilder text, string name, string value) =>
        text.Append(' ').Append(name).Append("=\"").Append(value).Append('"');

    private static string Number(double value) => value.ToString("0.######", CultureInfo.InvariantCulture);
}

/// <summary>What all SVG files written here share.</summary>
internal static class SvgText
{
    public static void Open(StringBuilder text, double width, double height) => text.Append(CultureInfo.InvariantCulture,
        $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width:0.####}mm\" height=\"{height:0.####}mm\" viewBox=\"0 0 {width:0.####} {height:0.####}\">\n");

    /// <summary>Text safe inside an attribute or element.</summary>
    public static string Escape(string value) => System.Security.SecurityElement.Escape(value) ?? "";
}
