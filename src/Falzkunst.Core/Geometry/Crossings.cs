using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry;

/// <summary>How often rings cross themselves and each other, known well enough before anybody begins to mend them.</summary>
internal static class Crossings
{
    /// <summary>
    /// Mending takes time and memory by the crossing: a hundred thousand take about a second. Traced scribbles have some hundreds.
    /// </summary>
    private const double Most = 100_000;

    /// <summary>So many edges are counted; the others are taken to cross as often.</summary>
    private const int Counted = 1500;

    /// <summary>Below so many edges nothing is worth knowing beforehand.</summary>
    private const int FewEdges = 5_000;

    /// <summary>So many pairs of edges with boxes that meet are compared in a second or two, whether they cross or not.</summary>
    private const double MostMeetings = 30_000_000;

    /// <summary>Before rings are looked at whether they are sound, which compares all edges whose boxes meet.</summary>
    /// <exception cref="BudgetSpent">There are more of them than can be compared.</exception>
    public static void DemandFewMeetings(IReadOnlyList<Point[]> rings)
    {
        if (rings.Sum(r => r.Length) >= FewEdges) Estimate(rings, (_, _) => true, MostMeetings);
    }

    /// <summary>Before rings that are not sound are mended.</summary>
    /// <exception cref="BudgetSpent">They cross more often than can be mended.</exception>
    public static void DemandFew(IReadOnlyList<Point[]> rings) => Estimate(rings, (e, f) => Cross(e.A, e.B, f.A, f.B), Most);

    private static void Estimate(IReadOnlyList<Point[]> rings, Func<(Point A, Point B), (Point A, Point B), bool> counts, double most)
    {
        var edges = rings.SelectMany(r => r.Select((p, i) => (A: p, B: r[(i + 1) % r.Length]))).ToList();
        var tree = new BoxTree([.. edges.Select(e => Box.Empty.Include(e.A).Include(e.B))]);
        var stride = Math.Max(1, edges.Count / Counted);
        double pairs = 0;
        for (var i = 0; i < edges.Count; i += stride)
        {
            foreach (var k in tree.Meeting(Box.Empty.Include(edges[i].A).Include(edges[i].B)))
            {
                if (k != i && counts(edges[i], edges[k])) pairs += 0.5 * stride;
            }
            if (pairs > most) throw new BudgetSpent(BudgetPart.Work, most);
        }
    }

    private static bool Cross(Point a, Point b, Point c, Point d) =>
        (b - a).Cross(c - a) * (b - a).Cross(d - a) < 0 && (d - c).Cross(a - c) * (d - c).Cross(b - c) < 0;
}
