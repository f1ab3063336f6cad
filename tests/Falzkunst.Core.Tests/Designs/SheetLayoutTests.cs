using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Designs;

/// <summary>Sheets of one stock as they lie.</summary>
public sealed class SheetLayoutTests
{
    private static SheetLayout Sheet(string id, int number, string size) => new(id, "chalk-200", number, size, 210, 297, new Borders(5, 5, 5, 5), []);

    private static readonly StockLayout Layout = new("chalk-200", [Sheet("a", 1, "A4"), Sheet("b", 2, "A4") with { RestKept = "Rest 1" }, Sheet("c", 3, "12 inch square")], []);

    /// <summary>A sheet whose rest is kept has left the drawer already.</summary>
    [Fact]
    public void Of_the_drawer_those_are_left_that_no_uncut_sheet_takes()
    {
        Assert.Equal(4, Layout.Left("A4", 5));
        Assert.Equal(11, Layout.Left("12 inch square", 12));
        Assert.Equal(3, Layout.Left("A5", 3));
        Assert.Equal(0, Layout.Left("A4", 0));
    }

    [Fact]
    public void What_is_cut_is_not_laid_otherwise()
    {
        Assert.Equal(["a", "c"], Layout.Uncut.Select(s => s.Id));
        Assert.Equal(Reason.SheetCut, Assert.Throws<EditRefused>(Layout.DemandUncut).Reason);
        (Layout with { Sheets = [.. Layout.Uncut] }).DemandUncut();
    }

    [Fact]
    public void Sheets_on_which_nothing_lies_go_and_the_others_are_numbered_through()
    {
        var copy = new Placement("p1", 1, Falzkunst.Core.Geometry.Affine.Identity);
        var tidy = (Layout with { Sheets = [Layout.Sheets[0], Layout.Sheets[2] with { Placements = [copy] }] }).Tidy();
        Assert.Equal([("c", 1)], tidy.Sheets.Select(s => (s.Id, s.Number)));
    }
}
