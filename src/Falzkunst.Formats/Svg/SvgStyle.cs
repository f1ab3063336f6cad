using System.Collections.Immutable;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Svg;

/// <summary>A paint as a file states it: a colour, or nothing; with a note where it was something else.</summary>
internal readonly record struct SvgPaint(string? Colour, double Opacity)
{
    public static readonly SvgPaint None = new(null, 1);

    /// <summary>Id of the gradient that it is the middle colour of; null for none.</summary>
    public string? Server { get; init; }
}

/// <summary>The computed style of an element, lengths in user units.</summary>
internal sealed record SvgStyle
{
    public static readonly SvgStyle Initial = new();

    public SvgPaint Fill { get; init; } = new("#000000", 1);
    public SvgPaint Stroke { get; init; } = SvgPaint.None;
    public string Colour { get; init; } = "#000000";
    public double FillOpacity { get; init; } = 1;
    public double StrokeOpacity { get; init; } = 1;
    public double StrokeWidth { get; init; } = 1;
    public bool EvenOdd { get; init; }
    public string LineCap { get; init; } = "butt";
    public string LineJoin { get; init; } = "miter";
    public double MiterLimit { get; init; } = 4;
    public ImmutableArray<double> Dashes { get; init; } = [];
    public double DashOffset { get; init; }
    public bool Visible { get; init; } = true;

    /// <summary>How the element is read where it is part of a clip path.</summary>
    public bool ClipEvenOdd { get; init; }

    /// <summary>Of text: the families asked for, in their order.</summary>
    public string FontFamily { get; init; } = "";

    /// <summary>Of text: the em, in user units.</summary>
    public double FontSize { get; init; } = 16;
    public int FontWeight { get; init; } = 400;

    /// <summary>Of text: what stands at its place: "start", "middle" or "end".</summary>
    public string TextAnchor { get; init; } = "start";

    // Not inherited.
    public double Opacity { get; init; } = 1;
    public bool Displayed { get; init; } = true;
    public bool NonScalingStroke { get; init; }
    public string? Transform { get; init; }

    /// <summary>Id of the clip path that it is cut off at; null for none.</summary>
    public string? ClipPath { get; init; }

    /// <summary>Id of the mask that it is seen through; null for none.</summary>
    public string? Mask { get; init; }

    /// <summary>What reaches out of its viewport is shown all the same; null where nothing was said.</summary>
    public bool? ShowsOverflow { get; init; }

    /// <summary>Opacities of all groups around, multiplied.</summary>
    public double GroupOpacity { get; init; } = 1;

    /// <summary>What a child begins with.</summary>
    public SvgStyle ForChild() => this with
    {
        GroupOpacity = GroupOpacity * Opacity,
        Opacity = 1,
        Displayed = true,
        NonScalingStroke = false,
        Transform = null,
        ClipPath = null,
        Mask = null,
        ShowsOverflow = null,
    };

    /// <summary>The look in millimetres.</summary>
    /// <param name="scale">Millimetres to the user unit at this element.</param>
    /// <param name="pageScale">Millimetres to the pixel of the page, for strokes that do not scale.</param>
    public Appearance ToAppearance(double scale, double pageScale)
    {
        var factor = NonScalingStroke ? pageScale : scale;
        var opacity = Opacity * GroupOpacity;
        var fills = Fill.Colour is not null && Fill.Opacity * FillOpacity * opacity > 0;
        var strokes = Stroke.Colour is not null && StrokeWidth > 0 && Stroke.Opacity * StrokeOpacity * opacity > 0;
        return new Appearance
        {
            Fill = fills ? Fill.Colour : null,
            FillOpacity = Fill.Opacity * FillOpacity,
            FillEvenOdd = EvenOdd,
            Stroke = strokes ? Stroke.Colour : null,
            StrokeOpacity = Stroke.Opacity * StrokeOpacity,
            StrokeWidth = strokes ? Sane(StrokeWidth * factor) : 0,
            LineCap = LineCap,
            LineJoin = LineJoin,
            MiterLimit = Sane(MiterLimit),
            Dashes = strokes ? [.. Dashes.Select(d => Sane(d * factor))] : [],
            DashOffset = Sane(DashOffset * factor),
            Opacity = opacity,
        };
    }

    /// <summary>Numbers beyond a kilometre say nothing of a drawing.</summary>
    private static double Sane(double number) => double.IsNaN(number) ? 0 : Math.Clamp(number, -1e6, 1e6);
}
