namespace Falzkunst.Data.Rows;

/// <summary>One value of a project: the edit that made it, and its parts by content hash. Never changed once written.</summary>
public sealed class RevisionRow
{
    public Guid ProjectId { get; set; }
    public int Number { get; set; }

    /// <summary>The revision it was made from; null for the first.</summary>
    public int? Parent { get; set; }

    /// <summary>The edit with its parameters, JSON; null for the first.</summary>
    public string? Edit { get; set; }

    /// <summary>What was done, for people.</summary>
    public required string Sentence { get; set; }
    public DateTimeOffset At { get; set; }

    /// <summary>Version of the JSON in the parts.</summary>
    public int SchemaVersion { get; set; }
    public required string SetOutHash { get; set; }
    public required string DesignHash { get; set; }
    public string? SheetsHash { get; set; }

    /// <summary>What is kept aside; null where nothing is.</summary>
    public string? VariantsHash { get; set; }
}

/// <summary>A part of projects, stored once under the SHA-256 of its content.</summary>
public sealed class PartRow
{
    public required string Hash { get; set; }
    public required string Content { get; set; }
}
