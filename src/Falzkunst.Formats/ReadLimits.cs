namespace Falzkunst.Formats;

/// <summary>How much a file from outside may ask for. Every reader stops with a clear answer where one is passed.</summary>
public sealed record ReadLimits
{
    public static readonly ReadLimits Default = new();

    /// <summary>Size of the file.</summary>
    public int Bytes { get; init; } = 20 * 1024 * 1024;

    /// <summary>How deep elements may lie in each other.</summary>
    public int Depth { get; init; } = 256;

    /// <summary>Characters that entities of the document may grow to.</summary>
    public long EntityCharacters { get; init; } = 1_000_000;

    /// <summary>Elements in the file.</summary>
    public int Elements { get; init; } = 500_000;

    /// <summary>Shapes after every reuse has been followed.</summary>
    public int Shapes { get; init; } = 200_000;

    /// <summary>Segments of all lines together.</summary>
    public int Segments { get; init; } = 4_000_000;

    /// <summary>Reading altogether.</summary>
    public TimeSpan Time { get; init; } = TimeSpan.FromSeconds(20);

    /// <summary>Notes kept; what comes after is only counted.</summary>
    public int Notes { get; init; } = 200;
}
