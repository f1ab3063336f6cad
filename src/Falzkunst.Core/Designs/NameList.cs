using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Falzkunst.Core.Designs;

/// <summary>One row of a list: what stands for each field.</summary>
/// <param name="Number">Never used again in the list; ids of what is made of the row come of it.</param>
/// <param name="Values">One for each field of the list.</param>
/// <param name="Copies">How many are made of it; 0 leaves it out.</param>
public sealed record NameRow(int Number, ImmutableArray<string> Values, int Copies = 1);

/// <summary>
/// A list of names, places, numbers: the piece is made once for each row, with the row's values where its words have fields such as
/// {name}.
/// </summary>
/// <param name="Fields">Names of the fields, in the order of the values.</param>
/// <param name="Rows">The rows.</param>
public sealed partial record NameList(ImmutableArray<string> Fields, ImmutableArray<NameRow> Rows)
{
    public const int MostRows = 1000;
    public const int MostFields = 8;
    public const int LongestField = 30;
    public const int LongestValue = 120;
    public const int MostCopies = 100;

    /// <summary>The field of a list that has one alone.</summary>
    public const string UsualField = "name";

    /// <summary>Number of the next row; numbers are never used twice.</summary>
    public int NextRow { get; init; } = 1;

    /// <summary>The fields that words name, each once, in their order.</summary>
    public static ImmutableArray<string> FieldsOf(string words) => [.. Field().Matches(words).Select(m => m.Groups[1].Value.ToLowerInvariant()).Distinct()];

    /// <summary>Words with a row's values; a field that the list has not is left as it stands.</summary>
    public string Fill(string words, NameRow row) => Field().Replace(words, m =>
        Fields.IndexOf(m.Groups[1].Value.ToLowerInvariant()) is >= 0 and var at && at < row.Values.Length ? row.Values[at] : m.Value);

    /// <summary>What a row is called: its first value.</summary>
    public static string NameOf(NameRow row) => row.Values.FirstOrDefault(v => v.Length > 0) ?? string.Create(CultureInfo.InvariantCulture, $"row {row.Number}");

    /// <summary>Id of what a piece is in a row.</summary>
    public static string RowId(string piece, NameRow row) => string.Create(CultureInfo.InvariantCulture, $"{piece}r{row.Number}");

    /// <summary>Id of the piece that a row's piece is made of; the id itself of a piece that has no list.</summary>
    public static string PieceOf(string id) => id.IndexOf('r', StringComparison.Ordinal) is > 0 and var at ? id[..at] : id;

    [GeneratedRegex(@"\{([\p{L}\p{N} _-]{1,30})\}")]
    private static partial Regex Field();
}
