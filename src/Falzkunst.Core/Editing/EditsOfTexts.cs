using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Editing;

/// <summary>Words on a piece.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Text">The text as it is wanted, without an id and not yet shaped.</param>
public sealed record AddText(string Piece, TextItem Text) : Edit
{
    public override string Sentence => $"Wrote “{Text.Brief(TextWords.Longest)}” to {Text.Operation.Word()}";
}

/// <summary>A text on a piece as it is wanted from now on.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Text">The text with its id, not yet shaped.</param>
/// <param name="What">What about it is another.</param>
public sealed record ChangeText(string Piece, TextItem Text, TextPart What) : Edit
{
    public override string Sentence => What switch
    {
        TextPart.Words => $"Wrote “{Text.Brief(TextWords.Longest)}”",
        TextPart.Face => $"Set “{Text.Brief(TextWords.Longest)}” in {Text.Face}",
        TextPart.Size => $"Made letters {TextWords.Mm(Text.CapitalMm * Text.Place.MeanScale)} high",
        TextPart.Spacing => $"Spaced “{Text.Brief(TextWords.Longest)}”",
        TextPart.Box => Text is { BoxWidthMm: null, InsidePieceMm: null } ? "Let words be as wide as they are" : "Fitted words to a width",
        _ => Text.Along is null ? "Set words straight" : "Set words along a line",
    };
}

/// <summary>What about a text changes.</summary>
public enum TextPart
{
    Words,
    Face,
    Size,
    Spacing,
    Box,
    Along,
}

internal static class TextWords
{
    /// <summary>Characters of a text that a sentence says.</summary>
    public const int Longest = 24;

    public static string Mm(double mm) => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{mm:0.##} mm");
}
