using CsCheck;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

/// <summary>Areas read even-odd, against the count of rings about each of many points.</summary>
public sealed class EvenOddTests
{
    private static readonly Gen<Path> Rings = Gen.OneOf(
        from x in Gen.Int[0, 12] from y in Gen.Int[0, 12] from w in Gen.Int[1, 9] from h in Gen.Int[1, 9] select Path.Rectangle(x, y, w, h),
        from x in Gen.Double[0, 20] from y in Gen.Double[0, 20] from r in Gen.Double[0.5, 8] select EllipticArc.Ellipse(new Point(x, y), r, r),
        from corners in Gen.Select(Gen.Double[0, 20], Gen.Double[0, 20]).Array[3, 7] select Path.Polyline([.. corners.Select(c => new Point(c.Item1, c.Item2))], closed: true));

    [Fact]
    public void A_point_is_in_the_area_where_an_odd_number_of_rings_goes_round_it() => Rings.Array[1, 12].ForAll(rings =>
    {
        // Rings on whole numbers touch in corners and edges, and repeat each other.
        var area = Region.EvenOdd(rings);
        var flat = rings.Select(r => r.Flat.ToArray()).ToList();
        for (var x = -0.37; x < 30; x += 0.73)
        {
            for (var y = -0.41; y < 30; y += 0.79)
            {
                var p = new Point(x, y);
                if (flat.Exists(r => Polygons.DistanceToRing(r, p) < 1e-3)) continue;
                Assert.Equal(Polygons.Contains(flat, p), area.Contains(p));
            }
        }
    }, iter: 150);

    [Fact]
    public void Nested_beside_each_other_and_touching_rings_have_the_area_that_they_are_known_to_have()
    {
        var nest = Enumerable.Range(0, 40).Select(i => Path.Rectangle(i, i, 100 - 2 * i, 100 - 2 * i)).ToList();
        Assert.Equal(Enumerable.Range(0, 40).Sum(i => (i % 2 == 0 ? 1 : -1) * Math.Pow(100 - 2 * i, 2)), Region.EvenOdd(nest).Area, 6);
        // A hole whose corner touches the frame, and one in it that touches that.
        Path[] touching = [Path.Rectangle(0, 0, 10, 10), Path.Polyline([new(5, 0), new(8, 4), new(5, 8), new(2, 4)], true), Path.Polyline([new(5, 0), new(6, 4), new(5, 6), new(4, 4)], true)];
        Assert.Equal(100 - 24 + 6, Region.EvenOdd(touching).Area, 6);
        Assert.True(Region.EvenOdd([Path.Rectangle(0, 0, 5, 5), Path.Rectangle(0, 0, 5, 5)]).IsEmpty);
        Assert.Equal(50, Region.EvenOdd([Path.Rectangle(0, 0, 5, 5), Path.Rectangle(5, 0, 5, 5)]).Area, 6);
    }

    [Fact]
    public void Thousands_of_rings_take_work_by_their_number_and_not_by_its_square()
    {
        long WorkOf(int count)
        {
            var side = (int)Math.Ceiling(Math.Sqrt(count));
            var budget = new Budget(Budget.Unlimited.Limits with { Work = long.MaxValue - 1 });
            Region.EvenOdd(Enumerable.Range(0, count).Select(i => EllipticArc.Ellipse(new Point(i % side * 4, i / side * 4), 1.5, 1.5)), budget);
            return budget.WorkDone;
        }
        Assert.InRange(WorkOf(2000) / (double)WorkOf(500), 3, 5);
        var chained = Enumerable.Range(0, 3000).Select(i => EllipticArc.Ellipse(new Point(i % 50, i / 50), 0.9, 0.9)).ToList();
        Assert.Throws<BudgetSpent>(() => Region.EvenOdd(chained, Budget.OfWork(1_000_000)));
    }
}
