using System.Collections.Immutable;
using CsCheck;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Commands;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;
using static Falzkunst.Core.Tests.Detail.Shapes;
using Point = Falzkunst.Core.Geometry.Point;

namespace Falzkunst.Core.Tests.Detail;

/// <summary>Borders, small things, islands and least widths, through the commands that a crafter gives.</summary>
public sealed class SmallWorkTests
{
    private static Line Opening(Path path) => Given.Line(path, Operation.Cut);

    private static Project After(Project project, string command, params ImmutableArray<string> picked) =>
        Edits.Apply(project, CommandLine.Read(command, new BenchContext(project, Picked.OfPieces(picked), Given.Drawer)).For(new BenchContext(project, Picked.OfPieces(picked), Given.Drawer)), Given.Drawer);

    private static Reason Refusal(Project project, string command, params ImmutableArray<string> picked) =>
        Assert.Throws<EditRefused>(() => After(project, command, picked)).Reason;

    private static ImmutableArray<Path> PieceOpenings(Piece piece) => piece.Paper.Openings;

    [Fact]
    public void Borders_lie_under_their_piece_on_their_stock_the_larger_one_lower()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 40, 30, Opening(Circle(20, 15, 5))));
        var after = After(project, "border 3 6 sharp on kraft", "p1").Design.Pieces;
        Assert.Equal([52.0, 46.0, 40.0], after.Select(p => Math.Round(p.Size.Width, 3)));
        Assert.Equal(["kraft-240", "kraft-240", "chalk-200"], after.Select(p => p.Stock));
        Assert.All(after[..2], p => Assert.Single(p.Lines));
        Assert.Equal(52 * 42, after[0].Area, 0.01);
        // They lie about the piece and not beside it.
        Assert.Equal(new Point(20, 15), after[0].Place.Apply(after[0].Size.Centre));
    }

    [Fact]
    public void A_ring_and_an_open_border_keep_what_they_say()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 40, 30, Opening(Circle(20, 15, 5))));
        var ring = After(project, "border 4 ring 2.5", "p1").Design.Pieces[0];
        Assert.Equal(2, ring.Lines.Length);
        Assert.Equal(2.5, PieceWidths.Narrowest(ring, 2)!.Value, 0.05);
        var open = After(project, "border 1 open", "p1").Design.Pieces[0];
        Assert.Equal(8, PieceOpenings(open).Single().Bounds.Width, 0.02);
        // A circle moved by a distance is a circle of few curves still.
        Assert.InRange(PieceOpenings(open).Single().Segments.Length, 2, 12);
        Assert.Equal(Reason.NothingLeft, Refusal(project, "border -16", "p1"));
    }

    [Fact]
    public void A_shrunk_piece_that_falls_apart_becomes_several_pieces()
    {
        var bone = Shapes.PieceOf(Path.Polyline([new(0, 0), new(10, 0), new(10, 4), new(20, 4), new(20, 0), new(30, 0), new(30, 10), new(20, 10), new(20, 6), new(10, 6), new(10, 10), new(0, 10)], closed: true)) with { Id = "p1" };
        var pieces = After(Given.ProjectOf(bone), "border -1.5", "p1").Design.Pieces;
        Assert.Equal(3, pieces.Length);
        Assert.Equal("p1", pieces[0].Id);
        Assert.All(pieces[1..], p => Assert.InRange(p.Area, 49, 49.3));
    }

    [Fact]
    public void Growing_and_shrinking_by_as_much_gives_the_same_outline_but_for_rounded_corners() =>
        Gen.Select(Gen.Double[0.3, 4], Gen.Double[15, 40], Gen.Double[15, 40]).ForAll((by, w, h) =>
        {
            var grown = Shapes.PieceOf(Borders.Offset(Given.Piece("p1", w, h), new Border(by, "chalk-200"))[0].Outline);
            var back = Borders.Offset(grown, new Border(-by, "chalk-200"))[0].Outline;
            Assert.Equal(w * h, Math.Abs(back.SignedArea), 0.4);
        }, iter: 20);

    [Fact]
    public void Small_things_are_listed_by_kind_and_go_together_or_singly()
    {
        var slit = Path.Polyline([new(30, 5), new(30.1, 5), new(30.1, 20), new(30, 20)], closed: true);
        var project = Given.ProjectOf(
            Given.Piece("p1", 60, 40, Opening(Circle(10, 10, 0.2)), Opening(Circle(20, 20, 3)), Opening(slit),
                Given.Line(Given.Straight(40, 5, 40, 35), Operation.Score), Given.Line(Given.Straight(40, 5, 40, 35), Operation.Score)),
            Given.Piece("p2", 0.3, 0.4));
        var things = SmallThings.Find(project.Design.Require("p1"), 0.5);
        Assert.Equal([(SmallKind.Opening, "l2"), (SmallKind.Opening, "l4"), (SmallKind.Line, "l6")], things.Select(t => (t.Kind, t.Key)));
        Assert.Equal(0.4, things[0].SizeMm, 0.02);
        Assert.Equal(SmallKind.Speck, Assert.Single(SmallThings.Find(project.Design.Require("p2"), 0.5)).Kind);
        Assert.Equal(["l1", "l3", "l4", "l5", "l6"], After(project, "small things 0.5 l2", "p1").Design.Pieces[0].Lines.Select(l => l.Id));
        var all = After(project, "small things 0.5", "p1", "p2").Design.Pieces;
        Assert.Equal(["l1", "l3", "l5"], Assert.Single(all).Lines.Select(l => l.Id));
        Assert.Equal(Reason.NothingSmall, Refusal(After(project, "small things 0.5", "p1"), "small things 0.5", "p1"));
        Assert.Equal(Reason.OutOfRange, Refusal(project, "small things 0", "p1"));
    }

    [Fact]
    public void A_hairline_slit_in_the_outline_is_closed_and_the_rest_keeps_every_digit()
    {
        // A notch 0.08 wide runs 12 into the plate, and a bay 2 wide that stays.
        var outline = Path.Polyline([new(0, 0), new(40, 0), new(40, 30), new(20.08, 30), new(20.08, 18), new(20, 18), new(20, 30), new(10, 30), new(10, 20), new(8, 20), new(8, 30), new(0, 30)], closed: true);
        var piece = Shapes.PieceOf(outline) with { Id = "p1" };
        var thing = Assert.Single(SmallThings.Find(piece, 0.2));
        Assert.Equal(SmallKind.Slit, thing.Kind);
        Assert.Equal(0.08, thing.SizeMm, 0.01);
        var mended = SmallThings.Without(piece, 0.2, [thing.Key])!;
        Assert.Equal(40 * 30 - 20, mended.Area, 0.05);
        var nodes = mended.Outline.Path.Segments.Select(s => s.End).ToList();
        Assert.All(new Point[] { new(40, 0), new(40, 30), new(10, 30), new(10, 20), new(8, 20), new(8, 30), new(0, 30) }, p => Assert.Contains(p, nodes));
    }

    private static Project Stencil(Path opening, Path island) => Given.ProjectOf(
        Given.Piece("p1", 60, 60, Opening(opening)),
        Piece.FromLines("p2", "Piece p2", "chalk-200", Affine.Identity, [Given.Line(island, Operation.Cut), Given.Line(Given.Straight(28, 30, 32, 30), Operation.Score)]));

    [Fact]
    public void The_inside_of_an_O_is_found_and_bridged_above_and_below()
    {
        var project = Stencil(Circle(30, 30, 20), Circle(30, 30, 12));
        var island = Assert.Single(Islands.Find(project.Design));
        Assert.Equal(("p1", "p2"), (island.Host.Id, island.Piece.Id));
        var joined = Assert.Single(After(project, "bridge 1.5", "p2").Design.Pieces);
        // One piece, with two openings where one ring of air was, and the island's score line with it.
        Assert.Equal((1, 2), (FromPiece(joined).PartCount, PieceOpenings(joined).Length));
        Assert.Single(joined.Lines, l => l.Operation == Operation.Score);
        Assert.Equal(project.Design.Pieces.Sum(p => p.Area) + 2 * 1.5 * 8, joined.Area, 1);
        Assert.All(PieceOpenings(joined), o => Assert.Equal(20, o.Bounds.Width, 1.5));
        Assert.Equal(1.5, PieceWidths.Narrowest(joined, 1.8)!.Value, 0.05);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    [InlineData(4)]
    public void As_many_bridges_as_asked_for_hold_an_island(int count)
    {
        var joined = Assert.Single(After(Stencil(Path.Rectangle(10, 10, 40, 40), Circle(30, 31, 8)), $"bridge 1 {count}", "p2").Design.Pieces);
        Assert.Equal((1, count), (FromPiece(joined).PartCount, PieceOpenings(joined).Length));
    }

    [Fact]
    public void Only_loose_islands_are_bridged()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 60, 60), Given.Piece("p2", 10, 10));
        Assert.Empty(Islands.Find(project.Design));
        Assert.Equal(Reason.NotAnIsland, Refusal(project, "bridge 1", "p2"));
        Assert.Equal(Reason.OutOfRange, Refusal(project, "bridge 0", "p2"));
    }

    [Fact]
    public void Thickening_by_command_changes_the_picked_pieces_and_says_where_nothing_is_thin()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 20, 0.4), Given.Piece("p2", 20, 20) with { Place = Affine.Move(0, 40) });
        var after = After(project, "thicken 0.8 gap 0.3", "p1", "p2");
        Assert.Equal(0.8, PieceWidths.Narrowest(after.Design.Require("p1"), 1)!.Value, 0.04);
        Assert.Same(project.Design.Require("p2"), after.Design.Require("p2"));
        Assert.Equal(Reason.StrongAlready, Refusal(project, "thicken 0.8", "p2"));
        Assert.Equal(Reason.Locked, Refusal(After(project, "lock", "p1"), "thicken 0.8", "p1"));
        var kept = After(project, "keep thickened by 0.2 as Stronger", "p1");
        Assert.Same(project.Design, kept.Design);
        Assert.Equal(0.8, Assert.Single(kept.Variants).Pieces[0].Size.Height, 0.02);
    }

    [Fact]
    public void The_least_width_comes_from_the_catalogue_until_the_project_sets_its_own()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 20, 20));
        var catalogue = LeastWidth.ForStock(project.SetOut, "chalk-200", Given.Drawer);
        Assert.Equal((0.7, false), (catalogue.Mm, catalogue.IsOwn));
        Assert.Equal("Chalk 200", catalogue.Stock?.Name);
        var own = After(project, "least width 0.5", "p1");
        Assert.Equal((0.5, true), (LeastWidth.ForStock(own.SetOut, "chalk-200", Given.Drawer).Mm, LeastWidth.ForStock(own.SetOut, "chalk-200", Given.Drawer).IsOwn));
        Assert.False(LeastWidth.ForStock(After(own, "least width catalogue", "p1").SetOut, "chalk-200", Given.Drawer).IsOwn);
        Assert.Equal(Reason.OutOfRange, Refusal(project, "least width 20", "p1"));
        // The blade that cuts board may leave more standing than the board itself would need.
        Assert.Equal(0.85, LeastWidth.ForStock(project.SetOut, "kraft-240", Given.Drawer).Mm);
    }

    [Fact]
    public void Candidates_are_two_widths_for_the_thin_parts_and_one_amount_for_everything()
    {
        var ways = Candidates.Ways(0.8, 0.4, 0.43);
        Assert.Equal([(false, 0.8), (false, 1.0), (true, 0.2)], ways.Select(w => (w.IsEven, w.AmountMm)));
        var piece = Given.Piece("p1", 20, 0.43);
        var results = ways.Select(w => Candidates.Try(piece, w, Design.Empty with { Pieces = [piece] })).ToList();
        Assert.All(results, r => Assert.True(r.Result!.NarrowestAfterMm >= 0.79));
        Assert.NotNull(Candidates.Try(piece, ways[0] with { AmountMm = 900 }, Design.Empty).Refusal);
    }
}
