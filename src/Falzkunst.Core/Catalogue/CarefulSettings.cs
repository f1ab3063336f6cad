namespace Falzkunst.Core.Catalogue;

/// <summary>
/// Where nobody has noted what worked: slow and light, growing with the weight of the paper, to be bettered by a test cut.
/// </summary>
public static class CarefulSettings
{
    public static ToolSettings For(Tool tool, int gramsPerSquareMetre, double thicknessMm) => tool switch
    {
        Tool.Pen => new(tool, 40, 120),
        Tool.FoilTip => new(tool, 180, 30, TemperatureCelsius: 120, WarmUpSeconds: 300),
        Tool.EmbossTip => new(tool, 220, 60),
        Tool.ScoreTip => new(tool, 120 + gramsPerSquareMetre / 3, 120),
        Tool.Blade => new(tool, 60 + gramsPerSquareMetre / 2, 80, BladeOutMm: Math.Round(thicknessMm + 0.1, 2)),
        _ => throw new ArgumentOutOfRangeException(nameof(tool)),
    };
}
