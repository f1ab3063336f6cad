using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>Lines that lie exactly on another: cut twice they tear the paper.</summary>
internal static class DoubledLines
{
    /// <summary>Lines closer than this all along are the same line, mm.</summary>
    private const double SameMm = 0.03;

    /// <summary>Splits the lines into those that stay and those that only repeat one that stays.</summary>
    public static (List<ArtLine> Kept, List<ArtLine> Doubled) Part(IReadOnlyList<ArtLine> lines, Budget budget)
    {
        // Filled before unfilled, so that the outline drawn once more around its own fill is the one that goes.
        var kept = new List<ArtLine>();
        var doubled = new List<ArtLine>();
        var cells = new Dictionary<(long, long), List<ArtLine>>();
        foreach (var line in lines.OrderBy(l => l.Look.Fill is null).ThenBy(l => l.Order))
        {
            var (cx, cy) = Cell(line.Path.Bounds.Min);
            var twin = Neighbours(cx, cy).SelectMany(c => cells.GetValueOrDefault(c) ?? []).Any(other => Repeats(line, other, budget));
            if (twin)
            {
                doubled.Add(line);
                continue;
            }
            kept.Add(line);
            if (!cells.TryGetValue((cx, cy), out var cell)) cells[(cx, cy)] = cell = [];
            cell.Add(line);
        }
        return ([.. kept.OrderBy(l => l.Order)], doubled);
    }

    private static (long, long) Cell(Point p) => ((long)Math.Floor(p.X / 0.1), (long)Math.Floor(p.Y / 0.1));

    private static IEnumerable<(long, long)> Neighbours(long cx, long cy) =>
        from x in Enumerable.Range(-1, 3) from y in Enumerable.Range(-1, 3) select (cx + x, cy + y);

    private static bool Repeats(ArtLine line, ArtLine other, Budget budget)
    {
        budget.Work(2);
        if (line.Operation != other.Operation || line.Path.IsClosed != other.Path.IsClosed) return false;
        // The same outline with another fill, or in another layer, is another layer of the card; any other line drawn twice is run twice.
        if (line.IsRing && line.Group != other.Group && (line.Group.Fill is not null || line.Group.Layer != other.Group.Layer)) return false;
        return AreSame(line.Path, other.Path, budget);
    }

    /// <summary>Two lines lie on each other all along.</summary>
    public static bool AreSame(Path line, Path other, Budget budget)
    {
        var (a, b) = (line.Bounds, other.Bounds);
        return a.Contains(b, SameMm) && b.Contains(a, SameMm) && LiesAlong(line, other, budget) && LiesAlong(other, line, budget);
    }

    private static bool LiesAlong(Path line, Path other, Budget budget)
    {
        var flat = other.Flat;
        foreach (var p in Sampling.Midpoints(line, step: 1, most: 64))
        {
            budget.Work(flat.Length);
            var nearest = double.PositiveInfinity;
            for (var i = 1; i < flat.Length; i++) nearest = Math.Min(nearest, Polygons.DistanceToStretch(p, flat[i - 1], flat[i]));
            if (other.IsClosed) nearest = Math.Min(nearest, Polygons.DistanceToStretch(p, flat[^1], flat[0]));
            if (nearest > SameMm) return false;
        }
        return true;
    }
}
