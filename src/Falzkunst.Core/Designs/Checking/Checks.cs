using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Checking;

/// <summary>What is worth pointing out about a design as it is now: computed from the pieces and their lines, never kept.</summary>
public static class Checks
{
    /// <summary>A line may leave the paper by this much before anyone cares, mm.</summary>
    private const double CareMm = 0.3;

    /// <summary>A gap of this share of a cut's length was meant to close.</summary>
    private const double MeantToClose = 0.02;

    /// <summary>The gap of an open outline above which it is taken for an open line, mm.</summary>
    private const double LargestGapMm = 3;

    /// <summary>Steps that the checks of a design may take, those of its shapes included: about a second, spent once for a shape.</summary>
    private const long MostWork = 100_000_000;

    /// <summary>What was found in designs, for as long as they live.</summary>
    private static readonly ConditionalWeakTable<Design, Found> Known = [];

    private sealed record Found(ImmutableArray<Finding> All);

    /// <summary>All findings: those that assembling left behind, then piece by piece, then lines on no piece.</summary>
    public static ImmutableArray<Finding> Findings(Design design) => Known.GetValue(design, static d => new Found(Find(d))).All;

    private static ImmutableArray<Finding> Find(Design design)
    {
        var findings = ImmutableArray.CreateBuilder<Finding>();
        findings.AddRange(design.Findings.Where(f => f is { Piece: null, Code: not FindingCodes.OnNoPiece }));
        var budget = Budget.OfWork(MostWork);
        try
        {
            findings.AddRange(design.Pieces.Where(p => p.IsScrap).Select(p =>
                new Finding(FindingCodes.NoArea, Severity.Major, p.Id, null, p.Place.Apply(p.Outline.Path.Bounds.Centre)) { Name = p.Name }));
            // What follows from one item, such as the letters of a text, is pointed out once.
            var onCard = new PiecesOnCard(design);
            foreach (var piece in design.Pieces) findings.AddRange(OfPiece(piece, onCard, budget).DistinctBy(f => (f.Code, f.Piece, f.Line)).Concat(WordChecks.OfPiece(piece, design)).Concat(PictureChecks.OfPiece(piece)));
            findings.AddRange(InsideEachOther(onCard, budget));
        }
        catch (BudgetSpent)
        {
            findings.Add(new Finding(FindingCodes.NotAllChecked, Severity.Minor, null, null, null));
        }
        findings.AddRange(design.Loose.Where(l => l.Operation != Operation.Aid).Select(OnNoPiece));
        return findings.ToImmutable();
    }

    private static Finding OnNoPiece(Line loose) =>
        new(FindingCodes.OnNoPiece, Severity.Major, null, loose.Id, loose.Path.Bounds.Centre) { Operation = loose.Operation, LengthsMm = [loose.Path.Length] };

    private static IEnumerable<Finding> OfPiece(Piece piece, PiecesOnCard onCard, Budget budget)
    {
        var facts = LinesOfShape.ForPiece(piece);
        budget.Work(facts.Work);
        if (!facts.IsComplete) yield return new Finding(FindingCodes.NotAllChecked, Severity.Minor, piece.Id, null, piece.Place.Apply(piece.Size.Centre)) { Name = piece.Name };
        Finding About(string code, Severity severity, Line line, Point at, params ImmutableArray<double> lengths) =>
            new(code, severity, piece.Id, line.Id, piece.Place.Apply(at)) { Name = piece.Name, Operation = line.Operation, LengthsMm = lengths };
        for (var i = 0; i < piece.Drawn.Length; i++)
        {
            var line = piece.Drawn[i];
            var path = line.Path;
            if (line.Operation == Operation.Aid) continue;
            if (Assembler.HasNoLength(path))
                yield return About(FindingCodes.NoLength, Severity.Minor, line, path.Start);
            else if (IsMeantToClose(line))
                yield return About(FindingCodes.OpenOutline, Severity.Major, line, path.End, path.Start.DistanceTo(path.End));
            else if (facts.OffPaper.TryGetValue(i, out var off) && off.Length > CareMm)
            {
                yield return off.At.Select(p => Neighbour(piece, p, onCard, budget)).FirstOrDefault(p => p is not null) is { } other
                    ? About(FindingCodes.AcrossPieces, Severity.Major, line, off.At[0], off.Length) with { Other = other.Name }
                    : About(FindingCodes.PastEdge, Severity.Minor, line, off.At[0], off.Length, path.Length);
            }
        }
        foreach (var (lower, upper) in facts.Doubled)
        {
            var (a, b) = (piece.Drawn[lower], piece.Drawn[upper]);
            if (a.Operation != b.Operation || a.Operation is Operation.Aid or Operation.Print || a.Ink != b.Ink) continue;
            yield return About(FindingCodes.DoubledLine, Severity.Minor, b, b.Path.Bounds.Centre);
        }
    }

    private static bool IsMeantToClose(Line line)
    {
        var path = line.Path;
        if (path.IsClosed || line.Operation != Operation.Cut || path.Segments.Length < 2) return false;
        var gap = path.Start.DistanceTo(path.End);
        return gap <= Math.Clamp(path.Length * MeantToClose, Assembler.MendableGapMm, LargestGapMm) && path.Length > 4 * gap;
    }

    /// <summary>The piece beside this one that a line runs onto: it has paper there, and does not lie over or under this piece as a layer.</summary>
    private static Piece? Neighbour(Piece piece, Point at, PiecesOnCard onCard, Budget budget)
    {
        var there = piece.Place.Apply(at);
        var near = onCard.Near(new Box(there.X, there.Y, there.X, there.Y));
        budget.Work(20 + 8L * near.Count);
        return near.Order().Select(i => onCard.Pieces[i]).FirstOrDefault(p => p.Id != piece.Id && p.Stock == piece.Stock
            && p.Paper.Holds(p.Place.Inverse().Apply(there)) && !Overlap(p, piece));
    }

    /// <summary>Where pieces lie on the card, to be asked for those at a place.</summary>
    private sealed class PiecesOnCard(Design design)
    {
        private readonly ImmutableArray<Box> _boxes = [.. design.Pieces.Select(p => p.Outline.Path.BoundsUnder(p.Place))];
        private BoxTree? _tree;

        public ImmutableArray<Piece> Pieces => design.Pieces;
        public Box BoxOf(int index) => _boxes[index];

        /// <summary>Indices of pieces whose boxes meet one, in no order.</summary>
        public List<int> Near(Box box) => (_tree ??= new BoxTree(_boxes)).Meeting(box);
    }

    /// <summary>Two pieces lie over each other, and not only beside.</summary>
    private static bool Overlap(Piece a, Piece b)
    {
        var map = a.Place.Then(b.Place.Inverse());
        var middle = Polygons.InteriorPoint(a.Outline.Path.Flat);
        var back = map.Inverse();
        return (middle is { } m && b.Paper.HoldsInOutline(map.Apply(m)))
            || (Polygons.InteriorPoint(b.Outline.Path.Flat) is { } n && a.Paper.HoldsInOutline(back.Apply(n)));
    }

    /// <summary>A piece within another of the same stock, nested as an opening would be: more often a wrong reading than a layer.</summary>
    private static IEnumerable<Finding> InsideEachOther(PiecesOnCard onCard, Budget budget)
    {
        for (var i = 0; i < onCard.Pieces.Length; i++)
        {
            var (inner, box) = (onCard.Pieces[i], onCard.BoxOf(i));
            var near = onCard.Near(box);
            budget.Work(20 + 8L * near.Count);
            var host = near.Where(k => k != i && onCard.BoxOf(k).Contains(box, 0.05) && onCard.Pieces[k].Stock == inner.Stock)
                .Where(k => onCard.BoxOf(k).Area > box.Area).OrderBy(k => onCard.BoxOf(k).Area)
                .Select(k => onCard.Pieces[k]).FirstOrDefault(p => Holds(p, inner, budget));
            // In an opening it lies on no paper: it is what was cut out there, or fits in it.
            if (host is null || !LiesOnPaper(host, inner)) continue;
            yield return new Finding(FindingCodes.InsideAnother, Severity.Minor, inner.Id, null, inner.Place.Apply(inner.Size.Centre)) { Name = inner.Name, Other = host.Name };
        }
    }

    private static bool LiesOnPaper(Piece host, Piece part) =>
        Sampling.Midpoints(OutlineIn(host, part), 1, 60).Exists(p => host.Paper.Holds(p));

    /// <summary>A piece's outline in another's coordinates.</summary>
    private static Path OutlineIn(Piece host, Piece part) => part.Outline.Path.Map(part.Place.Then(host.Place.Inverse()));

    /// <summary>Steps of asking whether one piece lies inside another.</summary>
    private const int WorkOfHolding = 2000;

    /// <summary>All of a piece's outline lies inside another's.</summary>
    internal static bool Holds(Piece host, Piece part, Budget? budget = null)
    {
        budget?.Work(WorkOfHolding + part.Outline.Path.Segments.Length);
        var outline = OutlineIn(host, part);
        return host.Size.Contains(outline.Bounds, 0.05)
            && Sampling.Midpoints(outline, 1, 200).TrueForAll(p => host.Paper.HoldsInOutline(p, 0.05));
    }
}
