using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Formats.Pdf;

/// <summary>Words of a page's label as outlines.</summary>
public static class LabelLetters
{
    /// <summary>Key of the face that ships for it.</summary>
    private const string FaceKey = "plain";

    /// <summary>The outlines of some words in one line, the baseline beginning at 0, 0; none where no face is at hand.</summary>
    /// <param name="faces">The faces.</param>
    /// <param name="words">The words.</param>
    /// <param name="capitalMm">Height of capitals, mm.</param>
    public static IEnumerable<Path> Of(IFaces faces, string words, double capitalMm)
    {
        var line = words.ReplaceLineEndings(" ");
        if (faces.Shape(FaceKey, line) is not { } shaped) return [];
        var set = TextSetting.InBox(shaped, line, new TextStyle(capitalMm));
        return Letters.Placed(shaped, set).SelectMany(l => l).Select(p => p.Map(Affine.Move(0, set.Lines.IsEmpty ? 0 : -set.Lines[0].Baseline)));
    }
}
