using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Texts;

/// <summary>One glyph of a face: its outlines or strokes in capital heights, y down, the origin on the baseline.</summary>
/// <param name="Paths">Closed outlines by winding, or the strokes of a single-line face.</param>
public sealed record Glyph(ImmutableArray<Path> Paths);

/// <summary>A glyph at its place in a paragraph, in capital heights.</summary>
/// <param name="Index">Number of the glyph in <see cref="ShapedText.Glyphs"/>.</param>
/// <param name="Cluster">UTF-16 index in the paragraph of the first character that it stands for.</param>
/// <param name="Advance">From its origin to that of the next glyph, kerning included.</param>
/// <param name="X">Its offset from the origin, to the right.</param>
/// <param name="Y">Its offset from the origin, downwards.</param>
public readonly record struct ShapedGlyph(int Index, int Cluster, double Advance, double X, double Y);

/// <summary>A paragraph as its face shapes it, unbroken.</summary>
/// <param name="Glyphs">Glyphs from left to right.</param>
/// <param name="IsRightToLeft">It reads from right to left.</param>
public sealed record ShapedParagraph(ImmutableArray<ShapedGlyph> Glyphs, bool IsRightToLeft);

/// <summary>
/// Words as a face shapes them: which glyphs, how far apart. Kept with the words, so that they look the same wherever and whenever
/// the project is opened, whether the face is at hand or not. Breaking lines and placing glyphs needs no more than this.
/// </summary>
/// <param name="Glyphs">The glyphs that occur.</param>
/// <param name="Paragraphs">One for each line as typed.</param>
/// <param name="IsStroke">The face is a single-line one: its paths are strokes, not outlines.</param>
/// <param name="Missing">Characters that the face lacks; nothing stands in their place.</param>
public sealed record ShapedText(ImmutableArray<Glyph> Glyphs, ImmutableArray<ShapedParagraph> Paragraphs, bool IsStroke, ImmutableArray<string> Missing)
{
    /// <summary>Segments of all its glyphs, each counted once: what is kept of them.</summary>
    public long Segments() => Glyphs.Sum(SegmentsOf);

    /// <summary>Segments of all its glyphs as often as they stand: what is drawn of them.</summary>
    public long SegmentsPlaced()
    {
        var each = Glyphs.Select(SegmentsOf).ToList();
        return Paragraphs.Sum(p => p.Glyphs.Sum(g => each[g.Index]));
    }

    private static long SegmentsOf(Glyph glyph) => glyph.Paths.Sum(p => (long)p.Segments.Length);
}
