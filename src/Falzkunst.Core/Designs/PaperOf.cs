using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>
/// Where a piece has paper, in its own coordinates: inside its outline, outside its openings. Built once for a shape, however
/// often it is asked.
/// </summary>
public sealed class PaperOf
{
    private static readonly PerShape<PaperOf> Known = new(p => new PaperOf(p));

    private readonly RegionIndex _outline;
    private readonly RegionIndex _openings;

    private PaperOf(Piece piece)
    {
        _outline = new RegionIndex([piece.Shape.Paths[0].Flat.ToArray()]);
        _openings = new RegionIndex([.. piece.Drawn.Where(d => d.Line.Role == LineRole.Opening).Select(d => d.Path.Flat.ToArray())]);
    }

    public static PaperOf Piece(Piece piece) => Known.Of(piece);

    /// <summary>A point lies on paper; within <paramref name="slack"/> mm of an edge it counts as on it.</summary>
    public bool Holds(Point p, double slack = 0)
    {
        if (!HoldsInOutline(p, slack)) return false;
        return !_openings.Contains(p) || (slack > 0 && _openings.IsNearEdge(p, slack));
    }

    /// <summary>A point lies inside the outline, on paper or in an opening.</summary>
    public bool HoldsInOutline(Point p, double slack = 0) => _outline.Contains(p) || (slack > 0 && _outline.IsNearEdge(p, slack));
}
