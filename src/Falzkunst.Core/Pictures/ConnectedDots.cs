namespace Falzkunst.Core.Pictures;

/// <summary>Dots that hang together: the connected components of a picture, each by a flood from its first dot.</summary>
internal static class ConnectedDots
{
    /// <summary>The parts, by their first dots row by row, each a list of its dots; found one after the other, as they are asked for.</summary>
    /// <param name="values">What each dot is, row by row. Dots of one part are alike. What is written into dots of parts that were given changes no other.</param>
    /// <param name="width">Dots across.</param>
    /// <param name="counts">Dots of this value make parts.</param>
    /// <param name="overCorners">Eight neighbours to a dot instead of four.</param>
    public static IEnumerable<List<int>> Find<T>(T[] values, int width, Func<T, bool> counts, bool overCorners)
        where T : IEquatable<T>
    {
        var seen = new bool[values.Length];
        for (var i = 0; i < values.Length; i++)
        {
            if (!seen[i] && counts(values[i])) yield return Flooded(values, seen, width, i, overCorners);
        }
    }

    private static List<int> Flooded<T>(T[] values, bool[] seen, int width, int first, bool overCorners)
        where T : IEquatable<T>
    {
        var value = values[first];
        var part = new List<int> { first };
        seen[first] = true;
        for (var k = 0; k < part.Count; k++)
        {
            var at = part[k];
            var x = at % width;
            var (left, right) = (x > 0 ? -1 : 0, x + 1 < width ? 1 : 0);
            Row(at, left, right);
            if (at >= width) Row(at - width, overCorners ? left : 0, overCorners ? right : 0);
            if (at + width < values.Length) Row(at + width, overCorners ? left : 0, overCorners ? right : 0);
        }
        return part;

        void Row(int middle, int from, int to)
        {
            for (var n = middle + from; n <= middle + to; n++)
            {
                if (seen[n] || !values[n].Equals(value)) continue;
                seen[n] = true;
                part.Add(n);
            }
        }
    }
}
