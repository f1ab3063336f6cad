using System.Collections.Immutable;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Lists as they are typed, pasted out of a table or read from a file: one row a line, values parted by tabs, semicolons or commas, in double quotes where they hold one of those.</summary>
public static class NameListText
{
    /// <summary>More is no list of names.</summary>
    public const int MostCharacters = 60_000;

    /// <summary>A list for a piece. A first row that names fields of its words is its heading. Rows that were there keep their numbers and copies.</summary>
    /// <returns>Null where the text holds no row.</returns>
    /// <exception cref="EditRefused">The text is longer than a list may be, or the piece's words have no fields and say so.</exception>
    public static NameList? Read(string? text, Piece piece)
    {
        if (string.IsNullOrWhiteSpace(text)) return null;
        if (text.Length > MostCharacters) throw EditRefused.Range(Measure.Characters, 0, MostCharacters, "names");
        var wanted = piece.Items.OfType<TextItem>().SelectMany(t => NameList.FieldsOf(t.Words)).Distinct().ToList();
        var rows = Rows(text);
        if (rows.Count == 0) return null;
        List<string> fields = wanted.Count == 0 ? [NameList.UsualField] : wanted;
        if (IsHeading(rows[0], fields))
        {
            fields = [.. rows[0].Select(v => v.ToLowerInvariant()).Select((v, i) => v.Length is > 0 and <= NameList.LongestField ? v : $"column {i + 1}")];
            rows.RemoveAt(0);
            if (rows.Count == 0) return null;
        }
        var columns = rows.Max(r => r.Count);
        for (var i = fields.Count; i < Math.Min(columns, NameList.MostFields); i++) fields.Add($"column {i + 1}");
        var former = piece.List?.Rows.ToList() ?? [];
        var next = piece.List?.NextRow ?? 1;
        var made = ImmutableArray.CreateBuilder<NameRow>(rows.Count);
        foreach (var values in rows)
        {
            ImmutableArray<string> padded = [.. values, .. Enumerable.Repeat("", Math.Max(0, fields.Count - values.Count))];
            var same = former.FindIndex(r => r.Values.AsSpan().SequenceEqual(padded.AsSpan()));
            made.Add(same >= 0 ? former[same] : new NameRow(next++, padded));
            if (same >= 0) former.RemoveAt(same);
        }
        return new NameList([.. fields], made.ToImmutable()) { NextRow = next };
    }

    /// <summary>A list as it is typed, with its heading where it has more than one field.</summary>
    public static string Write(NameList? list)
    {
        if (list is null) return "";
        var lines = list.Rows.Select(r => string.Join("; ", Trimmed(r.Values).Select(Quoted)));
        return string.Join('\n', list.Fields.Length > 1 ? lines.Prepend(string.Join("; ", list.Fields)) : lines);
    }

    private static IEnumerable<string> Trimmed(ImmutableArray<string> values)
    {
        var last = values.Length;
        while (last > 1 && values[last - 1].Length == 0) last--;
        return values.Take(last);
    }

    private static string Quoted(string value) => value.IndexOfAny([';', ',', '\t', '"']) >= 0 ? $"\"{value.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : value;

    private static bool IsHeading(List<string> row, List<string> fields) => row.Any(v => fields.Contains(v.ToLowerInvariant())) && row.All(v => v.Length <= NameList.LongestField);

    private static List<List<string>> Rows(string text)
    {
        var rows = new List<List<string>>();
        var separator = text.Contains('\t', StringComparison.Ordinal) ? '\t' : OutsideQuotes(text, ';') ? ';' : ',';
        var (row, value, quoted, wasQuoted) = (new List<string>(), new StringBuilder(), false, false);
        void EndValue()
        {
            row.Add(Clean(value.ToString()));
            value.Clear();
            wasQuoted = false;
        }
        void EndRow()
        {
            EndValue();
            if (row.Any(v => v.Length > 0)) rows.Add(row);
            row = [];
        }
        for (var i = 0; i < text.Length; i++)
        {
            var c = text[i];
            if (quoted && c == '"' && i + 1 < text.Length && text[i + 1] == '"') value.Append(text[++i]);
            else if (c == '"' && (quoted || (string.IsNullOrWhiteSpace(value.ToString()) && !wasQuoted)))
            {
                if (!quoted) value.Clear();
                (quoted, wasQuoted) = (!quoted, true);
            }
            else if (!quoted && c == separator) EndValue();
            else if (!quoted && c is '\n' or '\r') EndRow();
            else value.Append(c);
        }
        EndRow();
        return rows;
    }

    private static bool OutsideQuotes(string text, char sought)
    {
        var quoted = false;
        foreach (var c in text)
        {
            if (c == '"') quoted = !quoted;
            else if (c == sought && !quoted) return true;
        }
        return false;
    }

    private static string Clean(string value) => string.Concat(value.EnumerateRunes().Select(r => Rune.IsControl(r) ? " " : r.ToString())).Trim();
}
