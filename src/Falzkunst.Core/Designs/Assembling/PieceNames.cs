using System.Text.RegularExpressions;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>Names for pieces, from what the file called them.</summary>
internal static partial class PieceNames
{
    /// <summary>One name for each draft, no two alike.</summary>
    public static List<string> For(IReadOnlyList<PieceDraft> drafts)
    {
        var wished = drafts.Select((d, i) => Wish(d.Outline.Line) ?? $"Piece {i + 1}").ToList();
        var repeated = wished.GroupBy(w => w).Where(g => g.Count() > 1).Select(g => g.Key).ToHashSet();
        var used = wished.Where(w => !repeated.Contains(w)).ToHashSet();
        var numbers = new Dictionary<string, int>();
        for (var i = 0; i < wished.Count; i++)
        {
            if (!repeated.Contains(wished[i])) continue;
            var number = numbers.GetValueOrDefault(wished[i]) + 1;
            while (!used.Add($"{wished[i]} {number}")) number++;
            numbers[wished[i]] = number;
            wished[i] = $"{wished[i]} {number}";
        }
        return wished;
    }

    /// <summary>Longer names are nothing that a person wrote.</summary>
    private const int LongestRead = 200;

    private static string? Wish(ArtLine outline) => Readable(outline.Name) ?? Readable(outline.Group.Layer);

    /// <summary>A program gave the name, such as "Layer_4" or "path12-3"; it says nothing to a person.</summary>
    internal static bool IsMadeUp(string name) => name.Length <= LongestRead && MadeUpByPrograms().IsMatch(name);

    private static string? Readable(string? name)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Length > LongestRead || MadeUpByPrograms().IsMatch(name) || DefaultOperations.Stated(name) is not null) return null;
        var words = Separators().Replace(name, " ").Trim();
        if (words.Length == 0) return null;
        if (words.Length > 60) words = words[..60];
        return char.ToUpperInvariant(words[0]) + words[1..];
    }

    [GeneratedRegex(@"^((svg|path|rect|circle|ellipse|poly(gon|line)|line|g|group|layer|shape|use|compound)?[\s_-]*(x?[0-9a-f_-]*[0-9][0-9a-f_-]*)?|[_-]+)$", RegexOptions.IgnoreCase | RegexOptions.NonBacktracking)]
    private static partial Regex MadeUpByPrograms();

    [GeneratedRegex(@"[\s_-]+")]
    private static partial Regex Separators();
}
