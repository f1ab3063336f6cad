using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Editing;

/// <summary>
/// What follows when lines become folds after they came in, so that it ends as it would have begun: a thin loop becomes the line along
/// its middle, and a piece whose outline is a fold is no piece but a line of the piece under it.
/// </summary>
internal static class Refolding
{
    /// <summary>The design after the operation of some lines was changed.</summary>
    /// <param name="before">The design before it.</param>
    /// <param name="after">The design with the new operations.</param>
    /// <param name="isByRule">A rule said it, which speaks of lines as they come in; a hand may want an outline that is scored.</param>
    public static Design Follow(Design before, Design after, bool isByRule)
    {
        var design = after;
        var home = before.Pieces.ToDictionary(p => p.Id);
        var joined = new HashSet<string>();
        foreach (var piece in after.Pieces)
        {
            if (!home.TryGetValue(piece.Id, out var was) || ReferenceEquals(was, piece)) continue;
            var changed = piece.Lines.Where(l => was.Find(l.Id) is { } then && then.Operation != l.Operation).Select(l => l.Id).ToHashSet();
            var thin = AlongMiddle(piece, changed);
            var outline = thin.Outline;
            if (changed.Contains(outline.Id) && outline.Operation != Operation.Cut && (isByRule || !outline.Path.IsClosed))
                design = NoPiece(design, thin, joined);
            else if (thin != piece)
                design = design.With(piece.Id, _ => thin);
        }
        return joined.Count == 0 ? design : LooseLines.GiveToPiecesUnder(design, l => joined.Contains(l.Id));
    }

    private static Piece AlongMiddle(Piece piece, HashSet<string> changed) => piece.EachLine(changed, line =>
        line is { Operation: Operation.Score or Operation.Perforate, Path.IsClosed: true } && ThinLoop.Middle(line.Path) is { } middle
            ? line with { Path = middle, Look = line.Look with { Closed = false } } : line);

    /// <summary>The lines of what is no piece any more: what is cut out of it are pieces of their own, all others lie loose.</summary>
    private static Design NoPiece(Design design, Piece piece, HashSet<string> joined)
    {
        var at = design.Pieces.ToList().FindIndex(p => p.Id == piece.Id);
        design = design with { Pieces = design.Pieces.RemoveAt(at) };
        var lines = piece.Lines.Select(l => l with { Path = l.Path.Map(piece.Place) }).ToList();
        var cut = lines.Where(l => l is { IsCutThrough: true, Path.IsClosed: true }).ToList();
        var next = design.NextLoose;
        design = design.PlusLoose(lines.Except(cut));
        for (var i = next; i < design.NextLoose; i++) joined.Add(design.Loose[^(design.NextLoose - i)].Id);
        return cut.Count == 0 ? design : design.Plus(at, [.. cut.Select(l => Piece.FromLines("", piece.Name, piece.Stock, Affine.Identity, [l]).AtHome() with { Art = piece.Art })]);
    }
}
