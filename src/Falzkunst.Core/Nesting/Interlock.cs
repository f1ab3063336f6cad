using System.Numerics;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>
/// Fills one board that the copies all but cover, as a jigsaw is laid: whatever covers the topmost leftmost free spot has its own
/// topmost leftmost spot there, so that for each copy and stance there is one place to try. A beam of partial layouts is kept,
/// those first whose free part has the shortest edge: where copies touch along their length. Spots are found on a grid; the
/// places are then brought to where nothing overlaps.
/// </summary>
internal sealed class Interlock
{
    private const double Cell = 0.75;

    /// <summary>Uppermost rows of a copy that are tried on a spot.</summary>
    private const int Rows = 12;

    /// <summary>A place found on the grid is moved no farther than this, mm.</summary>
    private const double Nudge = 3;

    /// <summary>
    /// Where no place near by is quite free, one is taken on which shapes this much smaller, mm, are free: what was laid before lies
    /// a little off, which is put right at the end.
    /// </summary>
    private const double Leeway = 0.25;

    private const double FirstStep = 1;
    private const double LastStep = 0.002;
    private const int MostSteps = 160;

    /// <summary>How a lost cell counts against a cell's length of edge, and how many may be lost besides the room to spare, since the grid is coarse.</summary>
    private const double LostWeight = 1;
    private const int SpareCells = 150;

    /// <summary>Share of a copy's inner cells that may be taken, since the grid is coarse.</summary>
    private const double Tolerated = 0.01;

    private readonly Arrangement _at;
    private readonly Dice _dice;
    private readonly Box _usable;
    private readonly int _columns;
    private readonly int _rows;
    private readonly int _words;
    private readonly Dictionary<(int Kind, int Stance), Stamp> _stamps = [];
    private readonly Dictionary<Stance, Silhouette> _smaller = [];
    private readonly int _smallest;
    private readonly int _mayLose;

    /// <summary>A copy's cells about the cell of its origin.</summary>
    /// <param name="Left">Column of its first cell.</param>
    /// <param name="Top">Row of its first cell.</param>
    /// <param name="Cover">What it takes, a cell more all round.</param>
    /// <param name="Solid">What must be free, two cells less all round.</param>
    /// <param name="Anchors">
    /// The topmost leftmost cell that is seen to be free when all round it is taken: that of its uppermost rows in turn, since along
    /// an edge that is nearly level a row more or less moves it far.
    /// </param>
    /// <param name="SolidCount">Cells in <paramref name="Solid"/>.</param>
    private sealed record Stamp(int Left, int Top, bool[,] Cover, bool[,] Solid, List<(int Column, int Row)> Anchors, int SolidCount);

    /// <summary>A partial layout.</summary>
    /// <param name="Before">Without its last copy.</param>
    /// <param name="Copy">The last copy.</param>
    /// <param name="Pose">Where it lies.</param>
    /// <param name="Used">A bit for each copy that lies.</param>
    /// <param name="Taken">A bit for each cell that is taken or lost.</param>
    /// <param name="Spot">The spot to be covered next; null where none is left.</param>
    /// <param name="Lost">Cells lost in parts that are too small for a copy.</param>
    /// <param name="Score">Small is good.</param>
    private sealed record State(State? Before, int Copy, Pose Pose, ulong Used, ulong[] Taken, (int Column, int Row)? Spot, int Lost, double Score);

    public Interlock(Arrangement at, int board, Dice dice)
    {
        (_at, Board, _dice) = (at, board, dice);
        _usable = at.Task.Boards[board].Usable;
        (_columns, _rows) = ((int)Math.Ceiling(_usable.Width / Cell), (int)Math.Ceiling(_usable.Height / Cell));
        _words = (_columns + 63) / 64;
        _mayLose = (int)(Math.Max(0, at.Task.Boards[board].Room - at.Task.Copies.Sum(c => c.Kind.SpacedArea)) / (Cell * Cell)) + SpareCells;
        _smallest = (int)(0.3 * at.Task.Kinds.Min(k => k.Area) / (Cell * Cell));
    }

    /// <summary>The board that is filled.</summary>
    public int Board { get; }

    /// <summary>The jigsaw way is worth trying: one plain board, few copies, and hardly any room to spare.</summary>
    public static bool Suits(NestTask task, int board, double spacedArea) =>
        task.Copies.Length <= 64 && task.GroupCount == 0 && task.Pins.All(p => p is null) && task.Boards[board].Obstacles.Length == 0
        && task.Kinds.All(k => k.StanceCount <= 8) && spacedArea > 0.9 * task.Boards[board].Room;

    /// <summary>Tries to lay all copies on the board.</summary>
    /// <param name="width">Partial layouts that are kept.</param>
    /// <param name="noise">How far chance changes the order of those, in parts of their score.</param>
    /// <param name="isOver">Asked often; ends the work.</param>
    /// <returns>
    /// Where each copy lies, some of them overlapping by a hair; where no more could be laid, the others lie nowhere. Null when ended.
    /// </returns>
    public Pose[]? Try(int width, double noise, Func<bool> isOver)
    {
        var taken = Outside();
        var beam = new List<State> { new(null, -1, Pose.Nowhere, 0, taken, FirstFree(taken).Spot, 0, 0) };
        for (var level = 0; level < _at.Task.Copies.Length; level++)
        {
            var next = new List<State>();
            foreach (var state in beam)
            {
                if (isOver()) return null;
                Extend(state, next, noise);
            }
            if (next.Count == 0) break;
            next.Sort((a, b) => a.Score.CompareTo(b.Score));
            beam = next.Count > width ? next.GetRange(0, width) : next;
        }
        var poses = new Pose[_at.Task.Copies.Length];
        Array.Fill(poses, Pose.Nowhere);
        for (var s = beam[0]; s.Before is not null; s = s.Before) poses[s.Copy] = s.Pose;
        return poses;
    }

    private void Extend(State state, List<State> next, double noise)
    {
        var taken = state.Taken;
        if (state.Spot is not { } spot) return;
        var seen = new HashSet<int>();
        var placed = Placed(state);
        for (var copy = 0; copy < _at.Task.Copies.Length; copy++)
        {
            if ((state.Used >> copy & 1) != 0) continue;
            var kind = _at.Task.Copies[copy].Kind;
            if (!seen.Add(kind.Index)) continue;
            for (var s = 0; s < kind.StanceCount; s++)
            {
                var stamp = StampOf(kind, s);
                Point? found = null;
                foreach (var anchor in stamp.Anchors)
                {
                    var (column, row) = (spot.Column - anchor.Column, spot.Row - anchor.Row);
                    if (!MayLie(taken, stamp, column, row)) continue;
                    found = Fixed(kind, s, _usable.MinX + column * Cell, _usable.MinY + row * Cell, placed);
                    if (found is not null) break;
                }
                if (found is not { } at) continue;
                var after = (ulong[])taken.Clone();
                Take(after, stamp, (int)Math.Round((at.X - _usable.MinX) / Cell), (int)Math.Round((at.Y - _usable.MinY) / Cell));
                var (then, lost) = FirstFree(after);
                lost += state.Lost;
                if (lost > _mayLose) continue;
                next.Add(new State(
                    state, copy, new Pose(Board, s, at.X, at.Y), state.Used | 1UL << copy, after, then, lost, (Edge(after) + LostWeight * lost) * (1 + noise * _dice.Share())));
            }
        }
    }

    private List<(Stance Stance, double X, double Y)> Placed(State state)
    {
        var placed = new List<(Stance, double, double)>();
        for (var s = state; s.Before is not null; s = s.Before) placed.Add((_at.Task.Copies[s.Copy].Kind[s.Pose.Stance], s.Pose.X, s.Pose.Y));
        return placed;
    }

    /// <summary>A place near by where nothing overlaps, as far up and left as it gives.</summary>
    private Point? Fixed(PieceKind kind, int index, double x, double y, List<(Stance Stance, double X, double Y)> placed)
    {
        var stance = kind[index];
        if (!_smaller.ContainsKey(stance)) _smaller[stance] = kind.Smaller(index, Leeway);
        var range = stance.Within(_usable);
        if (range.IsEmpty) return null;
        var (left, right) = (Math.Max(range.MinX, x - Nudge), Math.Min(range.MaxX, x + Nudge));
        var (top, bottom) = (Math.Max(range.MinY, y - Nudge), Math.Min(range.MaxY, y + Nudge));
        if (left > right || top > bottom) return null;
        (x, y) = (Math.Clamp(x, left, right), Math.Clamp(y, top, bottom));
        var loss = Loss(x, y);
        var (step, tries) = (FirstStep, 0);
        while (loss > 0 && step > LastStep && tries++ < MostSteps)
        {
            var (bestX, bestY, best) = (x, y, loss);
            for (var way = 0; way < 8; way++)
            {
                var (tx, ty) = (Math.Clamp(x + step * Ways[way].X, left, right), Math.Clamp(y + step * Ways[way].Y, top, bottom));
                var there = Loss(tx, ty);
                if (there < best) (bestX, bestY, best) = (tx, ty, there);
                if (best == 0) break;
            }
            if (best < loss) (x, y, loss) = (bestX, bestY, best);
            else step /= 2;
        }
        if (loss > 0)
        {
            foreach (var (other, ox, oy) in placed) if (Silhouette.Meets(_smaller[stance], (float)(x - ox), (float)(y - oy), _smaller[other])) return null;
            return new Point(x, y);
        }
        for (var turn = 0; turn < 3; turn++)
        {
            for (step = FirstStep; step > LastStep; step /= 2)
            {
                while (y - step >= top && Loss(x, y - step) == 0) y -= step;
                while (x - step >= left && Loss(x - step, y) == 0) x -= step;
            }
            if (y > top && Loss(x, top) == 0) y = top;
            if (x > left && Loss(left, y) == 0) x = left;
        }
        return new Point(x, y);

        float Loss(double tx, double ty)
        {
            float sum = 0;
            var box = stance.Spaced.Box.Move(tx, ty);
            foreach (var (other, ox, oy) in placed)
            {
                if (!Arrangement.MayMeet(box, other.Spaced.Box.Move(ox, oy))) continue;
                _at.Looks++;
                sum += Silhouette.Overlap(stance.Spaced, (float)(tx - ox), (float)(ty - oy), other.Spaced);
            }
            return sum;
        }
    }

    private static readonly Point[] Ways = [new(0, -1), new(-1, 0), new(1, 0), new(0, 1), new(-1, -1), new(1, -1), new(-1, 1), new(1, 1)];

    private bool IsTaken(ulong[] taken, int column, int row) =>
        column < 0 || row < 0 || column >= _columns || row >= _rows || (taken[row * _words + (column >> 6)] >> (column & 63) & 1) != 0;

    private void Take(ulong[] taken, int column, int row)
    {
        if (column >= 0 && row >= 0 && column < _columns && row < _rows) taken[row * _words + (column >> 6)] |= 1UL << (column & 63);
    }

    /// <summary>The rim of cells along the board's edge counts as taken, as it does along copies.</summary>
    private ulong[] Outside()
    {
        var taken = new ulong[_rows * _words];
        for (var row = 0; row < _rows; row++)
        {
            for (var column = 0; column < _words * 64; column++)
            {
                if (column < 1 || row < 1 || column >= _columns - 1 || row >= _rows - 1) taken[row * _words + (column >> 6)] |= 1UL << (column & 63);
            }
        }
        return taken;
    }

    /// <summary>The topmost leftmost free cell of a part that is large enough for a copy; smaller parts become taken, and their cells are counted as lost.</summary>
    private ((int Column, int Row)? Spot, int Lost) FirstFree(ulong[] taken)
    {
        var lost = 0;
        for (var row = 0; row < _rows; row++)
        {
            for (var word = 0; word < _words; word++)
            {
                while (~taken[row * _words + word] is not 0 and var free)
                {
                    var column = word * 64 + BitOperations.TrailingZeroCount(free);
                    if (Part(taken, column, row) is not { } small) return ((column, row), lost);
                    foreach (var (c, r) in small) Take(taken, c, r);
                    lost += small.Count;
                }
            }
        }
        return (null, lost);
    }

    /// <summary>The cells of the free part about a cell, or null where they are enough for a copy.</summary>
    private List<(int, int)>? Part(ulong[] taken, int column, int row)
    {
        var found = new HashSet<(int, int)> { (column, row) };
        var open = new Queue<(int C, int R)>();
        open.Enqueue((column, row));
        while (open.TryDequeue(out var at))
        {
            if (found.Count > _smallest) return null;
            foreach (var (c, r) in new[] { (at.C + 1, at.R), (at.C - 1, at.R), (at.C, at.R + 1), (at.C, at.R - 1) })
            {
                if (!IsTaken(taken, c, r) && found.Add((c, r))) open.Enqueue((c, r));
            }
        }
        return [.. found];
    }

    private bool MayLie(ulong[] taken, Stamp stamp, int column, int row)
    {
        var most = (int)(Tolerated * stamp.SolidCount);
        for (var r = 0; r < stamp.Solid.GetLength(0); r++)
        {
            for (var c = 0; c < stamp.Solid.GetLength(1); c++)
            {
                if (stamp.Solid[r, c] && IsTaken(taken, column + stamp.Left + c, row + stamp.Top + r) && --most < 0) return false;
            }
        }
        return true;
    }

    private void Take(ulong[] taken, Stamp stamp, int column, int row)
    {
        for (var r = 0; r < stamp.Cover.GetLength(0); r++)
        {
            for (var c = 0; c < stamp.Cover.GetLength(1); c++)
            {
                if (stamp.Cover[r, c]) Take(taken, column + stamp.Left + c, row + stamp.Top + r);
            }
        }
    }

    /// <summary>Length of the edge between what is free and what is taken, in cells.</summary>
    private int Edge(ulong[] taken)
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

    private Stamp StampOf(PieceKind kind, int stance)
    {
        if (_stamps.TryGetValue((kind.Index, stance), out var known)) return known;
        const int Rim = 2;
        var shape = kind[stance].Own;
        var (left, top) = ((int)Math.Floor(shape.Box.MinX / Cell) - Rim, (int)Math.Floor(shape.Box.MinY / Cell) - Rim);
        var (columns, rows) = ((int)Math.Ceiling(shape.Box.MaxX / Cell) + Rim - left, (int)Math.Ceiling(shape.Box.MaxY / Cell) + Rim - top);
        var inside = new bool[rows, columns];
        for (var r = 0; r < rows; r++) for (var c = 0; c < columns; c++) inside[r, c] = shape.Contains((float)((left + c + 0.5) * Cell), (float)((top + r + 0.5) * Cell));
        var less = Eroded(inside, true);
        var solid = Eroded(less, true);
        var anchors = new List<(int, int)>();
        for (var r = 0; r < rows && anchors.Count < Rows; r++)
        {
            var c = Enumerable.Range(0, columns).FirstOrDefault(c => less[r, c], -1);
            if (c >= 0) anchors.Add((left + c, top + r));
        }
        for (var up = 1; up <= 2 && anchors.Count > 0; up++) anchors.Add((anchors[0].Item1, anchors[0].Item2 - up));
        var count = 0;
        foreach (var cell in solid) if (cell) count++;
        return _stamps[(kind.Index, stance)] = new Stamp(left, top, Eroded(inside, false), solid, anchors, count);
    }

    /// <summary>Without the cells at the edge of those that are set; or with those beside them.</summary>
    private static bool[,] Eroded(bool[,] cells, bool smaller)
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
                after[r, c] = smaller ? all : any;
            }
        }
        return after;
    }
}
