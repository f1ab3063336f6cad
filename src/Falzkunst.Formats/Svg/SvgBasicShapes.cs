using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>The basic shapes of SVG as paths in user units.</summary>
internal static class SvgBasicShapes
{
    public static bool IsShape(string name) => name is "path" or "rect" or "circle" or "ellipse" or "line" or "polyline" or "polygon";

    /// <summary>The paths of a shape, and whether all of it was understood. A shape of no size has none.</summary>
    public static (List<Path> Paths, bool Complete) Read(SvgNode node, double width, double height, Budget budget)
    {
        var diagonal = Math.Sqrt((width * width + height * height) / 2);
        double X(string name) => SvgLength.Read(node[name], width) ?? 0;
        double Y(string name) => SvgLength.Read(node[name], height) ?? 0;
        switch (node.Name)
        {
            case "path":
                return SvgPathData.Read(node["d"] is { } d && d != "none" ? d : "", budget);
            case "rect":
                return (Rectangle(node, X("x"), Y("y"), X("width"), Y("height"), width, height), true);
            case "circle":
                var r = SvgLength.Read(node["r"], diagonal) ?? 0;
                return (r > 0 ? [EllipticArc.Ellipse(new Point(X("cx"), Y("cy")), r, r)] : [], true);
            case "ellipse":
                var (rx, ry) = (SvgLength.Read(node["rx"], width), SvgLength.Read(node["ry"], height));
                return ((rx ?? ry) > 0 && (ry ?? rx) > 0
                    ? [EllipticArc.Ellipse(new Point(X("cx"), Y("cy")), (rx ?? ry)!.Value, (ry ?? rx)!.Value)]
                    : [], true);
            case "line":
                return ([new Path(new Point(X("x1"), Y("y1")), [Segment.Straight(new Point(X("x2"), Y("y2")))], closed: false)], true);
            default:
                return Points(node["points"] ?? "", closed: node.Name == "polygon", budget);
        }
    }

    private static List<Path> Rectangle(SvgNode node, double x, double y, double w, double h, double width, double height)
    {
        if (!(w > 0) || !(h > 0)) return [];
        var rx = SvgLength.Read(node["rx"], width);
        var ry = SvgLength.Read(node["ry"], height);
        var a = Math.Clamp(rx ?? ry ?? 0, 0, w / 2);
        var b = Math.Clamp(ry ?? rx ?? 0, 0, h / 2);
        if (a == 0 || b == 0) return [Path.Rectangle(x, y, w, h)];
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var at = new Point(x + a, y);
        void Line(double px, double py)
        {
            if (at.DistanceTo(new Point(px, py)) > 1e-12) segments.Add(Segment.Straight(new Point(px, py)));
            at = new Point(px, py);
        }
        void Corner(double px, double py)
        {
            segments.AddRange(EllipticArc.FromEndpoints(at, a, b, 0, false, true, new Point(px, py)));
            at = new Point(px, py);
        }
        Line(x + w - a, y);
        Corner(x + w, y + b);
        Line(x + w, y + h - b);
        Corner(x + w - a, y + h);
        Line(x + a, y + h);
        Corner(x, y + h - b);
        Line(x, y + b);
        Corner(x + a, y);
        return [new Path(new Point(x + a, y), segments.ToImmutable(), closed: true)];
    }

    private static (List<Path>, bool) Points(string text, bool closed, Budget budget)
    {
        var points = new List<Point>();
        var scanner = new NumberScanner(text);
        var complete = true;
        while (!scanner.AtEnd)
        {
            if (!scanner.TryNumber(out var x) || !scanner.TryNumber(out var y))
            {
                complete = false;
                break;
            }
            budget.Segments(1);
            points.Add(new Point(x, y));
        }
        return (points.Count > 1 ? [Path.Polyline(points, closed)] : [], complete);
    }
}
