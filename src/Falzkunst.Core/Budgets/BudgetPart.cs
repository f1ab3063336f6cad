namespace Falzkunst.Core.Budgets;

/// <summary>What there is only so much of.</summary>
public enum BudgetPart
{
    /// <summary>Seconds of the processor.</summary>
    Time,

    /// <summary>Steps of computation.</summary>
    Work,

    /// <summary>How deep things lie in each other.</summary>
    Depth,

    /// <summary>Size of the file.</summary>
    Bytes,

    /// <summary>Elements or entities of the file.</summary>
    Elements,

    /// <summary>Shapes drawn, after every reuse has been followed.</summary>
    Shapes,

    /// <summary>Segments of all lines together.</summary>
    Segments,

    /// <summary>Corners of the lines once they are flattened: what long and far-flung curves ask for.</summary>
    Points,

    /// <summary>Pieces that come of it.</summary>
    Pieces,
}
