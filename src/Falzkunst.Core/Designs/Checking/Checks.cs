using System.Collections.Immutable;
using System.Globalization;
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

    /// <summary>All findings: those that assembling left behind, then piece by piece, then lines on no piece.</summary>
    public static ImmutableArray<Finding> Of(Design design)
    {
        var findings = ImmutableArray.CreateBuilder<Finding>();
        findings.AddRange(design.Findings.Where(f => f is { Piece: null, Code: not "on-no-piece" }));
        foreach (var piece in design.Pieces) findings.AddRange(OfPiece(piece, design));
        findings.AddRange(InsideEachOther(design));
        findings.AddRange(design.Loose.Where(l => l.Line.Operation != Operation.Aid).Select(OnNoPiece));
        return findings.ToImmutable();
    }

    private static Finding OnNoPiece(LooseLine loose) => new(
        "on-no-piece", Severity.Major,
        string.Create(CultureInfo.InvariantCulture, $"A {loose.Line.Operation.Word()} line of {loose.Path.Length:0.0} mm lies on no piece."),
        null, loose.Line.Id, loose.Path.Bounds.Centre);

    private static IEnumerable<Finding> OfPiece(Piece piece, Design design)
    {
        var facts = LinesOfShape.Of(piece);
        Finding About(string code, Severity severity, int line, Point at, FormattableString message) => new(
            code, severity, message.ToString(CultureInfo.InvariantCulture), piece.Id, piece.Lines[line].Id, piece.Place.Apply(at));
        for (var i = 0; i < piece.Lines.Length; i++)
        {
            var (line, path) = (piece.Lines[i], piece.Shape.Paths[i]);
            if (line.Operation == Operation.Aid) continue;
            var word = line.Operation.Word();
            if (Assembler.HasNoLength(path))
                yield return About("no-length", Severity.Minor, i, path.Start, $"A {word} line on {piece.Name} has no length.");
            else if (IsMeantToClose(line, path))
                yield return About("open-outline", Severity.Major, i, path.End, $"A cut on {piece.Name} is open by {path.Start.DistanceTo(path.End):0.00} mm and will not come out.");
            else if (facts.OffPaper.TryGetValue(i, out var off) && off.Length > CareMm)
            {
                yield return off.At.Select(p => Neighbour(piece, p, design)).FirstOrDefault(p => p is not null) is { } other
                    ? About("across-pieces", Severity.Major, i, off.At[0], $"A {word} line of {piece.Name} runs {off.Length:0.0} mm over its edge onto {other.Name}.")
                    : About("past-edge", Severity.Minor, i, off.At[0], $"A {word} line on {piece.Name} runs {off.Length:0.0} mm of its {path.Length:0.0} mm past the edge.");
            }
        }
        foreach (var (lower, upper) in facts.Doubled)
        {
            var (a, b) = (piece.Lines[lower], piece.Lines[upper]);
            if (a.Operation != b.Operation || a.Operation is Operation.Aid or Operation.Print || a.Ink != b.Ink) continue;
            yield return About("doubled-line", Severity.Minor, upper, piece.Shape.Paths[upper].Bounds.Centre, $"Two {a.Operation.Word()} lines on {piece.Name} lie on each other; run twice there, the paper tears.");
        }
    }

    private static bool IsMeantToClose(Line line, Path path)
    {
        if (path.IsClosed || line.Operation != Operation.Cut || path.Segments.Length < 2) return false;
        var gap = path.Start.DistanceTo(path.End);
        return gap <= Math.Clamp(path.Length * MeantToClose, Assembler.MendableGapMm, LargestGapMm) && path.Length > 4 * gap;
    }

    /// <summary>The piece beside this one that a line runs onto: it has paper there, and does not lie over or under this piece as a layer.</summary>
    private static Piece? Neighbour(Piece piece, Point at, Design design)
    {
        var onCard = piece.Place.Apply(at);
        return design.Pieces.FirstOrDefault(p => p.Id != piece.Id && p.Stock == piece.Stock
            && PaperOf.Piece(p).Holds(p.Place.Inverse().Apply(onCard)) && !Overlap(p, piece));
    }

    /// <summary>Two pieces lie over each other, and not only beside.</summary>
    private static bool Overlap(Piece a, Piece b)
    {
        var map = a.Place.Then(b.Place.Inverse());
        var middle = Polygons.InteriorPoint(a.Shape.Paths[0].Flat);
        var back = map.Inverse();
        return (middle is { } m && PaperOf.Piece(b).HoldsInOutline(map.Apply(m)))
            || (Polygons.InteriorPoint(b.Shape.Paths[0].Flat) is { } n && PaperOf.Piece(a).HoldsInOutline(back.Apply(n)));
    }

    /// <summary>A piece within another of the same stock, nested as an opening would be: more often a wrong reading than a layer.</summary>
    private static IEnumerable<Finding> InsideEachOther(Design design)
    {
        var boxes = design.Pieces.Select(p => p.Shape.Paths[0].BoundsUnder(p.Place)).ToList();
        var tree = new BoxTree(boxes);
        for (var i = 0; i < boxes.Count; i++)
        {
            var inner = design.Pieces[i];
            var host = tree.Meeting(boxes[i]).Where(k => k != i && boxes[k].Contains(boxes[i], 0.05) && design.Pieces[k].Stock == inner.Stock)
                .Where(k => boxes[k].Area > boxes[i].Area).OrderBy(k => boxes[k].Area)
                .Select(k => design.Pieces[k]).FirstOrDefault(p => Holds(p, inner));
            // In an opening it lies on no paper: it is what was cut out there, or fits in it.
            if (host is null || !LiesOnPaper(host, inner)) continue;
            yield return new Finding("inside-another", Severity.Minor,
                $"{inner.Name} lies inside {host.Name} on the same stock: a layer of its own, or an opening?", inner.Id, null,
                inner.Place.Apply(inner.Size.Centre));
        }
    }

    private static bool LiesOnPaper(Piece host, Piece part) =>
        Sampling.Midpoints(OutlineIn(host, part), 1, 60).Exists(p => PaperOf.Piece(host).Holds(p));

    /// <summary>A piece's outline in another's coordinates.</summary>
    private static Path OutlineIn(Piece host, Piece part) => part.Shape.Paths[0].Map(part.Place.Then(host.Place.Inverse()));

    /// <summary>All of a piece's outline lies inside another's.</summary>
    internal static bool Holds(Piece host, Piece part)
    {
        var outline = OutlineIn(host, part);
        return host.Size.Contains(outline.Bounds, 0.05)
            && Sampling.Midpoints(outline, 1, 200).TrueForAll(p => PaperOf.Piece(host).HoldsInOutline(p, 0.05));
    }
}
