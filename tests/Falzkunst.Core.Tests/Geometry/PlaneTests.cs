using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class PlaneTests
{
    [Fact]
    public void A_map_and_its_inverse_lead_back() => Gen.Select(Given.Maps, Given.Points).ForAll((map, p) =>
        Assert.True(map.Inverse().Apply(map.Apply(p)).DistanceTo(p) < 1e-9));

    [Fact]
    public void Maps_are_carried_out_one_after_the_other() => Gen.Select(Given.Maps, Given.Maps, Given.Points).ForAll((a, b, p) =>
        Assert.True(a.Then(b).Apply(p).DistanceTo(b.Apply(a.Apply(p))) < 1e-9));

    [Fact]
    public void Quarter_turns_are_exact_and_clockwise_on_screen()
    {
        Assert.Equal(new Point(0, 1), Affine.Turn(90).Apply(new Point(1, 0)));
        Assert.Equal(Affine.Identity, Affine.Turn(360));
        Assert.Equal(Affine.Turn(90), Affine.Turn(-270));
    }

    [Fact]
    public void A_flattening_map_has_no_inverse() => Assert.Throws<InvalidOperationException>(() => Affine.Scale(1, 0).Inverse());

    [Fact]
    public void The_box_tree_finds_what_a_plain_search_finds()
    {
        var boxes = (from a in Given.Points from w in Gen.Double[0, 60] from h in Gen.Double[0, 60] select new Box(a.X, a.Y, a.X + w, a.Y + h)).Array[0, 200];
        Gen.Select(boxes, Given.Points, Gen.Double[0, 100]).ForAll((all, at, size) =>
        {
            var query = new Box(at.X, at.Y, at.X + size, at.Y + size);
            var expected = Enumerable.Range(0, all.Length).Where(i => all[i].Overlaps(query));
            Assert.Equal(expected, new BoxTree(all).Meeting(query).Order());
        });
    }

    [Fact]
    public void The_region_index_agrees_with_looking_at_every_edge()
    {
        var rings = Given.Points.Array[0, 40].Array[1, 4];
        Gen.Select(rings, Given.Points, Gen.Double[0.01, 20]).ForAll((all, p, near) =>
        {
            var index = new RegionIndex(all);
            // On an edge either answer will do.
            if (!all.Any(ring => ring.Length > 0 && Polygons.DistanceToRing(ring, p) < 1e-9))
                Assert.Equal(all.Aggregate(false, (inside, ring) => inside ^ Polygons.Contains(ring, p)), index.Contains(p));
            Assert.Equal(all.Any(ring => ring.Length > 0 && Polygons.DistanceToRing(ring, p) <= near), index.IsNearEdge(p, near));
        });
    }

    [Fact]
    public void An_interior_point_lies_inside() => Given.Points.Array[3, 30].ForAll(ring =>
    {
        // Slivers thinner than rounding have no inside that a double could name.
        if (Polygons.InteriorPoint(ring) is { } inside) Assert.True(Polygons.Contains(ring, inside) || Math.Abs(Polygons.SignedArea(ring)) < 1e-6);
        else Assert.True(Math.Abs(Polygons.SignedArea(ring)) < 1);
    });

    [Fact]
    public void Midpoints_are_evenly_spread_along_a_line()
    {
        var points = Sampling.Midpoints(Given.Straight(0, 0, 10, 0), step: 1, most: 400);
        Assert.Equal(Enumerable.Range(0, 10).Select(i => i + 0.5), points.Select(p => Math.Round(p.X, 9)));
    }
}
