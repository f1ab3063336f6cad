using System.Globalization;
using System.Text;

namespace Falzkunst.Formats;

/// <summary>Texts of a file that people are shown.</summary>
public static class ShownText
{
    /// <summary>Longer names say nothing more, and would be kept with every line.</summary>
    public const int Longest = 120;

    /// <summary>The text without controls, marks of direction and other characters that do not show, cut off at a length.</summary>
    public static string Clean(string text, int longest = Longest)
    {
        if (text.Length <= longest && text.All(char.IsAsciiLetterOrDigit)) return text;
        var shown = new StringBuilder();
        foreach (var rune in text.EnumerateRunes())
        {
            if (shown.Length >= longest) break;
            if (IsShown(rune)) shown.Append(rune);
            else if (rune.Value is '\t' or '\n' or '\r') shown.Append(' ');
        }
        return shown.ToString();
    }

    // Joiners belong to words of some scripts and to compound signs.
    private static bool IsShown(Rune rune) => rune.Value is 0x200C or 0x200D
        || (rune.Value != 0xFFFD && Rune.GetUnicodeCategory(rune) is not (UnicodeCategory.Control or UnicodeCategory.Format));
}
