using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tests.Nesting;
using Falzkunst.Tests;

namespace Falzkunst.Core.Tests.Projects;

/// <summary>Pieces on sheets, moved by hand.</summary>
public sealed class PlacingTests
{
    /// <summary>On a sheet with room to move, larger than the smallest that does.</summary>
    private static readonly Project Placed = Edits.Apply(
        Given.ProjectOf(Given.Piece("p1", 60, 40), Given.Piece("p2", 30, 30) with { Quantity = 3 }), new PutOnSheets(2), Squares());

    private static Drawer Squares() => Given.Drawer with
    {
        Stocks = [.. Given.Drawer.Stocks.Select(s => s.Key == "chalk-200" ? s with { Sheets = [.. s.Sheets.Where(k => k.WidthMm > 300)] } : s)],
    };

    private static readonly string Sheet = Placed.Sheets!.Sheets[0].Id;
    private static readonly PlacedCopy One = new("p1", 1);

    private static Box BoxOf(Project project, PlacedCopy copy) => project.Sheets!.Sheets
        .Select(s => s.Find(copy.Piece, copy.Copy)).OfType<Placement>().Select(p => project.Design.Require(p.Piece).Outline.Path.BoundsUnder(p.Place)).Single();

    private static MovePlacements To(Project project, PlacedCopy copy, double x, double y) => new(Sheet, [copy], Sheet, 0, default, new Point(x, y) - BoxOf(project, copy).Min);

    private static Project Do(Project project, Edit edit) => Edits.Apply(
        project, edit is SendPlacements send ? send with { Filled = SheetRoom.Find(project, send, Given.Drawer, TestContext.Current.CancellationToken) } : edit, Given.Drawer);

    private static void DemandValid(Project project)
    {
        foreach (var stock in project.Design.Pieces.Select(p => p.Stock).Distinct())
        {
            var layout = project.Sheets!.ForStock(stock, project.Design);
            FairCheck.Demand(
                PaperJobs.JobFor(project.Design, Given.Stock(stock), Given.Machine(project.SetOut.Machine), project.Sheets.SpacingMm, project.SetOut.Cards, layout),
                PaperJobs.ResultOf(layout));
        }
    }

    [Fact]
    public void A_piece_goes_where_there_is_room_and_is_pinned_there()
    {
        var moved = Do(Placed, To(Placed, One, 150, 200));
        Assert.Equal(new Box(150, 200, 210, 240), BoxOf(moved, One));
        Assert.True(moved.Sheets!.Sheets[0].Find("p1", 1)!.Pinned);
        Assert.True(moved.SheetsAreCurrent);
        DemandValid(moved);
        var turned = Do(moved, new MovePlacements(Sheet, [One], Sheet, 90, new Point(180, 220), default));
        Assert.Equal(new Box(160, 190, 200, 250), BoxOf(turned, One));
    }

    [Fact]
    public void Nothing_moves_onto_paper_of_another_stock()
    {
        var both = Edits.Apply(Given.ProjectOf(Given.Piece("p1", 60, 40), Given.Piece("p2", 30, 30) with { Stock = "kraft-240" }), new PutOnSheets(2), Given.Drawer);
        var (from, to) = (both.Sheets!.Sheets.Single(s => s.Find("p1", 1) is not null), both.Sheets.Sheets.Single(s => s.Stock == "kraft-240"));
        Assert.Equal(Reason.OtherStock, Assert.Throws<EditRefused>(() => Do(both, new MovePlacements(from.Id, [One], to.Id, 0, default, new Point(0, 150)))).Reason);
    }

    [Fact]
    public void What_stands_in_the_way_is_said_with_numbers_and_nothing_moves()
    {
        var beside = Do(Do(Placed, To(Placed, One, 100, 200)), To(Placed, new("p2", 1), 180, 200));
        var near = Assert.Throws<EditRefused>(() => Do(beside, To(beside, One, 118.5, 200)));
        Assert.Equal((Reason.TooNear, "Piece p1", "Piece p2", new Mm(2)), (near.Reason, near.Values[0], near.Values[2], near.Values[3]));
        Assert.Equal(1.5, ((Mm)near.Values[1]).Value, 9);
        Assert.Equal(Reason.LiesOnOther, Refused(beside, To(beside, One, 130, 190)));
        var over = Assert.Throws<EditRefused>(() => Do(beside, To(beside, One, 2, 200)));
        Assert.Equal(Reason.OverBorder, over.Reason);
        Assert.Equal(3, ((Mm)over.Values[1]).Value, 9);
        Assert.Equal(Reason.SheetsStale, Refused(Do(beside, new SetQuantity("p2", 5)), To(beside, One, 100, 210)));
        Assert.Equal(Reason.CopyGone, Refused(beside, new MovePlacements(Sheet, [new("p1", 2)], Sheet, 0, default, new Point(1, 1))));
        Assert.Equal(Reason.NoCopies, Refused(beside, new MovePlacements(Sheet, [], Sheet, 0, default, new Point(1, 1))));
        Assert.Equal(Reason.BeyondSheets, Refused(beside, new MovePlacements(Sheet, [One], Sheet, double.NaN, default, default)));

        static Reason Refused(Project project, Edit edit) => Assert.Throws<EditRefused>(() => Do(project, edit)).Reason;
    }

    [Fact]
    public void The_nearest_place_touches_at_the_spacing_and_is_no_farther_than_it_need_be()
    {
        var beside = Do(Do(Placed, To(Placed, One, 100, 200)), To(Placed, new("p2", 1), 180, 200));
        var hand = new HandPlacing(beside.Sheets!.ForStock("chalk-200", beside.Design), beside.Design, 2);
        // The far edge of p1 would lie 11 mm within p2: 13 mm back is the shortest way out.
        var over = PlacingFaults.Placed([beside.Sheets.Sheets[0].Find("p1", 1)! with { Place = Affine.Move(131, 200) }]);
        var by = hand.NearestMove(over, Sheet, 25)!.Value;
        Assert.Equal(-13, by.X, 0.05);
        Assert.Equal(0, by.Y, 0.05);
        Assert.True(by.X <= -13 + 0.002);
        Assert.Null(hand.NearestMove(over, Sheet, 10));
        Assert.Equal(default(Point), hand.NearestMove(PlacingFaults.Placed([beside.Sheets.Sheets[0].Find("p1", 1)!]), Sheet, 10));
    }

    [Fact]
    public void Whatever_a_hand_does_the_sheets_stay_valid_or_as_they_were() =>
        (from moves in (from copy in Gen.Int[0, 3] from x in Gen.Double[-20, 300] from y in Gen.Double[-20, 300] from turn in Gen.Int[0, 35] from holds in Gen.Bool select (copy, x, y, turn, holds)).Array[1, 6] select moves)
        .ForAll(moves =>
        {
            var project = Placed;
            foreach (var (copy, x, y, turn, holds) in moves)
            {
                var which = copy == 0 ? One : new PlacedCopy("p2", copy);
                var move = To(project, which, x, y) with { Degrees = turn * 10, About = BoxOf(project, which).Centre };
                if (holds)
                {
                    var there = project.Sheets!.Sheets[0].Find(which.Piece, which.Copy)!;
                    var by = new HandPlacing(project.Sheets.ForStock("chalk-200", project.Design), project.Design, 2).NearestMove(PlacingFaults.Placed([there with { Place = there.Place.Then(move.Map) }]), Sheet, 40);
                    if (by is null) continue;
                    project = Do(project, move with { By = move.By + by.Value });
                }
                else
                {
                    try
                    {
                        project = Do(project, move);
                    }
                    catch (EditRefused)
                    {
                        continue;
                    }
                }
                DemandValid(project);
            }
        }, iter: 40);

    [Fact]
    public void Sent_to_a_new_sheet_and_back_a_piece_finds_room_and_the_empty_sheet_goes()
    {
        var sent = Do(Placed, new SendPlacements(Sheet, [One, new("p2", 2)], null, "A4"));
        Assert.Equal([2, 2], sent.Sheets!.Sheets.Select(s => s.Placements.Length));
        Assert.Equal("A4", sent.Sheets.Sheets[1].SizeName);
        Assert.All(sent.Sheets.Sheets[1].Placements, p => Assert.True(p.Pinned));
        DemandValid(sent);
        var back = Do(sent, new SendPlacements(sent.Sheets.Sheets[1].Id, [One, new("p2", 2)], Sheet));
        Assert.Equal(4, Assert.Single(back.Sheets!.Sheets).Placements.Length);
        DemandValid(back);
        Assert.Equal(Reason.NoFurtherSheet, Assert.Throws<EditRefused>(() => Do(Placed, new SendPlacements(Sheet, [One], null, "A0"))).Reason);
        // The first sheet empties; the second becomes the first and keeps its id.
        var all = sent.Sheets.Sheets[0].Placements.Select(p => new PlacedCopy(p.Piece, p.Copy)).ToList();
        var joined = Do(sent, new SendPlacements(Sheet, [.. all], sent.Sheets.Sheets[1].Id));
        Assert.Equal((sent.Sheets.Sheets[1].Id, 1, "A4"), (joined.Sheets!.Sheets.Single().Id, joined.Sheets.Sheets[0].Number, joined.Sheets.Sheets[0].SizeName));
    }

    [Fact]
    public void What_was_found_for_copies_is_taken_only_where_it_stands_up_to_the_check()
    {
        var send = new SendPlacements(Sheet, [One], null, "A4");
        var filled = SheetRoom.Find(Placed, send, Given.Drawer, TestContext.Current.CancellationToken)!;
        Reason Refused(SheetLayout? with) => Assert.Throws<EditRefused>(() => Edits.Apply(Placed, send with { Filled = with }, Given.Drawer)).Reason;
        Assert.Equal(Reason.NoRoomOnSheet, Refused(null));
        Assert.Equal(Reason.SettledStale, Refused(filled with { Placements = [] }));
        Assert.Equal(Reason.SettledStale, Refused(filled with { Id = "another" }));
        // Off the sheet.
        Assert.Equal(Reason.SettledStale, Refused(filled with { Placements = [filled.Placements[0] with { Place = filled.Placements[0].Place.Then(Affine.Move(500, 0)) }] }));
    }

    [Fact]
    public void A_sheet_without_room_is_said_to_be_so()
    {
        var full = Do(Given.ProjectOf(Given.Piece("p1", 250, 250), Given.Piece("p2", 200, 100)), new PutOnSheets(2));
        var (large, small) = (full.Sheets!.Sheets.Single(s => s.Find("p1", 1) is not null), full.Sheets.Sheets.Single(s => s.Find("p2", 1) is not null));
        var why = Assert.Throws<EditRefused>(() => Do(full, new SendPlacements(small.Id, [new("p2", 1)], large.Id)));
        Assert.Equal((Reason.NoRoomOnSheet, large.Number, 1, "Piece p2"), (why.Reason, why.Values[0], why.Values[1], why.Values[2]));
    }

    [Fact]
    public void How_a_piece_may_lie_holds_for_the_hand_and_the_nester_and_keeps_sheets_that_agree()
    {
        var along = Do(Placed, new SetAllowedTurns(["p1"], AllowedTurns.AlongGrain));
        // As it lies now is along the grain or across it, by what the nester chose.
        var isUpright = BoxOf(Placed, One).Width == 60;
        Assert.Equal(isUpright, along.SheetsAreCurrent);
        var again = Do(along, new PutOnSheets(2));
        Assert.Equal(60, BoxOf(again, One).Width, 6);
        var (sheet, centre) = (again.Sheets!.Sheets[0].Id, BoxOf(again, One).Centre);
        Assert.Equal(Reason.AgainstDirection, Assert.Throws<EditRefused>(() => Do(again, new MovePlacements(sheet, [One], sheet, 90, centre, new Point(0, 150)))).Reason);
        Assert.Equal(60, BoxOf(Do(again, new MovePlacements(sheet, [One], sheet, 180, centre, new Point(0, 150))), One).Width, 6);
    }

    [Fact]
    public void Pieces_that_are_only_cut_may_lie_on_their_face_where_both_sides_are_alike()
    {
        var cut = Given.Piece("p1", 60, 40);
        var scored = Given.Piece("p2", 60, 40, Given.Line(Given.Straight(10, 20, 50, 20), Operation.Score));
        var job = PaperJobs.JobFor(new Design([cut, scored], [], [], 3), Given.Stock("chalk-200"), Given.Machine("twin-330"), 2, 1, null);
        Assert.Equal([true, false], job.Pieces.Select(p => p.MayMirror));
        var printed = new Design([cut with { Stock = "chalk-200-printed" }], [], [], 2);
        Assert.False(PaperJobs.JobFor(printed, Given.Stock("chalk-200-printed"), Given.Machine("twin-330"), 2, 1, null).Pieces[0].MayMirror);
    }

    [Fact]
    public void What_was_moved_by_hand_stays_when_the_others_are_put_on_sheets_again_as_long_as_it_may()
    {
        var moved = Do(Placed, To(Placed, One, 150, 200));
        var more = Do(Do(moved, new SetQuantity("p2", 6)), new PutOnSheets(3));
        Assert.Equal(new Box(150, 200, 210, 240), BoxOf(more, One));
        Assert.Equal(7, more.Sheets!.Sheets.Sum(s => s.Placements.Length));
        DemandValid(more);
        // The piece has grown over the border: it is placed anew.
        var grown = Do(more with { Design = more.Design.With("p1", p => p with { Outline = p.Outline with { Path = Path.Rectangle(0, 0, 160, 40) } }) }, new PutOnSheets(3));
        Assert.DoesNotContain(grown.Sheets!.Sheets.SelectMany(s => s.Placements), p => p.Pinned);
        DemandValid(grown);
    }

    [Fact]
    public void A_layout_that_settled_before_the_hand_moved_something_is_not_taken()
    {
        var settled = Placed.Sheets!.ForStock("chalk-200", Placed.Design);
        var take = new TakeSettled("chalk-200", 1) { Layout = settled, MadeFor = Placed.Sheets.MadeFor };
        var moved = Do(Placed, To(Placed, One, 150, 200));
        Assert.Equal(Reason.SettledPins, Assert.Throws<EditRefused>(() => Do(moved, take)).Reason);
        Assert.Equal(BoxOf(Placed, One), BoxOf(Do(Do(moved, new PinPlacements(Sheet, [], false)), take), One));
    }

    [Fact]
    public void A_sheet_that_is_cut_is_kept_once_and_its_pieces_move_no_more()
    {
        var cut = Do(Do(Placed, To(Placed, One, 150, 200)), new KeepRest(Sheet, "Rest 1"));
        Assert.Equal("Rest 1", cut.Sheets!.Sheets[0].RestKept);
        Assert.Equal(Reason.RestKept, Assert.Throws<EditRefused>(() => Do(cut, new KeepRest(Sheet, "Rest 2"))).Reason);
        Assert.All(
            new Edit[] { To(cut, One, 100, 150), new SendPlacements(Sheet, [One], null, "A4"), new TakeSettled("chalk-200", 1) { Layout = cut.Sheets.ForStock("chalk-200", cut.Design), MadeFor = cut.Sheets.MadeFor } },
            e => Assert.Equal(Reason.SheetCut, Assert.Throws<EditRefused>(() => Do(cut, e)).Reason));
        // Another round of cards begins on other paper, nothing pinned.
        var again = Do(cut, new PutOnSheets(2));
        Assert.Null(again.Sheets!.Sheets[0].RestKept);
        Assert.DoesNotContain(again.Sheets.Sheets[0].Placements, p => p.Pinned);
    }

    [Fact]
    public void A_piece_that_lies_on_its_face_and_gets_a_pen_line_makes_its_sheets_stale()
    {
        var project = Given.ProjectOf(Given.Piece("p1", 50, 30));
        project = project with
        {
            Sheets = new SheetLayouts(
                [new SheetLayout("s", "chalk-200", 1, "A4", 210, 297, new(5, 5, 5, 5), [new Placement("p1", 1, Affine.Scale(-1, 1).Then(Affine.Move(100, 20)))])], [], 2, project.LayoutFingerprint()),
        };
        Assert.True(project.SheetsAreCurrent);
        var drawn = Edits.Apply(project, new DrawShape("p1", new StraightShape(new(5, 5), new(40, 5)), Operation.Draw), Given.Drawer);
        Assert.Equal(project.LayoutFingerprint(), drawn.LayoutFingerprint());
        Assert.False(drawn.SheetsAreCurrent);
    }
}
