namespace Falzkunst.Core.Nesting.Search.Moves;

/// <summary>While copies lie nowhere, one of them is laid where it overlaps least, and what overlaps then is separated.</summary>
internal sealed class InsertCopy(SearchState state) : IMove
{
    public bool Try(Func<bool> isOver)
    {
        var unplaced = state.Unplaced;
        if (unplaced.Count == 0) return false;
        state.Open(Enumerable.Range(0, state.Task.Boards.Length));
        var copy = unplaced[state.Dice.Below(unplaced.Count)];
        if (IsGrouped(copy) || state.Separation.Best(copy) is not { } pose)
        {
            // It fits nowhere, or would have to bring its group: others may still gain.
            if (unplaced.All(c => IsGrouped(c) || state.Separation.Best(c) is null)) state.IsContent = true;
            return true;
        }
        state.Arrangement.Put(copy, pose);
        if (state.Separation.Run(state.Tuning.Patience, state.Tuning.Strikes, isOver)) state.Take();
        return true;
    }

    private bool IsGrouped(int copy) => state.Task.Copies[copy].Group >= 0;
}
