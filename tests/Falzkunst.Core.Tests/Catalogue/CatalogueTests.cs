using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Tests.Catalogue;

/// <summary>Stocks, machines and settings that a new workshop starts with, and what is asked of them.</summary>
public sealed class CatalogueTests
{
    [Fact]
    public void Every_stock_and_machine_of_a_new_workshop_can_be_worked_with()
    {
        Assert.Equal(SeedCatalogue.Stocks.Length, SeedCatalogue.Stocks.DistinctBy(s => s.Key).Count());
        Assert.Equal(SeedCatalogue.Machines.Length, SeedCatalogue.Machines.DistinctBy(m => m.Key).Count());
        Assert.All(SeedCatalogue.Stocks, s =>
        {
            Assert.NotEmpty(s.Sheets);
            Assert.Matches("^#[0-9A-F]{6}$", s.Colour);
            Assert.Contains(SeedCatalogue.Machines, m => s.Sheets.Any(sheet => sheet.WidthMm <= m.MatWidthMm && sheet.HeightMm <= m.MatHeightMm));
            Assert.All(s.Settings, set => Assert.True(set is { ForceGrams: > 0, SpeedMmPerSecond: > 0, Times: >= 1 }));
            // The blade stands out by more than the paper is thick, and by less than twice that.
            Assert.InRange(s.SettingsFor(Tool.Blade).BladeOutMm!.Value, s.ThicknessMm, 2 * s.ThicknessMm);
        });
        Assert.All(SeedCatalogue.Machines, m => Assert.All(Enum.GetValues<Tool>(), tool => Assert.True(m.Takes(tool))));
    }

    [Fact]
    public void Where_nothing_was_noted_settings_are_careful_and_grow_with_the_paper()
    {
        var stock = Given.Stock("slate-220") with { Settings = [] };
        Assert.All(Enum.GetValues<Tool>(), tool => Assert.Equal(CarefulSettings.For(tool, stock.GramsPerSquareMetre, stock.ThicknessMm), stock.SettingsFor(tool)));
        Assert.True(CarefulSettings.For(Tool.Blade, 300, 0.4).ForceGrams > CarefulSettings.For(Tool.Blade, 120, 0.15).ForceGrams);
        Assert.Equal(0.5, CarefulSettings.For(Tool.Blade, 300, 0.4).BladeOutMm);
        Assert.True(CarefulSettings.For(Tool.ScoreTip, 300, 0.4).ForceGrams > CarefulSettings.For(Tool.ScoreTip, 120, 0.15).ForceGrams);
        Assert.Equal(300, CarefulSettings.For(Tool.FoilTip, 200, 0.25).WarmUpSeconds);
    }

    [Fact]
    public void Noted_settings_go_before_careful_ones() =>
        Assert.Equal((150, 0.38), (Given.Stock("slate-220").SettingsFor(Tool.Blade).ForceGrams, Given.Stock("slate-220").SettingsFor(Tool.Blade).BladeOutMm));

    /// <summary>Distances as the paper that brought the space tells them: black to white is 1; near colours are near to the eye.</summary>
    [Theory]
    [InlineData("#000000", "#FFFFFF", 1, 1)]
    [InlineData("#A43E2C", "#A44030", 0, 0.02)] // two takes of one brick red
    [InlineData("#000000", "#A43E2C", 0.4, 1)] // black is no dark red
    [InlineData("#B48A58", "#B9905C", 0, 0.03)]
    [InlineData("#FF0000", "#00FF00", 0.4, 1)]
    public void Colours_are_as_far_apart_as_they_look(string one, string other, double least, double most)
    {
        Assert.InRange(StockColours.Difference(one, other), least - 1e-6, most + 1e-6);
        Assert.Equal(StockColours.Difference(one, other), StockColours.Difference(other, one), 1e-12);
    }

    [Fact]
    public void Black_comes_near_no_red_stock()
    {
        var near = Given.Drawer.StockFor("#000000");
        Assert.Equal(SeedCatalogue.Stocks.MinBy(s => StockColours.Difference(s.Colour, "#000000"))!.Key, near);
        Assert.NotEqual("ember-220", near);
        Assert.True(StockColours.Difference("#000000", Given.Drawer.ColourOf(near)) > StockColours.FarAway);
    }

    [Fact]
    public void Borders_leave_the_middle_and_grow_to_the_least_that_is_asked()
    {
        var borders = new Borders(1, 2, 3, 4);
        Assert.Equal(new Box(4, 1, 98, 47), borders.Within(100, 50));
        Assert.Equal(new Borders(2.5, 2.5, 3, 4), borders.AtLeast(2.5));
    }

    [Fact]
    public void Settings_read_as_a_crafter_sets_them() => Assert.Equal(
        ["blade 0.42 mm out, 165 g", "118 °C, 170 g", "230 g, 2 times over"],
        new[]
        {
            ToolWords.Describe(Given.Stock("kraft-240").SettingsFor(Tool.Blade)), ToolWords.Describe(Given.Stock("chalk-200").SettingsFor(Tool.FoilTip)),
            ToolWords.Describe(Given.Stock("chalk-200").SettingsFor(Tool.EmbossTip)),
        });

    [Fact]
    public void Offcuts_get_names_that_none_has_or_ever_had()
    {
        var stock = Given.Stock("kraft-240");
        Assert.Equal("Rest 1", stock.NextOffcut);
        Assert.Equal("Rest 5", (stock with { OffcutsMade = 4 }).NextOffcut);
        var kept = new Offcut("Rest 5", Path.Rectangle(0, 0, 50, 50), []);
        Assert.Equal("Rest 6", (stock with { OffcutsMade = 4, Offcuts = [kept] }).NextOffcut);
    }

    [Fact]
    public void What_the_drawer_lacks_is_refused_with_its_field()
    {
        Assert.Equal("stock", Assert.Throws<EditRefused>(() => Given.Drawer.Stock("none")).Field);
        Assert.Equal("machine", Assert.Throws<EditRefused>(() => Given.Drawer.Machine("none")).Field);
        Assert.Equal("#B98F5E", Given.Drawer.ColourOf("kraft-240"));
        Assert.Equal("#DDDDDD", Given.Drawer.ColourOf("none"));
    }
}
