using System.Collections.Immutable;

namespace Falzkunst.Core.Catalogue;

/// <summary>What about a setting is far from what its stock can want.</summary>
public enum SettingsWarning
{
    /// <summary>The blade stands out so far that it cuts the mat.</summary>
    BladeFarOut,

    /// <summary>The blade does not reach through the paper.</summary>
    BladeTooShort,

    /// <summary>Several times the force that such paper is known to take.</summary>
    ForceHigh,

    /// <summary>Foil takes at other heats.</summary>
    HeatUnusual,

    /// <summary>So fast that corners round off.</summary>
    SpeedHigh,

    /// <summary>Line after line in the same place cuts through.</summary>
    TimesMany,

    /// <summary>The stock is noted as one that the tool does not suit; nothing is likelier.</summary>
    NotSuited,
}

/// <summary>A warning with the number that would be more likely.</summary>
/// <param name="Code">What is unusual.</param>
/// <param name="Likely">What such a stock more often takes, in the setting's own unit.</param>
public sealed record SettingsDoubt(SettingsWarning Code, double Likely);

/// <summary>
/// Looks whether settings are far from their stock. Nothing is refused for it: somebody may know better, and an extra digit is told.
/// </summary>
public static class SettingsCare
{
    /// <summary>A blade goes through the paper and this much into the mat, mm; twice that is plenty.</summary>
    private const double IntoMatMm = 0.1;

    /// <summary>From so much beyond the paper on the mat is cut, mm.</summary>
    private const double FarOutMm = 0.45;

    /// <summary>Careful settings are made to be bettered, by up to so many times.</summary>
    private const double MostForceTimes = 3;

    private const int CoolestFoil = 80;
    private const int HottestFoil = 180;
    private const double FastestFoil = 120;
    private const double Fastest = 450;
    private const int MostTimes = 6;

    /// <summary>What is unusual about settings on a stock; nothing for most.</summary>
    /// <param name="stock">The stock.</param>
    /// <param name="settings">The settings.</param>
    /// <param name="isHalfCut">The blade is meant to stay within the paper.</param>
    public static ImmutableArray<SettingsDoubt> Doubts(Stock stock, ToolSettings settings, bool isHalfCut = false)
    {
        var doubts = ImmutableArray.CreateBuilder<SettingsDoubt>();
        var careful = CarefulSettings.For(settings.Tool, stock.GramsPerSquareMetre, stock.ThicknessMm);
        if (settings.BladeOutMm is { } blade)
        {
            if (blade > stock.ThicknessMm + FarOutMm) doubts.Add(new(SettingsWarning.BladeFarOut, Math.Round(stock.ThicknessMm + IntoMatMm, 2)));
            else if (blade < stock.ThicknessMm && !isHalfCut) doubts.Add(new(SettingsWarning.BladeTooShort, Math.Round(stock.ThicknessMm + IntoMatMm, 2)));
        }
        if (settings.ForceGrams > MostForceTimes * careful.ForceGrams) doubts.Add(new(SettingsWarning.ForceHigh, careful.ForceGrams));
        if (settings.TemperatureCelsius is < CoolestFoil or > HottestFoil) doubts.Add(new(SettingsWarning.HeatUnusual, careful.TemperatureCelsius ?? 120));
        var fastest = settings.Tool == Tool.FoilTip ? FastestFoil : Fastest;
        if (settings.SpeedMmPerSecond > fastest) doubts.Add(new(SettingsWarning.SpeedHigh, careful.SpeedMmPerSecond));
        if (settings.Times > MostTimes) doubts.Add(new(SettingsWarning.TimesMany, careful.Times));
        if (!stock.DoesSuit(settings.Tool)) doubts.Add(new(SettingsWarning.NotSuited, 0));
        return doubts.ToImmutable();
    }
}
