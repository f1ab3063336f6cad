using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>
/// What of a piece is paper, in its own coordinates: inside its outline, whatever tool follows that, and outside its openings,
/// which are the closed lines inside it that are cut through. Picture, area, nesting, fills, findings and width survey all ask
/// this. One object serves for as long as those paths stay the same, so that what follows from it is found once.
/// </summary>
public sealed class Paper
{
    private const int ContainmentSamples = 60;

    private readonly Lazy<string> _hash;
    private readonly Lazy<double> _area;
    private readonly Lazy<RegionIndex> _outlineIndex;
    private readonly Lazy<RegionIndex> _openingIndex;

    /// <param name="outline">The line that bounds the paper.</param>
    /// <param name="cutOut">Closed lines that are cut through. Those that lie in another, or repeat it, cut nothing more out.</param>
    public Paper(Path outline, ImmutableArray<Path> cutOut)
    {
        Outline = outline;
        OpeningNumbers = Outermost(cutOut);
        Openings = [.. OpeningNumbers.Select(i => cutOut[i])];
        _hash = new(() => PieceShape.HashOf(Openings.Prepend(outline)), LazyThreadSafetyMode.PublicationOnly);
        _area = new(() => AreaMm2(), LazyThreadSafetyMode.PublicationOnly);
        _outlineIndex = new(() => new RegionIndex([outline.Flat.ToArray()]), LazyThreadSafetyMode.PublicationOnly);
        _openingIndex = new(() => new RegionIndex(OpeningRings()), LazyThreadSafetyMode.PublicationOnly);
    }

    public Path Outline { get; }

    /// <summary>The openings, none inside another; they may cross each other or the outline.</summary>
    public ImmutableArray<Path> Openings { get; }

    /// <summary>Which of the lines cut through the openings are, by their numbers among those.</summary>
    internal ImmutableArray<int> OpeningNumbers { get; }

    /// <summary>The outline, then the openings.</summary>
    public ImmutableArray<Path> Rings => [Outline, .. Openings];

    /// <summary>SHA-256 of outline and openings; equal papers have equal hashes.</summary>
    public string Hash => _hash.Value;

    /// <summary>Area in mm².</summary>
    public double Area => _area.Value;

    /// <summary>A point lies on paper; within <paramref name="slack"/> mm of an edge it counts as on it.</summary>
    public bool Holds(Point p, double slack = 0)
    {
        if (!HoldsInOutline(p, slack)) return false;
        return !_openingIndex.Value.Contains(p) || (slack > 0 && _openingIndex.Value.IsNearEdge(p, slack));
    }

    /// <summary>Edges that a question about a point looks at: what it costs to ask.</summary>
    internal int EdgesAt(Point p) => 2 + 2 * _outlineIndex.Value.EdgesAt(p.Y) + 2 * _openingIndex.Value.EdgesAt(p.Y);

    /// <summary>A point lies inside the outline, on paper or in an opening.</summary>
    public bool HoldsInOutline(Point p, double slack = 0) =>
        _outlineIndex.Value.Contains(p) || (slack > 0 && _outlineIndex.Value.IsNearEdge(p, slack));

    private static ImmutableArray<int> Outermost(ImmutableArray<Path> rings)
    {
        if (rings.Length < 2) return [.. Enumerable.Range(0, rings.Length)];
        var boxes = rings.Select(r => r.Bounds).ToList();
        var tree = new BoxTree(boxes);
        var indices = new RegionIndex?[rings.Length];
        return [.. Enumerable.Range(0, rings.Length).Where(i => !tree.Meeting(boxes[i]).Any(k => k != i && Takes(k, i)))];

        // Of two that are alike the first one stands.
        bool Takes(int outer, int inner) =>
            boxes[outer].Contains(boxes[inner], 1e-9)
            && (rings[outer].Equals(rings[inner]) ? outer < inner : boxes[outer].Area > boxes[inner].Area && LiesIn(rings[inner], indices[outer] ??= new RegionIndex([rings[outer].Flat.ToArray()])));
    }

    private static bool LiesIn(Path inner, RegionIndex outer) =>
        Sampling.Midpoints(inner, inner.Length / ContainmentSamples, ContainmentSamples).TrueForAll(outer.Contains);

    /// <summary>Some openings may share air, so that it must not be counted twice.</summary>
    private bool OpeningsMayMeet()
    {
        var tree = new BoxTree([.. Openings.Select(o => o.Bounds)]);
        return Enumerable.Range(0, Openings.Length).Any(i => tree.Meeting(Openings[i].Bounds).Any(k => k != i));
    }

    private IReadOnlyCollection<Point[]> OpeningRings() =>
        OpeningsMayMeet() && TryAir() is { } air ? [.. air.Rings] : [.. Openings.Select(o => o.Flat.ToArray())];

    private Region? TryAir()
    {
        try
        {
            return Air();
        }
        catch (BudgetSpent)
        {
            return null;
        }
    }

    private Region Air() => Region.UnionOf(Openings.Select(o => Region.FromRings(o.Flat.ToArray(), [])));

    private double AreaMm2()
    {
        var whole = Math.Abs(Outline.SignedArea);
        if (Openings.IsEmpty) return whole;
        var inside = Openings.All(o => Outline.Bounds.Contains(o.Bounds, 0) && Sampling.Midpoints(o, o.Length / ContainmentSamples, ContainmentSamples).TrueForAll(p => HoldsInOutline(p)));
        if (inside && !OpeningsMayMeet()) return whole - Openings.Sum(o => Math.Abs(o.SignedArea));
        try
        {
            return Region.FromRings(Outline.Flat.ToArray(), []).Minus(Air()).Area;
        }
        catch (BudgetSpent)
        {
            // Lines that cross so often bound no paper that anybody could measure.
            return Math.Max(0, whole - Openings.Sum(o => Math.Abs(o.SignedArea)));
        }
    }
}
