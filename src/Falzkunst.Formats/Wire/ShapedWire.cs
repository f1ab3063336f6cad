using System.Collections.Immutable;
using System.IO;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Wire;

/// <summary>Shaped words as bytes, exact to the last bit. What is read back is checked like a file.</summary>
internal static class ShapedWire
{
    /// <summary>Glyphs that one character may be shaped as; the letters of scripts that are written in parts have four.</summary>
    private const int MostGlyphsEach = 16;

    public static void Write(BinaryWriter w, ShapedText shaped)
    {
        w.Write(shaped.IsStroke);
        DrawingWire.Many(w, shaped.Glyphs, static (w, g) => DrawingWire.Many(w, g.Paths, DrawingWire.Write));
        DrawingWire.Many(w, shaped.Paragraphs, static (w, p) =>
        {
            w.Write(p.IsRightToLeft);
            DrawingWire.Many(w, p.Glyphs, static (w, g) =>
            {
                w.Write(g.Index);
                w.Write(g.Cluster);
                w.Write(g.Advance);
                w.Write(g.X);
                w.Write(g.Y);
            });
        });
        DrawingWire.Many(w, shaped.Missing, static (w, m) => w.Write(m));
    }

    /// <param name="r">The bytes.</param>
    /// <param name="words">The words that were shaped.</param>
    /// <param name="limits">What readers may make.</param>
    /// <exception cref="InvalidDataException">It is not these words, or more than faces make of them.</exception>
    public static ShapedText Read(BinaryReader r, string words, BudgetLimits limits)
    {
        try
        {
            var lines = words.Split('\n');
            var segments = 0;
            var isStroke = r.ReadBoolean();
            var glyphs = DrawingWire.Many(r, words.Length * MostGlyphsEach, r => new Glyph(DrawingWire.Many(r, limits.Segments, r => DrawingWire.OnePath(r, limits, ref segments))));
            var line = 0;
            var paragraphs = DrawingWire.Many(r, lines.Length, r =>
            {
                var length = lines[line++].Length;
                return new ShapedParagraph(IsRightToLeft: r.ReadBoolean(), Glyphs: DrawingWire.Many(r, length * MostGlyphsEach, r => Placed(r, glyphs.Length, length)));
            });
            if (paragraphs.Length != lines.Length) throw new InvalidDataException("Lines of the words are missing.");
            return new ShapedText(glyphs, paragraphs, isStroke, DrawingWire.Many(r, words.Length, DrawingWire.Said));
        }
        catch (Exception e) when (e is EndOfStreamException or FormatException or ArgumentException or OverflowException)
        {
            throw new InvalidDataException("The words did not arrive whole.", e);
        }
    }

    private static ShapedGlyph Placed(BinaryReader r, int glyphs, int characters)
    {
        var (index, cluster) = (r.ReadInt32(), r.ReadInt32());
        if (index < 0 || index >= glyphs || cluster < 0 || cluster >= characters) throw new InvalidDataException("A glyph that there is not.");
        return new ShapedGlyph(index, cluster, DrawingWire.Number(r), DrawingWire.Number(r), DrawingWire.Number(r));
    }
}
