using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How a shape was painted in the file it came from. Colours are #rrggbb, lengths mm, opacities 0 to 1.</summary>
public sealed record Appearance
{
    public static readonly Appearance None = new();

    /// <summary>Fill colour; null where nothing is filled.</summary>
    public string? Fill { get; init; }

    /// <summary>How the fill changes over the area, in mm on the page; null for one colour. <see cref="Fill"/> is its middle then.</summary>
    public Shading? Shading { get; init; }
    public double FillOpacity { get; init; } = 1;
    public bool FillEvenOdd { get; init; }

    /// <summary>Stroke colour; null where nothing is stroked.</summary>
    public string? Stroke { get; init; }
    public double StrokeOpacity { get; init; } = 1;
    public double StrokeWidth { get; init; }
    public string LineCap { get; init; } = "butt";
    public string LineJoin { get; init; } = "miter";
    public double MiterLimit { get; init; } = 4;
    public ImmutableArray<double> Dashes { get; init; } = [];
    public double DashOffset { get; init; }
    public double Opacity { get; init; } = 1;

    /// <summary>A stroke broken by gaps that one can see.</summary>
    public bool IsDashed => Stroke is not null && Dashes.Any(d => d > 0) && Dashes.Length > 0;

    /// <summary>The same look on a drawing of another size.</summary>
    public Appearance Scaled(double by) => this with { StrokeWidth = StrokeWidth * by, Dashes = [.. Dashes.Select(d => d * by)], DashOffset = DashOffset * by, Shading = Shading?.Under(Affine.Scale(by, by)) };
}
