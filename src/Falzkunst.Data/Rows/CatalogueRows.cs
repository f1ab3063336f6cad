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

    /// <summary>How many offcuts were ever kept of it, so that no name is given twice.</summary>
    public int OffcutsMade { get; set; }
    public List<StockSheetRow> Sheets { get; set; } = [];
    public List<StockOffcutRow> Offcuts { get; set; } = [];
    public List<StockSettingRow> Settings { get; set; } = [];
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
/// What a project's edit took out of the drawer and put into it. It holds while the edit is on the way to the project's head: undo
/// takes it back, redo does it again.
/// </summary>
public sealed class DrawerMovementRow
{
    public Guid Id { get; set; }
    public Guid Owner { get; set; }
    public Guid ProjectId { get; set; }

    /// <summary>The revision that the edit made.</summary>
    public int Revision { get; set; }
    public required string SheetId { get; set; }
    public required string StockKey { get; set; }

    /// <summary>Name of the size of sheet, or of the offcut, that was cut.</summary>
    public required string Took { get; set; }
    public bool IsActive { get; set; }
    public DateTimeOffset At { get; set; }
}

/// <summary>How a tool runs over a stock.</summary>
public sealed class StockSettingRow
{
    public Guid Owner { get; set; }
    public required string StockKey { get; set; }
    public required string Tool { get; set; }
    public int ForceGrams { get; set; }
    public double SpeedMmPerSecond { get; set; }
    public double? BladeOutMm { get; set; }
    public int? TemperatureCelsius { get; set; }
    public int WarmUpSeconds { get; set; }
    public int Times { get; set; }
    public double? NarrowestMm { get; set; }
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
    public List<HolderRow> Holders { get; set; } = [];
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
