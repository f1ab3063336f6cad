using System.Buffers.Binary;
using System.Collections.Immutable;
using System.Text;

namespace Falzkunst.Formats.Fonts;

/// <summary>
/// Which other forms of letters a face offers for choice: the tags in the feature list of its GSUB table (OpenType 1.9, chapter "GSUB",
/// and "OpenType Layout Common Table Formats"). What is on by itself, or belongs to a script, is no choice.
/// </summary>
internal static class LetterForms
{
    private const int MostFeatures = 500;

    /// <summary>Tags that one chooses by taste; style sets are besides.</summary>
    private static readonly string[] Chosen = ["swsh", "cswh", "salt", "titl", "hist", "dlig", "hlig", "smcp", "onum", "fina", "init"];

    /// <summary>The tags of a font file, each once, in order; none where the table is not there or makes no sense.</summary>
    public static ImmutableArray<string> In(ReadOnlySpan<byte> file)
    {
        if (TableOf(file, "GSUB"u8) is not { } at || at + 10 > file.Length) return [];
        var list = at + U16(file, at + 6);
        if (list + 2 > file.Length) return [];
        var tags = new SortedSet<string>(StringComparer.Ordinal);
        var count = Math.Min(U16(file, list), MostFeatures);
        for (var i = 0; i < count && list + 8 + i * 6 <= file.Length; i++)
        {
            var tag = Encoding.ASCII.GetString(file.Slice(list + 2 + i * 6, 4));
            if (Chosen.Contains(tag) || IsStyleSet(tag)) tags.Add(tag);
        }
        return [.. tags];
    }

    private static bool IsStyleSet(string tag) => tag.StartsWith("ss", StringComparison.Ordinal) && char.IsAsciiDigit(tag[2]) && char.IsAsciiDigit(tag[3]);

    private static int? TableOf(ReadOnlySpan<byte> file, ReadOnlySpan<byte> name)
    {
        if (file.Length < 12) return null;
        var count = U16(file, 4);
        for (var i = 0; i < count && 28 + i * 16 <= file.Length; i++)
        {
            if (!file.Slice(12 + i * 16, 4).SequenceEqual(name)) continue;
            var offset = BinaryPrimitives.ReadUInt32BigEndian(file[(20 + i * 16)..]);
            return offset < file.Length ? (int)offset : null;
        }
        return null;
    }

    private static int U16(ReadOnlySpan<byte> file, int at) => BinaryPrimitives.ReadUInt16BigEndian(file[at..]);
}
