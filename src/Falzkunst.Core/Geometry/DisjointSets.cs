namespace Falzkunst.Core.Geometry;

/// <summary>Disjoint sets of the numbers below a count, with path halving (Tarjan and van Leeuwen 1984).</summary>
public sealed class DisjointSets(int count)
{
    private readonly int[] _parent = [.. Enumerable.Range(0, count)];

    /// <summary>The number that stands for an item's set.</summary>
    public int Find(int item)
    {
        while (_parent[item] != item) item = _parent[item] = _parent[_parent[item]];
        return item;
    }

    public bool AreOne(int a, int b) => Find(a) == Find(b);
    public void Join(int a, int b) => _parent[Math.Max(Find(a), Find(b))] = Math.Min(Find(a), Find(b));
}
