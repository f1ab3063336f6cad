using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>An area by closed lines: what lies inside one of its outlines and in none of its openings. Lines may cross themselves and each other.</summary>
/// <param name="Outlines">Lines round paper; what any of them winds about, either way, is inside.</param>
/// <param name="Openings">Lines round air.</param>
public sealed record AreaRings(ImmutableArray<Path> Outlines, ImmutableArray<Path> Openings)
{
    /// <summary>The area inside one line.</summary>
    public static AreaRings Inside(Path outline) => new([outline], []);

    /// <summary>One connected area. Several are given one by one, since one may lie in the opening of another.</summary>
    public static AreaRings Of(PathArea part) => new([part.Outline], part.Openings);

    public AreaRings Map(Affine map) => new([.. Outlines.Select(p => p.Map(map))], [.. Openings.Select(p => p.Map(map))]);
}

/// <summary>One connected area: its outline, and openings that lie apart within it.</summary>
public sealed record PathArea(Path Outline, ImmutableArray<Path> Openings)
{
    /// <summary>Area, mm², of the curves themselves.</summary>
    public double Area => Math.Abs(CurveAreas.Signed(Outline)) - Openings.Sum(o => Math.Abs(CurveAreas.Signed(o)));

    public int SegmentCount => Outline.Segments.Length + Openings.Sum(o => o.Segments.Length);
}
