using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Editing;

/// <summary>Words put on pieces and changed there.</summary>
public static class Writing
{
    /// <exception cref="EditRefused">There is no such face, nothing is written, or a number is out of reach.</exception>
    public static Design With(Design design, AddText edit, IFaces faces)
    {
        var text = Shaped(edit.Text, faces);
        return design.With(edit.Piece, p => Arranging.Unlocked(p).Plus(text));
    }

    /// <exception cref="EditRefused">The text is gone, there is no such face, nothing is written, or a number is out of reach.</exception>
    public static Design With(Design design, ChangeText edit, IFaces faces)
    {
        var before = design.Require(edit.Piece).Worked(edit.Text.Id) as TextItem ?? throw new EditRefused(Reason.LinesGone);
        var text = edit.Text.IsShapedAs(before) ? Checked(edit.Text) with { Shaped = before.Shaped } : Shaped(edit.Text, faces);
        return design.With(edit.Piece, p => Arranging.Unlocked(p).EachWorked([text.Id], _ => text));
    }

    /// <summary>Words as they were typed or pasted: plain line feeds, no control characters, no blanks at the ends of lines.</summary>
    /// <exception cref="EditRefused">They are more than a text may have; nothing was done with them.</exception>
    public static string Cleaned(string? words)
    {
        if (words is null) return "";
        if (words.Length > TextItem.MostCharacters) throw EditRefused.Range(Measure.Characters, 1, TextItem.MostCharacters, "words");
        var clean = new StringBuilder(words.Length);
        foreach (var rune in words.ReplaceLineEndings("\n").EnumerateRunes())
        {
            if (rune.Value == '\t') clean.Append(' ');
            else if (rune.Value == '\n' || !Rune.IsControl(rune)) clean.Append(rune.ToString());
        }
        return string.Join('\n', clean.ToString().Split('\n').Select(l => l.TrimEnd())).Trim('\n');
    }

    private static TextItem Shaped(TextItem text, IFaces faces)
    {
        text = Checked(text);
        return text with { Shaped = faces.Shape(text.Face, text.Words) ?? throw new EditRefused(Reason.NoSuchFace, text.Face) { Field = "face" } };
    }

    private static TextItem Checked(TextItem text)
    {
        if (string.IsNullOrWhiteSpace(text.Words)) throw new EditRefused(Reason.NoWords) { Field = "words" };
        if (text.Words.Length > TextItem.MostCharacters) throw EditRefused.Range(Measure.Characters, 1, TextItem.MostCharacters, "words");
        var capital = text.CapitalMm * text.Place.MeanScale;
        if (!(capital is >= TextItem.LeastMm and <= TextItem.MostMm)) throw EditRefused.RangeMm(Measure.CapitalHeight, TextItem.LeastMm, TextItem.MostMm, "height");
        if (text.LetterSpacing is < TextItem.LeastSpacing or > TextItem.MostSpacing) throw EditRefused.Range(Measure.LetterSpacing, TextItem.LeastSpacing / 10.0, TextItem.MostSpacing / 10.0, "between");
        if (!(text.LineSpacing is >= TextItem.LeastLines and <= TextItem.MostLines)) throw EditRefused.Range(Measure.LineSpacing, TextItem.LeastLines, TextItem.MostLines, "lines");
        if (text.BoxWidthMm is { } width && !(width is >= 1 and <= Arranging.MostMm)) throw EditRefused.RangeMm(Measure.TextWidth, 1, Arranging.MostMm, "width");
        if (text.InsidePieceMm is { } inside && !(inside is >= 0 and <= Arranging.MostMm)) throw EditRefused.RangeMm(Measure.EdgeInset, 0, Arranging.MostMm, "inside");
        if (text.Along is { } along)
        {
            if (!(Math.Abs(along.ArcDegrees) <= TextAlong.MostDegrees)) throw EditRefused.Range(Measure.ArcDegrees, -TextAlong.MostDegrees, TextAlong.MostDegrees, "arc");
            if (!(Math.Abs(along.OffsetMm) <= Arranging.MostMm)) throw EditRefused.RangeMm(Measure.EdgeInset, -Arranging.MostMm, Arranging.MostMm, "offset");
        }
        return text;
    }
}
