using System.Text.Json.Serialization;

namespace Falzkunst.Core.Designs;

/// <summary>Why copies of a piece lie on no sheet.</summary>
public enum UnfitCode
{
    NoStock,
    NoSheets,
    TooLarge,
    TogetherTooLarge,
    SheetsUsedUp,
    NotExact,
    NoArea,

    /// <summary>Written down in words by a former state.</summary>
    [JsonStringEnumMemberName("told")]
    Sentence,
}

/// <summary>Why copies of a piece lie on no sheet, with its numbers.</summary>
/// <param name="Code">Why.</param>
public sealed record Unfit(UnfitCode Code)
{
    /// <summary>How many sheets there are, where they are used up.</summary>
    public int Sheets { get; init; }

    /// <summary>What is too large, and for what.</summary>
    public Oversize? Oversize { get; init; }

    /// <summary>The sentence of a former state.</summary>
    [JsonPropertyName("told")]
    public string? Sentence { get; init; }
}

/// <summary>A piece that is larger than a sheet leaves room for; lengths in mm.</summary>
/// <param name="Width">Width of the piece.</param>
/// <param name="Height">Height of the piece.</param>
/// <param name="Over">By how much it is too large for the sheet that comes nearest.</param>
/// <param name="Sheet">Name of that sheet.</param>
/// <param name="UsableWidth">Width within its borders.</param>
/// <param name="UsableHeight">Height within its borders.</param>
/// <param name="TurnDegrees">Turned so far it would fit <paramref name="TurnedSheet"/>, but it may not be; null where no turn helps.</param>
/// <param name="TurnedSheet">The sheet that a turn would make it fit.</param>
/// <param name="LackingSheet">A sheet that would do if one were at hand.</param>
public sealed record Oversize(
    double Width, double Height, double Over, string Sheet, double UsableWidth, double UsableHeight,
    double? TurnDegrees = null, string? TurnedSheet = null, string? LackingSheet = null);
