namespace Falzkunst.Core.Nesting;

/// <summary>A valid arrangement and how good it is.</summary>
internal sealed record Incumbent(Pose[] Poses, NestScore Score);

/// <summary>
/// Improves an answer in one thread: takes a strip off the last board, or a board away, or adds a copy that found no place,
/// and separates what overlaps then.
/// </summary>
internal sealed class NestWorker
{
    private const double FirstStep = 0.08;
    private const double MostStep = 0.25;
    private const double LeastStep = 0.003;
    private const double StepUp = 1.4;
    private const double StepDown = 0.6;

    /// <summary>A board is taken away where the others would be filled no more than this; higher the longer it is worked on.</summary>
    private const double FirstHope = 0.8;
    private const double Hope = 0.005;

    /// <summary>Large steps either go soon or are not worth the time.</summary>
    private const double BoldStep = 0.03;

    /// <summary>The share of the work that goes into taking boards away.</summary>
    private const double DropShare = 0.25;

    private const int BoldPatience = 20;
    private const int Patience = 90;
    private const int Strikes = 2;

    private const int Settlings = 3;

    /// <summary>More copies than this are not settled thoroughly: that takes longer than it is worth.</summary>
    private const int FewCopies = 100;

    /// <summary>How often a copy is lifted off the last board instead of a strip taken off it: nearly always while that goes.</summary>
    private const double LeastLifts = 0.3;
    private const double MostLifts = 0.9;
    private const double GoodLuck = 0.2;
    private const double LuckShare = 0.1;
    private const int LiftPatience = 25;

    /// <summary>Partial layouts kept when laying as a jigsaw: at first, and how that grows with each attempt, as far as it goes.</summary>
    private const int FirstFit = 6;
    private const double FitGrowth = 1.7;
    private const int WidestFit = 3000;
    private const double FitNoise = 0.05;
    private const double MostUnlaid = 0.6;

    /// <summary>Where a board nearly could be taken away, the search goes on from there unless it is so much worse than what was found before.</summary>
    private const double Worse = 1.3;

    /// <summary>No arrangement fills more than this of what is open.</summary>
    private const double MostFill = 0.998;

    private readonly Arrangement _at;
    private readonly Separation _separation;
    private readonly ConstructivePlacement _settling;
    private readonly Dice _dice;
    private readonly double _area;
    private readonly double _spacedArea;
    private readonly double _smallest;
    private double _hopefulFill = FirstHope;
    private double _step = FirstStep;
    private double _liftLuck = MostLifts;
    private int _failedDrops;
    private long _dropLooks;
    private long _begun;
    private int _settled;
    private int _fitWidth = FirstFit;
    private Interlock? _interlock;
    private (Pose[] Poses, double Depth, int Last)? _nearly;
    private (Pose[] Poses, int Board, double Loss)? _nearlyDropped;

    public NestWorker(NestTask task, Dice dice)
    {
        (_at, _dice) = (new Arrangement(task), dice);
        _separation = new Separation(_at, dice);
        _settling = new ConstructivePlacement(_at, dice);
        _area = task.Copies.Sum(c => c.Kind.Area);
        _spacedArea = task.Copies.Sum(c => c.Kind.SpacedArea);
        _smallest = task.Kinds.Length == 0 ? 0 : task.Kinds.Min(k => Enumerable.Range(0, Math.Min(k.OrientationCount, 8)).Min(s => k[s].Bounds.Height));
        Best = new Incumbent(_at.Snapshot(), new NestScore(double.PositiveInfinity, 0, 0));
    }

    public Incumbent Best { get; private set; }

    /// <summary>Nothing more can be gained: the pieces fill what is open, or there is nothing to move.</summary>
    public bool IsContent { get; private set; }

    /// <summary>The first answer.</summary>
    public void Begin(Func<bool> isOver)
    {
        _settling.PlaceAll(isOver);
        _begun = _at.Looks;
        Best = new Incumbent(_at.Snapshot(), NestScore.Evaluate(_at));
    }

    public void Adopt(Incumbent other)
    {
        Best = other;
        _nearly = null;
        _nearlyDropped = null;
    }

    /// <summary>Works until so many looks are done.</summary>
    /// <param name="looks">Pairs of shapes to look at; the last attempt is carried to its end.</param>
    /// <param name="isOver">Ends the work at once.</param>
    public void Work(long looks, Func<bool> isOver)
    {
        var end = _at.Looks + looks;
        while (_at.Looks < end && !isOver() && !IsContent) Attempt(isOver);
    }

    private void Attempt(Func<bool> isOver)
    {
        Return();
        if (_settled < Settlings && _at.Task.Copies.Length <= FewCopies)
        {
            // Settling is cheap beside separating: a few more, thorough ones first.
            _settled++;
            for (var i = 0; i < _at.Task.Copies.Length; i++) if (!_at.IsFixed(i)) _at.Put(i, Pose.Nowhere);
            _settling.PlaceAll(isOver, isThorough: true);
            if (!isOver()) Take();
            return;
        }
        if (_at.Task.Boards.Length == 0)
        {
            IsContent = true;
            return;
        }
        var unplaced = Enumerable.Range(0, _at.Task.Copies.Length).Where(i => _at[i].Board < 0).ToList();
        if (unplaced.Count > 0)
        {
            Insert(unplaced, isOver);
            return;
        }
        if (NestScore.Last(_at) is not { } last)
        {
            IsContent = true;
            return;
        }
        var used = Used();
        if (used.Count == 2 && _fitWidth <= WidestFit && _dice.Below(3) > 0 && used.Where(b => b != last).ToList() is [var whole] && Interlock.Suits(_at.Task, whole, _spacedArea))
        {
            LayAsAJigsaw(whole, isOver);
            return;
        }
        _hopefulFill = Math.Min(1, _hopefulFill + Hope);
        if (used.Count > 1 && _dropLooks < DropShare * (_at.Looks - _begun) && _dice.Share() < 0.5 / (1 + _failedDrops))
        {
            var offcuts = used.Where(b => b != last && _at.Task.Boards[b].Sheet.IsOffcut).ToList();
            var dropped = offcuts.Count > 0 && _dice.Below(2) == 0 ? offcuts[_dice.Below(offcuts.Count)] : last;
            if (CanDrop(dropped, used))
            {
                // From where one attempt ended the next goes on.
                var (before, end) = (_at.Looks, _at.Looks + (long)(DropShare * (_at.Looks - _begun)));
                if (Drop(dropped, last, used, () => _at.Looks > end || isOver())) _failedDrops = 0;
                else if (!isOver()) _failedDrops++;
                _dropLooks += _at.Looks - before;
                return;
            }
        }
        if (used.Count > 2 && _dice.Share() < (_liftLuck > GoodLuck ? MostLifts : LeastLifts) && Lift(last, used, isOver)) return;
        Shrink(last, used, isOver);
    }

    /// <summary>
    /// Moves a low copy of the last board onto another, where only that board's copies make room for it: far less work than to
    /// separate all boards, and it goes as long as the other is not really full. With two boards a strip off the last moves the
    /// same copies, and leaves both looser for what follows.
    /// </summary>
    /// <returns>It was tried.</returns>
    private bool Lift(int last, List<int> used, Func<bool> isOver)
    {
        var movable = _at.Listed(last).Where(i => !_at.IsFixed(i) && _at.Task.Copies[i].Group < 0).OrderByDescending(_at.Bottom).ToList();
        if (movable.Count == 0) return false;
        var copy = movable[Math.Min(_dice.Below(movable.Count), _dice.Below(movable.Count))];
        var area = _at.Task.Copies[copy].Kind.SpacedArea;
        var roomy = used.Where(b => b != last && _at.Listed(b).Sum(i => _at.Task.Copies[i].Kind.SpacedArea) + area <= _at.Task.Boards[b].Room * MostFill).ToList();
        if (roomy.Count == 0) return false;
        var board = roomy[_dice.Below(roomy.Count)];
        OpenOnly([board]);
        _at.Put(copy, Pose.Nowhere);
        if (_separation.Best(copy) is not { } pose) return false;
        _at.Put(copy, pose);
        var isBetter = _separation.Run(LiftPatience, 1, isOver) && Take();
        _liftLuck += LuckShare * ((isBetter ? 1 : 0) - _liftLuck);
        return true;
    }

    private void LayAsAJigsaw(int board, Func<bool> isOver)
    {
        // Its shapes on the grid are made once.
        if (_interlock?.Board != board) _interlock = new Interlock(_at, board, _dice);
        var poses = _interlock.Try(_fitWidth, FitNoise, isOver);
        if (!isOver()) _fitWidth = (int)(_fitWidth * FitGrowth);
        if (poses is null) return;
        _at.Restore(poses);
        // What is laid is mostly right, so that the others find their places by separation.
        var others = Enumerable.Range(0, poses.Length).Where(i => poses[i].Board < 0).ToList();
        if (others.Count > poses.Length * MostUnlaid || !Spread(others, [board])) return;
        OpenOnly([board]);
        if (_separation.Run(Patience, Strikes, isOver)) Take();
    }

    /// <summary>Back to the best, with all boards open to their full depth.</summary>
    private void Return()
    {
        for (var b = 0; b < _at.Depth.Length; b++) _at.Depth[b] = _at.Task.Boards[b].Usable.MaxY;
        _at.Restore(Best.Poses);
    }

    private List<int> Used() => [.. Enumerable.Range(0, _at.Task.Boards.Length).Where(b => _at.On(b).Length > 0)];

    private double Room(int board) =>
        _at.Task.Boards[board].Room * Math.Min(1, (_at.Depth[board] - _at.Task.Boards[board].Usable.MinY) / _at.Task.Boards[board].Usable.Height);

    private void OpenOnly(IEnumerable<int> boards)
    {
        _separation.Open.Clear();
        _separation.Open.AddRange(boards);
    }

    private void Insert(List<int> unplaced, Func<bool> isOver)
    {
        OpenOnly(Enumerable.Range(0, _at.Task.Boards.Length));
        var copy = unplaced[_dice.Below(unplaced.Count)];
        if (_at.Task.Copies[copy].Group >= 0 || _separation.Best(copy) is not { } pose)
        {
            // It fits nowhere, or would have to bring its group: others may still gain.
            if (unplaced.All(c => _at.Task.Copies[c].Group >= 0 || _separation.Best(c) is null)) IsContent = true;
            return;
        }
        _at.Put(copy, pose);
        if (_separation.Run(Patience, Strikes, isOver)) Take();
    }

    private bool CanDrop(int board, List<int> used) =>
        !_at.Listed(board).Any(_at.IsFixed) && used.Where(b => b != board).Sum(Room) * _hopefulFill >= _spacedArea;

    private bool Drop(int board, int last, List<int> used, Func<bool> isOver)
    {
        var others = used.Where(b => b != board).ToList();
        if (board != last)
        {
            // Without the offcut the last sheet may be used as much farther down as keeps the paper less.
            var (b, l) = (_at.Task.Boards[board], _at.Task.Boards[last]);
            var gained = b.Sheet.PaperArea / l.Sheet.PaperArea * l.Usable.Height;
            _at.Depth[last] = Math.Min(l.Usable.MaxY, _at.Used(last) + gained - 0.01);
            if (others.Sum(Room) * MostFill < _area) return false;
        }
        if (_nearlyDropped is { } n && n.Board == board && _dice.Below(4) > 0)
        {
            // On from where it nearly went, some copies changed about.
            _at.Restore(n.Poses);
            for (var swaps = 1 + _dice.Below(3); swaps > 0; swaps--) Swap();
            OpenOnly(others);
        }
        else if (!Spread(_at.Listed(board), others))
        {
            return false;
        }
        if (_separation.Run(Patience, Strikes, isOver)) return Take();
        if (_nearlyDropped is not { } former || former.Board != board || _separation.Loss < former.Loss * Worse) _nearlyDropped = (_at.Snapshot(), board, _separation.Loss);
        return false;
    }

    private void Shrink(int last, List<int> used, Func<bool> isOver)
    {
        var board = _at.Task.Boards[last];
        var pinned = _at.Listed(last).Where(_at.IsFixed).Select(_at.Bottom).DefaultIfEmpty(board.Usable.MinY).Max();
        var depth = _at.Used(last) - board.Usable.MinY;
        if (_nearly is { } n && n.Last == last && _dice.Below(2) == 0)
        {
            // On from where it nearly went, two large copies changed about.
            _at.Depth[last] = n.Depth;
            _at.Restore(n.Poses);
            Swap();
        }
        else
        {
            var to = board.Usable.MinY + depth * (1 - _step * _dice.Between(0.5, 1.2));
            if (to - board.Usable.MinY < _smallest && pinned <= board.Usable.MinY) to = board.Usable.MinY;
            // Not less than the area of the pieces asks for, nor less than what is pinned.
            var lacking = _area / MostFill - used.Where(b => b != last).Sum(Room);
            var least = Math.Max(pinned, board.Usable.MinY + lacking / board.Room * board.Usable.Height);
            if (least >= _at.Used(last) - 0.02)
            {
                IsContent = true;
                return;
            }
            _at.Depth[last] = Math.Max(to, least);
            if (!Cut(last, used)) { Lower(isOver); return; }
        }
        OpenOnly(used);
        var isBold = _step > BoldStep;
        if (_separation.Run(isBold ? BoldPatience : Patience, isBold ? 1 : Strikes, isOver) && Take())
        {
            _step = Math.Min(MostStep, _step * StepUp);
        }
        else
        {
            Lower(isOver);
        }

        void Lower(Func<bool> over)
        {
            if (over()) return;
            _step = Math.Max(LeastStep, _step * StepDown);
            _nearly = (_at.Snapshot(), _at.Depth[last], last);
        }
    }

    /// <summary>What reaches over the new depth moves up, or where it does not fit any more, elsewhere.</summary>
    private bool Cut(int last, List<int> used)
    {
        var over = _at.Listed(last).Where(i => !_at.IsFixed(i) && _at.Bottom(i) > _at.Depth[last] + 1e-9).ToList();
        var elsewhere = new List<int>();
        foreach (var copy in over)
        {
            var range = _at.Range(_at.Orientation(copy), last);
            if (range.IsEmpty || _dice.Below(3) == 0) elsewhere.Add(copy);
            else _at.Put(copy, _at[copy] with { Y = Math.Clamp(_at[copy].Y, range.MinY, range.MaxY) });
        }
        return Spread(elsewhere, used);
    }

    private bool Spread(List<int> copies, List<int> open)
    {
        OpenOnly(open);
        foreach (var copy in copies) _at.Put(copy, Pose.Nowhere);
        copies.Sort((a, b) => _at.Task.Copies[b].Kind.HullArea.CompareTo(_at.Task.Copies[a].Kind.HullArea));
        var homes = new Dictionary<int, int>();
        foreach (var copy in copies)
        {
            var group = _at.Task.Copies[copy].Group;
            if (group >= 0)
            {
                // Where others of the group lie, or where the first of them goes.
                var home = homes.TryGetValue(group, out var known) ? known
                    : Enumerable.Range(0, _at.Task.Copies.Length).Where(i => _at.Task.Copies[i].Group == group && _at[i].Board >= 0).Select(i => _at[i].Board).DefaultIfEmpty(open[_dice.Below(open.Count)]).First();
                homes[group] = home;
                OpenOnly([home]);
            }
            var pose = _separation.Best(copy);
            if (group >= 0) OpenOnly(open);
            if (pose is not { } found) return false;
            _at.Put(copy, found);
        }
        return true;
    }

    private void Swap()
    {
        var movable = Enumerable.Range(0, _at.Task.Copies.Length).Where(i => !_at.IsFixed(i) && _at[i].Board >= 0 && _at.Task.Copies[i].Group < 0)
            .OrderByDescending(i => _at.Task.Copies[i].Kind.HullArea).ToList();
        if (movable.Count < 2) return;
        var large = movable.Take(Math.Max(2, movable.Count / 2)).ToList();
        var one = large[_dice.Below(large.Count)];
        var unlike = large.Where(i => _at.Task.Copies[i].Kind != _at.Task.Copies[one].Kind).ToList();
        if (unlike.Count == 0) return;
        var other = unlike[_dice.Below(unlike.Count)];
        var (a, b) = (_at[one], _at[other]);
        MoveTo(one, b);
        MoveTo(other, a);

        void MoveTo(int copy, Pose there)
        {
            var range = _at.Range(_at.Orientation(copy), there.Board);
            if (range.IsEmpty) return;
            _at.Put(copy, _at[copy] with { Board = there.Board, X = Math.Clamp(there.X, range.MinX, range.MaxX), Y = Math.Clamp(there.Y, range.MinY, range.MaxY) });
        }
    }

    /// <summary>Takes what the arrangement is now, after what can slides up, if it is better than the best.</summary>
    private bool Take()
    {
        if (NestScore.Last(_at) is { } last) _settling.SlideUp(last);
        var score = NestScore.Evaluate(_at);
        if (!score.IsBetterThan(Best.Score)) return false;
        Best = new Incumbent(_at.Snapshot(), score);
        (_nearly, _nearlyDropped) = (null, null);
        return true;
    }
}
