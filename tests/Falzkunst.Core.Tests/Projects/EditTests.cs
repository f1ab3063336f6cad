using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Projects;

public sealed class EditTests
{
    private static readonly Project Two = Given.ProjectOf(
        Given.Piece("p1", 60, 40, Given.Line(Given.Straight(10, 20, 50, 20), Operation.Cut)),
        Given.Piece("p2", 30, 30));

    [Fact]
    public void An_operation_is_given_to_the_named_lines_alone()
    {
        var after = Edits.Apply(Two, new SetOperation([new("p1", ["l2"])], Operation.Score), Given.Drawer);
        Assert.Equal([Operation.Cut, Operation.Score], after.Design.Pieces[0].Lines.Select(l => l.Operation));
        Assert.Same(Two.Design.Pieces[1], after.Design.Pieces[1]);
        Assert.Equal(Operation.Cut, Two.Design.Pieces[0].Lines[1].Operation);
    }

    [Fact]
    public void Lines_of_one_look_change_together_on_all_pieces_and_others_stay()
    {
        var look = Two.Design.Pieces[0].Lines[1].Look;
        var three = Two with { Design = Two.Design with { Pieces = Two.Design.Pieces.Add(Two.Design.Pieces[0] with { Id = "p3" }) } };
        var after = Edits.Apply(three, new SetOperationOfLook(look, Operation.Score), Given.Drawer);
        Assert.Equal([Operation.Score, Operation.Score], new[] { after.Design.Pieces[0], after.Design.Pieces[2] }.Select(p => p.Lines[1].Operation));
        Assert.All(after.Design.Pieces, p => Assert.Equal(Operation.Cut, p.Lines[0].Operation));
        Assert.Throws<EditRefused>(() => Edits.Apply(Two, new SetOperationOfLook(look with { Layer = "none" }, Operation.Score), Given.Drawer));
    }

    [Fact]
    public void An_open_cut_closed_becomes_an_opening_and_its_finding_goes()
    {
        var open = Path.Polyline([new(10, 10), new(30, 10), new(30, 30), new(10, 30), new(10, 10.3)], closed: false);
        var project = Given.ProjectOf(Given.Piece("p1", 60, 40, Given.Line(open, Operation.Cut)));
        var after = Edits.Apply(project, new CloseOutline("p1", "l2"), Given.Drawer).Design;
        Assert.Equal(60 * 40 - 400, after.Pieces[0].Area, 1e-9);
        Assert.Empty(Checks.Findings(after));
        Assert.Throws<EditRefused>(() => Edits.Apply(Edits.Apply(project, new CloseOutline("p1", "l2"), Given.Drawer), new CloseOutline("p1", "l2"), Given.Drawer));
        Assert.Throws<EditRefused>(() => Edits.Apply(project, new CloseOutline("p1", "l9"), Given.Drawer));
    }

    [Fact]
    public void Pen_and_foil_come_with_a_colour_and_leave_with_it()
    {
        var drawn = Edits.Apply(Two, new SetOperation([new("p1", ["l2"])], Operation.Draw), Given.Drawer);
        Assert.Equal("#000000", drawn.Design.Pieces[0].Lines[1].Ink);
        var cut = Edits.Apply(drawn, new SetOperation([new("p1", ["l2"])], Operation.Cut), Given.Drawer);
        Assert.Null(cut.Design.Pieces[0].Lines[1].Ink);
    }

    private static readonly Edit[] Unfit =
    [
        new SetOperation([new("p1", ["l9"])], Operation.Score), new SetOperation([new("p9", ["l1"])], Operation.Score), new SetOperation([new("p1", [])], Operation.Score), new SetOperation([], Operation.Score),
        new SetStock(["p1"], "tissue"), new SetStock(["p9"], "kraft-240"), new SetQuantity("p1", -1), new SetQuantity("p1", Edits.MostOfAPiece + 1),
        new RenamePiece("p1", " "), new RenamePiece("p1", new string('x', 81)), new RemovePieces(["p1", "p9"]), new PutOnSheets(-1), new PutOnSheets(double.NaN),
        new ChangeSetOut(SetOut.Default with { Cards = 0 }), new ChangeSetOut(SetOut.Default with { Machine = "none" }),
        new ChangeSetOut(SetOut.Default with { Card = CardFormat.Default with { FoldedWidth = double.NaN } }), new BringInArt(Guid.Empty, "a.svg"),
    ];

    public static TheoryData<int> Refused => [.. Enumerable.Range(0, Unfit.Length)];

    [Theory]
    [MemberData(nameof(Refused))]
    public void What_does_not_fit_is_refused(int which) => Assert.Throws<EditRefused>(() => Edits.Apply(Two, Unfit[which], Given.Drawer));

    [Fact]
    public void Sheets_go_out_of_date_when_what_lies_on_them_changes_and_only_then()
    {
        var placed = Edits.Apply(Two, new PutOnSheets(2), Given.Drawer);
        Assert.True(placed.SheetsAreCurrent);
        Assert.True(Edits.Apply(placed, new RenamePiece("p1", "Other"), Given.Drawer).SheetsAreCurrent);
        Assert.True(Edits.Apply(placed, new SetOperation([new("p1", ["l2"])], Operation.Score), Given.Drawer).SheetsAreCurrent);
        Assert.False(Edits.Apply(placed, new SetQuantity("p1", 2), Given.Drawer).SheetsAreCurrent);
        Assert.False(Edits.Apply(placed, new SetStock(["p1"], "kraft-240"), Given.Drawer).SheetsAreCurrent);
        Assert.False(Edits.Apply(placed, new RemovePieces(["p1"]), Given.Drawer).SheetsAreCurrent);
        Assert.False(Edits.Apply(placed, new ChangeSetOut(placed.SetOut with { Cards = 4 }), Given.Drawer).SheetsAreCurrent);
        Assert.True(Edits.Apply(placed, new ChangeSetOut(placed.SetOut with { Units = Units.Inches }), Given.Drawer).SheetsAreCurrent);
    }

    [Fact]
    public void Art_brought_in_twice_gets_names_of_its_own()
    {
        var art = new Design([Given.Piece("p3", 10, 10) with { Name = "Piece p1" }], [], [], 4);
        var after = Edits.Apply(Two, new BringInArt(Guid.Empty, "again.svg") { Pieces = art }, Given.Drawer);
        Assert.Equal(["Piece p1", "Piece p2", "Piece p1 (2)"], after.Design.Pieces.Select(p => p.Name));
        Assert.Equal(4, after.Design.NextPiece);
    }

    [Fact]
    public void Too_many_copies_are_refused_before_they_are_placed() => Assert.Throws<EditRefused>(() => Edits.Apply(
        Two with { SetOut = Two.SetOut with { Cards = 500 }, Design = Two.Design.With("p1", p => p with { Quantity = 11 }) }, new PutOnSheets(1), Given.Drawer));

    [Fact]
    public void The_stock_of_a_piece_follows_the_colour_it_was_painted_in()
    {
        Assert.Equal("ember-220", Given.Drawer.StockFor("#A04030"));
        Assert.Equal("slate-220", Given.Drawer.StockFor("#505860"));
        Assert.Equal("chalk-200", Given.Drawer.StockFor(null));
    }

    [Fact]
    public void Pieces_spread_out_do_not_overlap()
    {
        var pieces = Enumerable.Range(1, 23).Select(i => Given.Piece($"p{i}", 10 + 13 * i % 90, 8 + 7 * i % 60)).ToArray();
        var places = SpreadOut.Arrange(Given.ProjectOf(pieces).Design);
        var boxes = pieces.Select((p, i) => p.Outline.Path.Map(places[i]).Bounds).ToList();
        for (var i = 0; i < boxes.Count; i++)
        {
            for (var k = 0; k < i; k++) Assert.False(boxes[i].Grow(3).Overlaps(boxes[k].Grow(3)));
        }
        Assert.Empty(SpreadOut.Arrange(Design.Empty));
    }

    [Fact]
    public void A_rule_from_a_choice_speaks_of_what_is_typical_and_of_no_incidental_name()
    {
        var look = new Look("#0000FF", null, true, false, "folds");
        var rule = LookRule.Typical(look, Operation.Score)!;
        Assert.Equal("Blue dashed lines in layer “folds” are folds", rule.InWords());
        Assert.All([look, look with { Closed = true }, look with { Fill = "#FFFFFF" }], l => Assert.True(rule.Fits(l)));
        Assert.All([look with { Stroke = "#FF0000" }, look with { Dashed = false }, look with { Layer = "cuts" }], l => Assert.False(rule.Fits(l)));
        // A name that a program gave is left out; black unbroken lines in such a layer are nothing to make a rule of.
        Assert.Null(LookRule.Typical(look with { Layer = "Layer_4" }, Operation.Score)!.Layer);
        Assert.Null(LookRule.Typical(new Look("#000000", null, false, true, "Layer_4"), Operation.Score));
        Assert.Null(LookRule.Typical(Look.DrawnHere, Operation.Score));
    }

    [Theory]
    [InlineData("folds", Operation.Score)]
    [InlineData("Fold lines", Operation.Score)]
    [InlineData("scoring", Operation.Score)]
    [InlineData("perforation", Operation.Perforate)]
    [InlineData("CUTTING", Operation.Cut)]
    [InlineData("gold foil", Operation.Foil)]
    [InlineData("pencil", null)]
    [InlineData("cutlery", null)]
    [InlineData("", null)]
    public void Layer_names_suggest_operations(string layer, Operation? expected) => Assert.Equal(expected, DefaultOperations.Suggested(layer));
}
