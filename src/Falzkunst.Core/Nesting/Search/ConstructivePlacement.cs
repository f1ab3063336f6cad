namespace Falzkunst.Core.Nesting.Search;

/// <summary>
/// The first answer: large copies first, each on the first board with room, as far down and left as samples that slide until
/// they touch can bring it. It leaves no overlap.
/// </summary>
internal sealed class ConstructivePlacement(Arrangement arrangement, Dice dice)
{
    private const int FewSamples = 90;
    private const int ManySamples = 500;

    /// <summary>How far the size by which copies are put in order is changed by chance, in parts of it.</summary>
    private const double OrderNoise = 0.35;

    /// <summary>Slides end with steps shorter than this, mm.</summary>
    private const double LeastStep = 0.02;

    /// <summary>How much a place farther right counts against one farther down.</summary>
    private const double Sideways = 0.02;

    /// <summary>Kinds that found no room on a board; boards only become fuller.</summary>
    private readonly HashSet<(int Kind, int Board)> _full = [];

    private int _samples = FewSamples;

    /// <summary>Places all copies that lie nowhere, and returns those that find no board.</summary>
    /// <param name="isOver">Asked before each copy; what is left then lies nowhere.</param>
    /// <param name="isThorough">With more samples, in an order that is only about that of size.</param>
    public List<int> PlaceAll(Func<bool> isOver, bool isThorough = false)
    {
        _full.Clear();
        _samples = isThorough ? ManySamples : FewSamples;
        var sizes = arrangement.Task.Kinds.Select(k => Size(k) * (isThorough ? dice.Between(1 - OrderNoise, 1 + OrderNoise) : 1)).ToArray();
        var left = new List<int>();
        var waiting = Enumerable.Range(0, arrangement.Task.Copies.Length).Where(i => arrangement[i].Board < 0)
            .OrderByDescending(i => sizes[arrangement.Task.Copies[i].Kind.Index]).ThenBy(i => i).ToList();
        var grouped = new HashSet<int>();
        foreach (var copy in waiting)
        {
            if (isOver())
            {
                left.Add(copy);
                continue;
            }
            var group = arrangement.Task.Copies[copy].Group;
            if (group < 0)
            {
                if (!Place(copy, Boards())) left.Add(copy);
            }
            else if (grouped.Add(group))
            {
                left.AddRange(PlaceGroup([.. waiting.Where(i => arrangement.Task.Copies[i].Group == group)], group));
            }
        }
        return left;
    }

    /// <summary>Lets what lies on a board slide up and left where it can, the uppermost first.</summary>
    public void SlideUp(int board)
    {
        foreach (var copy in arrangement.Listed(board).Where(i => !arrangement.IsFixed(i)).OrderBy(arrangement.Bottom).ToList())
        {
            var (orientation, pose) = (arrangement.Orientation(copy), arrangement[copy]);
            var range = arrangement.Range(orientation, board);
            var (x, y) = Slide(copy, orientation, board, pose.X, pose.Y, range.MinX, range.MinY);
            arrangement.Put(copy, pose with { X = x, Y = y });
        }
    }

    private static double Size(PieceKind kind) => kind.HullArea * kind.Reach;

    /// <summary>Boards in the order of the task: those that are used, then the next empty one of each kind.</summary>
    private IEnumerable<int> Boards()
    {
        var begun = new HashSet<Board>();
        for (var b = 0; b < arrangement.Task.Boards.Length; b++)
        {
            if (arrangement.On(b).Length > 0 || begun.Add(arrangement.Task.Boards[b].Kind)) yield return b;
        }
    }

    private List<int> PlaceGroup(List<int> copies, int group)
    {
        // Where one of them is pinned, the others follow.
        var pinned = Enumerable.Range(0, arrangement.Task.Copies.Length).Where(i => arrangement.Task.Copies[i].Group == group && arrangement.IsFixed(i)).Select(i => arrangement[i].Board).Distinct().ToList();
        foreach (var board in pinned.Count > 0 ? pinned.Take(1) : Boards().ToList())
        {
            if (copies.All(c => Place(c, [board]))) return [];
            foreach (var c in copies) arrangement.Put(c, Pose.Nowhere);
            // What was full with the group may have room without it.
            _full.Clear();
        }
        return copies;
    }

    private bool Place(int copy, IEnumerable<int> boards)
    {
        var kind = arrangement.Task.Copies[copy].Kind;
        foreach (var board in boards)
        {
            if (_full.Contains((kind.Index, board))) continue;
            if (Lowest(copy, kind, board) is { } pose)
            {
                arrangement.Put(copy, pose);
                return true;
            }
            _full.Add((kind.Index, board));
        }
        return false;
    }

    private Pose? Lowest(int copy, PieceKind kind, int board)
    {
        if (arrangement.Area(board) + kind.Area > arrangement.Task.Boards[board].Room) return null;
        Pose? best = null;
        var bestCost = double.PositiveInfinity;
        var orientations = kind.OrientationCount;
        for (var i = 0; i < _samples; i++)
        {
            var index = i < orientations && orientations <= 8 ? i : dice.Below(orientations);
            var orientation = kind[index];
            var range = arrangement.Range(orientation, board);
            if (range.IsEmpty) continue;
            // Only where it would be better than the best so far; first of all the upper left corner.
            var lowest = Math.Min(range.MaxY, bestCost - orientation.Bounds.MaxY);
            if (lowest < range.MinY) continue;
            var (x, y) = i < orientations && orientations <= 8 ? (range.MinX, range.MinY) : (dice.Between(range.MinX, range.MaxX), dice.Between(range.MinY, lowest));
            if (!arrangement.IsFree(copy, orientation, board, x, y)) continue;
            (x, y) = Slide(copy, orientation, board, x, y, range.MinX, range.MinY);
            var cost = y + orientation.Bounds.MaxY + Sideways * x;
            if (cost >= bestCost) continue;
            (bestCost, best) = (cost, new Pose(board, index, x, y));
        }
        return best ?? (orientations <= 8 ? InCorner(copy, kind, board) : null);
    }

    /// <summary>A place in a corner: the last one on a board that is filled to the edge is a point, which no throw of dice hits.</summary>
    private Pose? InCorner(int copy, PieceKind kind, int board)
    {
        for (var index = 0; index < kind.OrientationCount; index++)
        {
            var range = arrangement.Range(kind[index], board);
            if (range.IsEmpty) continue;
            foreach (var (x, y) in new[] { (range.MaxX, range.MinY), (range.MinX, range.MaxY), (range.MaxX, range.MaxY) })
            {
                if (arrangement.IsFree(copy, kind[index], board, x, y)) return new Pose(board, index, x, y);
            }
        }
        return null;
    }

    /// <summary>Up as far as it goes, then left, and again until nothing gives.</summary>
    private (double X, double Y) Slide(int copy, Orientation orientation, int board, double x, double y, double leftmost, double topmost)
    {
        for (var turn = 0; turn < 6; turn++)
        {
            var (wasX, wasY) = (x, y);
            y = Along(y, topmost, to => arrangement.IsFree(copy, orientation, board, x, to));
            x = Along(x, leftmost, to => arrangement.IsFree(copy, orientation, board, to, y));
            if (wasX - x < LeastStep && wasY - y < LeastStep) break;
        }
        return (x, y);
    }

    private static double Along(double from, double end, Func<double, bool> isFree)
    {
        for (var step = (from - end) / 2; step >= LeastStep; step /= 2)
        {
            // A slide may pass over what lies in its way: only the place counts, not the way to it.
            while (from - step >= end && isFree(from - step)) from -= step;
        }
        return from > end && isFree(end) ? end : from;
    }
}
