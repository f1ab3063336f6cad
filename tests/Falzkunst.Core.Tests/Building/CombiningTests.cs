using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Building;

/// <summary>Pieces made one, with all that lies on them.</summary>
public sealed class CombiningTests
{
    /// <summary>A strip with a score across it, and a square over its right end with a drawn line.</summary>
    private static readonly Project Two = Given.ProjectOf(
        Given.Piece("p1", 60, 20, Given.Line(Given.Straight(0, 10, 60, 10), Operation.Score)) with { Name = "Strip" },
        Given.Piece("p2", 20, 20, Given.Line(Given.Straight(2, 5, 18, 5), Operation.Draw)) with { Name = "Square", Stock = "kraft-240", Place = Affine.Move(50, -10) });

    private static Project Do(Project project, BenchAction action, Picked picked) => Edits.Apply(project, action.For(new BenchContext(project, picked, Given.Drawer)), Given.Drawer);

    private static Project Do(Project project, BenchAction action, params string[] pieces) => Do(project, action, Picked.OfPieces([.. pieces]));

    private static Reason Refused(Project project, BenchAction action, Picked picked) => Assert.Throws<EditRefused>(() => Do(project, action, picked)).Reason;

    private static IEnumerable<Line> Of(Piece piece, Operation operation) => piece.Lines.Where(l => l.Operation == operation);

    [Fact]
    public void United_the_lower_one_keeps_stock_and_name_and_has_the_lines_of_both()
    {
        var piece = Assert.Single(Do(Two, new CombineAction(Combination.Unite), "p1", "p2").Design.Pieces);
        Assert.Equal(("p1", "Strip", "chalk-200"), (piece.Id, piece.Name, piece.Stock));
        Assert.Equal(1200 + 400 - 100, piece.Area, 1e-6);
        Assert.Equal(60, Assert.Single(Of(piece, Operation.Score)).Path.Length, 1e-6);
        var drawn = Assert.Single(Of(piece, Operation.Draw));
        Assert.Equal(new Point(52, -5), piece.Place.Apply(drawn.Path.Start));
        var other = Assert.Single(Do(Two, new CombineAction(Combination.Unite, "p2"), "p1", "p2").Design.Pieces);
        Assert.Equal(("p2", "Square", "kraft-240"), (other.Id, other.Name, other.Stock));
    }

    [Fact]
    public void Taken_out_lines_end_at_the_new_edge_and_what_cut_goes_or_stays()
    {
        var project = Do(Two, new CombineAction(Combination.Subtract), "p1", "p2");
        var piece = Assert.Single(project.Design.Pieces);
        Assert.Equal(1100, piece.Area, 1e-6);
        // At the height of the score the square ends: the score goes on to its edge.
        Assert.Equal(60, Of(piece, Operation.Score).Sum(l => l.Path.Length), 0.05);
        var cut = Do(Do(Two, new MoveAction(0, 5), "p2"), new CombineAction(Combination.Subtract, Others: WhatCuts.Stays), "p1", "p2");
        Assert.Equal(["p1", "p2"], cut.Design.Pieces.Select(p => p.Id));
        Assert.Equal(50, Of(cut.Design.Require("p1"), Operation.Score).Sum(l => l.Path.Length), 0.05);
        Assert.Empty(Of(cut.Design.Require("p1"), Operation.Draw));
    }

    [Fact]
    public void Something_parted_becomes_several_pieces_with_their_lines()
    {
        var bar = Two with { Design = Two.Design.With("p2", p => p with { Place = Affine.Move(20, -5), Outline = p.Outline with { Path = Path.Rectangle(0, 0, 10, 40) } }) };
        var project = Do(bar, new CombineAction(Combination.Subtract), "p1", "p2");
        Assert.Equal(2, project.Design.Pieces.Length);
        Assert.Equal([600, 400], project.Design.Pieces.Select(p => Math.Round(p.Area, 6)).OrderDescending());
        Assert.All(project.Design.Pieces, p => Assert.Single(Of(p, Operation.Score)));
    }

    [Fact]
    public void What_they_share_and_what_is_cut_to_another_shape()
    {
        var shared = Assert.Single(Do(Two, new CombineAction(Combination.Intersect), "p1", "p2").Design.Pieces);
        Assert.Equal(100, shared.Area, 1e-6);
        var cropped = Do(Two, new CropAction(), "p1", "p2").Design;
        Assert.Equal([100, 400], cropped.Pieces.Select(p => Math.Round(p.Area, 6)));
        var apart = Do(Two, new MoveAction(100, 100), "p2");
        Assert.Equal(Reason.NothingInCommon, Refused(apart, new CombineAction(Combination.Intersect), Picked.OfPieces("p1", "p2")));
        Assert.Equal(Reason.CombineTwo, Refused(Two, new CombineAction(Combination.Unite), Picked.OfPieces("p1")));
    }

    [Fact]
    public void Openings_stay_open_unless_another_piece_covers_them()
    {
        var holed = Given.ProjectOf(Given.Piece("p1", 60, 20, Given.Line(Path.Rectangle(5, 5, 10, 10), Operation.Cut), Given.Line(Path.Rectangle(45, 5, 10, 10), Operation.Cut)), Given.Piece("p2", 20, 20) with { Place = Affine.Move(42, 0) });
        var piece = Do(holed, new CombineAction(Combination.Unite), "p1", "p2").Design.Require("p1");
        Assert.Single(piece.Paper.Openings);
        Assert.Equal(62 * 20 - 100, piece.Area, 1e-6);
    }

    [Fact]
    public void Words_and_pictures_go_to_where_their_middle_lies_and_are_named_where_that_is_gone()
    {
        var written = Do(Two, new WriteAction("ab", Height: 4), "p2");
        var united = Do(written, new CombineAction(Combination.Unite), "p1", "p2").Design.Require("p1");
        Assert.Equal("ab", united.Items.OfType<TextItem>().Single().Words);
        var lost = Combining.Combine(Do(Two, new WriteAction("ab", Height: 4, X: 56, Y: 5), "p1").Design, Combination.Subtract, ["p1", "p2"], "p1", WhatCuts.Goes);
        Assert.Equal("“ab”", Assert.Single(lost.LostItems));
    }

    [Fact]
    public void Lines_of_a_piece_are_taken_out_of_it_united_with_it_or_are_all_that_is_kept()
    {
        var ring = Given.ProjectOf(Given.Piece("p1", 60, 20, Given.Line(Path.Rectangle(50, -5, 20, 10), Operation.Draw)));
        var line = Picked.OfLines("p1", "l2");
        Assert.Equal(1150, Do(ring, new CombineAction(Combination.Subtract), line).Design.Require("p1").Area, 1e-6);
        Assert.Equal(1200 + 150, Do(ring, new CombineAction(Combination.Unite), line).Design.Require("p1").Area, 1e-6);
        Assert.Equal(50, Do(ring, new CombineAction(Combination.Intersect), line).Design.Require("p1").Area, 1e-6);
        var open = Given.ProjectOf(Given.Piece("p1", 60, 20, Given.Line(Path.Polyline([new(5, 5), new(15, 5), new(15, 15), new(5, 15), new(5, 7)], closed: false), Operation.Cut)));
        Assert.Equal(Reason.LineOpen, Refused(open, new CombineAction(Combination.Subtract), line));
        // Joined end to end by what lacks, it goes on.
        Assert.Equal(2, LineEnds.GapToClose(open.Design.Require("p1").Lines)!.Value, 1e-9);
        var closed = Do(open, new JoinEndsAction(3), line);
        Assert.True(closed.Design.Require("p1").Find("l2")!.Path.IsClosed);
        Assert.Equal(1100, Do(closed, new CombineAction(Combination.Subtract), line).Design.Require("p1").Area, 1e-6);
    }

    [Fact]
    public void Parted_along_a_line_and_united_again_it_has_its_former_outline()
    {
        var curve = new Path(new(20, 2), [Segment.Cubic(new(40, 6), new(10, 12), new(30, 18))], closed: false);
        var outline = Geometry.PathAreasTests.Ellipse(30, 20);
        var project = Given.ProjectOf(Piece.FromLines("p1", "Egg", "chalk-200", Affine.Identity, [Given.Line(outline, Operation.Cut), Given.Line(curve.Map(Affine.Move(-20, -10)), Operation.Score)]));
        var parted = Do(project, new PartAction(), Picked.OfLines("p1", "l2"));
        Assert.Equal(2, parted.Design.Pieces.Length);
        Assert.Equal(project.Design.Pieces[0].Area, parted.Design.Pieces.Sum(p => p.Area), 0.2);
        var whole = Assert.Single(Do(parted, new CombineAction(Combination.Unite), [.. parted.Design.Pieces.Select(p => p.Id)]).Design.Pieces);
        Assert.All(Sampling.Midpoints(outline, 1, 200), p => Assert.True(Polygons.DistanceToRing(whole.Outline.Path.Map(whole.Place).Flat, p) < 0.02));
        Assert.Equal(Reason.PartsNothing, Refused(Given.ProjectOf(Given.Piece("p1", 60, 20, Given.Line(Given.Straight(0, -5, 60, -5), Operation.Score))), new PartAction(), Picked.OfLines("p1", "l2")));
    }

    [Fact]
    public void Ends_that_lie_near_are_joined_and_others_are_not()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 60, 60, Given.Line(Given.Straight(10, 10, 30, 10), Operation.Cut), Given.Line(Given.Straight(30, 30, 30.4, 10), Operation.Cut), Given.Line(Given.Straight(50, 50, 55, 55), Operation.Cut)));
        var joined = Do(project, new JoinEndsAction(1), Picked.OfLines("p1", "l2", "l3", "l4")).Design.Require("p1");
        Assert.Equal(3, joined.Lines.Length);
        Assert.Equal(3, joined.Find("l2")!.Path.Segments.Length);
        // The two that meet at 0.4 mm are closed by the way from end to end; a straight line alone never is.
        Assert.Equal(new Point(10, 10).DistanceTo(new(30, 30)), LineEnds.GapToClose(project.Design.Require("p1").Require(["l2", "l3"]))!.Value, 1e-9);
        Assert.Null(LineEnds.GapToClose([Given.Line(Given.Straight(0, 0, 9, 0), Operation.Cut)]));
        Assert.Null(LineEnds.GapToClose([Given.Line(Path.Rectangle(0, 0, 9, 9), Operation.Cut)]));
        Assert.Equal(Reason.NoEndsNear, Refused(project, new JoinEndsAction(0.1), Picked.OfLines("p1", "l2", "l3", "l4")));
    }
}
