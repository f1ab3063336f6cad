using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>How a piece is made stronger.</summary>
/// <param name="IsEven">Everything by one distance; else only where it is thin.</param>
/// <param name="AmountMm">The distance where even, else the width wanted, mm, above 0.</param>
/// <param name="KeptGapMm">Air that stays open between parts, mm; 0 lets parts melt together and openings close.</param>
/// <param name="Corners">Corners of even growth.</param>
public sealed record Thicken(bool IsEven, double AmountMm, double KeptGapMm, Geometry.Corners Corners = Geometry.Corners.Round)
{
    /// <summary>Limits of what can be asked for, mm.</summary>
    public const double LeastMm = 0.02;
    public const double MostMm = 20;

    /// <summary>Air that stays open where nothing else is said, mm.</summary>
    public const double UsualGapMm = 0.4;

    /// <summary>Parts may melt together and openings close.</summary>
    [JsonIgnore]
    public bool MayMelt => KeptGapMm == 0;

    /// <summary>The width that nothing which grew falls short of, mm.</summary>
    [JsonIgnore]
    public double LeastWidthMm => IsEven ? 2 * AmountMm : AmountMm;

    /// <summary>What lies farther from a piece than this has no part in how it grows, mm.</summary>
    [JsonIgnore]
    public double ReachMm => 2 * AmountMm + KeptGapMm;

    /// <summary>Why it cannot be done so; null where it can.</summary>
    [JsonIgnore]
    public EditRefused? Refusal =>
        !(AmountMm is >= LeastMm and <= MostMm) ? EditRefused.RangeMm(Measure.Thickening, LeastMm, MostMm, "amount")
        : !(KeptGapMm is >= 0 and <= MostMm) ? EditRefused.RangeMm(Measure.KeptGap, 0, MostMm, "gap")
        : null;

    /// <summary>"to 0.8 mm where thin", "everywhere by 0.3 mm".</summary>
    public string InWords() => IsEven
        ? string.Create(CultureInfo.InvariantCulture, $"everywhere by {AmountMm:0.##} mm")
        : string.Create(CultureInfo.InvariantCulture, $"to {AmountMm:0.##} mm where thin");
}

/// <summary>A piece made stronger, and what that did.</summary>
/// <param name="Piece">The piece; the very same where nothing had to change.</param>
/// <param name="NarrowestBeforeMm">Its narrowest place before; null where it is nowhere narrower than eight times the width looked for.</param>
/// <param name="NarrowestAfterMm">Its narrowest place after.</param>
/// <param name="Merged">Parts that melted together: neighbours that it now touches, and bays of its outline that closed.</param>
/// <param name="ClosedOpenings">Openings that are gone.</param>
/// <param name="AreaBefore">Area of paper before, mm².</param>
/// <param name="AreaAfter">Area of paper after, mm².</param>
/// <param name="Limited">Places that the kept gap, a slit or an edge left narrower than wanted.</param>
/// <param name="Nodes">Nodes of its outline and openings after.</param>
public sealed record Thickened(
    Piece Piece,
    double? NarrowestBeforeMm,
    double? NarrowestAfterMm,
    int Merged,
    int ClosedOpenings,
    double AreaBefore,
    double AreaAfter,
    ImmutableArray<ThinPlace> Limited,
    int Nodes);
