using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>An open line that runs across its piece from edge to edge is a fold: cut, it would part the piece in two.</summary>
internal static class FoldsByPlace
{
    /// <summary>Fold lines of bought files often stop this short of the edge, mm.</summary>
    private const double FoldEndMm = 3.5;

    /// <summary>A bent line ends as close to the edge as this, mm.</summary>
    private const double MeetsEdgeMm = 0.5;

    /// <summary>A line whose middle strays less than this from its chord is straight, mm.</summary>
    private const double StraightMm = 0.1;

    /// <summary>The line is a fold of the piece it lies on.</summary>
    /// <param name="line">An open line.</param>
    /// <param name="isNearEdge">Whether an edge of the piece passes a point within a distance, mm.</param>
    public static bool IsFold(Path line, Func<Point, double, bool> isNearEdge)
    {
        var reach = IsStraight(line) ? FoldEndMm : MeetsEdgeMm;
        return line.Length > 2 * reach && isNearEdge(line.Start, reach) && isNearEdge(line.End, reach);
    }

    private static bool IsStraight(Path path)
    {
        foreach (var p in path.Flat)
        {
            if (Polygons.DistanceToStretch(p, path.Start, path.End) > StraightMm) return false;
        }
        return true;
    }
}
