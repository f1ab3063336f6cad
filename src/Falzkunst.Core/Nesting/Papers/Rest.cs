using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Papers;

/// <summary>What stays of a sheet: the largest upright rectangle that no piece touches.</summary>
public static class Rest
{
    /// <summary>The rectangle's sides are told to this, mm.</summary>
    private const double Cell = 1;

    /// <summary>
    /// The largest empty rectangle within a box, from a grid of cells that outlines do not touch: the largest rectangle under
    /// the heights of free cells, row by row (Vandevoorde 1998). A box of no area where nothing is free.
    /// </summary>
    /// <param name="within">The usable part of the sheet, mm.</param>
    /// <param name="outlines">The outlines that lie on it. Openings count as used: they are no rest to be kept.</param>
    /// <param name="paper">The outline that the paper has within the box; null where it is the whole box.</param>
    public static Box Largest(Box within, IEnumerable<Path> outlines, Path? paper = null)
    {
        var (columns, rows) = ((int)Math.Floor(within.Width / Cell), (int)Math.Floor(within.Height / Cell));
        if (columns <= 0 || rows <= 0) return new Box(within.MinX, within.MinY, within.MinX, within.MinY);
        var taken = new bool[rows, columns];
        if (paper is not null) TakeOutside(taken, within, paper.Flat);
        foreach (var outline in outlines) Fill(taken, within, outline.Flat);
        var heights = new int[columns + 1];
        var open = new Stack<int>();
        var (best, bestArea) = (new Box(within.MinX, within.MinY, within.MinX, within.MinY), 0);
        for (var row = 0; row < rows; row++)
        {
            for (var column = 0; column < columns; column++) heights[column] = taken[row, column] ? 0 : heights[column] + 1;
            open.Clear();
            for (var column = 0; column <= columns; column++)
            {
                while (open.Count > 0 && heights[open.Peek()] >= heights[column])
                {
                    var height = heights[open.Pop()];
                    var left = open.Count == 0 ? 0 : open.Peek() + 1;
                    if (height * (column - left) <= bestArea) continue;
                    bestArea = height * (column - left);
                    best = new Box(within.MinX + left * Cell, within.MinY + (row + 1 - height) * Cell, within.MinX + column * Cell, within.MinY + (row + 1) * Cell);
                }
                open.Push(column);
            }
        }
        return best;
    }

    private static void TakeOutside(bool[,] taken, Box within, ReadOnlySpan<Point> paper)
    {
        FillInside(taken, within, paper);
        for (var row = 0; row < taken.GetLength(0); row++)
        {
            for (var column = 0; column < taken.GetLength(1); column++) taken[row, column] = !taken[row, column];
        }
        FillEdges(taken, within, paper);
    }

    private static void Fill(bool[,] taken, Box within, ReadOnlySpan<Point> ring)
    {
        FillEdges(taken, within, ring);
        FillInside(taken, within, ring);
    }

    private static void FillEdges(bool[,] taken, Box within, ReadOnlySpan<Point> ring)
    {
        var (rows, columns) = (taken.GetLength(0), taken.GetLength(1));
        for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
        {
            var steps = Math.Max(1, (int)Math.Ceiling(ring[i].DistanceTo(ring[j]) / (Cell / 4)));
            for (var k = 0; k <= steps; k++)
            {
                var p = Point.Lerp(ring[j], ring[i], (double)k / steps);
                var (row, column) = ((int)Math.Floor((p.Y - within.MinY) / Cell), (int)Math.Floor((p.X - within.MinX) / Cell));
                if (row >= 0 && row < rows && column >= 0 && column < columns) taken[row, column] = true;
            }
        }
    }

    private static void FillInside(bool[,] taken, Box within, ReadOnlySpan<Point> ring)
    {
        var (rows, columns) = (taken.GetLength(0), taken.GetLength(1));
        var crossings = new List<double>();
        for (var row = 0; row < rows; row++)
        {
            crossings.Clear();
            Polygons.AddCrossings(ring, within.MinY + (row + 0.5) * Cell, crossings);
            crossings.Sort();
            for (var k = 0; k + 1 < crossings.Count; k += 2)
            {
                var (from, to) = (Math.Max(0, (int)Math.Floor((crossings[k] - within.MinX) / Cell)), Math.Min(columns - 1, (int)Math.Floor((crossings[k + 1] - within.MinX) / Cell)));
                for (var column = from; column <= to; column++) taken[row, column] = true;
            }
        }
    }
}
