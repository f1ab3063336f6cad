using CsCheck;
using Falzkunst.Core.Geometry;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Geometry;

public sealed class PathNodesTests
{
    private static readonly Gen<(Path Path, int Node)> PathAndNode =
        from path in Given.Paths.Select(PathNodes.WrittenOut) from node in Gen.Int[0, PathNodes.Count(path) - 1] select (path, node);

    [Fact]
    public void A_node_moved_there_and_back_changes_nothing() => Gen.Select(PathAndNode, Given.Points).ForAll((at, to) =>
    {
        var there = PathNodes.Move(at.Path, at.Node, to);
        Assert.Equal(to, PathNodes.At(there, at.Node));
        if (there.IsClosed) Assert.Equal(there.Start, there.End);
        Near(at.Path, PathNodes.Move(there, at.Node, PathNodes.At(at.Path, at.Node)));
    });

    [Fact]
    public void A_further_node_lies_on_the_line_and_leaves_its_course_as_it_was() => Gen.Select(PathAndNode, Gen.Double[0.05, 0.95]).ForAll((at, t) =>
    {
        var segment = Math.Min(at.Node, at.Path.Segments.Length - 1);
        var more = PathNodes.Insert(at.Path, segment, t);
        Assert.Equal(PathNodes.Count(at.Path) + 1, PathNodes.Count(more));
        var from = PathNodes.At(at.Path, segment);
        for (var share = 0.1; share < 1; share += 0.2)
        {
            var before = at.Path.Segments[segment].At(from, t * share);
            Assert.True(before.DistanceTo(more.Segments[segment].At(from, share)) < 1e-9);
        }
        Assert.Equal(at.Path.End, more.End);
    });

    [Fact]
    public void A_line_without_one_of_its_nodes_is_one_shorter_and_as_closed_as_before() => PathAndNode.ForAll(at =>
    {
        var count = PathNodes.Count(at.Path);
        var less = PathNodes.Delete(at.Path, at.Node);
        Assert.Equal(count <= (at.Path.IsClosed ? 3 : 2), less is null);
        if (less is null) return;
        Assert.Equal(count - 1, PathNodes.Count(less));
        Assert.Equal(at.Path.IsClosed, less.IsClosed);
        if (less.IsClosed) Assert.Equal(less.Start, less.End);
        var left = Enumerable.Range(0, count).Where(i => i != at.Node).Select(i => PathNodes.At(at.Path, i));
        Assert.Equal(left.Order(ByPlace), Enumerable.Range(0, count - 1).Select(i => PathNodes.At(less, i)).Order(ByPlace));
    });

    [Fact]
    public void A_smooth_node_has_no_corner_and_a_corner_has_handles_towards_its_neighbours()
    {
        var square = PathNodes.WrittenOut(Path.Rectangle(0, 0, 30, 30));
        var smooth = PathNodes.Smooth(square, 1);
        var (into, away) = (smooth.Segments[0].Handle2, smooth.Segments[1].Handle1);
        Assert.True(smooth.Segments[0].IsCubic && smooth.Segments[1].IsCubic);
        Assert.Equal(0, (away - smooth.Segments[0].End).Cross(smooth.Segments[0].End - into), 9);
        var corner = PathNodes.Corner(smooth, 1);
        Assert.Equal(0, (corner.Segments[0].Handle2 - corner.Segments[0].End).Cross(corner.Start - corner.Segments[0].End), 9);
        Near(square, PathNodes.Corner(square, 2));
    }

    private static readonly IComparer<Point> ByPlace = Comparer<Point>.Create((a, b) => (a.X, a.Y).CompareTo((b.X, b.Y)));

    private static void Near(Path a, Path b)
    {
        Assert.Equal(a.Segments.Length, b.Segments.Length);
        Assert.All(a.Segments.Zip(b.Segments), s => Assert.True(
            s.First.End.DistanceTo(s.Second.End) < 1e-9 && s.First.Handle1.DistanceTo(s.Second.Handle1) < 1e-9 && s.First.Handle2.DistanceTo(s.Second.Handle2) < 1e-9));
    }
}
