namespace Falzkunst.Core.Geometry;

/// <summary>
/// Many point questions to one set of flat rings, read even-odd: the edges are sorted into level rows, so that a question
/// looks at one row instead of every edge. Rings of no area are allowed and hold nothing.
/// </summary>
public sealed class RegionIndex
{
    private const int MostRows = 2048;

    /// <summary>Entries of edges in rows beyond four for each edge; one takes 32 bytes.</summary>
    private const double MostEntries = 2_000_000;

    private readonly List<(Point A, Point B)>[] _rows;
    private readonly double _rowHeight;

    public RegionIndex(IReadOnlyCollection<Point[]> rings)
    {
        Bounds = Box.Around(rings.SelectMany(r => r));
        var edges = rings.Sum(r => r.Length);
        // An edge stands in every row that it passes; a comb of long ones gets fewer rows.
        var heights = rings.Sum(r => r.Select((p, i) => Math.Abs(p.Y - r[(i + 1) % r.Length].Y)).Sum()) / Math.Max(Bounds.Height, 1e-9);
        _rows = new List<(Point, Point)>[Math.Clamp((int)Math.Min(edges / 3.0, (MostEntries + 4.0 * edges) / Math.Max(heights, 1)), 1, MostRows)];
        for (var i = 0; i < _rows.Length; i++) _rows[i] = [];
        _rowHeight = Math.Max(Bounds.Height / _rows.Length, 1e-9);
        foreach (var ring in rings)
        {
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            {
                var (from, to) = (Row(Math.Min(ring[i].Y, ring[j].Y)), Row(Math.Max(ring[i].Y, ring[j].Y)));
                for (var row = from; row <= to; row++) _rows[row].Add((ring[j], ring[i]));
            }
        }
    }

    public Box Bounds { get; }

    /// <summary>Even-odd containment; a point on an edge may answer either way.</summary>
    public bool Contains(Point p)
    {
        if (!Bounds.Contains(p)) return false;
        var inside = false;
        foreach (var (a, b) in _rows[Row(p.Y)])
        {
            if (a.Y > p.Y != b.Y > p.Y && p.X < (b.X - a.X) * (p.Y - a.Y) / (b.Y - a.Y) + a.X) inside = !inside;
        }
        return inside;
    }

    /// <summary>How many times the rings go round the point, counted with their sense; a point on an edge may answer either way.</summary>
    public int Winding(Point p)
    {
        if (!Bounds.Contains(p)) return 0;
        var winding = 0;
        foreach (var (a, b) in _rows[Row(p.Y)])
        {
            if (a.Y > p.Y != b.Y > p.Y && p.X < (b.X - a.X) * (p.Y - a.Y) / (b.Y - a.Y) + a.X) winding += b.Y > a.Y ? 1 : -1;
        }
        return winding;
    }

    /// <summary>An edge passes within <paramref name="distance"/> mm of the point.</summary>
    public bool IsNearEdge(Point p, double distance)
    {
        if (!Bounds.Grow(distance).Contains(p)) return false;
        for (var row = Row(p.Y - distance); row <= Row(p.Y + distance); row++)
        {
            foreach (var (a, b) in _rows[row])
            {
                if (Polygons.DistanceToStretch(p, a, b) <= distance) return true;
            }
        }
        return false;
    }

    /// <summary>Edges that a question about this height looks at.</summary>
    public int EdgesAt(double y) => _rows[Row(y)].Count;

    private int Row(double y) => Math.Clamp((int)((y - Bounds.MinY) / _rowHeight), 0, _rows.Length - 1);
}
