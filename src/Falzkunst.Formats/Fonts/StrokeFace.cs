using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats.Fonts;

/// <summary>
/// A single-line face as an SVG font (SVG 1.1, chapter 20): each glyph is strokes for a pen. Such files have no kerning; glyphs stand by
/// their advances.
/// </summary>
public sealed class StrokeFace : Face
{
    private const double UsualEm = 1000;
    private const double UsualCapitals = 0.7;
    private const int MostGlyphs = 20_000;

    private readonly ImmutableArray<(ImmutableArray<Path> Paths, double Advance)> _glyphs;
    private readonly Dictionary<string, uint> _byText;
    private readonly int _longest;

    private StrokeFace(ImmutableArray<(ImmutableArray<Path>, double)> glyphs, Dictionary<string, uint> byText, double em, double capitals, string? family)
    {
        (_glyphs, _byText, EmUnits, CapitalUnits, Family) = (glyphs, byText, em, capitals, family);
        _longest = byText.Keys.Max(k => k.Length);
    }

    public override bool IsStroke => true;
    public override int GlyphCount => _glyphs.Length;
    public override string? Family { get; }
    public override double CapitalUnits { get; }
    public override double EmUnits { get; }

    /// <summary>Reads a face.</summary>
    /// <exception cref="ReadRefused">It is no SVG font, or one of outlines.</exception>
    /// <exception cref="BudgetSpent">It has more than a face may.</exception>
    public static StrokeFace Read(byte[] file, Budget budget)
    {
        var root = SvgTree.Read(file, budget);
        var font = Find(root, "font") ?? throw new ReadRefused("no-font", "The SVG file holds no font. A single-line face has a font element with its glyphs.");
        var about = font.Children.Find(c => c.Name == "font-face");
        var em = Number(about?["units-per-em"]) is { } told and > 0 ? told : UsualEm;
        var usual = Number(font["horiz-adv-x"]) ?? em / 2;
        // Glyph 0 is that for what is lacking.
        var glyphs = ImmutableArray.CreateBuilder<(ImmutableArray<Path>, double)>();
        glyphs.Add(([], usual));
        var byText = new Dictionary<string, uint>(StringComparer.Ordinal);
        foreach (var glyph in font.Children.Where(c => c.Name == "glyph").Take(MostGlyphs))
        {
            if (glyph["unicode"] is not { Length: > 0 and <= 8 } text || byText.ContainsKey(text)) continue;
            byText[text] = (uint)glyphs.Count;
            glyphs.Add(([.. SvgPathData.Read(glyph["d"] ?? "", budget).Paths], Number(glyph["horiz-adv-x"]) ?? usual));
        }
        if (byText.Count == 0 || glyphs.All(g => g.Item1.IsEmpty)) throw new ReadRefused("no-font", "The font in the SVG file has no glyphs.");
        var made = glyphs.ToImmutable();
        // Strokes are open for the most part; a face whose every path is closed is one of outlines.
        if (made.SelectMany(g => g.Item1).All(p => p.IsClosed || p.Start.DistanceTo(p.End) < em * 1e-4)) throw new ReadRefused("not-single-line", "The font in the SVG file has outlines, not single lines. Bring in its TTF or OTF file instead.");
        return new StrokeFace(made, byText, em, Capitals(about, made, byText, em), about?["font-family"] ?? font.Id);
    }

    /// <summary>What a flat capital measures; what the file says is often that of the face it was drawn after.</summary>
    private static double Capitals(SvgNode? about, ImmutableArray<(ImmutableArray<Path> Paths, double)> glyphs, Dictionary<string, uint> byText, double em)
    {
        foreach (var flat in new[] { "H", "E", "X" })
        {
            if (byText.TryGetValue(flat, out var at) && glyphs[(int)at].Paths is { IsEmpty: false } paths && paths.Max(p => p.Bounds.MaxY) - paths.Min(p => p.Bounds.MinY) is var height && height > em * 0.1) return height;
        }
        return Number(about?["cap-height"]) is { } told and > 0 ? told : em * UsualCapitals;
    }

    private static SvgNode? Find(SvgNode root, string name)
    {
        var open = new Stack<SvgNode>([root]);
        while (open.TryPop(out var node))
        {
            if (node.Name == name) return node;
            foreach (var child in node.Children) open.Push(child);
        }
        return null;
    }

    private static double? Number(string? text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number) && Math.Abs(number) < 1e6 ? number : null;

    protected override (IReadOnlyList<UnitGlyph> Glyphs, bool IsRightToLeft) ShapeParagraph(string paragraph, IReadOnlyList<string> forms)
    {
        var glyphs = new List<UnitGlyph>();
        for (var i = 0; i < paragraph.Length;)
        {
            var (id, length) = At(paragraph, i);
            glyphs.Add(new UnitGlyph(id, i, _glyphs[(int)id].Advance, 0, 0));
            i += length;
        }
        return (glyphs, false);
    }

    /// <summary>The glyph of the longest text that begins there: ligatures go before letters.</summary>
    private (uint Id, int Length) At(string paragraph, int at)
    {
        for (var length = Math.Min(_longest, paragraph.Length - at); length > 0; length--)
        {
            if (_byText.TryGetValue(paragraph.Substring(at, length), out var id)) return (id, length);
        }
        if (paragraph[at] is '\u00A0' or '\u2009' or '\u202F' && _byText.TryGetValue(" ", out var blank)) return (blank, 1);
        return (0, char.IsSurrogatePair(paragraph, at) ? 2 : 1);
    }

    protected override IEnumerable<string> MissingIn(string paragraph)
    {
        for (var i = 0; i < paragraph.Length;)
        {
            var (id, length) = At(paragraph, i);
            if (id == 0 && !char.IsWhiteSpace(paragraph[i])) yield return paragraph.Substring(i, length);
            i += length;
        }
    }

    protected override ImmutableArray<Path> PathsOf(uint glyph) => _glyphs[(int)glyph].Paths;

    public override void Dispose()
    {
    }
}
