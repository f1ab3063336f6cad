using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>How much a finding matters.</summary>
public enum Severity
{
    Minor,
    Major,
}

/// <summary>Codes of findings, as files and mends know them. What stands behind each is what the finding's values are.</summary>
public static class FindingCodes
{
    /// <summary>Operation, length; on no piece.</summary>
    public const string OnNoPiece = "on-no-piece";

    /// <summary>Other: dots to the inch; how wide the picture may be for its dots not to show, how wide it is.</summary>
    public const string CoarsePicture = "coarse-picture";

    /// <summary>Operation; of a line that assembling left out: its place in the file.</summary>
    public const string NoLength = "no-length";

    /// <summary>Width of the gap.</summary>
    public const string OpenOutline = "open-outline";

    /// <summary>Operation, length past the edge, name of the piece that it runs onto.</summary>
    public const string AcrossPieces = "across-pieces";

    /// <summary>Operation, length past the edge, whole length.</summary>
    public const string PastEdge = "past-edge";

    /// <summary>Operation; of a line that assembling left out: its place in the file.</summary>
    public const string DoubledLine = "doubled-line";

    /// <summary>Name of the piece around it.</summary>
    public const string InsideAnother = "inside-another";

    /// <summary>Nothing; the piece has no area and lies on no sheet.</summary>
    public const string NoArea = "no-area";

    /// <summary>Other: the characters that the face lacks.</summary>
    public const string LettersMissing = "letters-missing";

    /// <summary>Other: what the row is called, where it is one of a list; how much too wide it is, how wide the box is.</summary>
    public const string WordsTooWide = "words-too-wide";

    /// <summary>Other: how many parts the words fall into that are cut as a piece.</summary>
    public const string WordsFallApart = "words-fall-apart";

    /// <summary>Why the piece keeps its last form: the name of a <see cref="FollowFault"/> in Other.</summary>
    public const string CannotFollow = "cannot-follow";

    /// <summary>Nothing; there are more lines than the checks look at.</summary>
    public const string NotAllChecked = "not-all-checked";
}

/// <summary>Something that the checks point out, as a code with its numbers; the page has the words.</summary>
/// <param name="Code">One of <see cref="FindingCodes"/>.</param>
/// <param name="Severity">How much it matters.</param>
/// <param name="Piece">Id of the piece, if it is about one.</param>
/// <param name="Line">Id of the line within the piece, or of the line on no piece, if it is about one.</param>
/// <param name="At">The place in the card's coordinates, mm.</param>
public sealed record Finding(string Code, Severity Severity, string? Piece, string? Line, Point? At)
{
    /// <summary>Name of the piece.</summary>
    public string? Name { get; init; }

    /// <summary>Name of the other piece.</summary>
    public string? Other { get; init; }

    /// <summary>Operation of the line.</summary>
    public Operation? Operation { get; init; }

    /// <summary>Lengths in the order of the code, mm.</summary>
    public ImmutableArray<double> LengthsMm { get; init; } = [];

    /// <summary>Where in its file the line stood that assembling left out.</summary>
    public string? Place { get; init; }

    /// <summary>The sentence of a finding that a former state wrote down in words.</summary>
    [JsonPropertyName("told")]
    public string? Sentence { get; init; }
}
