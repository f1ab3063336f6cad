using System.Collections.Concurrent;
using System.Collections.Immutable;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Fonts;

/// <summary>A face that was read: shapes words and gives glyphs. Safe to use in several threads.</summary>
public abstract class Face : IDisposable
{
    /// <summary>Segments of glyphs that are kept made, some 80 bytes each: 4 MB a face. Beyond that they are made anew.</summary>
    private const long MostKept = 50_000;

    private readonly ConcurrentDictionary<uint, Glyph> _glyphs = new();
    private long _kept;

    /// <summary>Strokes and no outlines.</summary>
    public abstract bool IsStroke { get; }

    /// <summary>Units of the face to the height of its capital letters.</summary>
    public abstract double CapitalUnits { get; }

    /// <summary>Units of the face to its em.</summary>
    public abstract double EmUnits { get; }

    /// <summary>A glyph of a paragraph, in units of the face, y up.</summary>
    protected internal readonly record struct UnitGlyph(uint Id, int Cluster, double Advance, double X, double Y);

    /// <summary>Glyphs of a paragraph from left to right; those that the face lacks have the id 0.</summary>
    /// <param name="paragraph">The paragraph.</param>
    /// <param name="forms">Tags of features beyond the usual ones; those that the face lacks change nothing.</param>
    protected abstract (IReadOnlyList<UnitGlyph> Glyphs, bool IsRightToLeft) ShapeParagraph(string paragraph, IReadOnlyList<string> forms);

    /// <summary>What the file calls it; null where it says nothing.</summary>
    public abstract string? Family { get; }

    /// <summary>How many glyphs it has.</summary>
    public abstract int GlyphCount { get; }

    /// <summary>Forms of letters that one may choose beyond the usual ones, as tags of OpenType features.</summary>
    public virtual ImmutableArray<string> Forms => [];

    /// <summary>Reads every glyph, and shapes a line of them: what a face that came from outside breaks, it breaks here.</summary>
    /// <exception cref="ReadRefused">Something of it cannot be read, or there is more of it than a face has.</exception>
    public void ReadAll()
    {
        if (GlyphCount > MostGlyphs) throw new ReadRefused("not-a-face", $"The face has more than {MostGlyphs:N0} glyphs, which is the most that is read.");
        var segments = 0L;
        for (uint g = 0; g < GlyphCount; g++)
        {
            var paths = PathsOf(g);
            segments += paths.Sum(p => (long)p.Segments.Length);
            if (segments > MostSegments) throw new ReadRefused("not-a-face", "The face has outlines longer than any face needs.");
            if (paths.Any(p => !p.Bounds.IsEmpty && !(Math.Max(p.Bounds.Width, p.Bounds.Height) < CapitalUnits * MostHeights))) throw new ReadRefused("not-a-face", "The face has letters of a size that no face has.");
        }
        Shape(Sample);
    }

    private const int MostGlyphs = 65_536;
    private const long MostSegments = 6_000_000;
    private const double MostHeights = 1000;
    private const string Sample = "Hamburgefonstiv fi ffl AVATAR äöüßéñçő 0123456789 «Wagen» & „Gleis“";

    /// <summary>The paths of a glyph in units of the face, y up.</summary>
    protected abstract ImmutableArray<Path> PathsOf(uint glyph);

    /// <summary>The characters of a paragraph that the face lacks.</summary>
    protected abstract IEnumerable<string> MissingIn(string paragraph);

    /// <summary>What the face makes of words.</summary>
    /// <param name="words">Lines are parted by line feeds.</param>
    /// <param name="forms">Tags of features beyond the usual ones.</param>
    public ShapedText Shape(string words, params IReadOnlyList<string> forms)
    {
        var numbers = new Dictionary<uint, int>();
        var glyphs = ImmutableArray.CreateBuilder<Glyph>();
        var paragraphs = ImmutableArray.CreateBuilder<ShapedParagraph>();
        var scale = 1 / CapitalUnits;
        foreach (var paragraph in words.Split('\n'))
        {
            var (shaped, isRightToLeft) = ShapeParagraph(paragraph, forms);
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
    private Glyph GlyphOf(uint id)
    {
        if (_glyphs.TryGetValue(id, out var known)) return known;
        var glyph = id == 0 ? new Glyph([]) : new Glyph([.. PathsOf(id).Select(p => p.Map(Affine.Scale(1 / CapitalUnits, -1 / CapitalUnits)))]);
        if (Interlocked.Add(ref _kept, glyph.Paths.Sum(p => (long)p.Segments.Length)) > MostKept)
        {
            _glyphs.Clear();
            Interlocked.Exchange(ref _kept, 0);
        }
        return _glyphs.GetOrAdd(id, glyph);
    }

    public abstract void Dispose();
}
