using CsCheck;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Printing;

public sealed class PrintPagesTests
{
    private const string Stock = "chalk-200-printed";

    private static Piece Ticket(double width, double height, bool isFull = true, int quantity = 1)
    {
        var piece = Given.Piece("p1", width, height) with { Stock = Stock, Quantity = quantity };
        return isFull ? piece.Plus(new PrintedFill("", "#B3361E")) : piece.Plus(Given.Line(Path.Rectangle(8, 8, width - 16, height - 16), Operation.Print));
    }

    private static Project Do(Project project, BenchAction action, Picked? what = null) =>
        Edits.Apply(project, action.For(new BenchContext(project, what ?? Picked.OfPieces("p1"), Given.Drawer)), Given.Drawer);

    private static Region AreaOf(Piece piece, Affine place, double grown) =>
        Region.FromRings(piece.Outline.Path.Map(place).Flat.ToArray(), []).Grow(grown, Corners.Round, 16);

    private static Region AreaOf(Box box) => Region.FromRings([box.Min, new(box.MaxX, box.MinY), new(box.MaxX, box.MaxY), new(box.MinX, box.MaxY)], []);

    [Fact]
    public void Neither_nesting_nor_hand_enters_a_zone_a_margin_or_another_bleed()
    {
        var cases =
            from inset in Gen.Double[5, 25]
            from arm in Gen.Double[6, 30]
            from clear in Gen.Double[1, 12]
            from bleed in Gen.Double[0, 4]
            from margin in Gen.Double[0, 5]
            from width in Gen.Double[20, 80]
            from height in Gen.Double[20, 60]
            from count in Gen.Int[1, 7]
            from x in Gen.Double[0, 200]
            from y in Gen.Double[0, 280]
            from turn in Gen.Double[0, 360]
            select (Marks: new MarkSettings(inset, arm, 0.5, clear), bleed, margin, Size: (width, height), count, To: (x, y, turn));
        cases.ForAll(c =>
        {
            var how = new PagePrinting("", c.margin, c.Marks, c.bleed);
            var project = Given.ProjectOf(Ticket(c.Size.width, c.Size.height, quantity: c.count));
            project = Edits.Apply(project, new ChangePrinting(Stock, how, Guid.NewGuid()), Given.Drawer);
            Check(project, how);
            if (project.Sheets!.Sheets is not [var sheet, ..]) return;
            // A hand puts a copy anywhere: where that is refused nothing has changed.
            var copy = sheet.Placements[0];
            try
            {
                var by = new Point(c.To.x, c.To.y) - copy.Place.Apply(new Point(0, 0));
                Check(Edits.Apply(project, new MovePlacements(sheet.Id, [new(copy.Piece, copy.Copy)], sheet.Id, c.To.turn, copy.Place.Apply(new Point(0, 0)), by), Given.Drawer), how);
            }
            catch (EditRefused)
            {
                // It may not lie there.
            }
            try
            {
                Check(Edits.Apply(project, new DrawMarks(sheet.Id, In: true), Given.Drawer), how);
            }
            catch (EditRefused refused)
            {
                Assert.Equal(Reason.MarksAreClose, refused.Reason);
            }
        }, iter: 60);
    }

    private static void Check(Project project, PagePrinting how)
    {
        Assert.True(project.SheetsAreCurrent);
        var reach = Given.Machine(project.SetOut.Machine).Unreachable;
        foreach (var sheet in project.Sheets!.Sheets)
        {
            var inks = sheet.Placements.Select(p => AreaOf(project.Design.Require(p.Piece), p.Place, how.BleedMm)).ToList();
            var page = Box.FromSize(sheet.Width, sheet.Height);
            foreach (var zone in how.Marks!.Zones(PrintPages.FrameOf(sheet, how.Marks), sheet.Width, sheet.Height)) Assert.All(inks, ink => Assert.True(ink.And(AreaOf(zone)).Area < 1e-3));
            Assert.All(inks, ink => Assert.True(ink.Minus(AreaOf(page.Grow(-how.MarginMm))).Area < 0.05));
            Assert.All(sheet.Placements, p => Assert.True(reach.Within(sheet.Width, sheet.Height).Contains(project.Design.Require(p.Piece).Outline.Path.BoundsUnder(p.Place), 1e-3)));
            for (var i = 0; i < inks.Count; i++)
            {
                for (var k = 0; k < i; k++) Assert.True(inks[i].And(inks[k]).Area < 0.05);
            }
        }
    }

    [Fact]
    public void Two_half_pages_with_white_edges_lie_to_the_very_edge_of_a_plain_page()
    {
        var card = Ticket(215.9, 139.7, isFull: false, quantity: 2);
        var project = Given.ProjectOf(card);
        project = Edits.Apply(project, new ChangePrinting(Stock, new PagePrinting("", 4.2, null) { Size = "letter" }, Guid.NewGuid()), Given.Drawer);
        var sheet = Assert.Single(project.Sheets!.Sheets);
        Assert.Equal(2, sheet.Placements.Length);
        Assert.Empty(project.Sheets.Unplaced);
        // Print that touches the cut needs the margin and its bleed, and then each needs a page.
        var full = Edits.Apply(project with { Sheets = null }, new PrintFills(["p1"], "#112233", false), Given.Drawer);
        full = Edits.Apply(full, new PutOnSheets(2, Guid.NewGuid()), Given.Drawer);
        Assert.Equal(2, full.Sheets!.Sheets.Length);
    }

    [Fact]
    public void Another_bleed_lays_that_stock_anew_and_leaves_the_others_and_is_undone_with_them()
    {
        var other = Given.Piece("p2", 30, 30) with { Stock = "kraft-240" };
        var project = Do(Given.ProjectOf(Ticket(60, 40, quantity: 3), other), new PrintPagesAction(Stock, Marks: true));
        var before = project.Sheets!;
        var after = Do(project, new PrintPagesAction(Stock, Bleed: 5));
        Assert.True(after.SheetsAreCurrent);
        Assert.Equal(before.Sheets.Single(s => s.Stock == "kraft-240"), after.Sheets!.Sheets.Single(s => s.Stock == "kraft-240"));
        Assert.NotEqual(before.Sheets.Single(s => s.Stock == Stock).Placements, after.Sheets.Sheets.Single(s => s.Stock == Stock).Placements);
        // What is only printed otherwise leaves the pages as they are.
        Assert.Equal(after.Sheets, Do(after, new PrintPagesAction(Stock, SavesInk: true, Glue: 4)).Sheets);
        // Pieces that change make the pages stale.
        Assert.False(Edits.Apply(after, new ResizePicked(Picked.OfPieces("p1"), 61, 40), Given.Drawer).SheetsAreCurrent);
    }

    [Fact]
    public void Marks_are_refused_where_they_would_not_be_printed_or_no_machine_reads_them()
    {
        var project = Given.ProjectOf(Ticket(40, 30));
        Reason Why(Project p, BenchAction action) => Assert.Throws<EditRefused>(() => Do(p, action)).Reason;
        Assert.Equal(Reason.MarksInMargin, Why(project, new PrintPagesAction(Stock, Marks: true, Margin: 12)));
        Assert.Equal(Reason.OutOfRange, Why(project, new PrintPagesAction(Stock, Marks: true, Arm: 200)));
        Assert.Equal(Reason.ReadsNoMarks, Why(project with { SetOut = project.SetOut with { Machine = "solo-305" } }, new PrintPagesAction(Stock, Marks: true)));
        Assert.Equal(Reason.NoMarksThere, Why(Do(project, new PrintPagesAction(Stock, Marks: false)), new DrawMarksAction()));
    }

    [Fact]
    public void Drawn_in_marks_enclose_all_pieces_on_a_smaller_frame()
    {
        var project = Do(Given.ProjectOf(Ticket(50, 30, quantity: 2)), new PrintPagesAction(Stock, Marks: true));
        var sheet = project.Sheets!.Sheets[0];
        var near = Do(project, new DrawMarksAction()).Sheets!.Sheets[0].MarkFrame!.Value;
        Assert.True(near.Height < sheet.Height / 2);
        Assert.All(sheet.Placements, p => Assert.True(near.MaxY >= project.Design.Pieces[0].Outline.Path.BoundsUnder(p.Place).MaxY + 2));
        Assert.Null(Do(Do(project, new DrawMarksAction()), new DrawMarksAction(In: false)).Sheets!.Sheets[0].MarkFrame);
    }
}
