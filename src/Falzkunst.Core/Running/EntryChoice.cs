using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// The entries of lines whose order is settled, so that the ways between them are shortest altogether: dynamic programming
/// over the lines, one state for each entry (the shortest path through a layered graph).
/// </summary>
internal static class EntryChoice
{
    /// <summary>For each line in order, the entry to take.</summary>
    /// <param name="lines">The lines.</param>
    /// <param name="order">Indices of the lines as they run.</param>
    /// <param name="start">Where the tool is before.</param>
    public static List<LineEntry> Best(IReadOnlyList<Path> lines, IReadOnlyList<int> order, Point start)
    {
        var layers = order.Select(i => LineEntry.Choices(lines[i], i).ToArray()).ToArray();
        var from = new int[layers.Length][];
        double[] cost = [0];
        LineEntry[] before = [new LineEntry(-1, 0, start, start)];
        for (var i = 0; i < layers.Length; i++)
        {
            var next = new double[layers[i].Length];
            from[i] = new int[layers[i].Length];
            for (var k = 0; k < next.Length; k++)
            {
                next[k] = double.PositiveInfinity;
                for (var b = 0; b < before.Length; b++)
                {
                    var way = cost[b] + before[b].Out.DistanceTo(layers[i][k].At);
                    if (way < next[k]) (next[k], from[i][k]) = (way, b);
                }
            }
            (cost, before) = (next, layers[i]);
        }
        var chosen = new LineEntry[layers.Length];
        var at = Array.IndexOf(cost, cost.Min());
        for (var i = layers.Length - 1; i >= 0; i--)
        {
            chosen[i] = layers[i][at];
            at = from[i][at];
        }
        return [.. chosen];
    }
}
