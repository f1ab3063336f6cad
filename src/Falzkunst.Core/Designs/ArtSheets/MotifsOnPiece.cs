using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>Motifs of a sheet as lines on a piece.</summary>
public static class MotifsOnPiece
{
    /// <summary>
    /// The lines of some motifs in the card's coordinates, side by side in the middle of a piece; every one keeps its form. Open lines
    /// that nothing was said of are drawn: cut, they would be slits.
    /// </summary>
    /// <param name="piece">The piece.</param>
    /// <param name="motifs">The motifs, as they lie on their page.</param>
    /// <param name="operation">What is done along all of them; null as they were understood.</param>
    public static ImmutableArray<Line> Lines(Piece piece, ImmutableArray<Motif> motifs, Operation? operation)
    {
        var size = piece.Outline.Path.BoundsUnder(piece.Place);
        var laid = Motifs.Take(motifs, [.. motifs.Select(m => m.Number)], size.Width, 1);
        var lines = laid.Pieces.SelectMany(p => p.Lines.Select(l => l.Under(p.Place))).Concat(laid.Loose).Cast<Line>().ToList();
        var box = lines.Aggregate(Box.Empty, (all, l) => all.Include(l.Path.Bounds));
        var by = Affine.Move(size.Centre - box.Centre);
        return [.. lines.Select(l => (Line)For(l, operation).Under(by))];
    }

    private static WorkedItem For(Line line, Operation? operation)
    {
        if (operation is { } said) return line.Operation == said ? line : line.With(said);
        return line is { Operation: Operation.Cut, Path.IsClosed: false } && DefaultOperations.Suggested(line.Look.Layer) is null ? line.With(Operation.Draw) : line;
    }
}
