using System.Numerics;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Nesting.Jigsaw;

/// <summary>A board as rows of cells, a bit for each that is taken, and copies as stamps of such cells. A strip round the board counts as taken.</summary>
internal sealed class JigsawGrid
{
    /// <summary>Side of a cell, mm.</summary>
    public const double Cell = 0.75;

    /// <summary>Cells of the strip round the board.</summary>
    private const int Strip = 6;

    /// <summary>Uppermost rows of a copy that are tried on a spot.</summary>
    private const int AnchorRows = 12;

    /// <summary>Share of a copy's inner cells that may be taken, since the grid is coarse.</summary>
    private const double Tolerated = 0.01;

    private readonly Box _usable;
    private readonly int _columns;
    private readonly int _rows;
    private readonly int _words;
    private readonly int _smallest;
    private readonly Dictionary<(int Kind, int Orientation), Stamp> _stamps = [];

    /// <param name="usable">The board.</param>
    /// <param name="smallestArea">Free parts of less than this are lost, mm².</param>
    public JigsawGrid(Box usable, double smallestArea)
    {
        _usable = usable;
        (_columns, _rows) = ((int)Math.Ceiling(usable.Width / Cell) + 2 * Strip, (int)Math.Ceiling(usable.Height / Cell) + 2 * Strip);
        _words = (_columns + 63) / 64;
        _smallest = (int)(smallestArea / (Cell * Cell));
    }

    /// <summary>A copy's cells, counted from its first column and row.</summary>
    /// <param name="Left">Column of its first cell about that of its origin.</param>
    /// <param name="Top">Row of its first cell about that of its origin.</param>
    /// <param name="Columns">How many there are.</param>
    /// <param name="Cover">What it takes, a cell more all round: rows of bits.</param>
    /// <param name="Solid">What must be free, two cells less all round: rows of bits.</param>
    /// <param name="Anchors">
    /// The topmost leftmost cell that is seen to be free when all round it is taken, about the origin: that of its uppermost rows
    /// in turn, since along an edge that is nearly level a row more or less moves it far.
    /// </param>
    /// <param name="MayMeet">So many cells of <paramref name="Solid"/> may be taken.</param>
    public sealed record Stamp(int Left, int Top, int Columns, ulong[][] Cover, ulong[][] Solid, List<(int Column, int Row)> Anchors, int MayMeet);

    /// <summary>Where a stamp's origin lies on the board when its anchor lies on a spot.</summary>
    public Point OriginAt((int Column, int Row) spot, (int Column, int Row) anchor) =>
        new(_usable.MinX + (spot.Column - anchor.Column - Strip) * Cell, _usable.MinY + (spot.Row - anchor.Row - Strip) * Cell);

    /// <summary>An empty board.</summary>
    public ulong[] Empty()
    {
        var taken = new ulong[_rows * _words];
        for (var row = 0; row < _rows; row++)
        {
            for (var column = 0; column < _words * 64; column++)
            {
                // A rim of one cell within the board counts as taken too, as it does along copies.
                if (column <= Strip || row <= Strip || column >= _columns - Strip - 1 || row >= _rows - Strip - 1) Take(taken, column, row);
            }
        }
        return taken;
    }

    /// <summary>All but a few cells of a stamp are free where its anchor lies on a spot.</summary>
    public bool MayLie(ulong[] taken, Stamp stamp, (int Column, int Row) spot, (int Column, int Row) anchor)
    {
        var (left, top) = (spot.Column - anchor.Column + stamp.Left, spot.Row - anchor.Row + stamp.Top);
        if (left < 0 || top < 0 || left + stamp.Columns > _words * 64 || top + stamp.Solid.Length > _rows) return false;
        var (first, shift, met) = (left >> 6, left & 63, 0);
        for (var r = 0; r < stamp.Solid.Length; r++)
        {
            var (bits, at) = (stamp.Solid[r], (top + r) * _words + first);
            ulong carried = 0;
            for (var w = 0; w < bits.Length; w++)
            {
                met += BitOperations.PopCount(taken[at + w] & (bits[w] << shift | carried));
                carried = shift == 0 ? 0 : bits[w] >> (64 - shift);
            }
            if (carried != 0) met += BitOperations.PopCount(taken[at + bits.Length] & carried);
            if (met > stamp.MayMeet) return false;
        }
        return true;
    }

    /// <summary>The board with a stamp whose origin lies there.</summary>
    public ulong[] With(ulong[] taken, Stamp stamp, Point origin)
    {
        var after = (ulong[])taken.Clone();
        var (left, top) = ((int)Math.Round((origin.X - _usable.MinX) / Cell) + Strip + stamp.Left, (int)Math.Round((origin.Y - _usable.MinY) / Cell) + Strip + stamp.Top);
        for (var r = Math.Max(0, -top); r < stamp.Cover.Length && top + r < _rows; r++)
        {
            for (var w = 0; w < stamp.Cover[r].Length; w++)
            {
                for (var bits = stamp.Cover[r][w]; bits != 0; bits &= bits - 1)
                {
                    var column = left + w * 64 + BitOperations.TrailingZeroCount(bits);
                    if (column >= 0 && column < _words * 64) Take(after, column, top + r);
                }
            }
        }
        return after;
    }

    /// <summary>The topmost leftmost free cell of a part that is large enough for a copy; smaller parts become taken, and their cells are counted as lost.</summary>
    public ((int Column, int Row)? Spot, int Lost) FirstFree(ulong[] taken)
    {
        var lost = 0;
        for (var row = 0; row < _rows; row++)
        {
            for (var word = 0; word < _words; word++)
            {
                while (~taken[row * _words + word] is not 0 and var free)
                {
                    var column = word * 64 + BitOperations.TrailingZeroCount(free);
                    if (SmallPart(taken, column, row) is not { } small) return ((column, row), lost);
                    foreach (var (c, r) in small) Take(taken, c, r);
                    lost += small.Count;
                }
            }
        }
        return (null, lost);
    }

    /// <summary>Length of the edge between what is free and what is taken, in cells.</summary>
    public int Edge(ulong[] taken)
    {
        var edge = 0;
        for (var row = 0; row < _rows; row++)
        {
            for (var word = 0; word < _words; word++)
            {
                var bits = taken[row * _words + word];
                var carried = word > 0 ? taken[row * _words + word - 1] >> 63 : 1UL;
                edge += BitOperations.PopCount(bits ^ (bits << 1 | carried));
                if (row > 0) edge += BitOperations.PopCount(bits ^ taken[(row - 1) * _words + word]);
            }
        }
        return edge;
    }

    public Stamp StampOf(PieceKind kind, int orientation)
    {
        if (_stamps.TryGetValue((kind.Index, orientation), out var known)) return known;
        const int Rim = 2;
        var shape = kind[orientation].Own;
        var (left, top) = ((int)Math.Floor(shape.Box.MinX / Cell) - Rim, (int)Math.Floor(shape.Box.MinY / Cell) - Rim);
        var (columns, rows) = ((int)Math.Ceiling(shape.Box.MaxX / Cell) + Rim - left, (int)Math.Ceiling(shape.Box.MaxY / Cell) + Rim - top);
        var inside = new bool[rows, columns];
        for (var r = 0; r < rows; r++) for (var c = 0; c < columns; c++) inside[r, c] = shape.Contains((float)((left + c + 0.5) * Cell), (float)((top + r + 0.5) * Cell));
        var less = Changed(inside, isSmaller: true);
        var anchors = new List<(int, int)>();
        for (var r = 0; r < rows && anchors.Count < AnchorRows; r++)
        {
            var c = Enumerable.Range(0, columns).FirstOrDefault(c => less[r, c], -1);
            if (c >= 0) anchors.Add((left + c, top + r));
        }
        for (var up = 1; up <= 2 && anchors.Count > 0; up++) anchors.Add((anchors[0].Item1, anchors[0].Item2 - up));
        var solid = Bits(Changed(less, isSmaller: true));
        var count = solid.Sum(row => row.Sum(BitOperations.PopCount));
        return _stamps[(kind.Index, orientation)] = new Stamp(left, top, columns, Bits(Changed(inside, isSmaller: false)), solid, anchors, (int)(Tolerated * count));
    }

    private void Take(ulong[] taken, int column, int row) => taken[row * _words + (column >> 6)] |= 1UL << (column & 63);

    private bool IsTaken(ulong[] taken, int column, int row) => (taken[row * _words + (column >> 6)] >> (column & 63) & 1) != 0;

    /// <summary>The cells of the free part about a cell, or null where they are enough for a copy.</summary>
    private List<(int, int)>? SmallPart(ulong[] taken, int column, int row)
    {
        var found = new HashSet<(int, int)> { (column, row) };
        var open = new Queue<(int C, int R)>();
        open.Enqueue((column, row));
        // The strip round the board is taken, so that no neighbour lies outside.
        while (open.TryDequeue(out var at))
        {
            if (found.Count > _smallest) return null;
            Look(at.C + 1, at.R);
            Look(at.C - 1, at.R);
            Look(at.C, at.R + 1);
            Look(at.C, at.R - 1);
        }
        return [.. found];

        void Look(int c, int r)
        {
            if (!IsTaken(taken, c, r) && found.Add((c, r))) open.Enqueue((c, r));
        }
    }

    private static ulong[][] Bits(bool[,] cells)
    {
        var bits = new ulong[cells.GetLength(0)][];
        for (var r = 0; r < bits.Length; r++)
        {
            bits[r] = new ulong[(cells.GetLength(1) + 63) / 64];
            for (var c = 0; c < cells.GetLength(1); c++) if (cells[r, c]) bits[r][c >> 6] |= 1UL << (c & 63);
        }
        return bits;
    }

    /// <summary>Without the cells at the edge of those that are set; or with those beside them.</summary>
    private static bool[,] Changed(bool[,] cells, bool isSmaller)
    {
        var (rows, columns) = (cells.GetLength(0), cells.GetLength(1));
        var after = new bool[rows, columns];
        for (var r = 0; r < rows; r++)
        {
            for (var c = 0; c < columns; c++)
            {
                var (all, any) = (true, false);
                for (var dr = -1; dr <= 1; dr++) for (var dc = -1; dc <= 1; dc++)
                {
                    var set = r + dr >= 0 && r + dr < rows && c + dc >= 0 && c + dc < columns && cells[r + dr, c + dc];
                    (all, any) = (all && set, any || set);
                }
                after[r, c] = isSmaller ? all : any;
            }
        }
        return after;
    }
}
