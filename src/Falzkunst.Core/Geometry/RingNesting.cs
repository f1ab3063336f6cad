namespace Falzkunst.Core.Geometry;

/// <summary>
/// Which of many rings lies in which, for rings that do not cross: each asks the level line through its topmost corner for
/// the next edge to the left, which bounds either the ring around it or a neighbour in the same one. Rings may touch in corners. Edges stand in level rows,
/// so that all questions together take about n log n (the sweep of Bentley and Ottmann 1979 with nothing to cross).
/// </summary>
internal static class RingNesting
{
    /// <summary>Rows of edges at most; with so many a question about one of a million edges looks at some hundreds.</summary>
    private const int MostRows = 4096;

    /// <summary>For each ring the number of the ring right around it; -1 for none. A ring is its corners in order, the first not repeated.</summary>
    public static int[] Parents(IReadOnlyList<Point[]> rings)
    {
        var parents = new int[rings.Count];
        Array.Fill(parents, -1);
        if (rings.Count < 2) return parents;
        var box = Box.Around(rings.SelectMany(r => r));
        var count = Math.Clamp(rings.Sum(r => r.Length) / 4, 1, MostRows);
        var height = Math.Max(box.Height / count, 1e-9);
        int Row(double y) => Math.Clamp((int)((y - box.MinY) / height), 0, count - 1);
        // Only rows in which a ring begins are ever asked.
        var tops = rings.Select(Top).ToArray();
        var rows = new List<Edge>?[count];
        foreach (var top in tops) rows[Row(top.At.Y)] ??= [];
        for (var k = 0; k < rings.Count; k++)
        {
            var ring = rings[k];
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            {
                if (ring[i].Y == ring[j].Y) continue;
                var edge = ring[j].Y < ring[i].Y ? new Edge(ring[j], ring[i], k, IsDown: true) : new Edge(ring[i], ring[j], k, IsDown: false);
                for (var row = Row(edge.Upper.Y); row <= Row(edge.Lower.Y); row++) rows[row]?.Add(edge);
            }
        }
        var turns = rings.Select(r => Polygons.SignedArea(r) > 0).ToArray();
        foreach (var k in Enumerable.Range(0, rings.Count).OrderBy(i => tops[i].At.Y).ThenBy(i => tops[i].At.X).ThenBy(i => tops[i].Slope))
        {
            var (p, slope) = tops[k];
            var (nearest, at) = ((Edge?)null, (X: double.NegativeInfinity, Slope: double.NegativeInfinity));
            foreach (var edge in rows[Row(p.Y)]!)
            {
                // Right below the level line, so that a corner on it counts once.
                if (edge.Ring == k || edge.Upper.Y > p.Y || edge.Lower.Y <= p.Y) continue;
                var there = (X: edge.Upper.X + edge.Slope * (p.Y - edge.Upper.Y), edge.Slope);
                if (there.CompareTo((p.X, slope)) < 0 && there.CompareTo(at) > 0) (nearest, at) = (edge, there);
            }
            // Rings of positive area have their inside to the right of edges that run up.
            if (nearest is { } left) parents[k] = turns[left.Ring] != left.IsDown ? left.Ring : parents[left.Ring];
        }
        return parents;
    }

    /// <summary>The leftmost of a ring's topmost corners, and how far its left edge goes to the right on its way down, each mm.</summary>
    private static (Point At, double Slope) Top(Point[] ring)
    {
        var i = Enumerable.Range(0, ring.Length).MinBy(k => (ring[k].Y, ring[k].X));
        var slopes = new[] { ring[(i + 1) % ring.Length], ring[(i + ring.Length - 1) % ring.Length] }
            .Where(q => q.Y > ring[i].Y).Select(q => (q.X - ring[i].X) / (q.Y - ring[i].Y));
        return (ring[i], slopes.DefaultIfEmpty(0).Min());
    }

    private readonly record struct Edge(Point Upper, Point Lower, int Ring, bool IsDown)
    {
        public double Slope { get; } = (Lower.X - Upper.X) / (Lower.Y - Upper.Y);
    }
}
