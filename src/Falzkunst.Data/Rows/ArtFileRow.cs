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

    /// <summary>How many units of a file that says no size were taken for an inch before the scale; null where the file says its size.</summary>
    public double? UnitsToInch { get; set; }

    /// <summary>How many units to the inch its user settled on for it, as a hint for the next file from the same hand; null while nobody has.</summary>
    public double? SettledUnits { get; set; }

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
