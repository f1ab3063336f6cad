namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>
/// Places everything anew, more thoroughly than for the first answer and in an order changed by chance: cheap beside
/// separation, and so done a few times before it.
/// </summary>
internal sealed class Restart(SearchState state) : IMove
{
    private int _done;

    public bool Try(Func<bool> isOver)
    {
        if (_done >= state.Tuning.Restarts || state.Task.Copies.Length > state.Tuning.MostCopiesOfRestart) return false;
        _done++;
        var arrangement = state.Arrangement;
        for (var i = 0; i < state.Task.Copies.Length; i++) if (!arrangement.IsFixed(i)) arrangement.Put(i, Pose.Nowhere);
        state.Placement.PlaceAll(isOver, isThorough: true);
        if (!isOver()) state.Take();
        return true;
    }
}
