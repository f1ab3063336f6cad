using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Designs;

/// <summary>What of a piece is paper, whatever tool or hand follows its lines.</summary>
public sealed class PaperTests
{
    private const double Cell = 20;

    /// <summary>A line in a cell of its own: what it is for and how it is worked, closed or open.</summary>
    private static readonly Gen<(Operation Operation, LineSettings? Settings, Path Path)> InCell =
        from operation in Gen.Int[0, OperationWords.Choices.Count - 1].Select(i => OperationWords.Choices[i])
        from half in Gen.Bool
        from leftOut in Gen.Frequency((4, Gen.Const(false)), (1, Gen.Const(true)))
        from kind in Gen.Int[0, 2]
        from size in Gen.Double[3, 8]
        from turn in Gen.Double[0, 360]
        select (operation, half || leftOut ? new LineSettings { HalfCut = half && operation == Operation.Cut, LeftOut = leftOut } : null,
            kind switch
            {
                0 => EllipticArc.Ellipse(new(0, 0), size, size / 2),
                1 => Path.Rectangle(-size / 2, -size / 2, size, size),
                _ => Given.Straight(-size, 0, size, 0),
            } is var path ? path.Map(Affine.Turn(turn)) : path);

    /// <summary>A plate of cells under any outline operation.</summary>
    private static readonly Gen<Piece> Plates =
        from cells in InCell.Array[1, 16]
        from outline in Gen.Int[0, OperationWords.Choices.Count - 1].Select(i => OperationWords.Choices[i])
        let lines = cells.Select((c, i) => Given.Line(c.Path.Map(Affine.Move((i % 4 + 0.5) * Cell, (i / 4 + 0.5) * Cell)), c.Operation) with { Settings = c.Settings })
        let plate = Given.Piece("p1", 4 * Cell, 4 * Cell, [.. lines])
        select plate with { Outline = plate.Outline with { Operation = outline } };

    private static bool FallsOut(Line line) => line.Path.IsClosed && line.Operation == Operation.Cut && line.Settings is not ({ HalfCut: true } or { LeftOut: true });

    [Fact]
    public void Its_area_is_the_outline_less_inner_rings_that_are_cut_through() => Plates.ForAll(plate =>
    {
        var expected = 16 * Cell * Cell - plate.Lines.Skip(1).Where(FallsOut).Sum(l => Math.Abs(l.Path.SignedArea));
        Assert.Equal(expected, plate.Area, 6);
    });

    [Fact]
    public void Nesting_rings_roles_and_points_agree_with_it() => Gen.Select(Plates, Gen.Double[0.01, 4 * Cell - 0.01], Gen.Double[0.01, 4 * Cell - 0.01]).ForAll((plate, x, y) =>
    {
        var job = PaperJobs.JobFor(Given.ProjectOf(plate).Design, Given.Stock("chalk-200"), Given.Machine("twin-330"), 2, 1, null);
        Assert.Equal(plate.Area, job.Pieces[0].Area, 6);
        var byRings = plate.Paper.Rings.Skip(1).Sum(r => Math.Abs(r.SignedArea));
        Assert.Equal(16 * Cell * Cell - plate.Area, byRings, 6);
        Assert.Equal(plate.Paper.Rings, plate.RingLines.Select(l => l.Path));
        Assert.Equal(plate.Lines.Where(l => plate.RoleOf(l) == LineRole.Opening).Select(l => l.Id).Order(), plate.RingLines.Skip(1).Select(l => l.Id).Order());
        // A point is on paper where no ring that falls out holds it.
        var at = new Point(x, y);
        var rings = plate.Lines.Skip(1).Where(FallsOut).Select(l => new RegionIndex([l.Path.Flat.ToArray()])).ToList();
        Assert.Equal(!rings.Exists(r => r.Contains(at)), plate.Paper.Holds(at));
    });

    [Fact]
    public void Openings_that_cross_each_other_or_the_edge_are_not_counted_twice()
    {
        var plate = Given.Piece("p1", 100, 100,
            Given.Line(Path.Rectangle(10, 10, 40, 40), Operation.Cut), Given.Line(Path.Rectangle(30, 30, 40, 40), Operation.Cut), Given.Line(Path.Rectangle(80, 80, 40, 40), Operation.Cut));
        Assert.Equal(10_000 - (1600 + 1600 - 400) - 400, plate.Area, 6);
        Assert.False(plate.Paper.Holds(new(40, 40)));
    }

    [Theory]
    [InlineData(Operation.Draw)]
    [InlineData(Operation.Foil)]
    [InlineData(Operation.Emboss)]
    [InlineData(Operation.Print)]
    [InlineData(Operation.Aid)]
    [InlineData(Operation.Score)]
    [InlineData(Operation.Perforate)]
    public void An_inner_closed_line_set_to_another_operation_leaves_paper_at_once(Operation operation)
    {
        var project = Given.ProjectOf(Given.Piece("p1", 100, 80, Given.Line(Path.Rectangle(20, 20, 40, 40), Operation.Cut)));
        Assert.Equal(8000 - 1600, project.Design.Pieces[0].Area, 6);
        var after = Edits.Apply(project, new SetOperation([new("p1", ["l2"])], operation), Given.Drawer).Design.Pieces[0];
        Assert.Equal(8000, after.Area, 6);
        Assert.Single(after.Paper.Rings);
        Assert.Equal(8000, PaperJobs.JobFor(new Design([after], [], [], 2), Given.Stock("chalk-200"), Given.Machine("twin-330"), 2, 1, null).Pieces[0].Area, 6);
        var back = Edits.Apply(Edits.Apply(project, new SetOperation([new("p1", ["l2"])], operation), Given.Drawer), new SetOperation([new("p1", ["l2"])], Operation.Cut), Given.Drawer);
        Assert.Equal(8000 - 1600, back.Design.Pieces[0].Area, 6);
    }

    [Fact]
    public void A_half_cut_leaves_paper_and_an_outline_bounds_it_whatever_follows_it()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 100, 80, Given.Line(Path.Rectangle(20, 20, 40, 40), Operation.Cut)));
        var half = Edits.Apply(project, new ChangeLineSettings([new("p1", ["l2"])], [LineSettingsPart.HalfCut], new LineSettings { HalfCut = true }), Given.Drawer);
        Assert.Equal(8000, half.Design.Pieces[0].Area, 6);
        var drawn = Edits.Apply(project, new SetOperation([new("p1", ["l1"])], Operation.Draw), Given.Drawer);
        Assert.Equal(8000 - 1600, drawn.Design.Pieces[0].Area, 6);
    }
}
