namespace Falzkunst.Data.Rows;

/// <summary>A project and where its history stands.</summary>
public sealed class ProjectRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public required string Name { get; set; }
    public DateTimeOffset CreatedAt { get; set; }
    public DateTimeOffset ChangedAt { get; set; }

    /// <summary>When it was taken off the desk; null while it lies there. Nothing of it is lost.</summary>
    public DateTimeOffset? RemovedAt { get; set; }

    /// <summary>Number of the revision that is the project now.</summary>
    public int Head { get; set; }

    /// <summary>Highest revision number given so far, whether on the way to the head or not.</summary>
    public int LastRevision { get; set; }

    // What the list of projects shows, kept with every change of the head.
    public int Pieces { get; set; }
    public int Stocks { get; set; }
    public int Findings { get; set; }
}
