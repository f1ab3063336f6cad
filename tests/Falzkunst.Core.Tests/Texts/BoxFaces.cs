using System.Collections.Immutable;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Tests.Texts;

/// <summary>
/// A face in which every letter is a box of known size: 0.6 wide and 1 high in an advance of 0.7; "/" overlaps what follows, "!" has a
/// dot apart from it. It has swashes, which make letters higher.
/// </summary>
internal sealed class BoxFaces : IFaces
{
    public static readonly BoxFaces Instance = new();

    public ImmutableArray<FaceName> All { get; } = [new("line-plain", "Line plain", FaceKind.SingleLine), new("marker", "Marker", FaceKind.Script), new("quill", "Quill", FaceKind.Script)];

    public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms)
    {
        if (!All.Any(f => f.Key == face)) return null;
        var isStroke = face == "line-plain";
        var high = forms.Contains("swsh") ? 1.5 : 1;
        var box = isStroke ? new Glyph([Path.Polyline([new(0, 0), new(0.3, -1), new(0.6, 0)], closed: false)]) : new Glyph([Path.Rectangle(0, -high, 0.6, high)]);
        var dotted = new Glyph([Path.Rectangle(0, -0.6, 0.6, 0.6), Path.Rectangle(0.2, -1, 0.2, 0.2)]);
        return new ShapedText(
            [box, new Glyph([]), dotted],
            [.. words.Split('\n').Select(l => new ShapedParagraph([.. l.Select((c, i) => new ShapedGlyph(char.IsWhiteSpace(c) ? 1 : c == '!' ? 2 : 0, i, c == '/' ? 0.3 : 0.7, 0, 0))], false))],
            isStroke, words.Contains('§') ? ["§"] : []);
    }

    public ImmutableArray<string> FormsOf(string face) => face == "quill" ? ["swsh"] : [];
}
