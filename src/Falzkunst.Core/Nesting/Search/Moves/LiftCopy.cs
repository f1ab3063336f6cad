namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>
/// Moves a low copy of the last board onto another, where only that board's copies make room for it: far less work than to
/// separate all boards, and it goes as long as the other is not really full. With two boards a strip off the last moves the
/// same copies, and leaves both looser for what follows.
/// </summary>
internal sealed class LiftCopy(SearchState state) : IMove
{
    private readonly LiftTuning _tuning = state.Tuning.Lift;

    /// <summary>The share of lifts that went lately, 0 to 1: an exponential average.</summary>
    private double _success = state.Tuning.Lift.MostOften;

    public bool Try(Func<bool> isOver)
    {
        var used = state.UsedBoards;
        if (used.Count < 3 || state.Dice.Share() >= (_success > _tuning.GoodSuccess ? _tuning.MostOften : _tuning.LeastOften)) return false;
        var (arrangement, copies, last) = (state.Arrangement, state.Task.Copies, state.LastBoard);
        var movable = arrangement.Listed(last).Where(i => !arrangement.IsFixed(i) && copies[i].Group < 0).OrderByDescending(arrangement.Bottom).ToList();
        if (movable.Count == 0) return false;
        // Of two by chance the lower.
        var copy = movable[Math.Min(state.Dice.Below(movable.Count), state.Dice.Below(movable.Count))];
        var area = copies[copy].Kind.SpacedArea;
        var roomy = used.Where(b => b != last && arrangement.Listed(b).Sum(i => copies[i].Kind.SpacedArea) + area <= state.Task.Boards[b].Room * state.Tuning.MostFill).ToList();
        if (roomy.Count == 0) return false;
        var (board, home) = (roomy[state.Dice.Below(roomy.Count)], arrangement[copy]);
        state.Open([board]);
        arrangement.Put(copy, Pose.Nowhere);
        if (state.Separation.Best(copy) is not { } pose)
        {
            arrangement.Put(copy, home);
            return false;
        }
        arrangement.Put(copy, pose);
        var isBetter = state.Separation.Run(_tuning.Patience, 1, isOver) && state.Take();
        _success += _tuning.SuccessShare * ((isBetter ? 1 : 0) - _success);
        return true;
    }
}
