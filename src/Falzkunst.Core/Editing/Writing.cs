using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Editing;

/// <summary>Words put on pieces and changed there.</summary>
public static class Writing
{
    /// <exception cref="EditRefused">There is no such face, nothing is written, or a number is out of reach.</exception>
    public static Design With(Design design, AddText edit, IFaces faces) =>
        design.With(edit.Piece, p => Arranging.Unlocked(p).Plus(Shaped(edit.Text, p.List, faces)));

    /// <exception cref="EditRefused">The text is gone, there is no such face, nothing is written, or a number is out of reach.</exception>
    public static Design With(Design design, ChangeText edit, IFaces faces)
    {
        var piece = design.Require(edit.Piece);
        var before = piece.Worked(edit.Text.Id) as TextItem ?? throw new EditRefused(Reason.LinesGone);
        var text = edit.Text.IsShapedAs(before) ? Checked(edit.Text) with { Shaped = before.Shaped, Filled = before.Filled, Rows = before.Rows } : Shaped(edit.Text, piece.List, faces);
        if (text.IsShape && text.Shaped is { IsStroke: true }) throw new EditRefused(Reason.SingleLineFace) { Field = "face" };
        if (edit.What is not (TextPart.Box or TextPart.Along)) text = KeptInPlace(before, text);
        return design.With(edit.Piece, p => Arranging.Unlocked(p).EachWorked([text.Id], _ => text));
    }

    /// <summary>Centred words grow to both sides of where they stand, and words on the right to the left.</summary>
    private static TextItem KeptInPlace(TextItem before, TextItem after)
    {
        if (before.Align == TextAlign.Left || before.Shaped is null || before.IsBoxed || after.IsBoxed || before.Along is { Line: not null }) return after;
        var grown = after.WidthOfLines - before.WidthOfLines;
        return after with { Place = Affine.Move(before.Align == TextAlign.Centre ? -grown / 2 : -grown, 0).Then(after.Place) };
    }

    /// <summary>The design with a list for a piece, whose words with fields are shaped for every row.</summary>
    /// <exception cref="EditRefused">The list is larger than lists may be, or a face is no longer at hand.</exception>
    public static Design WithList(Design design, SetNameList edit, IFaces faces)
    {
        if (edit.List is { } list) Check(list);
        return design.With(edit.Piece, p => Arranging.Unlocked(p).EachWorked(item => item is TextItem text ? KeptInPlace(text, Shaped(text, edit.List, faces)) : item) with { List = edit.List });
    }

    private static void Check(NameList list)
    {
        if (list.Fields.Length is < 1 or > NameList.MostFields) throw EditRefused.Range(Measure.FieldCount, 1, NameList.MostFields, "names");
        if (list.Rows.Length is < 1 or > NameList.MostRows) throw EditRefused.Range(Measure.ListRows, 1, NameList.MostRows, "names");
        foreach (var row in list.Rows)
        {
            if (row.Copies is < 0 or > NameList.MostCopies) throw EditRefused.Range(Measure.RowCopies, 0, NameList.MostCopies, "copies");
            if (row.Values.Any(v => v.Length > NameList.LongestValue)) throw EditRefused.Range(Measure.ValueLength, 0, NameList.LongestValue, "names");
            if (row.Values.Length > list.Fields.Length) throw new EditRefused(Reason.RowTooLong, row.Number, row.Values.Length, list.Fields.Length) { Field = "names" };
        }
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

    private static TextItem Shaped(TextItem text, NameList? list, IFaces faces)
    {
        text = Checked(text) with { Filled = null, Rows = null };
        ShapedText Shape(string words) => NotTooFine(faces.Shape(text.Face, words, text.Forms) ?? throw new EditRefused(Reason.NoSuchFace, text.Face) { Field = "face" });
        if (list is null || NameList.FieldsOf(text.Words).IsEmpty) return text with { Shaped = NotTooMuch(Shape(text.Words)) };
        // All rows in one go: their glyphs are kept once.
        var filled = list.Rows.Select(r => list.Fill(text.Words, r)).ToList();
        if (filled.FindIndex(f => f.Length > TextItem.MostCharacters) is >= 0 and var at) throw new EditRefused(Reason.FilledTooLong, NameList.NameOf(list.Rows[at]), TextItem.MostCharacters) { Field = "names" };
        var rows = Shape(string.Join('\n', filled));
        var each = text with { Rows = rows };
        var longest = Enumerable.Range(0, filled.Count).MaxBy(i => TextSetting.InBox(each.ForRow(list, i).Shaped!, filled[i], text.Style with { BoxWidthMm = null }).Width);
        return each with { Filled = filled[longest], Shaped = NotTooMuch(each.ForRow(list, longest).Shaped!) };
    }

    private static ShapedText NotTooFine(ShapedText shaped) =>
        shaped.Segments() <= TextItem.MostSegments ? shaped : throw new EditRefused(Reason.LettersTooFine, shaped.Segments(), TextItem.MostSegments) { Field = "face" };

    private static ShapedText NotTooMuch(ShapedText shaped) =>
        shaped.SegmentsPlaced() <= TextItem.MostPlacedSegments ? shaped : throw new EditRefused(Reason.LettersTooFine, shaped.SegmentsPlaced(), TextItem.MostPlacedSegments) { Field = "words" };

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
