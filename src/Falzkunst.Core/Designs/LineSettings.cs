using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;

namespace Falzkunst.Core.Designs;

/// <summary>How an operation is done along a line, where it is not done in the plain way. What is null is plain.</summary>
public sealed record LineSettings
{
    public static readonly LineSettings Plain = new();

    /// <summary>Which way a score folds.</summary>
    public FoldDirection? Fold { get; init; }

    /// <summary>A cut through the top layer only, its backing left whole.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool HalfCut { get; init; }

    /// <summary>Worked with the sheet lying face down, mirrored.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool FromBack { get; init; }

    /// <summary>Left out of this run: seen, but no tool runs it.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool LeftOut { get; init; }

    /// <summary>Ties that are left uncut so that the piece does not move under the blade.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public HoldingBridges? Hold { get; init; }

    /// <summary>Dash and gap of a perforation.</summary>
    public PerforationDashes? Dashes { get; init; }

    /// <summary>Width of the pen's, foil's or embossing tip, mm.</summary>
    public double? TipMm { get; init; }

    /// <summary>How the area inside closed lines is filled.</summary>
    public AreaFill? Fill { get; init; }

    /// <summary>How it is printed; null as its file painted it.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public PrintLook? Print { get; init; }

    /// <summary>Where this line's settings differ from its stock's.</summary>
    [JsonPropertyName("settings")]
    public ToolSettingsChange? Tool { get; init; }

    /// <summary>What of it still has a meaning under an operation; null where that is nothing.</summary>
    public LineSettings? Under(Operation operation)
    {
        var hasTip = operation is Operation.Draw or Operation.Foil or Operation.Emboss;
        var kept = new LineSettings
        {
            Fold = operation == Operation.Score ? Fold : null,
            HalfCut = operation == Operation.Cut && HalfCut,
            FromBack = FromBack && operation is Operation.Score or Operation.Emboss or Operation.Draw or Operation.Print,
            Print = operation == Operation.Print ? Print : null,
            LeftOut = LeftOut,
            Hold = operation == Operation.Cut ? Hold : null,
            Dashes = operation == Operation.Perforate ? Dashes : null,
            TipMm = hasTip ? TipMm : null,
            Fill = hasTip ? Fill : null,
            Tool = operation.ToolFor() is null ? null : Tool,
        };
        return kept == Plain ? null : kept;
    }
}

/// <summary>Which way the paper goes: a valley folds towards the one who looks, a mountain away.</summary>
public enum FoldDirection
{
    Valley,
    Mountain,
}

/// <summary>A perforation's cuts and the paper left between them, mm.</summary>
public sealed record PerforationDashes(double DashMm, double GapMm)
{
    public static readonly PerforationDashes Usual = new(2, 1);

    /// <summary>Dashes and gaps are no shorter and no longer, mm.</summary>
    public const double LeastMm = 0.2;
    public const double MostMm = 50;
}

/// <summary>Short ties that a cut leaves, broken by hand afterwards.</summary>
/// <param name="Count">How many along the line.</param>
/// <param name="WidthMm">How wide each is, mm.</param>
/// <param name="ShiftMm">How far all are moved along the line from where they show least, mm.</param>
public sealed record HoldingBridges(int Count, double WidthMm, double ShiftMm = 0)
{
    /// <summary>How far single ties are moved beyond the shift, mm along the line, in the order of their shares of it; those past its end are not moved.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public ImmutableArray<double> MovedMm { get; init; }

    /// <summary>How far a tie is moved beyond the shift, mm along the line.</summary>
    public double Moved(int tie) => MovedMm.IsDefault || tie >= MovedMm.Length ? 0 : MovedMm[tie];

    /// <summary>The same ties with one of them moved so far from where it would lie by itself.</summary>
    public HoldingBridges WithMoved(int tie, double mm) =>
        this with { MovedMm = [.. Enumerable.Range(0, Count).Select(t => t == tie ? mm : Moved(t))] };

    public bool Equals(HoldingBridges? other) => other is not null && (Count, WidthMm, ShiftMm) == (other.Count, other.WidthMm, other.ShiftMm)
        && Enumerable.Range(0, Count).All(t => Moved(t) == other.Moved(t));

    public override int GetHashCode() => HashCode.Combine(Count, WidthMm, ShiftMm);

    public const int MostCount = 40;
    public const double LeastMm = 0.1, MostMm = 10, MostShiftMm = 2000;
    public const int UsualCount = 3;
    public const double UsualMm = 0.4;
}

/// <summary>Strokes side by side over an area.</summary>
/// <param name="Pattern">How they run.</param>
/// <param name="DistanceMm">From the middle of one stroke to the next, mm; null takes it from the tip's width.</param>
/// <param name="AngleDegrees">Of parallel strokes, from x towards y.</param>
public sealed record AreaFill(FillPattern Pattern, double? DistanceMm = null, double AngleDegrees = AreaFill.UsualAngleDegrees)
{
    public const double UsualAngleDegrees = 45;

    /// <summary>Strokes lie no closer and no farther apart, mm.</summary>
    public const double LeastMm = 0.05;
    public const double MostMm = 20;

    /// <summary>Strokes overlap by this share of the tip's width, so that no paper shows between them.</summary>
    private const double Overlap = 0.15;

    /// <summary>The distance that closes the area with a tip of this width, mm.</summary>
    public static double ClosedDistance(double tipMm) => tipMm * (1 - Overlap);

    public double DistanceFor(double tipMm) => DistanceMm ?? ClosedDistance(tipMm);
}

public enum FillPattern
{
    Parallel,
    Crossed,
    Inward,
}

/// <summary>Numbers that take the place of a stock's settings along some lines; null leaves the stock's.</summary>
public sealed record ToolSettingsChange(
    int? ForceGrams = null, double? SpeedMmPerSecond = null, double? BladeOutMm = null, int? TemperatureCelsius = null, int? Times = null)
{
    /// <summary>No tool presses harder by setting, grams.</summary>
    public const int MostForceGrams = ToolSettings.MostForceGrams;

    public ToolSettings Over(ToolSettings settings) => settings with
    {
        ForceGrams = ForceGrams ?? settings.ForceGrams,
        SpeedMmPerSecond = SpeedMmPerSecond ?? settings.SpeedMmPerSecond,
        BladeOutMm = BladeOutMm ?? settings.BladeOutMm,
        TemperatureCelsius = TemperatureCelsius ?? settings.TemperatureCelsius,
        Times = Times ?? settings.Times,
    };
}

/// <summary>Widths of tips where nothing else is said, mm.</summary>
public static class Tips
{
    public static double UsualMm(Operation operation) => operation switch
    {
        Operation.Foil => 0.8,
        Operation.Emboss => 1.2,
        _ => 0.4,
    };
}
