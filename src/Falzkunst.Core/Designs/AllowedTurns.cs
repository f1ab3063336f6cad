namespace Falzkunst.Core.Designs;

/// <summary>How a piece may be turned on its sheet, from how it is drawn.</summary>
public enum AllowedTurns
{
    /// <summary>By quarter turns.</summary>
    Quarters,

    /// <summary>As drawn or upside down: along the paper's grain.</summary>
    AlongGrain,

    /// <summary>As drawn alone: a pattern or print with an upper edge.</summary>
    AsDrawn,

    /// <summary>By any angle.</summary>
    AnyAngle,
}
