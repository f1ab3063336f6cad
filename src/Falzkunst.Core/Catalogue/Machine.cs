using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>A cutting machine. Made-up models only.</summary>
/// <param name="Key">Short stable name, lower case with hyphens.</param>
/// <param name="Name">Name for people.</param>
/// <param name="MatWidthMm">Width of the mat and of the working area, mm.</param>
/// <param name="MatHeightMm">Length of the mat, mm.</param>
/// <param name="Unreachable">The strips of a sheet that no tool reaches.</param>
/// <param name="Holders">One or two tool holders.</param>
/// <param name="ReadsMarks">It can find printed registration marks.</param>
/// <param name="TopSpeed">Highest speed, mm/s.</param>
/// <param name="Acceleration">Acceleration of the head, mm/s².</param>
/// <param name="LiftSeconds">Time for one lift or one set-down of a tool.</param>
public sealed record Machine(
    string Key,
    string Name,
    double MatWidthMm,
    double MatHeightMm,
    Borders Unreachable,
    ImmutableArray<Holder> Holders,
    bool ReadsMarks,
    double TopSpeed,
    double Acceleration,
    double LiftSeconds) : IDrawerThing
{
    /// <summary>What the mat in use is called.</summary>
    public string MatName { get; init; } = "mat";

    /// <summary>Mats that it takes as well, not in use.</summary>
    public ImmutableArray<Mat> OtherMats { get; init; } = [];

    /// <summary>The files it reads.</summary>
    public ImmutableArray<MachineFile> Files { get; init; } = MachineFile.Usual;

    /// <summary>How far its blade lands from what its reader sees, by printer, the newest first.</summary>
    public ImmutableArray<Calibration> Calibrations { get; init; } = [];

    /// <summary>What holds for pages of a printer now; null where it was not measured.</summary>
    public Calibration? CalibrationFor(string printer) => Calibrations.FirstOrDefault(c => c.Printer == printer && c.IsSound);

    /// <summary>With another measurement, which holds from now on.</summary>
    public Machine Calibrated(Calibration calibration) => this with { Calibrations = [.. Calibrations.Prepend(calibration).Take(Calibration.Most)] };

    /// <summary>Without the measurement that holds for a printer now; the one before it holds again.</summary>
    public Machine Uncalibrated(string printer) => CalibrationFor(printer) is { } now ? this with { Calibrations = Calibrations.Remove(now) } : this;

    /// <summary>Rises with every change; a change names the one that it was made on.</summary>
    public int Version { get; init; }

    /// <summary>It is no longer offered; projects that are set out for it go on knowing it.</summary>
    public bool IsPutAway { get; init; }

    /// <summary>The mat in use.</summary>
    public Mat MatInUse => new(MatName, MatWidthMm, MatHeightMm);

    /// <summary>The machine with another of its mats in use; as it is where it has none of that name.</summary>
    public Machine OnMat(string mat) => OtherMats.FirstOrDefault(m => m.Name == mat) is not { } chosen ? this : this with
    {
        MatName = chosen.Name,
        MatWidthMm = chosen.WidthMm,
        MatHeightMm = chosen.HeightMm,
        OtherMats = OtherMats.Replace(chosen, MatInUse),
    };

    public bool Takes(Tool tool) => Holders.Any(h => h.Tools.Contains(tool));
}

/// <summary>A mat, mm.</summary>
public sealed record Mat(string Name, double WidthMm, double HeightMm);

/// <summary>A kind of file that a machine reads.</summary>
public enum MachineFormat
{
    Svg,
    Hpgl,
}

/// <summary>Where a file's coordinates begin on the sheet.</summary>
public enum FileOrigin
{
    LowerLeft,
    UpperLeft,
}

/// <summary>How a file for a machine is written.</summary>
/// <param name="Format">The kind of file.</param>
/// <param name="UnitsPerMm">Of a plot; SVG says its own.</param>
/// <param name="Origin">Of a plot; SVG has its own.</param>
public sealed record MachineFile(MachineFormat Format, double UnitsPerMm = MachineFile.PlotterUnits, FileOrigin Origin = FileOrigin.LowerLeft)
{
    /// <summary>Units of HPGL to the millimetre.</summary>
    public const double PlotterUnits = 40;

    public static readonly ImmutableArray<MachineFile> Usual = [new(MachineFormat.Svg), new(MachineFormat.Hpgl)];
}

/// <summary>A place for a tool, with the tools that fit it.</summary>
public sealed record Holder(string Name, ImmutableArray<Tool> Tools);

/// <summary>Strips along the four edges, mm.</summary>
public sealed record Borders(double Top, double Right, double Bottom, double Left)
{
    /// <summary>What a sheet of some size leaves inside them.</summary>
    public Box Within(double width, double height) => new(Left, Top, width - Right, height - Bottom);

    /// <summary>Each side at least <paramref name="least"/>.</summary>
    public Borders AtLeast(double least) =>
        new(Math.Max(Top, least), Math.Max(Right, least), Math.Max(Bottom, least), Math.Max(Left, least));
}
