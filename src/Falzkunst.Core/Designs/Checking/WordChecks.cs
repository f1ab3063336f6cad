using System.Globalization;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Designs.Checking;

/// <summary>What is worth pointing out about the words on a piece, and about what it follows.</summary>
internal static class WordChecks
{
    /// <summary>Words may reach so far over their box before anybody sees it, mm.</summary>
    private const double CareMm = 0.05;

    public static IEnumerable<Finding> OfPiece(Piece piece, Design design)
    {
        foreach (var text in piece.Items.OfType<TextItem>())
        {
            if (text.Shaped is not { } shaped) continue;
            var at = piece.Place.Apply(text.PathsOn(piece) is { IsEmpty: false } paths ? paths[0].Bounds.Centre : text.Place.Apply(new(0, 0)));
            Finding About(string code, string other) => new(code, Severity.Minor, piece.Id, text.Id, at) { Name = piece.Name, Other = other };
            var missing = shaped.Missing.Concat(text.Rows?.Missing ?? []).Distinct().ToList();
            if (missing.Count > 0) yield return About(FindingCodes.LettersMissing, string.Join(' ', missing.Take(12)));
            if (TooWide(piece, text) is { } wide) yield return About(FindingCodes.WordsTooWide, wide.Row) with { LengthsMm = [wide.OverMm, wide.BoxMm] };
        }
        if (piece.Follows?.Fault is { } fault)
            yield return new(FindingCodes.CannotFollow, Severity.Minor, piece.Id, null, piece.Place.Apply(piece.Size.Centre)) { Name = piece.Name, Other = fault.ToString() };
        if (piece.Follows is FromWords { Of: null } && design.Pieces.Count(p => p.Follows is FromWords { Of: { } of } && of == piece.Id) is > 0 and var parts)
            yield return new(FindingCodes.WordsFallApart, Severity.Minor, piece.Id, null, piece.Place.Apply(piece.Size.Centre)) { Name = piece.Name, Other = (parts + 1).ToString(CultureInfo.InvariantCulture) };
    }

    /// <summary>By how much words reach over their box, and which row of a list does; null where all fit.</summary>
    private static (double OverMm, double BoxMm, string Row)? TooWide(Piece piece, TextItem text)
    {
        var set = text.SetOn(piece);
        var scale = text.Along?.Line is null ? text.Place.MeanScale : 1;
        if (set.Lines.IsEmpty || text.Shrinks || !set.IsTooWide) return null;
        // What is shown of a list is the row that takes most room.
        var over = (set.Lines.Max(l => l.Width) - set.Width) * scale;
        return over > CareMm ? (over, set.Width * scale, text.Filled is null ? "" : text.Filled.Split('\n')[0]) : null;
    }
}
