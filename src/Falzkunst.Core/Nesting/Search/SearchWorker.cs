using Falzkunst.Core.Nesting.Search.Moves;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>Improves an answer in one thread: asks one move after the other, from the best, until one is taken.</summary>
internal sealed class SearchWorker
{
    /// <summary>What an attempt counts that looked at no pair of shapes.</summary>
    private const int LooksOfAttempt = 50;

    private readonly SearchState _state;
    private readonly IMove[] _moves;

    public SearchWorker(NestTask task, Dice dice, SearchTuning tuning)
    {
        _state = new SearchState(task, dice, tuning);
        _moves = [new Restart(_state), new InsertCopy(_state), new LayJigsaw(_state), new DropBoard(_state), new LiftCopy(_state), new ShrinkBoard(_state)];
    }

    public Incumbent Best => _state.Best;

    /// <summary>Nothing more can be gained: the pieces fill what is open, or there is nothing to move.</summary>
    public bool IsContent => _state.IsContent;

    /// <summary>The first answer.</summary>
    public void Begin(Func<bool> isOver)
    {
        _state.Placement.PlaceAll(isOver);
        _state.FirstLooks = _state.Arrangement.Looks;
        _state.Adopt(new Incumbent(_state.Arrangement.Snapshot(), NestScore.Evaluate(_state.Arrangement)));
    }

    /// <summary>Another worker's best takes the place of this one's.</summary>
    public void Adopt(Incumbent other) => _state.Adopt(other);

    /// <summary>Works until so many looks are done.</summary>
    /// <param name="looks">Pairs of shapes to look at; the last attempt is carried to its end.</param>
    /// <param name="isOver">Ends the work at once.</param>
    public void Work(long looks, Func<bool> isOver)
    {
        var end = _state.Arrangement.Looks + looks;
        _state.IsContent = _state.IsContent || _state.Task.Boards.Length == 0 || _state.Task.Copies.Length == 0;
        while (_state.Arrangement.Looks < end && !isOver() && !IsContent)
        {
            var before = _state.Arrangement.Looks;
            _state.Return();
            foreach (var move in _moves)
            {
                if (move.Try(isOver)) break;
            }
            // One piece alone on its sheet meets nothing; a round of such attempts must come to an end as well.
            if (_state.Arrangement.Looks == before) _state.Arrangement.Looks += LooksOfAttempt;
        }
    }
}
