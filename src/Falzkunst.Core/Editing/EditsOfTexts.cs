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
        TextPart.Forms => Text.Forms.IsEmpty ? "Took the usual letters" : "Took other forms of letters",
        TextPart.Box => Text is { BoxWidthMm: null, InsidePieceMm: null } ? "Let words be as wide as they are" : "Fitted words to a width",
        _ => Text.Along is null ? "Set words straight" : "Set words along a line",
    };
}

/// <summary>A text of a piece cut as a piece of its own.</summary>
/// <param name="Piece">Id of the piece that it is written on.</param>
/// <param name="Text">Id of the text.</param>
/// <param name="Stock">Key of its stock.</param>
/// <param name="Tie">What holds its parts together.</param>
/// <param name="TieMm">Height of the bar, or width of the bridges, mm.</param>
public sealed record WordsAsPiece(string Piece, string Text, string Stock, WordTie Tie = WordTie.Loose, double TieMm = 0) : Edit
{
    public override string Sentence => "Made words a piece of their own";
}

/// <summary>Another way to hold the parts of words together that are a piece.</summary>
public sealed record TieWords(string Piece, WordTie Tie, double TieMm) : Edit
{
    public override string Sentence => Tie switch
    {
        WordTie.Bar => $"Set words on a bar of {TextWords.Mm(TieMm)}",
        WordTie.Bridges => $"Joined letters by bridges of {TextWords.Mm(TieMm)}",
        _ => "Left letters loose",
    };
}

/// <summary>A list for the words of a piece, which is made once for each of its rows; null for none.</summary>
public sealed record SetNameList(string Piece, NameList? List) : Edit
{
    public override string Sentence => List is null ? "Took a list away" : List.Rows.Length == 1 ? "Set a list of one row" : $"Set a list of {List.Rows.Length} rows";
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
    Forms,
}

internal static class TextWords
{
    /// <summary>Characters of a text that a sentence says.</summary>
    public const int Longest = 24;

    public static string Mm(double mm) => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{mm:0.##} mm");
}
