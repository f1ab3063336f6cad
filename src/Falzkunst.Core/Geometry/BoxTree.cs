namespace Falzkunst.Core.Geometry;

/// <summary>
/// A static R-tree over boxes, packed by sort-tile-recursive (Leutenegger, Lopez, Edgington 1997).
/// Built once in n log n; asked for all boxes that meet a box.
/// </summary>
public sealed class BoxTree
{
    private const int Fan = 8;
    private readonly int[] _order;
    private readonly List<Box[]> _levels = [];
    private readonly Box[] _boxes;

    public BoxTree(IReadOnlyList<Box> boxes)
    {
        _boxes = [.. boxes];
        _order = [.. Enumerable.Range(0, _boxes.Length)];
        if (_boxes.Length == 0) return;
        Array.Sort(_order, (a, b) => _boxes[a].Centre.X.CompareTo(_boxes[b].Centre.X));
        var leaves = (_boxes.Length + Fan - 1) / Fan;
        var slice = (int)Math.Ceiling(Math.Sqrt(leaves)) * Fan;
        for (var i = 0; i < _order.Length; i += slice)
        {
            Array.Sort(_order, i, Math.Min(slice, _order.Length - i),
                Comparer<int>.Create((a, b) => _boxes[a].Centre.Y.CompareTo(_boxes[b].Centre.Y)));
        }
        var level = _order.Select(i => _boxes[i]).ToArray();
        while (level.Length > 1)
        {
            level = [.. level.Chunk(Fan).Select(group => group.Aggregate(Box.Empty, (all, one) => all.Include(one)))];
            _levels.Add(level);
        }
    }

    /// <summary>The indices of boxes that meet <paramref name="query"/>, touching included, in no particular order.</summary>
    /// <param name="query">The box.</param>
    /// <param name="most">No more than so many are looked for.</param>
    public List<int> Meeting(Box query, int most = int.MaxValue)
    {
        var found = new List<int>();
        if (_boxes.Length > 0) Visit(_levels.Count - 1, 0, query, found, most);
        return found;
    }

    private void Visit(int level, int node, Box query, List<int> found, int most)
    {
        if (found.Count >= most) return;
        if (level < 0)
        {
            if (_boxes[_order[node]].Overlaps(query)) found.Add(_order[node]);
            return;
        }
        if (!_levels[level][node].Overlaps(query)) return;
        var width = level == 0 ? _order.Length : _levels[level - 1].Length;
        for (var child = node * Fan; child < Math.Min((node + 1) * Fan, width); child++) Visit(level - 1, child, query, found, most);
    }
}
