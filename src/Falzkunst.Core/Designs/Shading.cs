using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How colours of a shading change.</summary>
public enum ShadingKind
{
    /// <summary>Along a line.</summary>
    Linear,

    /// <summary>From a point outwards to a circle.</summary>
    Radial,
}

/// <summary>A colour of a shading.</summary>
/// <param name="At">Where it is reached, 0 to 1.</param>
/// <param name="Colour">#rrggbb.</param>
public readonly record struct ShadingStop(double At, string Colour);

/// <summary>
/// An area whose colour changes evenly from stop to stop. A linear one runs from x = 0 to x = 1 of its own plane, a radial one from
/// its focus to the circle of radius 1 about the origin; beyond its ends its last colours go on (the axial and radial shadings of
/// ISO 32000-1, 8.7.4.5, and the gradients of SVG 2, 14.2).
/// </summary>
/// <param name="Kind">How colours change.</param>
/// <param name="Place">From its own plane to where it is painted.</param>
/// <param name="Stops">Two at least, from 0 to 1 without going back.</param>
public sealed record Shading(ShadingKind Kind, Affine Place, ImmutableArray<ShadingStop> Stops)
{
    /// <summary>More stops than this are not read.</summary>
    public const int MostStops = 256;

    /// <summary>Where a radial one begins, within the circle of radius 1.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public double FocusX { get; init; }

    /// <inheritdoc cref="FocusX"/>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public double FocusY { get; init; }

    /// <summary>The same on an area that was moved, turned, scaled or skewed.</summary>
    public Shading Under(Affine map) => this with { Place = Place.Then(map) };

    public bool Equals(Shading? other) => other is not null && Kind == other.Kind && Place == other.Place && FocusX == other.FocusX && FocusY == other.FocusY && Stops.AsSpan().SequenceEqual(other.Stops.AsSpan());

    public override int GetHashCode() => HashCode.Combine(Kind, Place, FocusX, FocusY, Stops.Length);
}
