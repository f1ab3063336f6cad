using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>
/// The level of a file's nested groups at which each group is a motif: below what holds everything, above single lines. Groups that
/// lie over each other are layers of one thing and say nothing of motifs.
/// </summary>
internal static class GroupLevel
{
    /// <summary>Less than this share of the lines in groups of several says nothing of how the sheet is parted.</summary>
    private const double LeastGrouped = 0.5;

    /// <summary>So much of the groups' boxes may overlap.</summary>
    private const double MostOverlap = 0.05;

    /// <summary>The lines of each group that is a motif, by their numbers; none where the groups say nothing.</summary>
    /// <param name="within">For each line the groups it lies in, outermost first.</param>
    /// <param name="boxes">The lines' boxes.</param>
    public static List<List<int>> Find(IReadOnlyList<ImmutableArray<int>> within, IReadOnlyList<Box> boxes)
    {
        for (var depth = 0; depth < within.Max(w => w.Length); depth++)
        {
            var groups = Enumerable.Range(0, within.Count).Where(i => within[i].Length > depth).GroupBy(i => within[i][depth]).Select(g => g.ToList()).ToList();
            var several = groups.Where(g => g.Count > 1).ToList();
            // One group around all, or a few lines beside it: the motifs are farther in.
            if (several.Count < 2) continue;
            if (several.Sum(g => g.Count) < LeastGrouped * within.Count) continue;
            if (AreApart(several, boxes)) return several;
        }
        return [];
    }

    private static bool AreApart(List<List<int>> groups, IReadOnlyList<Box> boxes)
    {
        var around = groups.Select(g => g.Aggregate(Box.Empty, (all, i) => all.Include(boxes[i]))).ToList();
        var tree = new BoxTree(around);
        var (overlap, area) = (0.0, 0.0);
        for (var i = 0; i < around.Count; i++)
        {
            area += around[i].Area;
            foreach (var k in tree.Meeting(around[i]).Where(k => k < i))
            {
                var (w, h) = (Math.Min(around[i].MaxX, around[k].MaxX) - Math.Max(around[i].MinX, around[k].MinX), Math.Min(around[i].MaxY, around[k].MaxY) - Math.Max(around[i].MinY, around[k].MinY));
                overlap += Math.Max(0, w) * Math.Max(0, h);
            }
        }
        return overlap <= MostOverlap * area;
    }
}
