using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>Entries of lines not yet taken, in square cells, asked for the nearest.</summary>
internal sealed class EntryGrid
{
    private readonly Dictionary<(int X, int Y), List<LineEntry>> _cells = [];
    private readonly bool[] _taken;
    private readonly double _cell;
    private readonly Box _bounds = Box.Empty;
    private int _left;

    public EntryGrid(IReadOnlyList<Path> lines)
    {
        _taken = new bool[lines.Count];
        _left = lines.Count;
        var entries = lines.SelectMany(LineEntry.Choices).ToList();
        foreach (var e in entries) _bounds = _bounds.Include(e.At);
        _cell = Math.Max(Math.Sqrt(Math.Max(_bounds.Area, 1) / Math.Max(1, entries.Count)) * 1.5, 0.05);
        _cell = Math.Max(_cell, Math.Max(_bounds.Width, _bounds.Height) / 4000);
        foreach (var e in entries)
        {
            if (!_cells.TryGetValue(CellOf(e.At), out var cell)) _cells[CellOf(e.At)] = cell = [];
            cell.Add(e);
        }
    }

    private (int X, int Y) CellOf(Point p) => ((int)Math.Floor((p.X - _bounds.MinX) / _cell), (int)Math.Floor((p.Y - _bounds.MinY) / _cell));

    public LineEntry? TakeNearest(Point from)
    {
        if (_left == 0) return null;
        var clamped = new Point(Math.Clamp(from.X, _bounds.MinX, _bounds.MaxX), Math.Clamp(from.Y, _bounds.MinY, _bounds.MaxY));
        var (cx, cy) = CellOf(clamped);
        LineEntry? best = null;
        var nearest = double.PositiveInfinity;
        var most = Math.Max(CellOf(new Point(_bounds.MaxX, 0)).X, CellOf(new Point(0, _bounds.MaxY)).Y) + 1;
        for (var ring = 0; ring <= most; ring++)
        {
            // The clamped point is the nearest of the whole box, so what is far from it is at least as far from here.
            if (best is not null && (ring - 1) * _cell > nearest) break;
            foreach (var cell in Ring(cx, cy, ring)) Look(cell);
        }
        _taken[best!.Value.Line] = true;
        _left--;
        return best;

        void Look((int, int) key)
        {
            if (!_cells.TryGetValue(key, out var cell)) return;
            cell.RemoveAll(e => _taken[e.Line]);
            if (cell.Count == 0) _cells.Remove(key);
            foreach (var e in cell)
            {
                var d = e.At.DistanceTo(from);
                if (d < nearest) (nearest, best) = (d, e);
            }
        }
    }

    private static IEnumerable<(int, int)> Ring(int cx, int cy, int ring)
    {
        if (ring == 0)
        {
            yield return (cx, cy);
            yield break;
        }
        for (var x = cx - ring; x <= cx + ring; x++)
        {
            yield return (x, cy - ring);
            yield return (x, cy + ring);
        }
        for (var y = cy - ring + 1; y < cy + ring; y++)
        {
            yield return (cx - ring, y);
            yield return (cx + ring, y);
        }
    }
}
