namespace Falzkunst.Core.Designs;

/// <summary>What a tool does along a line. The order is the law of paper: what comes first runs first.</summary>
public enum Operation
{
    Print,
    Draw,
    Foil,
    Emboss,
    Score,
    Perforate,
    Cut,
    Aid,
}
