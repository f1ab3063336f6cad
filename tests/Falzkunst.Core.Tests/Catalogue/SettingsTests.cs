using Falzkunst.Core.Catalogue;

namespace Falzkunst.Core.Tests.Catalogue;

/// <summary>Sets of settings, and numbers that are far from their stock.</summary>
public sealed class SettingsTests
{
    private static readonly Stock Thin = Given.Stock("slate-220") with { ThicknessMm = 0.25, GramsPerSquareMetre = 220 };

    private static SettingsWarning[] Doubts(ToolSettings settings, bool isHalfCut = false) => [.. SettingsCare.Doubts(Thin, settings, isHalfCut).Select(d => d.Code)];

    [Fact]
    public void Nothing_that_ships_and_nothing_careful_is_doubted() => Assert.All(SeedCatalogue.Stocks, stock =>
    {
        Assert.All(stock.Settings, s => Assert.Empty(SettingsCare.Doubts(stock, s)));
        Assert.All(Enum.GetValues<Tool>(), t => Assert.Empty(SettingsCare.Doubts(stock, CarefulSettings.For(t, stock.GramsPerSquareMetre, stock.ThicknessMm))));
    });

    [Fact]
    public void Numbers_far_from_the_stock_are_told_with_what_is_likelier()
    {
        var blade = CarefulSettings.For(Tool.Blade, 220, 0.25);
        Assert.Equal([SettingsWarning.BladeFarOut], Doubts(blade with { BladeOutMm = 6 }));
        Assert.Equal(0.35, SettingsCare.Doubts(Thin, blade with { BladeOutMm = 6 })[0].Likely);
        Assert.Equal([SettingsWarning.BladeTooShort], Doubts(blade with { BladeOutMm = 0.2 }));
        // A half cut is meant to stay within the paper.
        Assert.Empty(Doubts(blade with { BladeOutMm = 0.15 }, isHalfCut: true));
        Assert.Equal([SettingsWarning.ForceHigh], Doubts(blade with { ForceGrams = blade.ForceGrams * 10 }));
        Assert.Equal([SettingsWarning.SpeedHigh], Doubts(blade with { SpeedMmPerSecond = 900 }));
        Assert.Equal([SettingsWarning.TimesMany], Doubts(blade with { Times = 12 }));
        Assert.Equal([SettingsWarning.NotSuited], SettingsCare.Doubts(Thin with { Suits = [Tool.Pen] }, blade).Select(d => d.Code));
        Assert.Empty(SettingsCare.Doubts(Thin with { Suits = [Tool.Blade] }, blade));
        Assert.Equal([SettingsWarning.HeatUnusual], Doubts(CarefulSettings.For(Tool.FoilTip, 220, 0.25) with { TemperatureCelsius = 30 }));
    }

    [Fact]
    public void One_set_is_in_use_and_the_others_come_back_as_they_were()
    {
        var note = new SettingNote("typed here", new DateTimeOffset(2026, 3, 1, 10, 0, 0, 500, TimeSpan.FromHours(2)));
        Assert.Equal((TimeSpan.Zero, 0), (note.At.Offset, note.At.Millisecond));
        var fine = Thin.SetInUse.Keeping(new ToolSettings(Tool.Blade, 99, 20, BladeOutMm: 0.3), note) with { Name = "intricate" };
        var stock = Thin with { OtherSets = [fine] };
        var used = stock.Using("intricate");
        Assert.Equal(99, used.SettingsFor(Tool.Blade).ForceGrams);
        Assert.Equal(note, used.Notes[Tool.Blade]);
        Assert.Equal(Thin.SettingsFor(Tool.ScoreTip), used.SettingsFor(Tool.ScoreTip));
        Assert.Equal([Thin.SetName], used.OtherSets.Select(s => s.Name));
        var back = used.Using(Thin.SetName);
        Assert.Equal(Thin.Settings, back.Settings);
        Assert.Equal(fine.Settings, back.OtherSets.Single().Settings);
        Assert.Same(stock, stock.Using("none of that name"));
        // Nothing noted: careful ones are taken.
        var without = stock.With(stock.SetInUse.Without(Tool.Blade));
        Assert.Equal(CarefulSettings.For(Tool.Blade, 220, 0.25), without.SettingsFor(Tool.Blade));
    }

    [Fact]
    public void A_machine_changes_its_mat_and_back()
    {
        var twin = SeedCatalogue.Machines[1] with { OtherMats = [new("long", 330, 610)] };
        var on = twin.OnMat("long");
        Assert.Equal((330.0, 610.0, "long"), (on.MatWidthMm, on.MatHeightMm, on.MatName));
        Assert.Equal([twin.MatInUse], on.OtherMats);
        Assert.Equal((twin.MatWidthMm, twin.MatHeightMm), (on.OnMat(twin.MatName).MatWidthMm, on.OnMat(twin.MatName).MatHeightMm));
        Assert.Same(twin, twin.OnMat("none"));
    }
}
