using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>A piece that is being put together: an outline, openings, and the lines found on it.</summary>
internal sealed class PieceDraft(Ring outline)
{
    private RegionIndex? _openingRegion;

    public Ring Outline { get; } = outline;
    public List<Ring> Openings { get; } = [];
    public List<ArtLine> Lines { get; } = [];

    public void AddOpening(Ring ring)
    {
        Openings.Add(ring);
        _openingRegion = null;
    }

    public void Remove(Ring opening)
    {
        Openings.Remove(opening);
        _openingRegion = null;
    }

    /// <summary>Where a point is with respect to the paper; a hair's breadth outside an edge still counts as on it.</summary>
    public Whereabouts Locate(Point p, Budget budget)
    {
        budget.Work(4 + 2L * Outline.Region.EdgesAt(p.Y) + (_openingRegion?.EdgesAt(p.Y) ?? 0));
        var onEdge = Outline.Region.IsNearEdge(p, Assembler.SnapMm);
        if (!onEdge && !Outline.Region.Contains(p)) return Whereabouts.Outside;
        _openingRegion ??= new RegionIndex([.. Openings.Select(o => o.Line.Path.Flat.ToArray())]);
        return _openingRegion.Contains(p) && !_openingRegion.IsNearEdge(p, Assembler.SnapMm)
            ? Whereabouts.InOpening
            : Whereabouts.OnPaper;
    }

    /// <summary>The outline or an opening passes within <paramref name="distance"/> mm.</summary>
    public bool IsNearEdge(Point p, double distance)
    {
        _openingRegion ??= new RegionIndex([.. Openings.Select(o => o.Line.Path.Flat.ToArray())]);
        return Outline.Region.IsNearEdge(p, distance) || _openingRegion.IsNearEdge(p, distance);
    }
}

internal enum Whereabouts
{
    Outside,
    InOpening,
    OnPaper,
}
