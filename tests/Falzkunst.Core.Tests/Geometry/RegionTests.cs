using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class RegionTests
{
    [Fact]
    public void Grown_by_tangents_edges_move_exactly_and_nothing_of_the_true_shape_is_left_out() =>
        (from corners in Gen.Int[3, 9].SelectMany(n => Gen.Select(Gen.Double[5, 40], Gen.Double[0, 1]).Array[n])
         from distance in Gen.Double[0.3, 3]
         select (corners, distance))
        .ForAll(drawn =>
        {
            // Corners about the origin in the order of their angle.
            var ring = drawn.corners.Select((c, i) => (c.Item1, Angle: 2 * Math.PI * (i + 0.9 * c.Item2) / drawn.corners.Length))
                .Select(c => new Point(c.Item1 * Math.Cos(c.Angle), c.Item1 * Math.Sin(c.Angle))).ToArray();
            var outline = Region.FromRings(ring, []).Grow(drawn.distance, Corners.Tangent, 3).Rings.MaxBy(r => Math.Abs(Polygons.SignedArea(r)))!;
            for (int i = 0, j = outline.Length - 1; i < outline.Length; j = i++)
            {
                // No edge comes nearer than the distance, no corner is farther than a tangent's end.
                for (var k = 0; k <= 4; k++) Assert.True(Polygons.DistanceToRing(ring, Point.Lerp(outline[j], outline[i], k / 4.0)) >= drawn.distance * 0.999 - 1e-6);
                Assert.True(Polygons.DistanceToRing(ring, outline[i]) <= drawn.distance / Math.Cos(Math.PI / 12) + 1e-4);
            }
        }, iter: 300);
}
