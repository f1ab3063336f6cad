using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>
/// Moves copies that overlap until none does: guided local search on weighted overlaps (Egeblad, Nielsen, Odgaard 2007;
/// Umetani and others 2009), where a copy's new place is the best of random samples that are walked downhill, and the weights
/// of overlaps that stay grow (Gardeyn, Wauters 2025). Copies may change boards.
/// </summary>
internal sealed class Separation
{
    private const int SamplesAround = 20;
    private const int SamplesAnywhere = 45;
    private const int Walked = 3;

    private const float LeastGain = 1.2f;
    private const float MostGain = 2f;
    private const float Decay = 0.95f;

    /// <summary>Weights stay far from where single precision ends.</summary>
    private const float Heaviest = 1e12f;

    /// <summary>A loss counts as smaller from this share on.</summary>
    private const double Progress = 0.98;

    private readonly Arrangement _arrangement;
    private readonly Dice _dice;
    private readonly int _count;
    private readonly float[] _weight;
    private readonly float[] _loss;
    private readonly float[] _trespass;
    private readonly float[] _trespassWeight;
    private readonly float[] _sum;
    private readonly List<(int A, int B)> _heavy = [];
    private readonly List<int> _turn = [];
    private readonly List<Sample> _best = new(Walked + 1);

    public Separation(Arrangement arrangement, Dice dice)
    {
        (_arrangement, _dice) = (arrangement, dice);
        _count = arrangement.Task.Copies.Length;
        (_weight, _loss) = (new float[_count * _count], new float[_count * _count]);
        (_trespass, _trespassWeight, _sum) = (new float[_count], new float[_count], new float[_count]);
        Array.Fill(_weight, 1);
        Array.Fill(_trespassWeight, 1);
    }

    /// <summary>Boards that copies may be moved to.</summary>
    public List<int> Open { get; } = [];

    /// <summary>All overlaps together, unweighted, after the last <see cref="Run"/>.</summary>
    public double Loss { get; private set; }

    private readonly record struct Sample(double Cost, int Orientation, int Board, double X, double Y);

    /// <summary>Separates what lies in the arrangement now.</summary>
    /// <param name="patience">Rounds without progress until it gives up once.</param>
    /// <param name="strikes">How often it may give up in a row.</param>
    /// <param name="isOver">Asked often; ends the work at once.</param>
    /// <returns>Nothing overlaps. Otherwise the arrangement is the one with the least overlap that was found.</returns>
    public bool Run(int patience, int strikes, Func<bool> isOver)
    {
        Forget();
        Measure();
        var least = _arrangement.Snapshot();
        var leastLoss = Loss;
        for (var strike = 0; strike < strikes && leastLoss > 0;)
        {
            var before = leastLoss;
            for (var idle = 0; idle < patience;)
            {
                if (isOver()) { BackToLeast(); return Loss == 0; }
                MoveAll(isOver);
                if (Loss == 0) return true;
                if (Loss < leastLoss)
                {
                    idle = Loss < Progress * leastLoss ? 0 : idle + 1;
                    (leastLoss, least) = (Loss, _arrangement.Snapshot());
                }
                else
                {
                    idle++;
                }
                Reweigh();
            }
            strike = leastLoss < Progress * before ? 0 : strike + 1;
            _arrangement.Restore(least);
            Measure();
        }
        BackToLeast();
        return Loss == 0;

        void BackToLeast()
        {
            if (leastLoss > Loss) return;
            _arrangement.Restore(least);
            Measure();
        }
    }

    /// <summary>The place of least weighted overlap that sampling finds for a copy on the open boards.</summary>
    public Pose? Best(int copy) => Search(copy, fromHere: false) is { } s ? new Pose(s.Board, s.Orientation, s.X, s.Y) : null;

    /// <summary>All weights are one again.</summary>
    private void Forget()
    {
        foreach (var (a, b) in _heavy) _weight[a * _count + b] = _weight[b * _count + a] = 1;
        _heavy.Clear();
        Array.Fill(_trespassWeight, 1);
    }

    /// <summary>Looks at all pairs anew.</summary>
    private void Measure()
    {
        Array.Clear(_loss);
        Array.Clear(_sum);
        Array.Clear(_trespass);
        for (var board = 0; board < _arrangement.Task.Boards.Length; board++)
        {
            var on = _arrangement.On(board);
            for (var i = 0; i < on.Length; i++)
            {
                var copy = on[i];
                var (orientation, pose) = (_arrangement.Orientation(copy), _arrangement[copy]);
                var box = orientation.Spaced.Box.Move(pose.X, pose.Y);
                if (!_arrangement.IsFixed(copy)) _sum[copy] += _trespass[copy] = _arrangement.Trespass(orientation, board, pose.X, pose.Y);
                for (var k = 0; k < i; k++)
                {
                    if (_arrangement.IsFixed(copy) && _arrangement.IsFixed(on[k])) continue;
                    var loss = _arrangement.Overlap(orientation, box, pose.X, pose.Y, on[k]);
                    if (loss > 0) Keep(copy, on[k], loss);
                }
            }
        }
        Loss = Total();
    }

    private void Keep(int a, int b, float loss)
    {
        _loss[a * _count + b] = _loss[b * _count + a] = loss;
        _sum[a] += loss;
        _sum[b] += loss;
    }

    private double Total()
    {
        double pairs = 0, borders = 0;
        for (var i = 0; i < _count; i++)
        {
            pairs += _sum[i] - _trespass[i];
            borders += _trespass[i];
        }
        return pairs / 2 + borders;
    }

    private void MoveAll(Func<bool> isOver)
    {
        _turn.Clear();
        for (var i = 0; i < _count; i++) if (_sum[i] > 0 && !_arrangement.IsFixed(i)) _turn.Add(i);
        _dice.Shuffle(_turn);
        foreach (var copy in _turn)
        {
            if (_sum[copy] <= 0) continue;
            if (isOver()) break;
            if (Search(copy, fromHere: true) is not { } found) continue;
            var pose = _arrangement[copy];
            if (found.Orientation == pose.Orientation && found.Board == pose.Board && found.X == pose.X && found.Y == pose.Y) continue;
            Move(copy, new Pose(found.Board, found.Orientation, found.X, found.Y));
        }
        Loss = Total();
    }

    private void Move(int copy, Pose to)
    {
        var row = copy * _count;
        foreach (var other in _arrangement.On(_arrangement[copy].Board))
        {
            var loss = _loss[row + other];
            if (loss == 0) continue;
            // Where nothing else is left the sum is exactly nothing.
            _loss[row + other] = _loss[other * _count + copy] = 0;
            _sum[other] = Sum(other);
        }
        _arrangement.Put(copy, to);
        _sum[copy] = _trespass[copy] = _arrangement.Trespass(_arrangement.Orientation(copy), to.Board, to.X, to.Y);
        var box = _arrangement.Orientation(copy).Spaced.Box.Move(to.X, to.Y);
        foreach (var other in _arrangement.On(to.Board))
        {
            if (other == copy) continue;
            var loss = _arrangement.Overlap(_arrangement.Orientation(copy), box, to.X, to.Y, other);
            if (loss > 0) Keep(copy, other, loss);
        }
    }

    private float Sum(int copy)
    {
        var sum = _trespass[copy];
        foreach (var other in _arrangement.On(_arrangement[copy].Board)) sum += _loss[copy * _count + other];
        return sum;
    }

    private void Reweigh()
    {
        float most = 0;
        for (var i = 0; i < _count; i++)
        {
            if (_sum[i] <= 0) continue;
            most = MathF.Max(most, _trespass[i]);
            foreach (var other in _arrangement.On(_arrangement[i].Board)) most = MathF.Max(most, _loss[i * _count + other]);
        }
        if (most <= 0) return;
        for (var h = _heavy.Count - 1; h >= 0; h--)
        {
            var (a, b) = _heavy[h];
            if (_loss[a * _count + b] > 0) continue;
            var lighter = MathF.Max(1, _weight[a * _count + b] * Decay);
            _weight[a * _count + b] = _weight[b * _count + a] = lighter;
            if (lighter > 1) continue;
            _heavy[h] = _heavy[^1];
            _heavy.RemoveAt(_heavy.Count - 1);
        }
        for (var i = 0; i < _count; i++)
        {
            _trespassWeight[i] = _trespass[i] > 0 ? MathF.Min(Heaviest, _trespassWeight[i] * Gain(_trespass[i])) : MathF.Max(1, _trespassWeight[i] * Decay);
            if (_sum[i] <= 0) continue;
            foreach (var other in _arrangement.On(_arrangement[i].Board))
            {
                if (other <= i || _loss[i * _count + other] is not (> 0 and var loss)) continue;
                if (_weight[i * _count + other] <= 1) _heavy.Add((i, other));
                _weight[i * _count + other] = _weight[other * _count + i] = MathF.Min(Heaviest, _weight[i * _count + other] * Gain(loss));
            }
        }

        float Gain(float loss) => LeastGain + (MostGain - LeastGain) * (loss / most);
    }

    private double Cost(int copy, Orientation orientation, int board, double x, double y, double bound)
    {
        double cost = _trespassWeight[copy] * _arrangement.Trespass(orientation, board, x, y);
        var box = orientation.Spaced.Box.Move(x, y);
        var row = copy * _count;
        foreach (var other in _arrangement.On(board))
        {
            if (cost >= bound) return cost;
            if (other == copy) continue;
            cost += _weight[row + other] * _arrangement.Overlap(orientation, box, x, y, other);
        }
        return cost;
    }

    private Sample? Search(int copy, bool fromHere)
    {
        var (kind, group) = (_arrangement.Task.Copies[copy].Kind, _arrangement.Task.Copies[copy].Group);
        var here = _arrangement[copy];
        _best.Clear();
        if (fromHere && here.Board >= 0)
        {
            var orientation = _arrangement.Orientation(copy);
            Offer(new Sample(Cost(copy, orientation, here.Board, here.X, here.Y, double.PositiveInfinity), here.Orientation, here.Board, here.X, here.Y));
            // Round about where it lies, in any orientation.
            var (w, h) = (orientation.Bounds.Width, orientation.Bounds.Height);
            var near = new Box(here.X - w / 2, here.Y - h / 2, here.X + w / 2, here.Y + h / 2);
            for (var i = 0; i < SamplesAround; i++) Try(here.Board, near);
        }
        var stay = group >= 0 && here.Board >= 0;
        for (var i = 0; i < SamplesAnywhere; i++) Try(stay ? here.Board : Somewhere(here.Board), null);
        if (_best.Count == 0) return null;
        for (var i = 0; i < _best.Count; i++) _best[i] = Walk(copy, _best[i], 0.25, 0.02);
        var best = _best.MinBy(s => s.Cost);
        return best.Cost > 0 ? Walk(copy, best, 0.01, 0.0005) : best;

        void Try(int board, Box? near)
        {
            var index = _dice.Below(kind.OrientationCount);
            if (kind.OrientationCount > 8 && near is not null && _dice.Below(2) == 0) index = here.Orientation;
            var orientation = kind[index];
            var range = _arrangement.Range(orientation, board);
            if (range.IsEmpty) return;
            if (near is { } n)
            {
                range = new Box(Math.Max(range.MinX, n.MinX), Math.Max(range.MinY, n.MinY), Math.Min(range.MaxX, n.MaxX), Math.Min(range.MaxY, n.MaxY));
                if (range.IsEmpty) return;
            }
            var (x, y) = (_dice.Between(range.MinX, range.MaxX), _dice.Between(range.MinY, range.MaxY));
            var bound = _best.Count < Walked ? double.PositiveInfinity : _best[^1].Cost;
            Offer(new Sample(Cost(copy, orientation, board, x, y, bound), index, board, x, y));
        }

        void Offer(Sample s)
        {
            var reach = 0.1 * Math.Min(kind[s.Orientation].Bounds.Width, kind[s.Orientation].Bounds.Height);
            for (var i = 0; i < _best.Count; i++)
            {
                // One of two that are nearly the same place.
                if (_best[i].Board != s.Board || _best[i].Orientation != s.Orientation || Math.Abs(_best[i].X - s.X) > reach || Math.Abs(_best[i].Y - s.Y) > reach) continue;
                if (s.Cost >= _best[i].Cost) return;
                _best.RemoveAt(i);
                break;
            }
            var at = _best.Count;
            while (at > 0 && _best[at - 1].Cost > s.Cost) at--;
            if (at >= Walked) return;
            _best.Insert(at, s);
            if (_best.Count > Walked) _best.RemoveAt(Walked);
        }
    }

    private int Somewhere(int here)
    {
        if (Open.Count == 1) return Open[0];
        // Half of the samples on its own board, so that many boards do not thin them out.
        return here >= 0 && Open.Contains(here) && _dice.Below(2) == 0 ? here : Open[_dice.Below(Open.Count)];
    }

    /// <summary>Downhill along the axes and diagonals, with steps that grow where they help and shrink where not.</summary>
    private Sample Walk(int copy, Sample from, double first, double last)
    {
        var kind = _arrangement.Task.Copies[copy].Kind;
        var orientation = kind[from.Orientation];
        var range = _arrangement.Range(orientation, from.Board);
        var size = Math.Min(orientation.Bounds.Width, orientation.Bounds.Height);
        var (stepX, stepY, end) = (first * size, first * size, last * size);
        var best = from;
        while (best.Cost > 0 && (stepX > end || stepY > end))
        {
            var way = _dice.Below(4);
            var (dx, dy) = way switch { 0 => (stepX, 0.0), 1 => (0.0, stepY), 2 => (stepX, stepY), _ => (stepX, -stepY) };
            var improved = false;
            for (var sign = 1; sign >= -1; sign -= 2)
            {
                var (x, y) = (Math.Clamp(best.X + sign * dx, range.MinX, range.MaxX), Math.Clamp(best.Y + sign * dy, range.MinY, range.MaxY));
                if (x == best.X && y == best.Y) continue;
                var cost = Cost(copy, orientation, from.Board, x, y, best.Cost);
                if (cost >= best.Cost) continue;
                best = best with { Cost = cost, X = x, Y = y };
                improved = true;
                break;
            }
            var factor = improved ? 1.1 : 0.5;
            switch (way)
            {
                case 0: stepX *= factor; break;
                case 1: stepY *= factor; break;
                default:
                    stepX *= Math.Sqrt(factor);
                    stepY *= Math.Sqrt(factor);
                    break;
            }
        }
        return best;
    }
}
