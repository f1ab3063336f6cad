using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Editing;

/// <summary>What was changed of how lines are worked, for the history: "Force 200 g, 2 times over", "Mountain fold".</summary>
internal static class LineSettingsWords
{
    public static string Sentence(ImmutableArray<LineSettingsPart> parts, LineSettings to)
    {
        var words = string.Join(", ", parts.Select(p => OfPart(p, to)));
        return words.Length == 0 ? "Changed how lines are worked" : char.ToUpperInvariant(words[0]) + words[1..];
    }

    private static string OfPart(LineSettingsPart part, LineSettings to) => part switch
    {
        LineSettingsPart.Fold => to.Fold is { } fold ? $"{fold.ToString().ToLowerInvariant()} fold" : "fold either way",
        LineSettingsPart.HalfCut => to.HalfCut ? "half cut" : "cut through",
        LineSettingsPart.FromBack => to.FromBack ? "from the back" : "from the front",
        LineSettingsPart.LeftOut => to.LeftOut ? "left out of the run" : "taken along in the run",
        LineSettingsPart.Dash => $"dashes of {Mm((to.Dashes ?? PerforationDashes.Usual).DashMm)}",
        LineSettingsPart.Gap => $"gaps of {Mm((to.Dashes ?? PerforationDashes.Usual).GapMm)}",
        LineSettingsPart.Tip => to.TipMm is { } tip ? $"tip of {Mm(tip)}" : "the usual tip",
        LineSettingsPart.Fill => to.Fill is { } fill ? $"filled {fill.Pattern.ToString().ToLowerInvariant()}" : "not filled",
        LineSettingsPart.FillDistance => to.Fill?.DistanceMm is { } distance ? $"strokes {Mm(distance)} from each other" : "strokes at the usual distance",
        LineSettingsPart.FillAngle => string.Create(CultureInfo.InvariantCulture, $"strokes at {to.Fill?.AngleDegrees ?? AreaFill.UsualAngleDegrees:0.#}°"),
        LineSettingsPart.Force => to.Tool?.ForceGrams is { } force ? $"force {force} g" : "the stock's force",
        LineSettingsPart.Speed => to.Tool?.SpeedMmPerSecond is { } speed ? string.Create(CultureInfo.InvariantCulture, $"speed {speed:0.#} mm/s") : "the stock's speed",
        LineSettingsPart.BladeOut => to.Tool?.BladeOutMm is { } blade ? $"blade {Mm(blade)} out" : "the stock's blade",
        LineSettingsPart.Temperature => to.Tool?.TemperatureCelsius is { } heat ? $"{heat} °C" : "the stock's heat",
        LineSettingsPart.Times => to.Tool?.Times is { } times ? times == 1 ? "once over" : $"{times} times over" : "as often as the stock says",
        LineSettingsPart.Print => to.Print is null ? "printed as their file painted them" : "how they are printed",
        LineSettingsPart.Hold => to.Hold is { } hold ? $"held by {hold.Count} bridges of {Mm(hold.WidthMm)}" : "cut all round",
        _ => throw new ArgumentOutOfRangeException(nameof(part)),
    };

    private static string Mm(double mm) => string.Create(CultureInfo.InvariantCulture, $"{mm:0.##} mm");
}
