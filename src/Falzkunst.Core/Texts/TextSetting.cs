using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Texts;

/// <summary>How lines of text stand to each other.</summary>
public enum TextAlign
{
    Left,
    Centre,
    Right,
}

/// <summary>How words are set.</summary>
/// <param name="CapitalMm">Height of capital letters, mm.</param>
/// <param name="Align">How lines stand to each other.</param>
/// <param name="LetterSpacing">Added between letters, in thousandths of the capital height.</param>
/// <param name="LineSpacing">From baseline to baseline, in capital heights.</param>
/// <param name="BoxWidthMm">Lines are broken to fit this width; null for as wide as they are.</param>
public sealed record TextStyle(double CapitalMm, TextAlign Align = TextAlign.Left, int LetterSpacing = 0, double LineSpacing = TextStyle.UsualLineSpacing, double? BoxWidthMm = null)
{
    public const double UsualLineSpacing = 1.6;

    /// <summary>Lines wider than the box are not broken: all become smaller until they fit; baselines stay.</summary>
    public bool Shrinks { get; init; }
}

/// <summary>A glyph where it is set.</summary>
/// <param name="Index">Number of the glyph.</param>
/// <param name="Place">From the glyph's own coordinates to those of the text's box.</param>
public readonly record struct SetGlyph(int Index, Affine Place)
{
    /// <summary>Number of the line that it stands in.</summary>
    public int Line { get; init; }

    /// <summary>UTF-16 index in its paragraph of the first character that it stands for.</summary>
    public int Cluster { get; init; }

    /// <summary>From its origin to that of the next glyph, in its own coordinates.</summary>
    public double Advance { get; init; }
}

/// <summary>A line as it is set.</summary>
/// <param name="Paragraph">The paragraph that it is of.</param>
/// <param name="From">UTF-16 index in the paragraph of its first character.</param>
/// <param name="To">Index after its last character, blanks at its end included.</param>
/// <param name="Left">Where it begins, mm from the box's left edge.</param>
/// <param name="Width">How wide it is, mm.</param>
/// <param name="Baseline">Where it stands, mm below the box's upper edge.</param>
public sealed record SetLine(int Paragraph, int From, int To, double Left, double Width, double Baseline);

/// <summary>Words as they are set in a box whose upper left corner is 0, 0: the first capital letters reach its upper edge.</summary>
/// <param name="Glyphs">Every glyph at its place.</param>
/// <param name="Lines">The lines, from the top.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">From its upper edge to the last baseline, mm.</param>
/// <param name="IsTooWide">A word is wider than the box and reaches over its edge.</param>
public sealed record SetText(ImmutableArray<SetGlyph> Glyphs, ImmutableArray<SetLine> Lines, double Width, double Height, bool IsTooWide);

/// <summary>
/// Sets shaped words: breaks lines at blanks where the next word would not fit (first fit), aligns them, and places glyphs, in a box or
/// along a line.
/// </summary>
public static class TextSetting
{
    /// <summary>A word may be so much wider than the box before it counts as too wide, mm: what rounding leaves.</summary>
    private const double Slack = 1e-6;

    /// <summary>A line is walked along corners this near to it, mm.</summary>
    private const double Flatness = 0.002;

    /// <summary>Sets words in a box.</summary>
    /// <param name="text">The words as their face shapes them.</param>
    /// <param name="words">The words themselves, which say where lines may be broken.</param>
    /// <param name="style">How they are set.</param>
    public static SetText InBox(ShapedText text, string words, TextStyle style)
    {
        var rows = Rows(text, words, style.Shrinks ? style with { BoxWidthMm = null } : style);
        var widest = rows.Count == 0 ? 0 : rows.Max(r => r.Width);
        var width = style.BoxWidthMm ?? widest;
        var shrink = style.Shrinks && widest > width ? width / widest : 1;
        if (shrink < 1) (rows, widest) = ([.. rows.Select(r => r.Scaled(shrink))], width);
        var capital = style.CapitalMm * shrink;
        var glyphs = ImmutableArray.CreateBuilder<SetGlyph>();
        var lines = ImmutableArray.CreateBuilder<SetLine>(rows.Count);
        for (var i = 0; i < rows.Count; i++)
        {
            var row = rows[i];
            var left = style.Align switch { TextAlign.Left => 0, TextAlign.Centre => (width - row.Width) / 2, _ => width - row.Width };
            var baseline = style.CapitalMm * (1 + i * style.LineSpacing);
            lines.Add(new SetLine(row.Paragraph, row.From, row.To, left, row.Width, baseline));
            foreach (var (glyph, x) in row.Glyphs)
                glyphs.Add(new SetGlyph(glyph.Index, Affine.Scale(capital, capital).Then(Affine.Move(left + x + glyph.X * capital, baseline + glyph.Y * capital))) { Line = i, Cluster = glyph.Cluster, Advance = glyph.Advance });
        }
        var height = rows.Count == 0 ? 0 : style.CapitalMm * (1 + (rows.Count - 1) * style.LineSpacing);
        return new SetText(glyphs.ToImmutable(), lines.ToImmutable(), width, height, style.BoxWidthMm is { } box && widest > box + Slack);
    }

    /// <summary>
    /// Sets words along a line: each glyph stands with its middle over its place on the line, by length, and is turned as the line runs
    /// there. What is longer than the line goes on straight.
    /// </summary>
    /// <param name="text">The words as their face shapes them.</param>
    /// <param name="words">The words themselves; further lines stand below the first.</param>
    /// <param name="style">How they are set; a box has no meaning here.</param>
    /// <param name="line">The baseline.</param>
    /// <param name="offsetMm">How far above the line they stand, mm.</param>
    public static SetText Along(ShapedText text, string words, TextStyle style, Path line, double offsetMm)
    {
        var walk = new Walk(Flattening.Flatten(line, Flatness), line.IsClosed);
        var rows = Rows(text, words, style with { BoxWidthMm = null });
        var glyphs = ImmutableArray.CreateBuilder<SetGlyph>();
        var lines = ImmutableArray.CreateBuilder<SetLine>(rows.Count);
        for (var i = 0; i < rows.Count; i++)
        {
            var row = rows[i];
            var from = style.Align switch { TextAlign.Left => 0, TextAlign.Centre => (walk.Length - row.Width) / 2, _ => walk.Length - row.Width };
            var below = style.CapitalMm * i * style.LineSpacing - offsetMm;
            lines.Add(new SetLine(row.Paragraph, row.From, row.To, from, row.Width, below));
            foreach (var (glyph, x) in row.Glyphs)
            {
                var half = glyph.Advance * style.CapitalMm / 2;
                var (at, direction) = walk.At(from + x + half);
                var turn = new Affine(direction.X, direction.Y, -direction.Y, direction.X, at.X, at.Y);
                glyphs.Add(new SetGlyph(glyph.Index, Affine.Scale(style.CapitalMm, style.CapitalMm)
                    .Then(Affine.Move(glyph.X * style.CapitalMm - half, glyph.Y * style.CapitalMm + below)).Then(turn))
                { Line = i, Cluster = glyph.Cluster, Advance = glyph.Advance });
            }
        }
        return new SetText(glyphs.ToImmutable(), lines.ToImmutable(), walk.Length, style.CapitalMm, rows.Exists(r => r.Width > walk.Length + Slack));
    }

    /// <summary>A line of glyphs, each with where it begins, mm.</summary>
    private sealed record Row(int Paragraph, int From, int To, double Width, List<(ShapedGlyph Glyph, double X)> Glyphs)
    {
        public Row Scaled(double by) => this with { Width = Width * by, Glyphs = [.. Glyphs.Select(g => (g.Glyph, g.X * by))] };
    }

    private static List<Row> Rows(ShapedText text, string words, TextStyle style)
    {
        var typed = words.Split('\n');
        var rows = new List<Row>();
        for (var p = 0; p < text.Paragraphs.Length; p++)
        {
            var paragraph = text.Paragraphs[p];
            var said = p < typed.Length ? typed[p] : "";
            // In the order of reading, which for some scripts is from the right.
            var order = paragraph.IsRightToLeft ? [.. paragraph.Glyphs.Reverse()] : paragraph.Glyphs;
            for (var first = 0; first < order.Length || first == 0;)
            {
                var end = style.BoxWidthMm is { } box ? EndOf(order, first, said, box, style) : order.Length;
                rows.Add(RowOf(p, paragraph, order, first, end, said, style));
                first = Math.Max(end, first + 1);
            }
        }
        return rows;
    }

    /// <summary>The glyph after the last one that still fits, at a blank; at least one word.</summary>
    private static int EndOf(ImmutableArray<ShapedGlyph> order, int first, string said, double box, TextStyle style)
    {
        var (width, end) = (0.0, order.Length);
        var lastBreak = -1;
        for (var i = first; i < order.Length; i++)
        {
            if (IsBlank(order[i], said))
            {
                lastBreak = i + 1;
            }
            else if (width + order[i].Advance * style.CapitalMm > box + Slack && lastBreak > first)
            {
                end = lastBreak;
                break;
            }
            width += Stride(order[i], style);
        }
        return end;
    }

    private static bool IsBlank(ShapedGlyph glyph, string said) => glyph.Cluster < said.Length && char.IsWhiteSpace(said[glyph.Cluster]) && said[glyph.Cluster] != '\u00A0';

    private static double Stride(ShapedGlyph glyph, TextStyle style) => (glyph.Advance + (glyph.Advance > 0 ? style.LetterSpacing / 1000.0 : 0)) * style.CapitalMm;

    private static Row RowOf(int number, ShapedParagraph paragraph, ImmutableArray<ShapedGlyph> order, int first, int end, string said, TextStyle style)
    {
        var last = end;
        while (last > first && IsBlank(order[last - 1], said)) last--;
        var shown = order[first..last];
        var (x, placed) = (0.0, new List<(ShapedGlyph, double)>(shown.Length));
        foreach (var glyph in paragraph.IsRightToLeft ? shown.Reverse() : shown)
        {
            placed.Add((glyph, x));
            x += Stride(glyph, style);
        }
        // No distance follows the last letter.
        if (shown.Length > 0) x -= style.LetterSpacing / 1000.0 * style.CapitalMm;
        return new Row(number, first < order.Length ? order[first].Cluster : said.Length, end < order.Length ? order[end].Cluster : said.Length, Math.Max(0, x), placed);
    }

    /// <summary>Places on a line by length.</summary>
    private sealed class Walk
    {
        private readonly Point[] _points;
        private readonly double[] _at;

        public Walk(Point[] corners, bool isClosed)
        {
            _points = isClosed && corners.Length > 1 ? [.. corners, corners[0]] : corners;
            _at = new double[_points.Length];
            for (var i = 1; i < _points.Length; i++) _at[i] = _at[i - 1] + _points[i].DistanceTo(_points[i - 1]);
        }

        public double Length => _at[^1];

        public (Point At, Point Direction) At(double length)
        {
            if (_points.Length < 2 || Length <= 0) return (_points[0] + new Point(length, 0), new Point(1, 0));
            var i = Array.BinarySearch(_at, Math.Clamp(length, 0, Length));
            if (i < 0) i = ~i;
            i = Math.Clamp(i, 1, _points.Length - 1);
            while (i < _points.Length - 1 && _at[i] == _at[i - 1]) i++;
            var way = _points[i] - _points[i - 1];
            var direction = way.Length > 0 ? way * (1 / way.Length) : new Point(1, 0);
            return (_points[i - 1] + direction * (length - _at[i - 1]), direction);
        }
    }
}
