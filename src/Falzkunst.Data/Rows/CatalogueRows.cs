namespace Falzkunst.Data.Rows;

/// <summary>A stock in the drawer.</summary>
public sealed class StockRow
{
    public Guid Owner { get; set; }
    public required string Key { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public required string Kind { get; set; }
    public int GramsPerSquareMetre { get; set; }
    public double ThicknessMm { get; set; }
    public required string Colour { get; set; }
    public double NarrowestMm { get; set; }
    public bool BothSidesAlike { get; set; }
    public required string Pattern { get; set; }
    public required string Direction { get; set; }
    public string[] Suits { get; set; } = [];
    public bool TakesPrint { get; set; }
    public bool IsFavourite { get; set; }
    public bool IsPutAway { get; set; }

    /// <summary>Name of the set of settings in use.</summary>
    public required string SetInUse { get; set; }

    /// <summary>Rises with every change; two who change it at once are told from each other by it.</summary>
    public int Version { get; set; }

    /// <summary>How many offcuts were ever kept of it, so that no name is given twice.</summary>
    public int OffcutsMade { get; set; }
    public List<StockSheetRow> Sheets { get; set; } = [];
    public List<StockOffcutRow> Offcuts { get; set; } = [];
    public List<StockSetRow> Sets { get; set; } = [];
}

/// <summary>A size of sheet at hand.</summary>
public sealed class StockSheetRow
{
    public Guid Owner { get; set; }
    public required string StockKey { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public double WidthMm { get; set; }
    public double HeightMm { get; set; }
    public int Count { get; set; }
}

/// <summary>A rest of an earlier sheet.</summary>
public sealed class StockOffcutRow
{
    public Guid Owner { get; set; }
    public required string StockKey { get; set; }
    public required string Name { get; set; }
    public DateTimeOffset KeptAt { get; set; }

    /// <summary>Path data, mm.</summary>
    public required string Outline { get; set; }
    public string[] Holes { get; set; } = [];

    /// <summary>The movement that put it into the drawer; null where it was there before movements were written down.</summary>
    public Guid? Movement { get; set; }

    /// <summary>When it was thrown away; null while it is kept.</summary>
    public DateTimeOffset? ThrownAt { get; set; }
}

/// <summary>
/// What a project's edit, or a run that came to its end, took out of the drawer and put into it. That of an edit holds while the edit
/// is on the way to the project's head: undo takes it back, redo does it again.
/// </summary>
public sealed class DrawerMovementRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }

    /// <summary>The revision that the edit made; null where a run took the sheet.</summary>
    public int? Revision { get; set; }

    /// <summary>The run that the sheet went through; null where an edit took it.</summary>
    public Guid? RunId { get; set; }
    public required string SheetId { get; set; }
    public required string StockKey { get; set; }

    /// <summary>Name of the size of sheet, or of the offcut, that was cut.</summary>
    public required string Took { get; set; }
    public bool IsActive { get; set; }
    public DateTimeOffset At { get; set; }
}

/// <summary>Settings of a stock for one kind of work.</summary>
public sealed class StockSetRow
{
    public Guid Owner { get; set; }
    public required string StockKey { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public List<StockSettingRow> Settings { get; set; } = [];
}

/// <summary>How a tool runs over a stock.</summary>
public sealed class StockSettingRow
{
    public Guid Owner { get; set; }
    public required string StockKey { get; set; }
    public required string SetName { get; set; }
    public required string Tool { get; set; }
    public int ForceGrams { get; set; }
    public double SpeedMmPerSecond { get; set; }
    public double? BladeOutMm { get; set; }
    public int? TemperatureCelsius { get; set; }
    public int WarmUpSeconds { get; set; }
    public int Times { get; set; }
    public double? NarrowestMm { get; set; }
    public double? TipMm { get; set; }

    /// <summary>Where it came from, in words; null for what shipped.</summary>
    public string? NotedFrom { get; set; }
    public DateTimeOffset? NotedAt { get; set; }
}

/// <summary>A machine.</summary>
public sealed class MachineRow
{
    public Guid Owner { get; set; }
    public required string Key { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public double MatWidthMm { get; set; }
    public double MatHeightMm { get; set; }
    public double BorderTopMm { get; set; }
    public double BorderRightMm { get; set; }
    public double BorderBottomMm { get; set; }
    public double BorderLeftMm { get; set; }
    public bool ReadsMarks { get; set; }
    public double TopSpeed { get; set; }
    public double Acceleration { get; set; }
    public double LiftSeconds { get; set; }

    /// <summary>Name of the mat in use, whose size stands in this row.</summary>
    public required string MatName { get; set; }

    /// <summary>How far its blade lands from what its reader sees, by printer, as JSON; null where it was never measured.</summary>
    public string? Calibrations { get; set; }
    public bool IsPutAway { get; set; }

    /// <summary>Rises with every change; two who change it at once are told from each other by it.</summary>
    public int Version { get; set; }
    public List<HolderRow> Holders { get; set; } = [];
    public List<MachineMatRow> OtherMats { get; set; } = [];
    public List<MachineFileRow> Files { get; set; } = [];
}

/// <summary>A mat of a machine that is not in use.</summary>
public sealed class MachineMatRow
{
    public Guid Owner { get; set; }
    public required string MachineKey { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public double WidthMm { get; set; }
    public double HeightMm { get; set; }
}

/// <summary>A kind of file that a machine reads.</summary>
public sealed class MachineFileRow
{
    public Guid Owner { get; set; }
    public required string MachineKey { get; set; }
    public int Position { get; set; }
    public required string Format { get; set; }
    public double UnitsPerMm { get; set; }
    public required string Origin { get; set; }
}

/// <summary>A pen, a foil, a tip or a blade.</summary>
public sealed class CraftToolRow
{
    public Guid Owner { get; set; }
    public required string Key { get; set; }
    public int Position { get; set; }
    public required string Kind { get; set; }
    public required string Name { get; set; }
    public string? Colour { get; set; }
    public double? WidthMm { get; set; }
    public bool IsPutAway { get; set; }

    /// <summary>Rises with every change.</summary>
    public int Version { get; set; }
}

/// <summary>A change of the drawer, as its audit tells it. Never removed.</summary>
public sealed class DrawerChangeRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }

    /// <summary>1 for the owner's first.</summary>
    public int Number { get; set; }
    public DateTimeOffset At { get; set; }
    public required string Sentence { get; set; }

    /// <summary>When it was taken back; null while it holds.</summary>
    public DateTimeOffset? UndoneAt { get; set; }
    public List<DrawerChangeThingRow> Things { get; set; } = [];
}

/// <summary>One thing that a change of the drawer was about, as it was before and after.</summary>
public sealed class DrawerChangeThingRow
{
    public Guid ChangeId { get; set; }

    /// <summary>"stock", "machine" or "tool".</summary>
    public required string Kind { get; set; }
    public required string Key { get; set; }

    /// <summary>The document of the thing before; null where it was new.</summary>
    public string? Before { get; set; }
    public required string After { get; set; }
}

/// <summary>A tool holder of a machine.</summary>
public sealed class HolderRow
{
    public Guid Owner { get; set; }
    public required string MachineKey { get; set; }
    public int Position { get; set; }
    public required string Name { get; set; }
    public required string[] Tools { get; set; }
}
