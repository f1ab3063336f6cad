using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;

namespace Falzkunst.Core.Tests.Nesting;

public sealed class KeptRestTests
{
    private static readonly Design Design = new([Given.Piece("p1", 60, 40), Given.Piece("p2", 30, 30)], [], [], 3);
    private static readonly Borders Edge = new(5, 5, 5, 5);

    private static SheetLayout Sheet(params (string Piece, double X, double Y)[] at) => new(
        "chalk-200-1", "chalk-200", 1, "A5", 210, 148, Edge, [.. at.Select((p, i) => new Placement(p.Piece, i + 1, Affine.Move(p.X, p.Y)))]);

    [Fact]
    public void The_whole_rest_goes_round_the_pieces()
    {
        var rest = KeptRest.FreePart(Sheet(("p1", 5, 5)), Design, "Rest 1")!;
        // The corner with the piece and a millimetre is gone, and little more where corners are rounded.
        Assert.InRange(rest.Area, 210 * 148 - 66 * 46 - 10, 210 * 148 - 66 * 46 + 10);
        Assert.Equal(new Box(0, 0, 210, 148), rest.Outline.Bounds);
        Assert.Empty(rest.Holes);
    }

    [Fact]
    public void A_piece_in_the_middle_leaves_a_hole_in_which_nothing_lies_later()
    {
        var rest = KeptRest.FreePart(Sheet(("p1", 75, 54)), Design, "Rest 1")!;
        Assert.InRange(Math.Abs(Assert.Single(rest.Holes).SignedArea), 62 * 42 - 20, 62 * 42);
        var stock = Given.Stock("chalk-200") with { Sheets = [], Offcuts = [rest] };
        var design = new Design([Given.Piece("p1", 60, 40) with { Quantity = 9 }], [], [], 2);
        var job = PaperJobs.JobFor(design, stock, Given.Machine("twin-330"), 2, 1, null);
        var result = Nester.Nest(job, NestEffort.FirstAnswer, null, TestContext.Current.CancellationToken);
        FairCheck.Demand(job, result);
        Assert.InRange(result.Sheets.Single().Placements.Length, 4, 8);
    }

    [Fact]
    public void The_straight_rest_reaches_the_edge_of_the_sheet()
    {
        var rest = KeptRest.StraightPart(Sheet(("p1", 5, 5), ("p2", 67, 5)), Design, "Rest 1")!;
        Assert.Equal(210, rest.Outline.Bounds.Width, 6);
        Assert.InRange(rest.Outline.Bounds.Height, 148 - 45 - 2, 148 - 45);
    }

    [Fact]
    public void Crumbs_are_not_kept()
    {
        var design = new Design([Given.Piece("p1", 200, 130)], [], [], 2);
        Assert.Null(KeptRest.FreePart(Sheet(("p1", 5, 9)), design, "Rest 1"));
    }

    [Fact]
    public void An_offcut_is_used_before_a_new_sheet_and_no_piece_leaves_it()
    {
        // An L: the corner of a sheet is gone.
        var rest = KeptRest.FreePart(Sheet(("p1", 5, 5)), Design, "Rest 1")!;
        var stock = Given.Stock("chalk-200") with { Offcuts = [rest] };
        var machine = Given.Machine("twin-330");
        var placed = PaperPlacing.Place(Design with { Pieces = [.. Design.Pieces.Select(p => p with { Quantity = 4 })] }, [stock], machine, 2, 1, "x", NestEffort.FirstAnswer, "b");
        Assert.Equal("Rest 1", Assert.Single(placed.Sheets).SizeName);
        Assert.Equal(rest.Outline.Bounds, placed.Sheets[0].Outline!.Bounds);
        var layout = placed.ForStock("chalk-200", Design);
        FairCheck.Demand(PaperJobs.JobFor(Design, stock, machine, 2, 4, layout), PaperJobs.ResultOf(layout));
        // What is left of it then is a rest of the offcut's own shape.
        var next = KeptRest.FreePart(placed.Sheets[0], Design, "Rest 2")!;
        Assert.True(next.Area < rest.Area - 4 * 60 * 40);
        Assert.False(KeptRest.LargestRectangle(placed.Sheets[0], Design).Contains(new Point(20, 20)));
    }
}
