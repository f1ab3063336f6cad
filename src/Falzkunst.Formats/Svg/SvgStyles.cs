using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// Computes styles: presentation attributes, then style sheets and the style attribute as they cascade. Properties that paint
/// something this reader does not keep leave a note.
/// </summary>
internal sealed class SvgStyles(SvgCascade cascade, SvgPaintServers servers, Action<ReadingNote> note, Budget budget)
{
    private static readonly HashSet<string> Presentation = new(StringComparer.Ordinal)
    {
        "fill", "stroke", "color", "fill-opacity", "stroke-opacity", "stroke-width", "fill-rule", "stroke-linecap",
        "stroke-linejoin", "stroke-miterlimit", "stroke-dasharray", "stroke-dashoffset", "visibility", "opacity", "display",
        "vector-effect", "clip-path", "clip-rule", "overflow", "mask", "filter", "marker", "marker-start", "marker-mid", "marker-end",
        "font-family", "font-size", "font-weight", "text-anchor",
    };

    public SvgStyle Compute(SvgNode node, SvgStyle parent, double viewport)
    {
        var style = parent.ForChild();
        var inherited = style;
        // The colour first, since currentColor in the same element refers to it.
        var declared = new List<(string Name, string Value)>();
        foreach (var (name, value) in node.Attributes)
        {
            if (Presentation.Contains(name)) declared.Add((name, value));
        }
        foreach (var d in cascade.Cascade(node)) declared.Add((d.Name, d.Value));
        if (declared.FindLast(d => d.Name == "color") is { Value: not null } colour) style = Apply(style, inherited, colour.Name, colour.Value, node, viewport);
        foreach (var (name, value) in declared)
        {
            if (name != "color") style = Apply(style, inherited, name, value, node, viewport);
        }
        return style;
    }

    private SvgStyle Apply(SvgStyle s, SvgStyle inherited, string name, string value, SvgNode node, double viewport)
    {
        value = value.Trim();
        var inherit = value == "inherit";
        switch (name)
        {
            case "fill": return s with { Fill = inherit ? inherited.Fill : Paint(value, s, node, isFill: true) ?? s.Fill };
            case "stroke": return s with { Stroke = inherit ? inherited.Stroke : OfOneColour(Paint(value, s, node, isFill: false), node) ?? s.Stroke };
            case "color": return inherit ? s : s with { Colour = SvgColour.Read(value)?.Colour ?? s.Colour };
            case "fill-opacity": return s with { FillOpacity = Share(value) ?? s.FillOpacity };
            case "stroke-opacity": return s with { StrokeOpacity = Share(value) ?? s.StrokeOpacity };
            case "opacity": return s with { Opacity = Share(value) ?? s.Opacity };
            case "stroke-width": return s with { StrokeWidth = SvgLength.Read(value, viewport) is >= 0 and var w ? w : s.StrokeWidth };
            case "fill-rule": return inherit ? s : s with { EvenOdd = value == "evenodd" };
            case "stroke-linecap": return value is "butt" or "round" or "square" ? s with { LineCap = value } : s;
            case "stroke-linejoin": return value is "miter" or "round" or "bevel" ? s with { LineJoin = value } : s;
            case "stroke-miterlimit": return double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var m) && m >= 1 ? s with { MiterLimit = m } : s;
            case "stroke-dasharray": return inherit ? s : s with { Dashes = Dashes(value, viewport) };
            case "stroke-dashoffset": return s with { DashOffset = SvgLength.Read(value, viewport) ?? s.DashOffset };
            case "font-family": return inherit ? s : s with { FontFamily = value.Length <= 200 ? value : value[..200] };
            case "font-size": return SvgLength.Read(value, inherited.FontSize, inherited.FontSize) is > 0 and < 1e5 and var size ? s with { FontSize = size } : s;
            case "font-weight": return inherit ? s : s with { FontWeight = value switch { "bold" or "bolder" => 700, "normal" or "lighter" => 400, _ => int.TryParse(value, out var weight) ? weight : s.FontWeight } };
            case "text-anchor": return value is "start" or "middle" or "end" ? s with { TextAnchor = value } : s;
            case "visibility": return inherit ? s : s with { Visible = value == "visible" };
            case "display": return s with { Displayed = value != "none" };
            case "vector-effect": return s with { NonScalingStroke = value == "non-scaling-stroke" };
            case "transform": return s with { Transform = value };
            case "clip-rule": return inherit ? s : s with { ClipEvenOdd = value == "evenodd" };
            case "overflow": return s with { ShowsOverflow = value is "visible" or "auto" };
            case "clip-path": return s with { ClipPath = value == "none" ? null : Reference(value) ?? NotApplied(name, node) };
            case "mask": return s with { Mask = value == "none" ? null : Reference(value) ?? NotApplied(name, node) };
            case "filter" when value is not "none":
                NotApplied(name, node);
                return s;
            case "marker" or "marker-start" or "marker-mid" or "marker-end" when value is not "none":
                note(new ReadingNote("marker", "Arrow heads and other markers on a line were left out.", node.Place));
                return s;
            case "mix-blend-mode" when value is not "normal":
            case "paint-order" when value is not "normal":
                note(new ReadingNote(name, $"The property {name} was not applied.", node.Place));
                return s;
            default: return s;
        }
    }

    /// <summary>The gradient that fills a shape, as it lies over it; null where it is filled by one colour.</summary>
    /// <inheritdoc cref="SvgGradient.Over"/>
    public Shading? ShadingOf(SvgStyle style, Box box, double width, double height, Affine toPage, SvgNode node)
    {
        if (style.Fill.Server is not { } id) return null;
        var shading = servers.GradientOf(id)?.Over(box, width, height, toPage);
        if (shading is null) OfOneColour(style.Fill, node);
        return shading;
    }

    private SvgPaint? OfOneColour(SvgPaint? paint, SvgNode node)
    {
        if (paint?.Server is not null) note(new ReadingNote("gradient", "A gradient was replaced by its middle colour.", node.Place));
        return paint;
    }

    private string? NotApplied(string name, SvgNode node)
    {
        note(new ReadingNote(name, $"The {name.Replace('-', ' ')} of a shape was not applied; the shape is shown whole.", node.Place));
        return null;
    }

    /// <summary>The id in "url(#id)"; null for anything else.</summary>
    private static string? Reference(string value)
    {
        if (!value.StartsWith("url(", StringComparison.Ordinal) || !value.EndsWith(')')) return null;
        var target = value[4..^1].Trim(' ', '"', '\'');
        return target.Length > 1 && target[0] == '#' ? target[1..] : null;
    }

    private const string Paper = "#FFFFFF";

    private SvgPaint? Paint(string value, SvgStyle style, SvgNode node, bool isFill, bool isFallback = false)
    {
        budget.Work(1 + value.Length / 8);
        if (value is "none" or "") return SvgPaint.None;
        if (value.Equals("currentColor", StringComparison.OrdinalIgnoreCase)) return new SvgPaint(style.Colour, 1);
        if (value.StartsWith("url(", StringComparison.Ordinal))
        {
            var close = value.IndexOf(')', StringComparison.Ordinal);
            if (close < 0) return null;
            var target = value[4..close].Trim(' ', '"', '\'');
            if (servers.ColourOf(target) is { } colour) return colour;
            // What shows between the parts of a pattern is the paper.
            if (isFill && target.Length > 1 && servers.IsPattern(target[1..])) return new SvgPaint(Paper, 1) { Server = target[1..] };
            var fallback = value[(close + 1)..].Trim();
            note(new ReadingNote("pattern", "A pattern was left out.", node.Place));
            return fallback.Length > 0 && !isFallback ? Paint(fallback, style, node, isFill, isFallback: true) : SvgPaint.None;
        }
        if (SvgColour.Read(value) is { } known) return new SvgPaint(known.Colour, known.Opacity);
        note(new ReadingNote("colour", $"The colour “{ShownText.Clean(value, 30)}” was not understood.", node.Place));
        return null;
    }

    private static double? Share(string value)
    {
        var percent = value.EndsWith('%');
        return double.TryParse(percent ? value.AsSpan()[..^1] : value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
            ? Math.Clamp(percent ? number / 100 : number, 0, 1)
            : null;
    }

    private static ImmutableArray<double> Dashes(string value, double viewport)
    {
        if (value == "none" || value.Length > 2000) return [];
        var lengths = value.Split([',', ' ', '\t', '\n', '\r'], StringSplitOptions.RemoveEmptyEntries)
            .Select(part => SvgLength.Read(part, viewport)).ToList();
        if (lengths.Count is 0 or > 64 || lengths.Any(l => l is not >= 0) || lengths.Sum() is not > 0) return [];
        return [.. lengths.Select(l => l!.Value)];
    }
}
