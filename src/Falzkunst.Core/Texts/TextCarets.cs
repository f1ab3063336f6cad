using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Texts;

/// <summary>Where a caret stands among set letters.</summary>
public static class TextCarets
{
    /// <summary>How far a caret reaches above and below the baseline, in capital heights.</summary>
    private const double Above = 1.15, Below = 0.25;

    /// <summary>For each place between characters, first and last included, the upper and lower end of a caret in the coordinates of the set text.</summary>
    /// <param name="set">The words as they are set.</param>
    /// <param name="shaped">The words as their face shapes them.</param>
    /// <param name="words">The words; a place is a UTF-16 index in them.</param>
    /// <param name="capitalMm">Height of capital letters, for lines without a letter, mm.</param>
    public static (Point Top, Point Foot)[] Places(SetText set, ShapedText shaped, string words, double capitalMm)
    {
        var places = new (Point, Point)[words.Length + 1];
        var paragraphs = words.Split('\n');
        var begin = 0;
        for (var p = 0; p < paragraphs.Length; p++)
        {
            for (var i = 0; i <= paragraphs[p].Length; i++) places[begin + i] = PlaceOf(set, shaped, p, i, paragraphs[p].Length, capitalMm);
            begin += paragraphs[p].Length + 1;
        }
        return places;
    }

    private static (Point, Point) PlaceOf(SetText set, ShapedText shaped, int paragraph, int at, int length, double capitalMm)
    {
        var line = LineOf(set, paragraph, at);
        var backwards = paragraph < shaped.Paragraphs.Length && shaped.Paragraphs[paragraph].IsRightToLeft;
        if (line < 0) return Upright(new Point(0, capitalMm), capitalMm);
        // The glyph that stands for the character, or the last one before it.
        var (found, next) = (-1, set.Lines[line].To);
        for (var g = 0; g < set.Glyphs.Length; g++)
        {
            if (set.Glyphs[g].Line != line) continue;
            if (set.Glyphs[g].Cluster <= at && (found < 0 || set.Glyphs[g].Cluster > set.Glyphs[found].Cluster)) found = g;
            if (set.Glyphs[g].Cluster > at) next = Math.Min(next, set.Glyphs[g].Cluster);
        }
        if (found < 0) return Upright(new Point(set.Lines[line].Left, set.Lines[line].Baseline), capitalMm);
        var glyph = set.Glyphs[found];
        // Within what stands for several characters, such as a ligature, by share of those.
        var span = Math.Max(1, Math.Min(next, length) - glyph.Cluster);
        var share = Math.Clamp((at - glyph.Cluster) / (double)span, 0, 1);
        var x = glyph.Advance * (backwards ? 1 - share : share);
        return (glyph.Place.Apply(new Point(x, -Above)), glyph.Place.Apply(new Point(x, Below)));
    }

    private static (Point, Point) Upright(Point foot, double capitalMm) => (foot + new Point(0, -Above * capitalMm), foot + new Point(0, Below * capitalMm));

    /// <summary>The line that a place belongs to: where it ends one and begins another, the latter.</summary>
    private static int LineOf(SetText set, int paragraph, int at)
    {
        var found = -1;
        for (var l = 0; l < set.Lines.Length; l++)
        {
            if (set.Lines[l].Paragraph == paragraph && set.Lines[l].From <= at) found = l;
        }
        return found;
    }
}
