namespace Falzkunst.Data.Rows;

/// <summary>Pieces of one stock that settle on its sheets in the background, or have. It is work that waits, its state and its best answer.</summary>
public sealed class SettlingRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }

    /// <summary>The revision whose pieces settle.</summary>
    public int Revision { get; set; }

    /// <summary>Key of the stock.</summary>
    public required string Stock { get; set; }

    /// <summary>The fingerprint of pieces and machine.</summary>
    public required string MadeFor { get; set; }

    /// <summary>One of the names of the phases.</summary>
    public required string Phase { get; set; }

    /// <summary>The time limit.</summary>
    public int Seconds { get; set; }
    public int Seed { get; set; }

    public DateTimeOffset AskedAt { get; set; }
    public DateTimeOffset? BegunAt { get; set; }

    /// <summary>When whoever works on it last said so.</summary>
    public DateTimeOffset? BeatAt { get; set; }
    public DateTimeOffset? BetterAt { get; set; }
    public DateTimeOffset? OverAt { get; set; }

    /// <summary>How many better answers there were.</summary>
    public int Answers { get; set; }

    /// <summary>Version of the JSON of the best layout.</summary>
    public int SchemaVersion { get; set; }

    /// <summary>The best layout so far; null before the first.</summary>
    public string? Best { get; set; }
}
