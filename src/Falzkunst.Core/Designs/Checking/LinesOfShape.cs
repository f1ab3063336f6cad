using Falzkunst.Core.Budgets;
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

    /// <summary>Steps that one shape may take: about half a second. The most intricate lace that was met takes a twentieth of it.</summary>
    private const long MostWork = 50_000_000;

    private static readonly PerShape<LinesOfShape> Known = new(p => new LinesOfShape(p));

    /// <summary>By index of a line: how much of it lies off the paper, mm, and some places there, the first one where that begins.</summary>
    public IReadOnlyDictionary<int, (double Length, IReadOnlyList<Point> At)> OffPaper { get; }

    /// <summary>Pairs of lines that lie on each other, the lower one first.</summary>
    public IReadOnlyList<(int Lower, int Upper)> Doubled { get; }

    /// <summary>Every line was looked at; otherwise there are more than is reasonable.</summary>
    public bool IsComplete { get; }

    /// <summary>Steps that it took, the same every time.</summary>
    public long Work { get; }

    private LinesOfShape(Piece piece)
    {
        var budget = Budget.OfWork(MostWork);
        var off = new Dictionary<int, (double, IReadOnlyList<Point>)>();
        var doubled = new List<(int, int)>();
        try
        {
            for (var i = 1; i < piece.Drawn.Length; i++)
            {
                if (Off(piece, i, budget) is { } found) off[i] = found;
            }
            FindDoubles(piece.Shape, budget, doubled);
            IsComplete = true;
        }
        catch (BudgetSpent)
        {
            // What was found until then stands; the checks say that there is more.
        }
        (OffPaper, Doubled, Work) = (off, doubled, budget.WorkDone);
    }

    public static LinesOfShape ForPiece(Piece piece) => Known.Get(piece);

    // An opening is looked at against the outline alone, since it lies on the edge of the paper by nature.
    private static (double, IReadOnlyList<Point>)? Off(Piece piece, int index, Budget budget)
    {
        var (line, paper) = (piece.Drawn[index], piece.Paper);
        var path = line.Path;
        var isOpening = piece.RoleOf(line) == LineRole.Opening;
        bool IsOff(Point p)
        {
            budget.Work(paper.EdgesAt(p));
            return isOpening ? !paper.HoldsInOutline(p, Assembler.SnapMm) : !paper.Holds(p, Assembler.SnapMm);
        }
        budget.Work(path.Segments.Length);
        if (!Sampling.Midpoints(path, LinesOnPieces.SampleMm, LinesOnPieces.MostSamples).Append(path.Start).Append(path.End).Any(IsOff)) return null;
        var samples = Sampling.Midpoints(path, FineMm, MostFineSamples);
        var off = samples.Where(IsOff).ToList();
        return off.Count == 0 ? null : (path.Length * off.Count / samples.Count, [.. off.Where((_, i) => i % Math.Max(1, off.Count / PlacesKept) == 0)]);
    }

    private static void FindDoubles(PieceShape shape, Budget budget, List<(int, int)> found)
    {
        var tree = new BoxTree([.. shape.Paths.Select(p => p.Bounds)]);
        for (var i = 0; i < shape.Paths.Length; i++)
        {
            var near = tree.Meeting(shape.Paths[i].Bounds);
            budget.Work(20 + 2L * near.Count);
            foreach (var k in near)
            {
                if (k > i && shape.Paths[i].IsClosed == shape.Paths[k].IsClosed && DoubledLines.AreSame(shape.Paths[i], shape.Paths[k], budget)) found.Add((i, k));
            }
        }
    }
}
