using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>
/// Splines (NURBS, evaluated by de Boor's algorithm in homogeneous coordinates; Piegl and Tiller, The NURBS Book, 1997) as
/// cubics: between two knots, Hermite cubics from points and tangents, halved until they keep to the curve.
/// </summary>
internal static class DxfSpline
{
    private const int MostDegree = 11;
    private const int MostHalvings = 10;

    /// <summary>De Boor's algorithm runs a dozen times for a segment.</summary>
    private const int WorkOfSegment = 1500;

    /// <summary>The spline as a path in drawing units; null where its data do not make one.</summary>
    /// <param name="e">The entity.</param>
    /// <param name="tolerance">Largest distance between cubics and spline, drawing units.</param>
    /// <param name="budget">Every segment is drawn from it.</param>
    public static Path? Read(DxfEntity e, double tolerance, Budget budget)
    {
        var control = e.Points(10);
        var closed = (e.Integer(70) & 1) != 0;
        if (control.Count == 0) return ThroughPoints(e.Points(11), closed);
        var (degree, knots, weights) = (e.Integer(71), e.Numbers(40), e.Numbers(41));
        if (degree is < 1 or > MostDegree || control.Count <= degree || knots.Count != control.Count + degree + 1) return null;
        for (var i = 1; i < knots.Count; i++)
        {
            if (knots[i] < knots[i - 1]) return null;
        }
        if (weights.Count != control.Count || weights.Exists(w => w <= 0)) weights = [.. control.Select(_ => 1.0)];
        var curve = new Curve(degree, control, weights, knots);
        var segments = ImmutableArray.CreateBuilder<Segment>();
        for (var span = degree; span < control.Count; span++)
        {
            if (knots[span + 1] > knots[span]) Add(curve, span, knots[span], knots[span + 1], tolerance, MostHalvings, segments, budget);
        }
        if (segments.Count == 0) return null;
        var start = curve.At(degree, knots[degree]);
        return new Path(start, segments.ToImmutable(), closed && start.DistanceTo(segments[^1].End) <= Math.Max(tolerance, 1e-9));
    }

    private static void Add(
        Curve curve, int span, double from, double to, double tolerance, int halvings, ImmutableArray<Segment>.Builder into, Budget budget)
    {
        budget.Segments(1);
        budget.Work(WorkOfSegment);
        var (p0, p3) = (curve.At(span, from), curve.At(span, to));
        var third = (to - from) / 3;
        var cubic = Segment.Cubic(p0 + curve.Slope(span, from) * third, p3 - curve.Slope(span, to) * third, p3);
        var keeps = true;
        for (var i = 1; i < 8 && keeps; i++) keeps = cubic.At(p0, i / 8.0).DistanceTo(curve.At(span, from + (to - from) * i / 8)) <= tolerance;
        if (keeps || halvings == 0)
        {
            into.Add(cubic);
            return;
        }
        var middle = (from + to) / 2;
        Add(curve, span, from, middle, tolerance, halvings - 1, into, budget);
        Add(curve, span, middle, to, tolerance, halvings - 1, into, budget);
    }

    // Splines stored by the points they pass alone: cubics with the slope of the neighbours' chord (Catmull and Rom 1974).
    private static Path? ThroughPoints(List<Point> points, bool closed)
    {
        if (points.Count < 2) return null;
        Point Slope(int i)
        {
            var before = i > 0 ? points[i - 1] : closed ? points[^2] : points[i];
            var after = i + 1 < points.Count ? points[i + 1] : closed ? points[1] : points[i];
            return (after - before) * 0.5;
        }
        return new Path(points[0],
            [.. Enumerable.Range(1, points.Count - 1).Select(i => Segment.Cubic(points[i - 1] + Slope(i - 1) * (1 / 3.0), points[i] - Slope(i) * (1 / 3.0), points[i]))],
            closed && points[0] == points[^1]);
    }

    private sealed class Curve(int degree, List<Point> control, List<double> weights, List<double> knots)
    {
        public Point At(int span, double t)
        {
            var (p, w) = DeBoor(span, t, degree, [.. Enumerable.Range(span - degree, degree + 1).Select(i => (control[i] * weights[i], weights[i]))], 0);
            return p * (1 / w);
        }

        /// <summary>The first derivative, by the quotient rule on the homogeneous curve.</summary>
        public Point Slope(int span, double t)
        {
            var (p, w) = DeBoor(span, t, degree, [.. Enumerable.Range(span - degree, degree + 1).Select(i => (control[i] * weights[i], weights[i]))], 0);
            var differences = new (Point, double)[degree];
            for (var i = 0; i < degree; i++)
            {
                var at = span - degree + i;
                var k = degree / (knots[at + degree + 1] - knots[at + 1]);
                differences[i] = ((control[at + 1] * weights[at + 1] - control[at] * weights[at]) * k, (weights[at + 1] - weights[at]) * k);
            }
            var (dp, dw) = DeBoor(span, t, degree - 1, differences, 1);
            return (dp - p * (dw / w)) * (1 / w);
        }

        // shift: the knots of the derivative are those of the curve without the first and the last.
        private (Point P, double W) DeBoor(int span, double t, int p, (Point P, double W)[] d, int shift)
        {
            for (var r = 1; r <= p; r++)
            {
                for (var j = p; j >= r; j--)
                {
                    var low = knots[j + span - degree + shift];
                    var high = knots[j + 1 + span - r];
                    var a = high > low ? (t - low) / (high - low) : 0;
                    d[j] = (d[j - 1].P * (1 - a) + d[j].P * a, d[j - 1].W * (1 - a) + d[j].W * a);
                }
            }
            return d[p];
        }
    }
}
