namespace Falzkunst.Data.Rows;

/// <summary>One production of a sheet. What it runs is frozen when it begins; where it stands changes with every event.</summary>
public sealed class RunRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }

    /// <summary>The revision it was started with.</summary>
    public int Revision { get; set; }

    /// <summary>Id of the sheet among that revision's layouts.</summary>
    public required string SheetId { get; set; }
    public required string SheetTitle { get; set; }
    public required string Machine { get; set; }

    /// <summary>Key of the stock, and name of the size or offcut, that the run takes out of the drawer when it is done; null where it takes none.</summary>
    public string? TakesStock { get; set; }
    public string? TakesSheet { get; set; }

    /// <summary>Version of the JSON of the plan, and of how sheets are named.</summary>
    public int SchemaVersion { get; set; }

    /// <summary>Hash of the part with the plan, settings included.</summary>
    public required string PlanHash { get; set; }
    public DateTimeOffset BegunAt { get; set; }

    /// <summary>When its state was last written.</summary>
    public DateTimeOffset AdvancedAt { get; set; }
    public DateTimeOffset? OverAt { get; set; }
    public required string Phase { get; set; }
    public int Step { get; set; }
    public int Line { get; set; }
    public double SecondsInto { get; set; }
    public double MachineSeconds { get; set; }

    /// <summary>What was read of the marks of its page, as JSON; null where nothing was.</summary>
    public string? Readings { get; set; }

    /// <summary>Machine seconds to the second of the clock.</summary>
    public int SpeedUp { get; set; }
    public int LastEvent { get; set; }
}

/// <summary>Something that happened in a run. Never changed once written.</summary>
public sealed class RunEventRow
{
    public Guid RunId { get; set; }
    public int Number { get; set; }
    public required string Kind { get; set; }
    public int Step { get; set; }
    public int Line { get; set; }
    public double MachineSeconds { get; set; }
    public DateTimeOffset At { get; set; }
}
