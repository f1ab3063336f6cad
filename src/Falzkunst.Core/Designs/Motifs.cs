using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs.ArtSheets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>What hangs together on an art sheet: pieces that lie on each other, and the loose lines near them.</summary>
/// <param name="Number">1 for the first in reading order: by rows from the top, from the left.</param>
/// <param name="Pieces">Its pieces, lowest first.</param>
/// <param name="Loose">Its lines on no piece.</param>
/// <param name="Box">Round all of it, on the page.</param>
public sealed record Motif(int Number, ImmutableArray<Piece> Pieces, ImmutableArray<Line> Loose, Box Box);

/// <summary>Finds the motifs of a sheet and takes some of them.</summary>
public static class Motifs
{
    /// <summary>What lies no farther from a piece than this hangs together with it, mm.</summary>
    private const double NearMm = 0.5;

    /// <summary>Distance left between motifs that are taken to the card, mm.</summary>
    private const double GapMm = 6;

    /// <summary>Pairs of edges measured on one sheet, well under a second; a sheet drawn for cutting asks for thousands.</summary>
    private const long MostWork = 20_000_000;

    public static ImmutableArray<Motif> Find(Design design)
    {
        var pieces = design.Pieces;
        var paths = pieces.Select(p => p.Outline.Path.Map(p.Place)).Concat(design.Loose.Select(l => l.Path)).ToList();
        var budget = Budget.OfWork(MostWork);
        var edges = new PathNearness?[paths.Count];
        var boxes = paths.Select(p => p.Bounds).ToList();
        var tree = new BoxTree(boxes);
        var groups = new DisjointSets(boxes.Count);
        for (var i = 0; i < boxes.Count; i++)
        {
            foreach (var k in tree.Meeting(boxes[i].Grow(NearMm)))
            {
                if (k < i && !groups.AreOne(i, k) && HangTogether(i, k)) groups.Join(i, k);
            }
        }
        var motifs = Enumerable.Range(0, boxes.Count).GroupBy(groups.Find).Select(g => new Motif(
            0,
            [.. g.Where(i => i < pieces.Length).Select(i => pieces[i])],
            [.. g.Where(i => i >= pieces.Length).Select(i => design.Loose[i - pieces.Length])],
            g.Aggregate(Box.Empty, (all, i) => all.Include(boxes[i]))));
        return [.. ReadingOrder.Sort(motifs, m => m.Box).Select((m, i) => m with { Number = i + 1 })];

        bool HangTogether(int a, int b)
        {
            if (a >= pieces.Length && b >= pieces.Length) return true; // loose lines whose boxes all but meet
            return IsNear(a, b) || Holds(a, b) || Holds(b, a);
        }

        // Edges are asked for places of their own, and not for samples: moved or turned, things stay as near as they were.
        // Where a file bundles more edges than are measured, what is left hangs together by its boxes, as loose lines do.
        bool IsNear(int a, int b)
        {
            try
            {
                return (edges[a] ??= new PathNearness(paths[a])).IsWithin(NearMm, paths[b], budget);
            }
            catch (BudgetSpent)
            {
                return true;
            }
        }

        bool Holds(int outer, int inner) => outer < pieces.Length && pieces[outer].Paper.HoldsInOutline(pieces[outer].Place.Inverse().Apply(paths[inner].Start));
    }

    /// <summary>A design of some motifs, laid side by side from the card's upper left corner, with pieces numbered anew.</summary>
    /// <param name="all">All motifs of the sheet.</param>
    /// <param name="numbers">Those wanted.</param>
    /// <param name="width">A row is no wider than this, mm, unless one motif is.</param>
    /// <param name="firstNumber">Number of the first piece.</param>
    public static Design Take(ImmutableArray<Motif> all, IReadOnlyCollection<int> numbers, double width, int firstNumber)
    {
        var pieces = ImmutableArray.CreateBuilder<Piece>();
        var loose = ImmutableArray.CreateBuilder<Line>();
        var (x, y, rowHeight) = (0.0, 0.0, 0.0);
        foreach (var motif in all.Where(m => numbers.Contains(m.Number)))
        {
            if (x > 0 && x + motif.Box.Width > width) (x, y, rowHeight) = (0, y + rowHeight + GapMm, 0);
            var by = Affine.Move(x - motif.Box.MinX, y - motif.Box.MinY);
            // What follows something hangs together with it, and so is in one motif with it.
            var ids = motif.Pieces.Select((p, i) => (p.Id, New: Design.PieceId(firstNumber + pieces.Count + i))).ToDictionary(p => p.Id, p => p.New);
            foreach (var piece in motif.Pieces) pieces.Add(piece with { Id = ids[piece.Id], Place = piece.Place.Then(by), Follows = piece.Follows?.Renamed(ids.GetValueOrDefault) });
            loose.AddRange(motif.Loose.Select(l => l with { Path = l.Path.Map(by) }));
            (x, rowHeight) = (x + motif.Box.Width + GapMm, Math.Max(rowHeight, motif.Box.Height));
        }
        return new Design(pieces.ToImmutable(), [], [], firstNumber + pieces.Count).PlusLoose(loose);
    }
}
