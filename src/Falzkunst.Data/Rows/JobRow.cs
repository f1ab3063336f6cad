namespace Falzkunst.Data.Rows;

/// <summary>Long work: what is asked for, who works on it, how far it is, what came of it. The table is the queue.</summary>
public sealed class JobRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }

    /// <summary>The revision that it is about.</summary>
    public int Revision { get; set; }

    /// <summary>One of the names of the kinds.</summary>
    public required string Kind { get; set; }

    /// <summary>What of the project: key of a stock, id of a piece; empty for all of it.</summary>
    public required string Subject { get; set; }

    /// <summary>Fingerprint of all that it depends on.</summary>
    public required string MadeFor { get; set; }

    /// <summary>What else the kind wants to know, JSON.</summary>
    public string? Request { get; set; }

    /// <summary>One of the names of the phases.</summary>
    public required string Phase { get; set; }

    /// <summary>The worker that holds it; null for none.</summary>
    public Guid? Worker { get; set; }

    /// <summary>How often it was begun.</summary>
    public int Attempts { get; set; }

    public DateTimeOffset AskedAt { get; set; }
    public DateTimeOffset? BegunAt { get; set; }

    /// <summary>When whoever works on it last said so: its lease.</summary>
    public DateTimeOffset? BeatAt { get; set; }
    public DateTimeOffset? BetterAt { get; set; }
    public DateTimeOffset? OverAt { get; set; }

    /// <summary>How far it is, 0 to 1.</summary>
    public double Progress { get; set; }

    /// <summary>How many better results there were.</summary>
    public int Answers { get; set; }

    /// <summary>Version of the JSON of request and result.</summary>
    public int SchemaVersion { get; set; }

    /// <summary>The best result so far, JSON; null before the first.</summary>
    public string? Result { get; set; }

    /// <summary>Why it could not be done, for a log.</summary>
    public string? Failure { get; set; }
}

/// <summary>What a computation found, under the hash of all that it depends on; may be forgotten at any time.</summary>
public sealed class KnownResultRow
{
    public required string Key { get; set; }
    public required string Value { get; set; }
    public int SchemaVersion { get; set; }
    public DateTimeOffset At { get; set; }
}
