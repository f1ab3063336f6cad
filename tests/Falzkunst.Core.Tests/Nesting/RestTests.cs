using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Nesting;

public sealed class RestTests
{
    [Fact]
    public void The_rest_beside_a_piece_is_told()
    {
        Assert.Equal(new Box(0, 60, 200, 150), Rest.Largest(new Box(0, 0, 200, 150), [Path.Rectangle(10, 10, 100, 49.5)]));
        Assert.Equal(new Box(5, 5, 105, 95), Rest.Largest(new Box(5, 5, 105, 95), []));
        Assert.Equal(0, Rest.Largest(new Box(0, 0, 50, 50), [Path.Rectangle(-1, -1, 60, 60)]).Area);
    }

    [Fact]
    public void No_piece_reaches_into_the_rest_and_no_larger_upright_one_is_found_by_trying() =>
        (from boxes in (from x in Gen.Int[0, 25] from y in Gen.Int[0, 25] from w in Gen.Int[1, 9] from h in Gen.Int[1, 9] select new Box(x, y, x + w, y + h)).Array[0, 8] select boxes)
        .ForAll(boxes =>
        {
            var rest = Rest.Largest(new Box(0, 0, 30, 30), boxes.Select(b => Path.Rectangle(b.MinX + 0.01, b.MinY + 0.01, b.Width - 0.02, b.Height - 0.02)));
            Assert.All(boxes, b => Assert.False(Meets(b, rest)));
            double best = 0;
            for (var x = 0; x < 30; x++) for (var y = 0; y < 30; y++) for (var r = x + 1; r <= 30; r++) for (var b = y + 1; b <= 30; b++)
                if ((r - x) * (b - y) > best && !boxes.Any(o => Meets(o, new Box(x, y, r, b)))) best = (r - x) * (b - y);
            Assert.Equal(best, rest.Area, 6);

            static bool Meets(Box a, Box b) => a.MinX < b.MaxX && b.MinX < a.MaxX && a.MinY < b.MaxY && b.MinY < a.MaxY;
        }, iter: 60);
}
