using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Jigsaw;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Tests.Nesting;

/// <summary>Laying a board as a jigsaw, on its grid and altogether.</summary>
public sealed class JigsawTests
{
    private static NestPiece Part(string id, params Point[] corners) => new(id, Path.Polyline(corners, closed: true), 1) { Turns = Turns.None };

    /// <summary>A sheet parted into three by a slanted cut and a step.</summary>
    private static NestJob Parted() => new(
        [new NestSheet("s", 100.4, 80.4, new Borders(0, 0, 0, 0), 2)],
        [
            Part("right", new(60, 0), new(100, 0), new(100, 80), new(40, 80)),
            Part("upper", new(0, 0), new(60, 0), new(52.5, 30), new(0, 30)),
            Part("lower", new(0, 30), new(52.5, 30), new(40, 80), new(0, 80)),
        ], 0);

    [Fact]
    public void Parts_of_a_sheet_find_back_together()
    {
        var task = new NestTask(Parted());
        var arrangement = new Arrangement(task);
        Assert.True(JigsawSearch.Suits(task, 0, task.Copies.Sum(c => c.Kind.SpacedArea)));
        var poses = new JigsawSearch(arrangement, 0, Dice.For(1, 0)).Try(width: 20, noise: 0, () => false);
        Assert.NotNull(poses);
        Assert.All(poses, p => Assert.Equal(0, p.Board));
        // Each lies where it was cut from, but for the slack.
        for (var i = 0; i < poses.Length; i++)
            Assert.True(task.Copies[i].Kind.Middle.DistanceTo(new Point(poses[i].X, poses[i].Y)) < 1.2, $"{task.Copies[i].Kind.Piece.Id} lies at {poses[i].X}, {poses[i].Y}");
    }

    [Fact]
    public void It_ends_at_once_when_it_is_told_to() =>
        Assert.Null(new JigsawSearch(new Arrangement(new NestTask(Parted())), 0, Dice.For(1, 0)).Try(20, 0, () => true));

    [Fact]
    public void Roomy_boards_and_many_ways_to_turn_are_no_jigsaws()
    {
        var roomy = new NestTask(Parted() with { Sheets = [new NestSheet("s", 200, 200, new Borders(0, 0, 0, 0), 1)] });
        Assert.False(JigsawSearch.Suits(roomy, 0, roomy.Copies.Sum(c => c.Kind.SpacedArea)));
        var free = new NestTask(Parted() with { Pieces = [.. Parted().Pieces.Select(p => p with { Turns = Turns.Free })] });
        Assert.False(JigsawSearch.Suits(free, 0, free.Copies.Sum(c => c.Kind.SpacedArea)));
    }

    [Fact]
    public void The_first_free_spot_of_an_empty_board_is_its_corner_and_what_is_laid_takes_it()
    {
        var grid = new JigsawGrid(new Box(0, 0, 60, 40), smallestArea: 25);
        var kind = new PieceKind(Part("a", new(0, 0), new(60, 0), new(60, 20), new(0, 20)), 0, 0);
        var empty = grid.Empty();
        var (corner, lost) = grid.FirstFree(empty);
        Assert.Equal(0, lost);
        var stamp = grid.StampOf(kind, 0);
        Assert.Contains(stamp.Anchors, a => grid.MayLie(empty, stamp, corner!.Value, a));
        var laid = grid.With(empty, stamp, new Point(30, 10));
        var (next, _) = grid.FirstFree(laid);
        // About 20 mm farther down, and shorter all round than before.
        Assert.InRange((next!.Value.Row - corner!.Value.Row) * JigsawGrid.Cell, 19, 22);
        Assert.True(grid.Edge(laid) < grid.Edge(empty));
        Assert.DoesNotContain(stamp.Anchors, a => grid.MayLie(laid, stamp, corner.Value, a));
    }

    [Fact]
    public void What_no_copy_fits_into_is_lost_and_counted()
    {
        var grid = new JigsawGrid(new Box(0, 0, 60, 40), smallestArea: 400);
        var kind = new PieceKind(Part("a", new(0, 0), new(60, 0), new(60, 34), new(0, 34)), 0, 0);
        var laid = grid.With(grid.Empty(), grid.StampOf(kind, 0), new Point(30, 17));
        var (spot, lost) = grid.FirstFree(laid);
        Assert.Null(spot);
        Assert.InRange(lost * JigsawGrid.Cell * JigsawGrid.Cell, 150, 60 * 6);
    }
}
