using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>Patches that hang together.</summary>
/// <param name="Width">Dots across.</param>
/// <param name="Height">Dots down.</param>
/// <param name="PartOf">Number of the patch by dot; <see cref="ColourLabels.None"/> for a dot of none.</param>
/// <param name="LabelOf">Number of its colour by patch.</param>
internal sealed record PatchParts(int Width, int Height, int[] PartOf, List<int> LabelOf)
{
    /// <summary>The patches; those of less area than wanted go to the neighbour that they touch most.</summary>
    public static PatchParts Of(int[] labels, int width, int height, double leastArea, out int specks)
    {
        specks = 0;
        // What a small patch takes on may still be small: twice is enough for what noise leaves.
        for (var round = 0; round < 2; round++) specks += Clean(labels, width, height, leastArea);
        var (parts, labelOf, _) = Connected(labels, width);
        return new PatchParts(width, height, parts, labelOf);
    }

    /// <summary>The patch of a dot, none outside.</summary>
    public int At(int x, int y) => (uint)x < (uint)Width && (uint)y < (uint)Height ? PartOf[y * Width + x] : ColourLabels.None;

    private static int Clean(int[] labels, int width, int height, double leastArea)
    {
        var (parts, _, dots) = Connected(labels, width);
        var specks = 0;
        for (var part = 0; part < dots.Count; part++)
        {
            if (dots[part].Count >= leastArea) continue;
            specks++;
            var touched = new Dictionary<int, int>();
            foreach (var n in dots[part].SelectMany(i => Sides(i, width, height)).Where(n => parts[n] != part)) touched[labels[n]] = touched.GetValueOrDefault(labels[n]) + 1;
            if (touched.Count == 0) continue;
            var to = touched.OrderByDescending(t => t.Value).ThenBy(t => t.Key).First().Key;
            foreach (var i in dots[part]) labels[i] = to;
        }
        return specks;
    }

    private static (int[] Parts, List<int> LabelOf, List<List<int>> Dots) Connected(int[] labels, int width)
    {
        var parts = new int[labels.Length];
        Array.Fill(parts, ColourLabels.None);
        var dots = ConnectedDots.Find(labels, width, label => label >= 0, overCorners: false).ToList();
        for (var part = 0; part < dots.Count; part++) foreach (var dot in dots[part]) parts[dot] = part;
        return (parts, dots.ConvertAll(d => labels[d[0]]), dots);
    }

    private static IEnumerable<int> Sides(int i, int width, int height)
    {
        var (x, y) = (i % width, i / width);
        if (x > 0) yield return i - 1;
        if (x + 1 < width) yield return i + 1;
        if (y > 0) yield return i - width;
        if (y + 1 < height) yield return i + width;
    }
}
