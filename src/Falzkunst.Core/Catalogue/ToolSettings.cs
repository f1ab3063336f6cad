namespace Falzkunst.Core.Catalogue;

/// <summary>How a tool runs over a stock, in physical numbers.</summary>
/// <param name="Tool">The tool these settings are for.</param>
/// <param name="ForceGrams">Downward force, grams.</param>
/// <param name="SpeedMmPerSecond">Speed along the line, mm/s; the machine may be slower.</param>
/// <param name="BladeOutMm">How far the blade stands out, mm; null for tools without one.</param>
/// <param name="TemperatureCelsius">Heat of the tip; null for cold tools.</param>
/// <param name="WarmUpSeconds">Waiting until a hot tip is ready.</param>
/// <param name="Times">How often the tool runs over each line, at least 1.</param>
/// <param name="NarrowestMm">The narrowest part that this tool leaves whole, mm; null for what the stock bears anyway.</param>
/// <param name="TipMm">Width of the tip that worked, mm; null where it does not matter.</param>
public sealed record ToolSettings(
    Tool Tool,
    int ForceGrams,
    double SpeedMmPerSecond,
    double? BladeOutMm = null,
    int? TemperatureCelsius = null,
    int WarmUpSeconds = 0,
    int Times = 1,
    double? NarrowestMm = null,
    double? TipMm = null)
{
    /// <summary>No tool presses harder by setting, grams.</summary>
    public const int MostForceGrams = 5000;
}
