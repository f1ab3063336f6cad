using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Tests.Nesting;

/// <summary>Which sheets of the drawer the pieces of a design are put on.</summary>
public sealed class PaperPlacingTests
{
    private static readonly Stock Chalk = Given.Stock("chalk-200") with { Sheets = [new("A4", 210, 297, 9), new("A5", 148, 210, 9)], Offcuts = [] };

    private static SheetLayouts Place(Stock stock, params Piece[] pieces) => PlaceOn("twin-330", stock, pieces);

    private static SheetLayouts PlaceOn(string machine, Stock stock, params Piece[] pieces) => PaperPlacing.Place(
        Given.ProjectOf(pieces).Design, [stock], Given.Machine(machine), 2, 1, "now", NestEffort.FirstAnswer, "b");

    [Theory]
    [InlineData(120, 180, "A5")]
    [InlineData(150, 180, "A4")] // lies across A5 no better
    public void The_smallest_sheet_that_does_is_taken(double width, double height, string size) =>
        Assert.Equal(size, Assert.Single(Place(Chalk, Given.Piece("p1", width, height)).Sheets).SizeName);

    [Fact]
    public void The_last_sheet_of_several_may_be_the_smaller_one()
    {
        var sheets = Place(Chalk, Given.Piece("p1", 190, 280), Given.Piece("p2", 100, 150)).Sheets;
        Assert.Equal(["A4", "A5"], sheets.Select(s => s.SizeName).Order());
        Assert.Equal(["p1"], sheets.Single(s => s.SizeName == "A4").Placements.Select(p => p.Piece));
    }

    /// <summary>190 by 100 fits twelve inches three times only where one lies across; a grain keeps all three one way.</summary>
    [Theory]
    [InlineData(StockDirection.None, 1)]
    [InlineData(StockDirection.Down, 2)]
    public void Where_a_grain_runs_along_the_sheet_no_piece_lies_across_it(StockDirection direction, int sheets)
    {
        var stock = Chalk with { Sheets = [new("Square", 304.8, 304.8, 9)], Direction = direction };
        var placed = Place(stock, Given.Piece("p1", 180, 90), Given.Piece("p2", 180, 90), Given.Piece("p3", 180, 90), Given.Piece("p4", 180, 90));
        Assert.Empty(placed.Unplaced);
        Assert.Equal(sheets, placed.Sheets.Length);
        Assert.Equal(direction == StockDirection.None, placed.Sheets.SelectMany(s => s.Placements).Any(p => Math.Abs(p.Place.Apply(new Point(1, 0)).Y - p.Place.Apply(new Point(0, 0)).Y) > 0.5));
    }

    [Fact]
    public void A_piece_left_out_altogether_takes_no_paper()
    {
        var outer = Given.Piece("p1", 100, 50, Given.Line(Path.Rectangle(10, 10, 20, 20), Operation.Cut));
        var leftOut = Piece.FromLines("p2", "Not this time", "chalk-200", Affine.Identity, outer.Lines.Select(l => (Line)l.With(l.EffectiveSettings with { LeftOut = true })));
        Assert.False(leftOut.IsMade);
        Assert.Equal(["p1"], Place(Chalk, outer, leftOut).Sheets.SelectMany(s => s.Placements).Select(p => p.Piece));
        Assert.Empty(Place(Chalk, leftOut).Sheets);
    }

    [Fact]
    public void A_scrap_without_area_is_named_and_keeps_no_other_piece_off_its_sheet()
    {
        var scrap = Piece.FromLines("p2", "Crumb", "chalk-200", Affine.Identity, [Given.Line(Path.Polyline([new(0, 0), new(30, 0), new(0, 0)], true), Operation.Cut)]);
        Assert.True(scrap.IsScrap);
        var placed = Place(Chalk, Given.Piece("p1", 100, 50), scrap);
        Assert.Equal(["p1"], placed.Sheets.SelectMany(s => s.Placements).Select(p => p.Piece));
        Assert.Equal(("p2", UnfitCode.NoArea), placed.Unplaced.Select(u => (u.Piece, u.Why.Code)).Single());
    }

    [Fact]
    public void Sheets_are_laid_turned_where_that_was_chosen_or_only_so_they_fit_the_mat()
    {
        var project = Project.Empty with { SetOut = SetOut.Default with { TurnedSheets = ["chalk-200"] } };
        Assert.Equal([(297d, 210d), (210d, 148d)], project.AsLaid(Chalk).Sheets.Select(s => (s.WidthMm, s.HeightMm)));
        Assert.Same(Given.Stock("kraft-240"), project.AsLaid(Given.Stock("kraft-240")));
        Assert.NotEqual(Project.Empty.LayoutFingerprint(), (project with { Design = Given.ProjectOf(Given.Piece("p1", 9, 9)).Design }).LayoutFingerprint());
        var wide = Chalk with { Sheets = [new("Long", 1100, 600, 1)] };
        var sheet = Assert.Single(PlaceOn("broad-610", wide, Given.Piece("p1", 200, 100)).Sheets);
        Assert.Equal((600d, 1100d), (sheet.Width, sheet.Height));
    }
}
