using Falzkunst.Core.Budgets;

namespace Falzkunst.Core.Geometry;

/// <summary>The edges of a flattened path, asked which other paths come close to them.</summary>
public sealed class PathNearness
{
    private readonly (Point A, Point B)[] _edges;
    private readonly BoxTree _tree;

    /// <param name="path">A path of one point is an edge of no length.</param>
    public PathNearness(Path path)
    {
        _edges = [.. Edges(path)];
        _tree = new BoxTree([.. _edges.Select(e => BoxOf(e))]);
    }

    /// <summary>Some point of the other path lies no farther than so many mm from this one. Exact on the flattened paths.</summary>
    /// <exception cref="BudgetSpent">More edges lie in each other's boxes than are measured.</exception>
    public bool IsWithin(double mm, Path other, Budget budget) => Edges(other).Any(e =>
    {
        var meeting = _tree.Meeting(BoxOf(e).Grow(mm));
        budget.Work(1 + meeting.Count);
        return meeting.Exists(i => Distance(e.A, e.B, _edges[i].A, _edges[i].B) <= mm);
    });

    /// <summary>How far the other path is from this one at its nearest; exact on the flattened paths up to the distance given, that distance where it is farther.</summary>
    /// <exception cref="BudgetSpent">More edges lie in each other's boxes than are measured.</exception>
    public double DistanceTo(Path other, double most, Budget budget)
    {
        var least = most;
        foreach (var e in Edges(other))
        {
            var meeting = _tree.Meeting(BoxOf(e).Grow(least));
            budget.Work(1 + meeting.Count);
            foreach (var i in meeting) least = Math.Min(least, Distance(e.A, e.B, _edges[i].A, _edges[i].B));
            if (least == 0) break;
        }
        return least;
    }

    private static IEnumerable<(Point A, Point B)> Edges(Path path)
    {
        var flat = path.Flat.ToArray();
        if (flat.Length == 1) return [(flat[0], flat[0])];
        var edges = flat.Skip(1).Select((p, i) => (flat[i], p));
        return path.IsClosed ? edges.Append((flat[^1], flat[0])) : edges;
    }

    private static Box BoxOf((Point A, Point B) edge) => Box.Empty.Include(edge.A).Include(edge.B);

    /// <summary>Between two stretches; 0 where they cross.</summary>
    private static double Distance(Point a, Point b, Point c, Point d)
    {
        var (along, across) = (b - a, d - c);
        var (one, two) = (along.Cross(c - a), along.Cross(d - a));
        var (three, four) = (across.Cross(a - c), across.Cross(b - c));
        if (one * two < 0 && three * four < 0) return 0;
        return Polygons.DistanceBetween(a, b, c, d);
    }
}
