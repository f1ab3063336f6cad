using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Printing;

public sealed class PrintedArtTests
{
    private static Project Do(Project project, BenchAction action, Picked what) =>
        Edits.Apply(project, action.For(new BenchContext(project, what, Given.Drawer)), Given.Drawer);

    [Fact]
    public void A_bar_with_sleepers_a_border_and_a_ground_are_printed_and_never_run()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 90, 50, Given.Line(Given.Straight(5, 25, 85, 25), Operation.Draw)));
        project = Do(project, new PaintAction(Colour: "#1f2b33", Width: 4, OverColour: "#E9DFC6", OverWidth: 3, OverDash: 1, OverGap: 3), Picked.OfLines("p1", ["l2"]));
        project = Do(project, new PrintBorderAction(3, 0.8, 2, 1), Picked.OfPieces("p1"));
        project = Do(project, new PrintGroundAction("#E9DFC6"), Picked.OfPieces("p1"));
        var layers = PrintedArt.On(project.Design.Pieces[0]);
        Assert.IsType<FillLayer>(layers[0]);
        var bar = Assert.IsType<StrokeLayer>(layers[1]);
        Assert.Equal(("#1F2B33", 4.0, 1), (bar.Colour, bar.WidthMm, bar.Strokes.Length));
        var sleepers = Assert.IsType<StrokeLayer>(layers[2]);
        // Of 80 mm a millimetre in four, first and last one included.
        Assert.Equal(20, sleepers.Strokes.Length, 1.0);
        Assert.Equal(1, sleepers.Strokes[0].Length, 0.1);
        Assert.True(Assert.IsType<StrokeLayer>(layers[3]).Strokes.Length > 50);
        Assert.DoesNotContain(project.Design.Pieces[0].Drawn, l => LawOfPaper.StageOf(l, false) is not null && l.Operation == Operation.Print);
        // The border follows the outline, and what it is painted like stays.
        var wider = Edits.Apply(project, new ResizePicked(Picked.OfPieces("p1"), 120, 50), Given.Drawer);
        Assert.Equal(116, Assert.IsType<StrokeLayer>(PrintedArt.On(wider.Design.Pieces[0])[3]).Strokes.Aggregate(Box.Empty, (b, s) => b.Include(s.Bounds)).Width + 2, 1.0);
    }

    [Fact]
    public void Rings_of_one_shape_are_filled_together_and_others_each_by_itself()
    {
        Line Ring(double x, double size, int? shape) => Given.Line(Path.Rectangle(x, 10, size, size), Operation.Print) with { Painted = new PrintLook("#AA3333", null), Shape = shape };
        var piece = Given.Piece("p1", 90, 50, Ring(10, 30, 1), Ring(20, 10, 1) with { Path = Path.Rectangle(20, 20, 10, 10).Reversed() }, Ring(50, 20, 2));
        var layers = PrintedArt.On(piece);
        Assert.Equal([2, 1], layers.Cast<FillLayer>().Select(l => l.Rings.Length));
        var probe = new PrintProbe(layers);
        Assert.Equal((0, -1, 1), (probe.TopmostAt(new Point(12, 12)), probe.TopmostAt(new Point(25, 25)), probe.TopmostAt(new Point(60, 20))));
    }

    [Fact]
    public void Several_pieces_become_one_printed_piece_of_which_only_the_outer_edge_is_cut()
    {
        // A ring with a hole lies on a larger piece, and a disc hangs over its edge.
        var below = Given.Piece("p1", 60, 40, Given.Line(Given.Straight(5, 5, 55, 5), Operation.Cut));
        var ring = Given.Piece("p2", 20, 20, Given.Line(Path.Rectangle(5, 5, 10, 10), Operation.Cut)) with { Place = Affine.Move(20, 10), Stock = "kraft-240" };
        var over = Given.Piece("p3", 20, 10) with { Place = Affine.Move(50, 10), Stock = "ember-220" };
        var project = Do(Given.ProjectOf(below, ring, over), new CutOnlyOutsideAction(), Picked.OfPieces("p1", "p2", "p3"));
        var one = Assert.Single(project.Design.Pieces);
        Assert.Equal(70, one.Size.Width, 9);
        Assert.Equal(60 * 40 + 10 * 10, one.Area, 6);
        Assert.DoesNotContain(one.Items.OfType<WorkedItem>(), i => i.Operation == Operation.Cut);
        var probe = new PrintProbe(PrintedArt.On(one));
        string? ColourAt(double x, double y) => probe.TopmostAt(new Point(x, y)) is >= 0 and var layer ? (PrintedArt.On(one)[layer] as FillLayer)?.Colour : null;
        Assert.Equal(Given.Stock("kraft-240").Colour, ColourAt(22, 12));
        // Through the hole one sees what lies below.
        Assert.Equal(Given.Stock("chalk-200").Colour, ColourAt(30, 20));
        Assert.Equal(Given.Stock("ember-220").Colour, ColourAt(65, 15));
        Assert.Equal(Reason.NotTogether, Assert.Throws<EditRefused>(() => Do(Given.ProjectOf(below, over with { Place = Affine.Move(200, 0) }), new CutOnlyOutsideAction(), Picked.OfPieces("p1", "p3"))).Reason);
    }

    [Fact]
    public void Frames_of_one_picture_show_each_its_part_and_the_hidden_parts_need_no_ink()
    {
        var picture = new PictureItem("", new string('a', 64), 1200, 900, Affine.Move(-1, -1), 122, 92) { Of = "i1", Key = "k" };
        var project = Given.ProjectOf(Given.Piece("p1", 120, 90).Plus(picture));
        project = Do(project, new FramesAction(3, 15, 2, "kraft-240"), Picked.OfPieces("p1"));
        var frames = project.Design.Pieces.Where(p => p.Items.OfType<PictureItem>().Any() && p.Quantity > 0).ToList();
        Assert.Equal(3, frames.Count);
        // The same place of the card has the same place of the picture on each.
        var places = frames.Select(f => f.Items.OfType<PictureItem>().Single().Place.Then(f.Place).Apply(new Point(10, 10))).ToList();
        Assert.All(places, p => Assert.True(p.DistanceTo(places[0]) < 1e-9));
        var how = new PagePrinting("", 4, null, 0);
        var all = frames.Sum(f => InkUse.Of(PrintPages.PieceOf(project.Design, f, how, back: false)).PrintedMm2);
        var saved = frames.Sum(f => InkUse.Of(PrintPages.PieceOf(project.Design, f, how with { GlueMm = 5 }, back: false)).SavedMm2);
        Assert.Equal(120 * 90 + 90 * 60 + 60 * 30, all, 1e-6);
        // Under the first lies a backing of 94 by 64, under the second one of 64 by 34, each less five all round.
        Assert.Equal(84 * 54 + 54 * 24, saved, 1e-3);
    }

    [Fact]
    public void What_falls_short_and_what_hangs_over_is_found_with_its_place_and_mended()
    {
        Piece With(Path area) => Given.Piece("p1", 60, 40, Given.Line(area, Operation.Print) with { Painted = new PrintLook("#335577", null), Look = Look.DrawnHere });
        var shortfall = Assert.Single(PrintChecks.Of(With(Path.Rectangle(-5, -5, 64.4, 50)), 2), f => f.Fault == PrintFault.FallsShort);
        Assert.Equal(0.6, shortfall.Mm, 0.11);
        Assert.Equal(60, shortfall.At!.Value.X, 0.01);
        var over = Assert.Single(PrintChecks.Of(With(Path.Rectangle(30, 10, 37, 20)), 2));
        Assert.Equal((PrintFault.HangsOver, 7.0), (over.Fault, Math.Round(over.Mm, 6)));
        Assert.Empty(PrintChecks.Of(With(Path.Rectangle(-1, -1, 62, 42)), 2));
        // White that is meant is no fault.
        Assert.Empty(PrintChecks.Of(With(Path.Rectangle(4, 4, 52, 32)), 2));
        var followed = Do(Given.ProjectOf(With(Path.Rectangle(30, 10, 37, 20))), new FollowPrintAction(), Picked.OfPieces("p1"));
        Assert.Equal(67, followed.Design.Pieces[0].Size.Width, 9);
        Assert.Empty(PrintChecks.Of(followed.Design.Pieces[0], 2).Where(f => f.Fault == PrintFault.HangsOver));
    }

    [Fact]
    public void Ink_is_counted_with_its_bleed_and_what_is_hidden_is_saved()
    {
        var below = Given.Piece("p1", 60, 60).Plus(new PrintedFill("", "#112233"));
        var above = Given.Piece("p2", 40, 40) with { Place = Affine.Move(10, 10) };
        var design = Given.ProjectOf(below, above).Design;
        var how = new PagePrinting("", 4, null, 0);
        Assert.Equal(3600, InkUse.Of(PrintPages.PieceOf(design, below, how, back: false)).PrintedMm2, 1e-6);
        var saved = InkUse.Of(PrintPages.PieceOf(design, below, how with { GlueMm = 5 }, back: false));
        Assert.Equal((2700, 900), (Math.Round(saved.PrintedMm2, 3), Math.Round(saved.SavedMm2, 3)));
        // Two rows of one list lie in one place, and each is printed whole.
        var rows = NameLists.Expanded(Given.ProjectOf(below with { List = new NameList(["name"], [new(1, ["Ada"]), new(2, ["Ben"])]) }).Design);
        Assert.Equal(2, rows.Pieces.Length);
        Assert.All(rows.Pieces, row => Assert.Equal(0, InkUse.Of(PrintPages.PieceOf(rows, row, how with { GlueMm = 5 }, back: false)).SavedMm2));
        // Two millimetres all round, with quarters of circles at the corners.
        Assert.Equal(3600 + 4 * 60 * 2 + Math.PI * 4, InkUse.Of(PrintPages.PieceOf(design, below, how with { BleedMm = 2 }, back: false)).PrintedMm2, 0.1);
    }
}
