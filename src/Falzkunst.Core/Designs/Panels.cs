using System.Collections.Immutable;

namespace Falzkunst.Core.Designs;

/// <summary>The panels of a piece that upright folds part, by where they begin and end.</summary>
public static class Panels
{
    /// <summary>A fold stays this near to upright all along, mm.</summary>
    private const double UprightMm = 0.5;

    /// <summary>Shorter than this share of the piece's height it parts nothing.</summary>
    private const double LeastShare = 0.5;

    /// <summary>From left to right; one for a piece that has no such fold.</summary>
    public static ImmutableArray<(double Left, double Right)> On(Piece piece)
    {
        var size = piece.Size;
        // Among the lines that are drawn, and not those that follow: what follows is asked for while this is.
        var folds = piece.Items.OfType<Line>()
            .Where(l => l.Operation == Operation.Score && l.Path.Bounds is var box && box.Width <= UprightMm && box.Height >= size.Height * LeastShare)
            .Select(l => l.Path.Bounds.Centre.X).Where(x => x > size.MinX && x < size.MaxX).Order().ToList();
        double[] edges = [size.MinX, .. folds, size.MaxX];
        return [.. Enumerable.Range(0, edges.Length - 1).Select(i => (edges[i], edges[i + 1]))];
    }
}
