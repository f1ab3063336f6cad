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
}
