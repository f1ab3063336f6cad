namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>
/// Takes a board away, the last one or an offcut, and separates its copies on the others. From where one attempt ended the next
/// goes on; the more often it failed, the more seldom it is tried.
/// </summary>
internal sealed class DropBoard(SearchState state) : IMove
{
    /// <summary>Lower by this the paper is less, not as much, mm.</summary>
    private const double Less = 0.01;

    private readonly DropTuning _tuning = state.Tuning.Drop;
    private double _hopefulFill = state.Tuning.Drop.FirstFill;
    private int _failed;
    private long _looks;
    private NearMiss? _nearMiss;

    /// <summary>Where an attempt ended that nearly went.</summary>
    private sealed record NearMiss(int BestNumber, Pose[] Poses, int Board, double Loss);

    public bool Try(Func<bool> isOver)
    {
        var arrangement = state.Arrangement;
        var (begun, used) = (state.FirstLooks, state.UsedBoards);
        _hopefulFill = Math.Min(1, _hopefulFill + _tuning.FillGrowth);
        if (used.Count < 2 || _looks >= _tuning.WorkShare * (arrangement.Looks - begun) || state.Dice.Share() >= _tuning.Chance / (1 + _failed)) return false;
        var last = state.LastBoard;
        var offcuts = used.Where(b => b != last && state.Task.Boards[b].Sheet.IsOffcut).ToList();
        var board = offcuts.Count > 0 && state.Dice.Below(2) == 0 ? offcuts[state.Dice.Below(offcuts.Count)] : last;
        if (!CanDrop(board, used)) return false;
        var (before, end) = (arrangement.Looks, arrangement.Looks + (long)(_tuning.WorkShare * (arrangement.Looks - begun)));
        if (Drop(board, last, used, () => arrangement.Looks > end || isOver())) _failed = 0;
        else if (!isOver()) _failed++;
        _looks += arrangement.Looks - before;
        return true;
    }

    private bool CanDrop(int board, List<int> used) =>
        !state.Arrangement.Listed(board).Any(state.Arrangement.IsFixed) && used.Where(b => b != board).Sum(state.Room) * _hopefulFill >= state.SpacedArea;

    private bool Drop(int board, int last, List<int> used, Func<bool> isOver)
    {
        var (arrangement, others) = (state.Arrangement, used.Where(b => b != board).ToList());
        if (board != last)
        {
            // Without the offcut the last sheet may be used as much farther down as keeps the paper less.
            var (offcut, sheet) = (state.Task.Boards[board], state.Task.Boards[last]);
            var gained = offcut.Sheet.PaperArea / sheet.Sheet.PaperArea * sheet.Usable.Height;
            arrangement.Depth[last] = Math.Min(sheet.Usable.MaxY, arrangement.Used(last) + gained - Less);
            if (others.Sum(state.Room) * state.Tuning.MostFill < state.Area) return false;
        }
        var former = _nearMiss is { } n && n.BestNumber == state.BestNumber && n.Board == board ? n : null;
        if (former is not null && state.Dice.Below(_tuning.AnewOneIn) > 0)
        {
            // On from where it nearly went, some copies changed about.
            arrangement.Restore(former.Poses);
            for (var swaps = 1 + state.Dice.Below(_tuning.MostSwaps); swaps > 0; swaps--) state.SwapTwo();
            state.Open(others);
        }
        else if (!state.Spread(arrangement.Listed(board), others))
        {
            return false;
        }
        if (state.Separation.Run(state.Tuning.Patience, state.Tuning.Strikes, isOver)) return state.Take();
        if (former is null || state.Separation.Loss < former.Loss * _tuning.MuchWorse) _nearMiss = new(state.BestNumber, arrangement.Snapshot(), board, state.Separation.Loss);
        return false;
    }
}
