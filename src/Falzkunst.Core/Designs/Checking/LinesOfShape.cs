using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Checking;

/// <summary>
/// What the geometry alone says of a shape's lines: which leave the paper, which lie on each other. Found once for a shape, so
/// that an edit of one piece does not look at all the others again.
/// </summary>
internal sealed class LinesOfShape
{
    private const double FineMm = 0.02;
    private const int MostFineSamples = 10_000;
    private const int PlacesKept = 24;

    private static readonly PerShape<LinesOfShape> Known = new(p => new LinesOfShape(p));

    /// <summary>By index of a line: how much of it lies off the paper, mm, and some places there, the first one where that begins.</summary>
    public IReadOnlyDictionary<int, (double Length, IReadOnlyList<Point> At)> OffPaper { get; }

    /// <summary>Pairs of lines that lie on each other, the lower one first.</summary>
    public IReadOnlyList<(int Lower, int Upper)> Doubled { get; }

    private LinesOfShape(Piece piece)
    {
        var off = new Dictionary<int, (double, IReadOnlyList<Point>)>();
        for (var i = 1; i < piece.Drawn.Length; i++)
        {
            if (Off(piece, i) is { } found) off[i] = found;
        }
        OffPaper = off;
        Doubled = Doubles(piece.Shape);
    }

    public static LinesOfShape Of(Piece piece) => Known.Of(piece);

    // An opening is looked at against the outline alone, since it lies on the edge of the paper by nature.
    private static (double, IReadOnlyList<Point>)? Off(Piece piece, int index)
    {
        var (line, paper) = (piece.Drawn[index], piece.Paper);
        var path = line.Path;
        var isOpening = piece.RoleOf(line) == LineRole.Opening;
        bool IsOff(Point p) => isOpening ? !paper.HoldsInOutline(p, Assembler.SnapMm) : !paper.Holds(p, Assembler.SnapMm);
        if (!Sampling.Midpoints(path, LinesOnPieces.SampleMm, LinesOnPieces.MostSamples).Append(path.Start).Append(path.End).Any(IsOff)) return null;
        var samples = Sampling.Midpoints(path, FineMm, MostFineSamples);
        var off = samples.Where(IsOff).ToList();
        return off.Count == 0 ? null : (path.Length * off.Count / samples.Count, [.. off.Where((_, i) => i % Math.Max(1, off.Count / PlacesKept) == 0)]);
    }

    private static List<(int, int)> Doubles(PieceShape shape)
    {
        var tree = new BoxTree([.. shape.Paths.Select(p => p.Bounds)]);
        var found = new List<(int, int)>();
        for (var i = 0; i < shape.Paths.Length; i++)
        {
            foreach (var k in tree.Meeting(shape.Paths[i].Bounds))
            {
                if (k > i && shape.Paths[i].IsClosed == shape.Paths[k].IsClosed && DoubledLines.AreSame(shape.Paths[i], shape.Paths[k])) found.Add((i, k));
            }
        }
        return found;
    }
}
