using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>The order in which a page is read: rows from the top, each from the left.</summary>
internal static class ReadingOrder
{
    /// <summary>Sorted by rows; what begins above the middle of a row's first is of that row.</summary>
    public static List<T> Sort<T>(IEnumerable<T> all, Func<T, Box> boxOf)
    {
        var ordered = new List<T>();
        var rest = all.OrderBy(m => boxOf(m).MinY).ToList();
        for (var at = 0; at < rest.Count;)
        {
            var middle = boxOf(rest[at]).Centre.Y;
            var to = at;
            while (to < rest.Count && boxOf(rest[to]).MinY <= middle) to++;
            ordered.AddRange(rest[at..to].OrderBy(m => boxOf(m).MinX));
            at = to;
        }
        return ordered;
    }
}
