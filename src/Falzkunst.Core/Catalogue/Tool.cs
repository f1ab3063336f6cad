using System.Globalization;

namespace Falzkunst.Core.Catalogue;

/// <summary>What a holder of a machine can carry.</summary>
public enum Tool
{
    Pen,
    FoilTip,
    EmbossTip,
    ScoreTip,
    Blade,
}

/// <summary>Names of tools for people.</summary>
public static class ToolWords
{
    public static string Name(this Tool tool) => tool switch
    {
        Tool.Pen => "pen",
        Tool.FoilTip => "foil tip",
        Tool.EmbossTip => "emboss tip",
        Tool.ScoreTip => "score tip",
        Tool.Blade => "blade",
        _ => throw new ArgumentOutOfRangeException(nameof(tool)),
    };

    /// <summary>How to set a tool, as a short clause in physical numbers.</summary>
    public static string Describe(ToolSettings s)
    {
        var parts = new List<string>();
        if (s.BladeOutMm is { } blade) parts.Add(string.Create(CultureInfo.InvariantCulture, $"blade {blade:0.00} mm out"));
        if (s.TemperatureCelsius is { } heat) parts.Add($"{heat} °C");
        parts.Add($"{s.ForceGrams} g");
        if (s.Times > 1) parts.Add($"{s.Times} times over");
        return string.Join(", ", parts);
    }
}
