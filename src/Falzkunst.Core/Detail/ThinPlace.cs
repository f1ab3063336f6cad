using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>A place that is too narrow.</summary>
/// <param name="Kind">What is narrow there.</param>
/// <param name="At">The middle of its narrowest spot, mm.</param>
/// <param name="WidthMm">Its width there.</param>
/// <param name="ExtentMm">How far it reaches along its middle line.</param>
public sealed record ThinPlace(ThinKind Kind, Point At, double WidthMm, double ExtentMm);

public enum ThinKind
{
    /// <summary>Material that is narrow for no more than about its own width.</summary>
    Neck,

    /// <summary>Material that is narrow for a stretch: a leg, a wire, a letter's stroke.</summary>
    Strand,

    /// <summary>Air between two cuts.</summary>
    Gap,

    /// <summary>An opening that is too small to come out.</summary>
    Hole,
}
