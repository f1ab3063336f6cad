using System.Text.Json.Serialization;

namespace Falzkunst.Core.Catalogue;

/// <summary>How the sheets of a stock go through a printer.</summary>
/// <param name="Printer">Key of the printer; empty for one that is not in the drawer.</param>
/// <param name="MarginMm">The strip along every edge of a page that it does not print, mm.</param>
/// <param name="Marks">Marks by which a machine finds the print, to cut it; null for plain pages that are trimmed by hand.</param>
/// <param name="BleedMm">How far print goes on past a cut that it touches, mm.</param>
public sealed record PagePrinting(string Printer, double MarginMm, MarkSettings? Marks, double BleedMm = PagePrinting.UsualBleedMm)
{
    public const double UsualMarginMm = 4.2, MostMarginMm = 40, UsualBleedMm = 2, MostBleedMm = 10, MostGlueMm = 30;

    /// <summary>What upper layers hide is not printed but for so wide a strip under their edges, mm; null prints everything.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public double? GlueMm { get; init; }

    /// <summary>Both sides are printed, the sheet flipped about this edge between them; null for the face alone.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public FlipEdge? Flip { get; init; }

    /// <summary>How far front and back may lie apart, as the printer is known, mm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public double ApartMm { get; init; }

    /// <summary>A run waits for a yes where cut and print may lie farther apart than this, mm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public double? WaitOverMm { get; init; }

    public const double UsualWaitOverMm = 1, LeastWaitOverMm = 0.05, MostWaitOverMm = 10;

    /// <summary>Name of the one size of sheet that is printed; null for any that the stock has.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Size { get; init; }

    /// <summary>No line in a free place says project, page and date, with a rule of 100 mm.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsBare { get; init; }

    /// <summary>A machine cuts what is printed.</summary>
    [JsonIgnore]
    public bool IsCut => Marks is not null;
}

/// <summary>The edge about which a sheet is flipped between its sides.</summary>
public enum FlipEdge
{
    /// <summary>An upright edge: left and right change places.</summary>
    Upright,

    /// <summary>A level edge: above and below change places.</summary>
    Level,
}

/// <summary>What a page that is printed leaves to pieces.</summary>
/// <param name="How">How it is printed.</param>
/// <param name="EdgeMm">Nothing lies nearer to an edge of the page, mm.</param>
/// <param name="SpacingMm">What print needs between two pieces, mm.</param>
public sealed record PageRoom(PagePrinting How, double EdgeMm, double SpacingMm)
{
    /// <summary>The distance that pieces keep where another is set: a blade needs what is set, a hand that trims along one line does not.</summary>
    /// <param name="setMm">As set for all sheets, mm.</param>
    public double Spacing(double setMm) => How.IsCut ? Math.Max(setMm, SpacingMm) : SpacingMm;
}
