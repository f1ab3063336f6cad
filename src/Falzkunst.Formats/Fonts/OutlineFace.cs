using System.Collections.Immutable;
using System.Runtime.InteropServices;
using System.Text;
using Falzkunst.Core.Geometry;
using HarfBuzzSharp;
using SkiaSharp;
using Buffer = HarfBuzzSharp.Buffer;

namespace Falzkunst.Formats.Fonts;

/// <summary>A TrueType or OpenType face: shaped by HarfBuzz (kerning, ligatures, joining), outlines as FreeType gives them to Skia, unhinted.</summary>
public sealed class OutlineFace : Face
{
    private const double UsualCapitals = 0.7;
    private const double LeastCapitals = 0.2, MostCapitals = 1.5;

    private readonly Lock _lock = new();
    private readonly Blob _blob;
    private readonly HarfBuzzSharp.Face _face;
    private readonly Font _font;
    private readonly SKTypeface _typeface;
    private readonly SKFont _outlines;
    private readonly double _em;

    private OutlineFace(byte[] file, SKTypeface typeface)
    {
        _typeface = typeface;
        // HarfBuzz reads a copy of the file for as long as the face lives, and gives it back when nobody has the face any more.
        var copy = Marshal.AllocHGlobal(file.Length);
        Marshal.Copy(file, 0, copy, file.Length);
        _blob = new Blob(copy, file.Length, MemoryMode.ReadOnly, () => Marshal.FreeHGlobal(copy));
        _face = new HarfBuzzSharp.Face(_blob, 0);
        _em = _face.UnitsPerEm;
        _font = new Font(_face);
        _font.SetScale((int)_em, (int)_em);
        _font.SetFunctionsOpenType();
        _outlines = new SKFont(_typeface, (float)_em) { Hinting = SKFontHinting.None, LinearMetrics = true, Subpixel = true, Edging = SKFontEdging.Antialias };
        CapitalUnits = Capitals();
        Forms = LetterForms.In(file);
    }

    public override bool IsStroke => false;
    public override int GlyphCount => _face.GlyphCount;
    public override string? Family => _typeface.FamilyName;
    public override ImmutableArray<string> Forms { get; }
    public override double CapitalUnits { get; }
    public override double EmUnits => _em;

    /// <summary>Reads a face.</summary>
    /// <exception cref="ReadRefused">It is none.</exception>
    public static OutlineFace Read(byte[] file)
    {
        // A face of TrueType or of compact outlines; anything else is not handed on.
        if (file.Length < 12 || !(file.AsSpan(0, 4).SequenceEqual((ReadOnlySpan<byte>)[0, 1, 0, 0]) || file.AsSpan(0, 4).SequenceEqual("OTTO"u8) || file.AsSpan(0, 4).SequenceEqual("true"u8))) throw NoFace();
        using var data = SKData.CreateCopy(file);
        var typeface = SKTypeface.FromData(data) ?? throw NoFace();
        OutlineFace? face = null;
        try
        {
            face = new OutlineFace(file, typeface);
            if (face._face.GlyphCount < 1 || !(face._em is >= 16 and <= 16384) || face._outlines.GetGlyph(' ') == 0 && face._outlines.GetGlyph('a') == 0 && face._outlines.GetGlyph('A') == 0) throw NoFace();
            return face;
        }
        catch
        {
            face?.Dispose();
            throw;
        }
    }

    private static ReadRefused NoFace() => new("not-a-face", "No face could be read from that file. Bring in a TTF or OTF file with Latin letters, or a single-line SVG font.");

    /// <summary>From OS/2 where it says something that can be; else what a flat capital measures.</summary>
    private double Capitals()
    {
        if (_font.OpenTypeMetrics.TryGetPosition(OpenTypeMetricsTag.CapHeight, out var told) && told >= LeastCapitals * _em && told <= MostCapitals * _em) return told;
        var height = PathsOf(_outlines.GetGlyph('H')).Select(p => p.Bounds.MaxY).DefaultIfEmpty().Max();
        return height >= LeastCapitals * _em && height <= MostCapitals * _em ? height : UsualCapitals * _em;
    }

    protected override (IReadOnlyList<UnitGlyph> Glyphs, bool IsRightToLeft) ShapeParagraph(string paragraph, IReadOnlyList<string> forms)
    {
        if (paragraph.Length == 0) return ([], false);
        var isRightToLeft = Directions.IsRightToLeft(paragraph);
        var glyphs = new List<UnitGlyph>();
        var features = forms.Where(f => Forms.Contains(f)).Select(f => new Feature(Tag.Parse(f), 1)).ToArray();
        lock (_lock)
        {
            var runs = Directions.Runs(paragraph, isRightToLeft);
            foreach (var (start, length, backwards) in isRightToLeft ? Enumerable.Reverse(runs) : runs)
            {
                using var buffer = new Buffer();
                buffer.AddUtf16(paragraph.AsSpan(), start, length);
                buffer.GuessSegmentProperties();
                buffer.Direction = backwards ? Direction.RightToLeft : Direction.LeftToRight;
                _font.Shape(buffer, features);
                var infos = buffer.GetGlyphInfoSpan();
                var places = buffer.GetGlyphPositionSpan();
                for (var i = 0; i < infos.Length; i++)
                    glyphs.Add(new UnitGlyph(infos[i].Codepoint, (int)infos[i].Cluster, places[i].XAdvance, places[i].XOffset, places[i].YOffset));
            }
        }
        return (glyphs, isRightToLeft);
    }

    protected override IEnumerable<string> MissingIn(string paragraph) =>
        [.. paragraph.EnumerateRunes().Where(r => !Rune.IsWhiteSpace(r) && !Rune.IsControl(r) && !IsUnseen(r) && _outlines.GetGlyph(r.Value) == 0).Select(r => r.ToString())];

    /// <summary>Joiners and marks of direction shape what is beside them and have no form.</summary>
    private static bool IsUnseen(Rune r) => Rune.GetUnicodeCategory(r) == System.Globalization.UnicodeCategory.Format;

    protected override ImmutableArray<Path> PathsOf(uint glyph)
    {
        lock (_lock)
        {
            using var path = _outlines.GetGlyphPath((ushort)glyph);
            return path is null ? [] : SkiaPaths.Read(path, flip: true);
        }
    }

    public override void Dispose()
    {
        _outlines.Dispose();
        _typeface.Dispose();
        _font.Dispose();
        _face.Dispose();
        _blob.Dispose();
    }
}
