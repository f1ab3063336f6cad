using System.Globalization;
using System.Text;

namespace Falzkunst.Formats.Fonts;

/// <summary>
/// Which way words read: a paragraph as its first strong letter does, and within it runs of one direction (the two levels of Unicode's
/// bidirectional algorithm, UAX 9, that greetings and names need; embedding in embedding is not looked at).
/// </summary>
internal static class Directions
{
    /// <summary>A paragraph reads from right to left.</summary>
    public static bool IsRightToLeft(string paragraph) => paragraph.EnumerateRunes().Select(Strong).FirstOrDefault(s => s is not null) ?? false;

    /// <summary>Runs of one direction, in the order of reading.</summary>
    /// <param name="paragraph">The paragraph.</param>
    /// <param name="isRightToLeft">Its own direction, which what is neutral takes on between runs of the other.</param>
    public static List<(int Start, int Length, bool IsRightToLeft)> Runs(string paragraph, bool isRightToLeft)
    {
        var runs = new List<(int Start, int Length, bool IsRightToLeft)>();
        var (start, direction, lastStrong, at) = (0, (bool?)null, 0, 0);
        foreach (var rune in paragraph.EnumerateRunes())
        {
            var strong = Strong(rune);
            if (strong is { } s)
            {
                if (direction is { } now && s != now)
                {
                    // What lies between two directions goes with the paragraph's own.
                    var cut = now == isRightToLeft ? at : lastStrong;
                    runs.Add((start, cut - start, now));
                    start = cut;
                }
                direction = s;
                lastStrong = at + rune.Utf16SequenceLength;
            }
            at += rune.Utf16SequenceLength;
        }
        if (at > start)
        {
            // Neutral signs at the end stand as the paragraph reads.
            if (direction is { } last && last != isRightToLeft && lastStrong < at)
            {
                runs.Add((start, lastStrong - start, last));
                runs.Add((lastStrong, at - lastStrong, isRightToLeft));
            }
            else
            {
                runs.Add((start, at - start, direction ?? isRightToLeft));
            }
        }
        return runs;
    }

    /// <summary>A letter of a script that reads from the right, or from the left; null for signs and blanks. Digits read from the left.</summary>
    private static bool? Strong(Rune rune)
    {
        if (rune.Value is >= 0x0590 and <= 0x08FF or >= 0xFB1D and <= 0xFDFF or >= 0xFE70 and <= 0xFEFF or >= 0x10800 and <= 0x10FFF or >= 0x1E800 and <= 0x1EFFF)
            return Rune.GetUnicodeCategory(rune) == UnicodeCategory.DecimalDigitNumber ? false : Rune.IsLetter(rune) || Rune.GetUnicodeCategory(rune) == UnicodeCategory.NonSpacingMark ? true : null;
        return Rune.IsLetterOrDigit(rune) ? false : null;
    }
}
