namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>
/// Takes a strip off the last board and separates what overlaps then. Strips grow where they go and shrink where not; where one
/// nearly went, the next attempt goes on from there with two copies changed about.
/// </summary>
internal sealed class ShrinkBoard(SearchState state) : IMove
{
    /// <summary>A board is not shrunk by less than this, mm.</summary>
    private const double LeastStrip = 0.02;

    private readonly ShrinkTuning _tuning = state.Tuning.Shrink;

    /// <summary>Height of the lowest orientation of the lowest kind, mm: no strip less high holds anything.</summary>
    private readonly double _lowest = state.Task.Kinds.Length == 0 ? 0
        : state.Task.Kinds.Min(k => Enumerable.Range(0, Math.Min(k.OrientationCount, 8)).Min(o => k[o].Bounds.Height));

    private double _step = state.Tuning.Shrink.FirstStep;
    private NearMiss? _nearMiss;

    /// <summary>Where an attempt ended that did not go.</summary>
    private sealed record NearMiss(int BestNumber, Pose[] Poses, double Depth, int Board);

    public bool Try(Func<bool> isOver)
    {
        var (arrangement, used, last) = (state.Arrangement, state.UsedBoards, state.LastBoard);
        if (_nearMiss is { } n && n.BestNumber == state.BestNumber && n.Board == last && state.Dice.Below(_tuning.NearMissOneIn) == 0)
        {
            arrangement.Depth[last] = n.Depth;
            arrangement.Restore(n.Poses);
            state.SwapTwo();
        }
        else
        {
            if (LowerEdge(last, used) is not { } edge)
            {
                state.IsContent = true;
                return true;
            }
            arrangement.Depth[last] = edge;
            if (!Cut(last, used))
            {
                Missed(last, isOver);
                return true;
            }
        }
        state.Open(used);
        var isBold = _step > _tuning.BoldStep;
        var patience = isBold ? _tuning.BoldPatience : state.Tuning.Patience;
        if (state.Separation.Run(patience, isBold ? 1 : state.Tuning.Strikes, isOver) && state.Take()) _step = Math.Min(_tuning.MostStep, _step * _tuning.StepUp);
        else Missed(last, isOver);
        return true;
    }

    /// <summary>Where the board ends after a strip is taken off; null where the area of the pieces, or what is pinned, asks for all of it.</summary>
    private double? LowerEdge(int last, List<int> used)
    {
        var (arrangement, board) = (state.Arrangement, state.Task.Boards[last]);
        var pinned = arrangement.Listed(last).Where(arrangement.IsFixed).Select(arrangement.Bottom).DefaultIfEmpty(board.Usable.MinY).Max();
        var depth = arrangement.Used(last) - board.Usable.MinY;
        var to = board.Usable.MinY + depth * (1 - _step * state.Dice.Between(_tuning.LeastOfStep, _tuning.MostOfStep));
        if (to - board.Usable.MinY < _lowest && pinned <= board.Usable.MinY) to = board.Usable.MinY;
        var lacking = state.Area / state.Tuning.MostFill - used.Where(b => b != last).Sum(state.Room);
        var least = Math.Max(pinned, board.Usable.MinY + lacking / board.Room * board.Usable.Height);
        return least >= arrangement.Used(last) - LeastStrip ? null : Math.Max(to, least);
    }

    /// <summary>What reaches over the new depth moves up, or where it does not fit any more, elsewhere.</summary>
    private bool Cut(int last, List<int> used)
    {
        var arrangement = state.Arrangement;
        var over = arrangement.Listed(last).Where(i => !arrangement.IsFixed(i) && arrangement.Bottom(i) > arrangement.Depth[last] + 1e-9).ToList();
        var elsewhere = new List<int>();
        foreach (var copy in over)
        {
            var range = arrangement.Range(arrangement.Orientation(copy), last);
            if (range.IsEmpty || state.Dice.Below(_tuning.ElsewhereOneIn) == 0) elsewhere.Add(copy);
            else arrangement.Put(copy, arrangement[copy] with { Y = Math.Clamp(arrangement[copy].Y, range.MinY, range.MaxY) });
        }
        return state.Spread(elsewhere, used);
    }

    private void Missed(int last, Func<bool> isOver)
    {
        if (isOver()) return;
        _step = Math.Max(_tuning.LeastStep, _step * _tuning.StepDown);
        _nearMiss = new(state.BestNumber, state.Arrangement.Snapshot(), state.Arrangement.Depth[last], last);
    }
}
