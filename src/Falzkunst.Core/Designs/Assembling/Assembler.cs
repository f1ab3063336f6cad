using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>
/// Turns a drawing into pieces. In order: lines by look rules (<see cref="ArtLines"/>); lines of no length dropped; scores drawn as thin
/// areas taken along their middle (<see cref="ThinFolds"/>); open lines
/// chained to rings (<see cref="Chains"/>); doubled lines parted off (<see cref="DoubledLines"/>); outlines and openings by a
/// containment forest (<see cref="ContainmentForest"/>); folds drawn as thin areas taken out of them; every other line given to the piece it lies on (<see cref="LinesOnPieces"/>);
/// names. The rule is told in docs/pieces-from-art.md.
/// </summary>
public static class Assembler
{
    /// <summary>Ends and edges closer than this are meant to meet, mm.</summary>
    public const double SnapMm = 0.05;

    /// <summary>An open outline with a gap up to this is pointed out as one that was meant to close, mm.</summary>
    public const double MendableGapMm = 0.5;

    /// <summary>A line shorter than this altogether cannot be made by any tool, mm.</summary>
    private const double NoLengthMm = 0.01;

    /// <summary>Steps that a line takes in making a piece of it.</summary>
    private const int WorkOfLine = 200;

    /// <summary>Assembles the pieces of a drawing.</summary>
    /// <param name="drawing">What was read; lines of no length and lines that repeat another are left out and reported.</param>
    /// <param name="rules">Look rules, first match wins; what the file itself declares wins over them.</param>
    /// <param name="stockFor">The stock for a piece of this fill colour (null: unfilled).</param>
    /// <param name="firstNumber">Number of the first piece.</param>
    /// <param name="budget">What the work is drawn from; without limits where none is given.</param>
    /// <exception cref="BudgetSpent">The drawing makes too many pieces, or takes too long.</exception>
    public static Design Assemble(
        Drawing drawing, IReadOnlyList<LookRule> rules, Func<string?, string> stockFor, int firstNumber = 1, Budget? budget = null)
    {
        budget ??= Budget.Unlimited;
        var findings = new List<Finding>();
        var lines = ArtLines.Collect(drawing, rules, budget);
        lines = [.. DropLinesOfNoLength(lines, findings).Select(l => ThinFolds.AlongMiddle(l, budget))];
        lines = Chains.Join(lines, budget);
        lines = PartDoubledLines(lines, findings, budget);
        var drafts = ContainmentForest.Build([.. lines.Where(l => l.IsRing)], budget);
        var folds = ThinFolds.TakeOut(drafts, budget);
        budget.Pieces(drafts.Count);
        List<ArtLine> inner = [.. lines.Where(l => !l.IsRing), .. folds];
        if (folds.Count > 0) inner = PartDoubledLines(inner, findings, budget);
        var loose = LinesOnPieces.Attach(drafts, inner, budget);
        var pieces = Finish(drafts, stockFor, firstNumber, budget);
        return new Design(pieces, [], [.. findings], firstNumber + drafts.Count).PlusLoose(loose.Select(l => ToLine(l, Affine.Identity)));
    }

    private static List<ArtLine> DropLinesOfNoLength(List<ArtLine> lines, List<Finding> findings)
    {
        foreach (var line in lines.Where(l => HasNoLength(l.Path)))
        {
            findings.Add(new Finding(FindingCodes.NoLength, Severity.Minor, null, null, line.Path.Start) { Place = line.Place });
        }
        return [.. lines.Where(l => !HasNoLength(l.Path))];
    }

    private static List<ArtLine> PartDoubledLines(List<ArtLine> lines, List<Finding> findings, Budget budget)
    {
        var (single, doubled) = DoubledLines.Part(lines, budget);
        findings.AddRange(doubled.Select(d => new Finding(FindingCodes.DoubledLine, Severity.Minor, null, null, d.Path.Bounds.Centre) { Place = d.Place }));
        return single;
    }

    internal static bool HasNoLength(Path path) => Math.Max(path.Bounds.Width, path.Bounds.Height) < NoLengthMm;

    private static ImmutableArray<Piece> Finish(List<PieceDraft> drafts, Func<string?, string> stockFor, int firstNumber, Budget budget)
    {
        var names = PieceNames.For(drafts);
        return [.. drafts.Select((draft, i) =>
        {
            budget.Work(WorkOfLine * (1 + draft.Openings.Count + draft.Lines.Count));
            return Finish(draft, Design.PieceId(firstNumber + i), names[i], stockFor(draft.Outline.Line.Look.Fill));
        })];
    }

    private static Piece Finish(PieceDraft draft, string id, string name, string stock)
    {
        ArtLine[] parts = [draft.Outline.Line, .. draft.Openings.Select(o => o.Line).OrderBy(l => l.Order), .. draft.Lines.OrderBy(l => l.Order)];
        var corner = draft.Outline.Line.Path.Bounds.Min;
        var home = Affine.Move(-corner.X, -corner.Y);
        return Piece.FromLines(id, name, stock, Affine.Move(corner), parts.Select(p => ToLine(p, home)));
    }

    /// <summary>A line without an id as yet.</summary>
    private static Line ToLine(ArtLine art, Affine map)
    {
        var line = new Line("", art.Path.Map(map), art.Operation, art.Look, art.Name, WorkedItem.InkFor(art.Operation, art.Look)) { Painted = art.Painted?.Under(map, 1), Shape = art.Order };
        return art.Rule is { } rule && rule.Operation == art.Operation ? (Line)rule.Give(line) : line;
    }
}
