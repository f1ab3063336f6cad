using System.Collections.Concurrent;
using System.Collections.Immutable;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Fonts;

/// <summary>A face that was read: shapes words and gives glyphs. Safe to use in several threads.</summary>
public abstract class Face : IDisposable
{
    private readonly ConcurrentDictionary<uint, Glyph> _glyphs = new();

    /// <summary>Strokes and no outlines.</summary>
    public abstract bool IsStroke { get; }

    /// <summary>Units of the face to the height of its capital letters.</summary>
    public abstract double CapitalUnits { get; }

    /// <summary>A glyph of a paragraph, in units of the face, y up.</summary>
    protected internal readonly record struct UnitGlyph(uint Id, int Cluster, double Advance, double X, double Y);

    /// <summary>Glyphs of a paragraph from left to right; those that the face lacks have the id 0.</summary>
    protected abstract (IReadOnlyList<UnitGlyph> Glyphs, bool IsRightToLeft) ShapeParagraph(string paragraph);

    /// <summary>The paths of a glyph in units of the face, y up.</summary>
    protected abstract ImmutableArray<Path> PathsOf(uint glyph);

    /// <summary>The characters of a paragraph that the face lacks.</summary>
    protected abstract IEnumerable<string> MissingIn(string paragraph);

    /// <summary>What the face makes of words.</summary>
    /// <param name="words">Lines are parted by line feeds.</param>
    public ShapedText Shape(string words)
    {
        var numbers = new Dictionary<uint, int>();
        var glyphs = ImmutableArray.CreateBuilder<Glyph>();
        var paragraphs = ImmutableArray.CreateBuilder<ShapedParagraph>();
        var scale = 1 / CapitalUnits;
        foreach (var paragraph in words.Split('\n'))
        {
            var (shaped, isRightToLeft) = ShapeParagraph(paragraph);
            var placed = ImmutableArray.CreateBuilder<ShapedGlyph>(shaped.Count);
            foreach (var glyph in shaped)
            {
                if (!numbers.TryGetValue(glyph.Id, out var index))
                {
                    numbers[glyph.Id] = index = glyphs.Count;
                    glyphs.Add(GlyphOf(glyph.Id));
                }
                placed.Add(new ShapedGlyph(index, glyph.Cluster, glyph.Advance * scale, glyph.X * scale, -glyph.Y * scale));
            }
            paragraphs.Add(new ShapedParagraph(placed.ToImmutable(), isRightToLeft));
        }
        return new ShapedText(glyphs.ToImmutable(), paragraphs.ToImmutable(), IsStroke, [.. words.Split('\n').SelectMany(MissingIn).Distinct()]);
    }

    // Glyph 0 stands for what is lacking; its box is nothing to cut.
    private Glyph GlyphOf(uint id) => _glyphs.GetOrAdd(id, g => g == 0 ? new Glyph([]) : new Glyph([.. PathsOf(g).Select(p => p.Map(Affine.Scale(1 / CapitalUnits, -1 / CapitalUnits)))]));

    public abstract void Dispose();
}
