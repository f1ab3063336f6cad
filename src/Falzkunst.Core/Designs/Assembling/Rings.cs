using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>A closed cut with what nesting needs to know of it.</summary>
internal sealed class Ring(ArtLine line)
{
    private readonly Lazy<RegionIndex> _region = new(() => new RegionIndex([line.Path.Flat.ToArray()]));

    public ArtLine Line { get; } = line;
    public double Area { get; } = Math.Abs(line.Path.SignedArea);
    public Point? Inside { get; } = Polygons.InteriorPoint(line.Path.Flat);
    public RegionIndex Region => _region.Value;

    /// <summary>The other ring lies in this one altogether; touching is allowed, crossing is not.</summary>
    public bool Holds(Ring other, Budget budget)
    {
        budget.Work(4);
        if (other == this || other.Area >= Area || other.Inside is not { } inside) return false;
        if (!Line.Path.Bounds.Contains(other.Line.Path.Bounds, Assembler.SnapMm)) return false;
        if (!Region.Contains(inside)) return false;
        var corners = other.Line.Path.Flat;
        var stride = Math.Max(1, corners.Length / CornersLookedAt);
        for (var i = 0; i < corners.Length; i += stride)
        {
            budget.Work(2 + Region.EdgesAt(corners[i].Y));
            if (!Region.Contains(corners[i]) && !Region.IsNearEdge(corners[i], Assembler.SnapMm)) return false;
        }
        return true;
    }

    // A crossing that shows in none of this many corners is a grazing one, which is no crossing to a crafter.
    private const int CornersLookedAt = 96;
}

/// <summary>Which ring lies in which: for each ring its parent, the smallest ring of its set that holds it.</summary>
internal static class RingForest
{
    public static Ring?[] Parents(IReadOnlyList<Ring> rings, Budget budget)
    {
        var tree = new BoxTree([.. rings.Select(r => r.Line.Path.Bounds)]);
        var parents = new Ring?[rings.Count];
        for (var i = 0; i < rings.Count; i++)
        {
            if (rings[i].Inside is not { } inside) continue;
            var near = tree.Meeting(new Box(inside.X, inside.Y, inside.X, inside.Y));
            budget.Work(20 + 4L * near.Count);
            parents[i] = near
                .Select(k => rings[k])
                .Where(r => r.Area > rings[i].Area)
                .OrderBy(r => r.Area)
                .FirstOrDefault(r => r.Holds(rings[i], budget));
        }
        return parents;
    }
}
