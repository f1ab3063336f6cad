using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting.Search;

namespace Falzkunst.Core.Nesting.Jigsaw;

/// <summary>
/// Fills one board that the copies all but cover, as a jigsaw is laid: whatever covers the topmost leftmost free spot has its own
/// topmost leftmost spot there, so that for each copy and orientation there are few places to try. A beam of partial layouts is kept,
/// those first whose free part has the shortest edge, where copies touch along their length, and that lose little in parts too
/// small for any copy. Spots are found on a grid; the places are then brought to where nothing overlaps.
/// </summary>
internal sealed class JigsawSearch
{
    /// <summary>Parts with less than this share of the smallest copy are lost.</summary>
    private const double LostPart = 0.3;

    /// <summary>How a lost cell counts against a cell's length of edge, and how many may be lost besides the room to spare, since the grid is coarse.</summary>
    private const double LostWeight = 1;
    private const int SpareCells = 150;

    /// <summary>Places of a copy in one orientation nearer than this are one place, mm.</summary>
    private const double Alike = 1;

    private readonly Arrangement _arrangement;
    private readonly Dice _dice;
    private readonly JigsawGrid _grid;
    private readonly JigsawPlaces _places;
    private readonly int _mayLose;

    /// <summary>A partial layout.</summary>
    /// <param name="Poses">Where each copy lies.</param>
    /// <param name="Used">A bit for each copy that lies.</param>
    /// <param name="Taken">A bit for each cell that is taken or lost.</param>
    /// <param name="Spot">The spot to be covered next; null where none is left.</param>
    /// <param name="Lost">Cells lost in parts that are too small for a copy.</param>
    /// <param name="Score">Small is good.</param>
    /// <param name="IsTight">The last copy overlaps others a little.</param>
    private sealed record State(Pose[] Poses, ulong Used, ulong[] Taken, (int Column, int Row)? Spot, int Lost, double Score, bool IsTight);

    public JigsawSearch(Arrangement arrangement, int board, Dice dice)
    {
        (_arrangement, Board, _dice) = (arrangement, board, dice);
        var usable = arrangement.Task.Boards[board].Usable;
        _grid = new JigsawGrid(usable, LostPart * arrangement.Task.Kinds.Min(k => k.Area));
        _places = new JigsawPlaces(arrangement, usable);
        _mayLose = (int)(Math.Max(0, arrangement.Task.Boards[board].Room - arrangement.Task.Copies.Sum(c => c.Kind.SpacedArea)) / (JigsawGrid.Cell * JigsawGrid.Cell)) + SpareCells;
    }

    /// <summary>The board that is filled.</summary>
    public int Board { get; }

    /// <summary>The jigsaw way is worth trying: one plain board, few copies, and hardly any room to spare.</summary>
    public static bool Suits(NestTask task, int board, double spacedArea) =>
        task.Copies.Length <= 64 && task.GroupCount == 0 && task.Pins.All(p => p is null) && task.Boards[board].Obstacles.Length == 0
        && task.Kinds.All(k => k.OrientationCount <= 8) && spacedArea > 0.9 * task.Boards[board].Room;

    /// <summary>Tries to lay all copies on the board.</summary>
    /// <param name="width">Partial layouts that are kept.</param>
    /// <param name="noise">How far chance changes the order of those, in parts of their score.</param>
    /// <param name="isOver">Asked often; ends the work.</param>
    /// <returns>
    /// Where each copy lies, some of them overlapping by a hair; where no more could be laid, the others lie nowhere. Null when ended.
    /// </returns>
    public Pose[]? Try(int width, double noise, Func<bool> isOver)
    {
        var board = _grid.Empty();
        var best = new State([.. Enumerable.Repeat(Pose.Nowhere, _arrangement.Task.Copies.Length)], 0, board, _grid.FirstFree(board).Spot, 0, 0, false);
        for (var beam = new List<State> { best }; beam.Count > 0;)
        {
            best = beam[0];
            var next = new List<State>();
            foreach (var state in beam)
            {
                if (isOver()) return null;
                Extend(state, next, noise);
            }
            next.Sort((a, b) => a.Score.CompareTo(b.Score));
            beam.Clear();
            foreach (var state in next)
            {
                if (isOver()) return null;
                if (!state.IsTight || _places.Ease(state.Poses)) beam.Add(state);
                if (beam.Count == width) break;
            }
        }
        return best.Poses;
    }

    private void Extend(State state, List<State> next, double noise)
    {
        if (state.Spot is not { } spot) return;
        var (seen, placed) = (new HashSet<int>(), _places.Placed(state.Poses));
        for (var copy = 0; copy < _arrangement.Task.Copies.Length; copy++)
        {
            var kind = _arrangement.Task.Copies[copy].Kind;
            if ((state.Used >> copy & 1) != 0 || !seen.Add(kind.Index)) continue;
            for (var orientation = 0; orientation < kind.OrientationCount; orientation++)
            {
                var (stamp, tried) = (_grid.StampOf(kind, orientation), new List<Point>());
                foreach (var anchor in stamp.Anchors)
                {
                    if (!_grid.MayLie(state.Taken, stamp, spot, anchor)) continue;
                    if (_places.Near(copy, kind[orientation], _grid.OriginAt(spot, anchor), placed) is not var (at, isTight)) continue;
                    if (tried.Exists(t => t.DistanceTo(at) < Alike)) continue;
                    tried.Add(at);
                    if (After(state, copy, new Pose(Board, orientation, at.X, at.Y), stamp, isTight, noise) is { } after) next.Add(after);
                }
            }
        }
    }

    /// <summary>With one copy more; null where more is lost than may be.</summary>
    private State? After(State state, int copy, Pose pose, JigsawGrid.Stamp stamp, bool isTight, double noise)
    {
        var taken = _grid.With(state.Taken, stamp, new Point(pose.X, pose.Y));
        var (spot, lost) = _grid.FirstFree(taken);
        lost += state.Lost;
        if (lost > _mayLose) return null;
        var poses = (Pose[])state.Poses.Clone();
        poses[copy] = pose;
        var score = (_grid.Edge(taken) + LostWeight * lost) * (1 + noise * _dice.Share());
        return new State(poses, state.Used | 1UL << copy, taken, spot, lost, score, isTight);
    }
}
