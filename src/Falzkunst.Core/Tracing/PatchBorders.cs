using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Tracing;

/// <summary>A border between two patches, from one place where others join it to the next.</summary>
/// <param name="Key">The same for the patches at both its sides.</param>
/// <param name="Points">Where it runs, dots.</param>
/// <param name="IsLoop">Nothing joins it anywhere.</param>
internal sealed record Border(int Key, List<Point> Points, bool IsLoop);

/// <summary>The borders of patches, ring by ring, cut where more than two patches meet.</summary>
internal sealed class PatchBorders(PixelImage image, PatchParts parts, (byte R, byte G, byte B)[] colours)
{
    // Ways: up, right, down, left; the patch lies to the right of the way.
    private static readonly int[] AheadX = [0, 1, 0, -1], AheadY = [-1, 0, 1, 0], LeftX = [-1, 0, 1, 0], LeftY = [0, -1, 0, 1];

    /// <summary>The rings of each patch.</summary>
    public IEnumerable<(int Part, List<List<Border>> Rings)> Rings(Budget budget)
    {
        var rings = new Dictionary<int, List<List<Border>>>();
        var seen = new System.Collections.BitArray((parts.Width + 1) * parts.Height);
        for (var y = 0; y < parts.Height; y++)
        {
            budget.Work(parts.Width / 8 + 1);
            for (var x = 0; x < parts.Width; x++)
            {
                var part = parts.At(x, y);
                if (part < 0 || parts.At(x - 1, y) == part || seen[y * (parts.Width + 1) + x]) continue;
                if (!rings.TryGetValue(part, out var known)) rings[part] = known = [];
                known.Add(Ring(x, y, part, seen));
            }
        }
        return rings.Select(r => (r.Key, r.Value));
    }

    private List<Border> Ring(int startX, int startY, int part, System.Collections.BitArray seen)
    {
        var steps = new List<(int X, int Y, int Way)>();
        var (x, y, way) = (startX, startY, 0);
        do
        {
            steps.Add((x, y, way));
            if (way == 0) seen[y * (parts.Width + 1) + x] = true;
            var (aheadX, aheadY) = (x + AheadX[way], y + AheadY[way]);
            var (besideX, besideY) = (aheadX + LeftX[way], aheadY + LeftY[way]);
            if (parts.At(aheadX, aheadY) != part) way = (way + 1) % 4;
            else if (parts.At(besideX, besideY) == part) (x, y, way) = (besideX, besideY, (way + 3) % 4);
            else (x, y) = (aheadX, aheadY);
        }
        while (x != startX || y != startY || way != 0);
        // The ring is cut at the corners of dots where more than two borders meet.
        var cuts = Enumerable.Range(0, steps.Count).Where(k => IsKnot(Corner(steps[k]))).ToList();
        if (cuts.Count == 0) return [new Border(steps.Min(Key), steps.ConvertAll(Middle), IsLoop: true)];
        var borders = new List<Border>();
        for (var c = 0; c < cuts.Count; c++)
        {
            var (from, to) = (cuts[c], cuts[(c + 1) % cuts.Count]);
            var count = (to - from + steps.Count) % steps.Count;
            if (count == 0) count = steps.Count;
            var run = Enumerable.Range(from, count).Select(k => steps[k % steps.Count]).ToList();
            borders.Add(new Border(run.Min(Key), [Knot(Corner(run[0])), .. run.Select(Middle), Knot(Corner(steps[to]))], IsLoop: false));
        }
        return borders;
    }

    /// <summary>The corner of the dot at which a step begins.</summary>
    private static (int X, int Y) Corner((int X, int Y, int Way) step) => step.Way switch
    {
        0 => (step.X, step.Y + 1),
        1 => (step.X, step.Y),
        2 => (step.X + 1, step.Y),
        _ => (step.X + 1, step.Y + 1),
    };

    /// <summary>A number of the side between two dots, the same from both.</summary>
    private int Key((int X, int Y, int Way) step)
    {
        var (x, y) = (step.X + Math.Max(0, LeftX[step.Way]), step.Y + Math.Max(0, LeftY[step.Way]));
        return (y * (parts.Width + 1) + x) * 2 + step.Way % 2;
    }

    private bool IsKnot((int X, int Y) at)
    {
        // The corners of the picture are corners of what lies there.
        if (at.X == 0 || at.X == parts.Width) return at.Y == 0 || at.Y == parts.Height || IsJoint(at);
        return IsJoint(at);
    }

    private bool IsJoint((int X, int Y) at)
    {
        var (a, b, c, d) = Four(at);
        return (a != b ? 1 : 0) + (b != c ? 1 : 0) + (c != d ? 1 : 0) + (d != a ? 1 : 0) > 2;
    }

    private (int, int, int, int) Four((int X, int Y) at) => (parts.At(at.X - 1, at.Y - 1), parts.At(at.X, at.Y - 1), parts.At(at.X, at.Y), parts.At(at.X - 1, at.Y));

    /// <summary>Borders that meet do so in the mean of where they come from.</summary>
    private Point Knot((int X, int Y) at)
    {
        var (sum, count) = (new Point(0, 0), 0);
        foreach (var (x, y, way) in new[] { (at.X, at.Y - 1, 0), (at.X, at.Y, 1), (at.X, at.Y, 0), (at.X - 1, at.Y, 1) })
        {
            if (parts.At(x, y) == parts.At(x + LeftX[way], y + LeftY[way])) continue;
            sum += Middle((x, y, way));
            count++;
        }
        var mean = sum * (1.0 / count);
        // At the edge of the picture it lies on the edge.
        return new Point(at.X == 0 || at.X == parts.Width ? at.X : mean.X, at.Y == 0 || at.Y == parts.Height ? at.Y : mean.Y);
    }

    /// <summary>Where between the middles of the two dots the colour is half way from one to the other.</summary>
    private Point Middle((int X, int Y, int Way) step)
    {
        var (px, py) = (step.X + LeftX[step.Way], step.Y + LeftY[step.Way]);
        var share = 0.5;
        if (parts.At(step.X, step.Y) is >= 0 and var inside && parts.At(px, py) is >= 0 and var outside && parts.LabelOf[inside] != parts.LabelOf[outside])
        {
            var (from, to) = (colours[parts.LabelOf[outside]], colours[parts.LabelOf[inside]]);
            var (t, u) = (Along(px, py, from, to), Along(step.X, step.Y, from, to));
            if (t < 0.5 && u > 0.5) share = (0.5 - t) / (u - t);
        }
        return new Point(px + 0.5 + (step.X - px) * share, py + 0.5 + (step.Y - py) * share);
    }

    private double Along(int x, int y, (byte R, byte G, byte B) from, (byte R, byte G, byte B) to)
    {
        var at = image.At(x, y);
        double r = to.R - from.R, g = to.G - from.G, b = to.B - from.B;
        var square = r * r + g * g + b * b;
        return square == 0 ? 0.5 : Math.Clamp(((image.Rgba[at] - from.R) * r + (image.Rgba[at + 1] - from.G) * g + (image.Rgba[at + 2] - from.B) * b) / square, 0, 1);
    }
}
