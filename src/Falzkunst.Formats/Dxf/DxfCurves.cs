using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>Entities as paths in drawing units, y up. Entities without a length give none.</summary>
internal static class DxfCurves
{
    public static Path? Line(DxfEntity e) => Straight([e.Point(10), e.Point(11)], closed: false);

    public static Path? Circle(DxfEntity e) =>
        e.Number(40) > 0 ? EllipticArc.Ellipse(e.Point(10), e.Number(40), e.Number(40)) : null;

    public static Path? Arc(DxfEntity e)
    {
        var r = e.Number(40);
        if (!(r > 0)) return null;
        var begin = Radians(e.Number(50));
        var map = new Affine(r, 0, 0, r, e.Point(10).X, e.Point(10).Y);
        return EllipticArc.Arc(map, begin, Sweep(begin, Radians(e.Number(51))));
    }

    /// <summary>An ellipse from its centre, major axis and ratio; seen from behind where its normal points down.</summary>
    public static Path? Ellipse(DxfEntity e)
    {
        var (centre, major) = (e.Point(10), e.Point(11));
        var ratio = e.Number(40, 1) * (e.Number(230, 1) < 0 ? -1 : 1);
        if (major.Length == 0 || ratio == 0) return null;
        var map = new Affine(major.X, major.Y, -major.Y * ratio, major.X * ratio, centre.X, centre.Y);
        var (begin, end) = (e.Number(41), e.Number(42, 2 * Math.PI));
        if (Math.Abs(end - begin) >= 2 * Math.PI - 1e-9)
        {
            var whole = EllipticArc.Arc(map, begin, 2 * Math.PI);
            return new Path(whole.Start, whole.Segments, closed: true);
        }
        return EllipticArc.Arc(map, begin, Sweep(begin, end));
    }

    /// <summary>A polyline of either age: corners, each with the bulge of the stretch that begins there.</summary>
    public static Path? Polyline(IReadOnlyList<(Point At, double Bulge)> corners, bool closed)
    {
        if (corners.Count < 2) return null;
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var stretches = closed ? corners.Count : corners.Count - 1;
        for (var i = 0; i < stretches; i++)
        {
            var (from, bulge) = corners[i];
            var to = corners[(i + 1) % corners.Count].At;
            if (from == to) continue;
            if (bulge == 0)
            {
                segments.Add(Segment.Straight(to));
                continue;
            }
            // The bulge is the tangent of a quarter of the angle; positive turns from x towards y.
            var radius = from.DistanceTo(to) * (1 + bulge * bulge) / (4 * Math.Abs(bulge));
            segments.AddRange(EllipticArc.FromEndpoints(from, radius, radius, 0, Math.Abs(bulge) > 1, bulge > 0, to));
        }
        return segments.Count == 0 ? null : new Path(corners[0].At, segments.ToImmutable(), closed);
    }

    public static List<(Point At, double Bulge)> Corners(DxfEntity e)
    {
        var corners = new List<(Point, double)>();
        for (var i = 0; i < e.Tags.Count; i++)
        {
            if (e.Tags[i].Code == 10) corners.Add((new Point(e.Tags[i].Number, i + 1 < e.Tags.Count && e.Tags[i + 1].Code == 20 ? e.Tags[i + 1].Number : 0), 0));
            else if (e.Tags[i].Code == 42 && corners.Count > 0) corners[^1] = (corners[^1].Item1, e.Tags[i].Number);
        }
        return corners;
    }

    public static Path? Straight(IReadOnlyList<Point> points, bool closed) =>
        points.Count < 2 || points.All(p => p == points[0]) ? null : Path.Polyline(points, closed);

    private static double Radians(double degrees) => degrees * Math.PI / 180;

    private static double Sweep(double begin, double end)
    {
        var sweep = (end - begin) % (2 * Math.PI);
        return sweep <= 1e-12 ? sweep + 2 * Math.PI : sweep;
    }
}
