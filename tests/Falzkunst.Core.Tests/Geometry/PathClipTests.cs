using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class PathClipTests
{
    [Fact]
    public void A_line_across_a_square_falls_into_three_parts_that_end_at_its_edges()
    {
        var parts = PathClip.Parts(Given.Straight(-10, 5, 30, 5), p => p.X is > 0 and < 20);
        Assert.Equal([false, true, false], parts.Select(p => p.Inside));
        Assert.Equal(20, parts[1].Part.Length, 6);
        Assert.Equal(0, parts[1].Part.Start.X, 6);
    }

    [Fact]
    public void A_closed_line_is_cut_only_at_the_edge_and_not_at_its_start()
    {
        var circle = EllipticArc.Ellipse(new(0, 0), 10, 10);
        var parts = PathClip.Parts(circle, p => p.X > 3);
        Assert.Equal(2, parts.Count);
        Assert.Equal(circle.Length, parts.Sum(p => p.Part.Length), 2);
        Assert.Same(circle, Assert.Single(PathClip.Parts(circle, _ => true)).Part);
    }

    [Fact]
    public void Parts_take_turns_and_make_up_the_whole() => Gen.Select(Given.Paths, Gen.Double[-150, 150]).ForAll((path, edge) =>
    {
        var parts = PathClip.Parts(path, p => p.X < edge);
        Assert.True(Math.Abs(parts.Sum(p => p.Part.Length) - path.Length) < 0.05 * parts.Count + 1e-4 * path.Length);
        for (var i = 1; i < parts.Count; i++)
        {
            Assert.NotEqual(parts[i - 1].Inside, parts[i].Inside);
            Assert.Equal(parts[i - 1].Part.End, parts[i].Part.Start);
        }
    });
}
