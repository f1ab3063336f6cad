using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry.Overlay;

namespace Falzkunst.Web.Pictures;

/// <summary>A way to cut words as a piece, carried out to be looked at.</summary>
/// <param name="Words">What it is called.</param>
/// <param name="Action">The action that chooses it.</param>
/// <param name="IsChosen">It is what is chosen now.</param>
/// <param name="Picture">Content of an SVG picture of 132 by 62.</param>
/// <param name="Parts">Into how many parts the words fall.</param>
/// <param name="SizeMm">Height of the bar, width of the bridges; 0 where there is none.</param>
public sealed record WordCandidate(string Words, BenchAction Action, bool IsChosen, string Picture, int Parts, double SizeMm)
{
    /// <summary>Left as they are, on a bar, with bridges, with letters closer.</summary>
    /// <param name="piece">The piece that has the words.</param>
    /// <param name="text">The words.</param>
    /// <param name="least">The narrowest part that the stock bears, mm.</param>
    /// <param name="colour">Colour of the stock.</param>
    public static IReadOnlyList<WordCandidate> For(Piece piece, TextItem text, double least, string colour)
    {
        var now = piece.Follows as FromWords;
        var capital = text.CapitalMm * text.Place.MeanScale;
        var found = new List<WordCandidate>();
        foreach (var (tie, words) in new[] { (WordTie.Loose, "as they are"), (WordTie.Bar, "on a bar"), (WordTie.Bridges, "bridged") })
        {
            var isNow = now?.Tie == tie;
            var size = isNow ? now!.TieMm : WordShapes.UsualTieMm(tie, capital, least);
            var parts = WordShapes.Parts(piece, new FromWords(null, text.Id, 0, tie, size));
            if (parts.IsEmpty) return [];
            found.Add(new(words, text.IsShape ? new TieAction(tie, tie == WordTie.Loose ? null : size) : new CutOutAction(Tie: tie), isNow, Draw(parts, colour), parts.Length, size));
            if (tie == WordTie.Loose && parts.Length == 1) return found;
        }
        if (WordShapes.CloserSpacing(piece, text) is { } closer)
        {
            var parts = WordShapes.Letters(piece, text with { LetterSpacing = closer });
            found.Add(new("letters closer", new LettersAction(Between: closer / 10.0), false, Draw(parts, colour), parts.Length, 0));
        }
        return found;
    }

    private static string Draw(ImmutableArray<PathArea> parts, string colour) =>
        BuildPicture.Of([.. parts.Select(p => (p.Openings.Prepend(p.Outline), colour))]);
}
