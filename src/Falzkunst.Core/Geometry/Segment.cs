namespace Falzkunst.Core.Geometry;

/// <summary>
/// The way from the end of the segment before it to <see cref="End"/>: straight, or a cubic Bézier with two handles.
/// Arcs are kept as cubics (see docs/decisions/two-kinds-of-segments.md).
/// </summary>
public readonly record struct Segment(bool IsCubic, Point Handle1, Point Handle2, Point End)
{
    public static Segment Straight(Point end) => new(false, default, default, end);

    public static Segment Cubic(Point handle1, Point handle2, Point end) => new(true, handle1, handle2, end);

    public Segment Map(Affine map) => IsCubic
        ? Cubic(map.Apply(Handle1), map.Apply(Handle2), map.Apply(End))
        : Straight(map.Apply(End));

    /// <summary>The point at parameter <paramref name="t"/> (0 to 1) of a segment that begins at <paramref name="start"/>.</summary>
    public Point At(Point start, double t)
    {
        if (!IsCubic) return Point.Lerp(start, End, t);
        var u = 1 - t;
        return start * (u * u * u) + Handle1 * (3 * u * u * t) + Handle2 * (3 * u * t * t) + End * (t * t * t);
    }
}
