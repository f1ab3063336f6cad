namespace Falzkunst.Data.Rows;

/// <summary>An art file as it came, and what reading it gave.</summary>
public sealed class ArtFileRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }
    public required string FileName { get; set; }
    public required byte[] Content { get; set; }
    public DateTimeOffset At { get; set; }
    public double WidthMm { get; set; }
    public double HeightMm { get; set; }

    /// <summary>What its own lengths are multiplied by; the page's size above is after that.</summary>
    public double Scale { get; set; } = 1;

    /// <summary>The embedded pictures with their places, JSON.</summary>
    public string Pictures { get; set; } = "[]";
    public int Lines { get; set; }
    public int Pieces { get; set; }

    /// <summary>How many lines got their operation from a remembered rule.</summary>
    public int ByRule { get; set; }

    /// <summary>Whose hand it is from, as the user calls it; null where nothing was said.</summary>
    public string? Origin { get; set; }

    /// <summary>What each remembered rule did with it, JSON.</summary>
    public string RulesUsed { get; set; } = "[]";

    /// <summary>What was not understood, JSON.</summary>
    public required string Notes { get; set; }
}
