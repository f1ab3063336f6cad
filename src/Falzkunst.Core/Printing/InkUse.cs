using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>How much of a page is printed.</summary>
/// <param name="PrintedMm2">Area that gets ink, bleed included, mm².</param>
/// <param name="SavedMm2">Area that would get ink were it not hidden by upper layers, mm².</param>
public readonly record struct InkUse(double PrintedMm2, double SavedMm2)
{
    /// <summary>The share of all ink that is saved, 0 to 1.</summary>
    public double SavedShare => PrintedMm2 + SavedMm2 > 0 ? SavedMm2 / (PrintedMm2 + SavedMm2) : 0;

    public static InkUse operator +(InkUse a, InkUse b) => new(a.PrintedMm2 + b.PrintedMm2, a.SavedMm2 + b.SavedMm2);

    /// <summary>The ink of a page; of pictures all dots count, however pale.</summary>
    public static InkUse Of(PrintedPage page) => page.Copies.GroupBy(c => c.What, ReferenceEqualityComparer.Instance)
        .Select(g => Of((PrintedPiece)g.Key!) is var one ? new InkUse(one.PrintedMm2 * g.Count(), one.SavedMm2 * g.Count()) : default).Aggregate(new InkUse(), (sum, i) => sum + i);

    private static readonly ConditionalWeakTable<PrintedPiece, StrongBox<InkUse>> Known = [];

    /// <summary>The ink of one piece.</summary>
    public static InkUse Of(PrintedPiece piece) => Known.GetValue(piece, p => new StrongBox<InkUse>(Measure(p))).Value;

    private static InkUse Measure(PrintedPiece piece)
    {
        if (piece.Layers.IsEmpty) return default;
        Region all;
        try
        {
            all = Region.UnionOf(piece.Layers.Concat(piece.Bleed.Under).Select(l => AreaOf(l, piece.Bleed.Clip)));
        }
        catch (BudgetSpent)
        {
            // Areas that cross so often are counted as all of the piece.
            all = piece.Bleed.Clip;
        }
        var whole = all.And(piece.Bleed.Clip).Area;
        var printed = ReferenceEquals(piece.Clip, piece.Bleed.Clip) ? whole : all.And(piece.Clip).Area;
        return new(printed, Math.Max(0, whole - printed));
    }

    /// <summary>Corners of strokes, or rings of one area, beyond which they are counted roughly: joining so many takes longer than the figure is worth.</summary>
    private const int MostCorners = 6000, MostRings = 200;

    private static Region AreaOf(PrintLayer layer, Region clip) => layer switch
    {
        FillLayer { EvenOdd: true, Rings.Length: <= MostRings } fill => Region.EvenOdd(fill.Rings),
        FillLayer fill => Region.UnionOf(fill.Rings.Select(r => Region.FromRings(r.Flat.ToArray(), []))),
        StrokeLayer stroke when stroke.Strokes.Sum(s => s.Flat.Length) <= MostCorners => Region.Around(
            stroke.Strokes.Select(s => (IReadOnlyList<Point>)(s.IsClosed ? [.. s.Flat, s.Start] : s.Flat.ToArray())), stroke.WidthMm / 2, Arcs.QuarterEdges(stroke.WidthMm / 2), !stroke.RoundEnds),
        PictureLayer { Picture: { IsPattern: false } picture } => Region.FromRings(Path.Rectangle(0, 0, picture.Width, picture.Height).Map(picture.Place).Flat.ToArray(), []),
        _ => clip,
    };
}
