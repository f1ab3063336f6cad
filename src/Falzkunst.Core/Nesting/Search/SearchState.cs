namespace Falzkunst.Core.Nesting.Search;

/// <summary>What the moves of one worker share: the arrangement, the ways to change it, and the best that was found.</summary>
internal sealed class SearchState
{
    public SearchState(NestTask task, Dice dice, SearchTuning tuning)
    {
        (Arrangement, Dice, Tuning) = (new Arrangement(task), dice, tuning);
        Separation = new Separation(Arrangement, dice);
        Placement = new ConstructivePlacement(Arrangement, dice);
        Area = task.Copies.Sum(c => c.Kind.Area);
        SpacedArea = task.Copies.Sum(c => c.Kind.SpacedArea);
        Best = new Incumbent(Arrangement.Snapshot(), new NestScore(double.PositiveInfinity, 0, 0));
    }

    public Arrangement Arrangement { get; }
    public Separation Separation { get; }
    public ConstructivePlacement Placement { get; }
    public Dice Dice { get; }
    public SearchTuning Tuning { get; }
    public NestTask Task => Arrangement.Task;

    /// <summary>Net area of all copies, mm².</summary>
    public double Area { get; }

    /// <summary>Net area of all copies with half the spacing round each, mm².</summary>
    public double SpacedArea { get; }

    public Incumbent Best { get; private set; }

    /// <summary>Goes up with every other best, so that what was kept beside a former one is known to be of the past.</summary>
    public int BestNumber { get; private set; }

    /// <summary>Looks that the first answer took.</summary>
    public long FirstLooks { get; set; }

    /// <summary>Nothing more can be gained: the pieces fill what is open, or there is nothing to move.</summary>
    public bool IsContent { get; set; }

    /// <summary>The boards that anything lies on.</summary>
    public List<int> UsedBoards => [.. Enumerable.Range(0, Task.Boards.Length).Where(b => Arrangement.On(b).Length > 0)];

    /// <summary>The board whose rest counts.</summary>
    /// <exception cref="InvalidOperationException">Nothing lies anywhere.</exception>
    public int LastBoard => NestScore.Last(Arrangement) ?? throw new InvalidOperationException("Nothing lies on any board.");

    /// <summary>Copies that lie nowhere.</summary>
    public List<int> Unplaced => [.. Enumerable.Range(0, Task.Copies.Length).Where(i => Arrangement[i].Board < 0)];

    /// <summary>Another worker's best takes the place of this one's.</summary>
    public void Adopt(Incumbent other)
    {
        Best = other;
        BestNumber++;
    }

    /// <summary>Back to the best, with all boards open to their full depth.</summary>
    public void Return()
    {
        for (var b = 0; b < Arrangement.Depth.Length; b++) Arrangement.Depth[b] = Task.Boards[b].Usable.MaxY;
        Arrangement.Restore(Best.Poses);
    }

    /// <summary>Takes what the arrangement is now, after what can slides up, if it is better than the best.</summary>
    public bool Take()
    {
        if (NestScore.Last(Arrangement) is { } last) Placement.SlideUp(last);
        var score = NestScore.Evaluate(Arrangement);
        if (!score.IsBetterThan(Best.Score)) return false;
        Adopt(new Incumbent(Arrangement.Snapshot(), score));
        return true;
    }

    /// <summary>Area that can still be used of a board down to its depth, mm².</summary>
    public double Room(int board)
    {
        var (b, depth) = (Task.Boards[board], Arrangement.Depth[board]);
        return b.Room * Math.Min(1, (depth - b.Usable.MinY) / b.Usable.Height);
    }

    /// <summary>Copies may be moved to these boards and no others.</summary>
    public void Open(IEnumerable<int> boards)
    {
        Separation.Open.Clear();
        Separation.Open.AddRange(boards);
    }

    /// <summary>Lays copies anew on some boards, large ones first, each where it overlaps least; those that go together on one board.</summary>
    /// <returns>False where one fits on none of them.</returns>
    public bool Spread(List<int> copies, List<int> open)
    {
        Open(open);
        foreach (var copy in copies) Arrangement.Put(copy, Pose.Nowhere);
        copies.Sort((a, b) => Task.Copies[b].Kind.HullArea.CompareTo(Task.Copies[a].Kind.HullArea));
        var homes = new Dictionary<int, int>();
        foreach (var copy in copies)
        {
            var group = Task.Copies[copy].Group;
            if (group >= 0)
            {
                if (!homes.TryGetValue(group, out var home)) homes[group] = home = HomeOf(group, open);
                Open([home]);
            }
            var pose = Separation.Best(copy);
            if (group >= 0) Open(open);
            if (pose is not { } found) return false;
            Arrangement.Put(copy, found);
        }
        return true;
    }

    /// <summary>Two large copies of unlike kinds, chosen by chance, change places.</summary>
    public void SwapTwo()
    {
        var movable = Enumerable.Range(0, Task.Copies.Length).Where(i => !Arrangement.IsFixed(i) && Arrangement[i].Board >= 0 && Task.Copies[i].Group < 0)
            .OrderByDescending(i => Task.Copies[i].Kind.HullArea).ToList();
        if (movable.Count < 2) return;
        var large = movable.Take(Math.Max(2, movable.Count / 2)).ToList();
        var one = large[Dice.Below(large.Count)];
        var unlike = large.Where(i => Task.Copies[i].Kind != Task.Copies[one].Kind).ToList();
        if (unlike.Count == 0) return;
        var other = unlike[Dice.Below(unlike.Count)];
        var (a, b) = (Arrangement[one], Arrangement[other]);
        MoveTo(one, b);
        MoveTo(other, a);

        void MoveTo(int copy, Pose there)
        {
            var range = Arrangement.Range(Arrangement.Orientation(copy), there.Board);
            if (range.IsEmpty) return;
            Arrangement.Put(copy, Arrangement[copy] with
            {
                Board = there.Board,
                X = Math.Clamp(there.X, range.MinX, range.MaxX),
                Y = Math.Clamp(there.Y, range.MinY, range.MaxY),
            });
        }
    }

    /// <summary>Where others of a group lie, or else one of the open boards by chance.</summary>
    private int HomeOf(int group, List<int> open) => Enumerable.Range(0, Task.Copies.Length)
        .Where(i => Task.Copies[i].Group == group && Arrangement[i].Board >= 0).Select(i => Arrangement[i].Board)
        .DefaultIfEmpty(open[Dice.Below(open.Count)]).First();
}
