using Falzkunst.Core.Nesting.Jigsaw;

namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>Lays one board as a jigsaw where the copies all but cover it, wider with every attempt; what is left over is separated.</summary>
internal sealed class LayJigsaw(SearchState state) : IMove
{
    private readonly JigsawTuning _tuning = state.Tuning.Jigsaw;
    private int _width = state.Tuning.Jigsaw.FirstWidth;
    private JigsawSearch? _search;

    public bool Try(Func<bool> isOver)
    {
        var used = state.UsedBoards;
        if (used.Count != 2 || _width > _tuning.MostWidth || state.Dice.Below(_tuning.PauseOneIn) == 0) return false;
        var last = state.LastBoard;
        if (used.Where(b => b != last).ToList() is not [var board] || !JigsawSearch.Suits(state.Task, board, state.SpacedArea)) return false;
        Lay(board, isOver);
        return true;
    }

    private void Lay(int board, Func<bool> isOver)
    {
        // Its shapes on the grid are made once.
        if (_search?.Board != board) _search = new JigsawSearch(state.Arrangement, board, state.Dice);
        var poses = _search.Try(_width, _tuning.Noise, isOver);
        if (!isOver()) _width = (int)(_width * _tuning.WidthGrowth);
        if (poses is null) return;
        state.Arrangement.Restore(poses);
        // What is laid is mostly right, so that the others find their places by separation.
        var others = state.Unplaced;
        if (others.Count > poses.Length * _tuning.MostUnlaid || !state.Spread(others, [board])) return;
        state.Open([board]);
        if (state.Separation.Run(state.Tuning.Patience, state.Tuning.Strikes, isOver)) state.Take();
    }
}
