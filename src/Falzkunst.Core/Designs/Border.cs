using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>Distances outward to the four sides, mm; inward where negative.</summary>
public sealed record SideMargins(double Left, double Top, double Right, double Bottom)
{
    [JsonIgnore]
    public double[] All => [Left, Top, Right, Bottom];
}

/// <summary>A border to be made of a piece's outline.</summary>
/// <param name="ByMm">How far the outline is moved outward, inward where negative, mm.</param>
/// <param name="Stock">Stock of the new piece.</param>
/// <param name="Corners">What becomes of corners.</param>
/// <param name="KeepOpenings">Openings of the piece stay open, smaller by as much; else they are filled.</param>
/// <param name="RingMm">Only a ring so wide along the new outline is made; null for the whole.</param>
public sealed record Border(double ByMm, string Stock, Corners Corners = Corners.Round, bool KeepOpenings = false, double? RingMm = null)
{
    /// <summary>Limits of what can be asked for, mm.</summary>
    public const double MostMm = 100;
    public const double LeastRingMm = 0.2;

    /// <summary>Further distances to single sides, added to the one all round, mm: an upright panel is larger or smaller there.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public SideMargins? Sides { get; init; }

    /// <summary>Why it cannot be made so; null where it can.</summary>
    [JsonIgnore]
    public EditRefused? Refusal =>
        !(Math.Abs(ByMm) <= MostMm) ? EditRefused.RangeMm(Measure.BorderDistance, -MostMm, MostMm, "by")
        : Sides is { } sides && !sides.All.All(s => Math.Abs(s) <= MostMm) ? EditRefused.RangeMm(Measure.BorderDistance, -MostMm, MostMm, "by")
        : RingMm is { } ring && !(ring is >= LeastRingMm and <= MostMm) ? EditRefused.RangeMm(Measure.RingWidth, LeastRingMm, MostMm, "ring")
        : null;
}
