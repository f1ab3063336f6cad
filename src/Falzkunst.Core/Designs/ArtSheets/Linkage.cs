using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.ArtSheets;

/// <summary>
/// How the lines of a drawing hang together: a minimum spanning forest of their distances, so that cutting it at a distance gives the
/// clusters of single linkage (Gower and Ross 1969). The distance at which a sheet is cut is where the sorted edges of the forest
/// jump most: gaps within motifs lie below the jump, gaps between motifs above it.
/// </summary>
public sealed class Linkage
{
    /// <summary>Neighbours of a line whose distance is measured; a line among more than that many is joined to one of them.</summary>
    private const int Neighbours = 8;

    /// <summary>Pairs of edges that are measured, well under a second; what is left is told by boxes.</summary>
    private const long MostWork = 20_000_000;

    /// <summary>Distances below this share of the sheet's diagonal are all the same: touching, or drawn to touch.</summary>
    private const double FloorShare = 0.004;
    private const double LeastFloorMm = 0.25;

    /// <summary>A jump of less than this says nothing.</summary>
    private const double LeastJump = 1.6;

    /// <summary>Each level nearer or farther changes the distance by this.</summary>
    private const double LevelFactor = 1.5;

    /// <summary>A line around more than this share of the sheet is a frame; what lies in it is not one with it.</summary>
    private const double FrameShare = 0.4;

    private readonly List<ArtPath> _paths = [];
    private readonly List<Box> _boxes = [];
    private readonly Dictionary<ArtPath, int> _numberOf = [];
    private readonly List<(double Length, int A, int B)> _forest;
    private readonly double _distance;

    /// <param name="drawing">The drawing.</param>
    public Linkage(Drawing drawing)
    {
        Drawing = drawing;
        var within = new List<System.Collections.Immutable.ImmutableArray<int>>();
        for (var s = 0; s < drawing.Shapes.Length; s++)
        {
            for (var p = 0; p < drawing.Shapes[s].Paths.Length; p++)
            {
                _numberOf[new ArtPath(s, p)] = _paths.Count;
                _paths.Add(new ArtPath(s, p));
                _boxes.Add(drawing.Shapes[s].Paths[p].Bounds);
                within.Add(drawing.Shapes[s].Within);
            }
        }
        var groups = _paths.Count == 0 ? [] : GroupLevel.Find(within, _boxes);
        HasGroups = groups.Count > 0;
        _forest = Forest(groups);
        _distance = HasGroups ? Floor : AtLargestJump();
    }

    public Drawing Drawing { get; }

    /// <summary>The file's own groups say what its motifs are.</summary>
    public bool HasGroups { get; }

    /// <summary>The box of a line.</summary>
    public Box BoxOf(ArtPath path) => _boxes[_numberOf[path]];

    /// <summary>The lines that hang together at a level: 0 where the sheet suggests it.</summary>
    public List<List<ArtPath>> Clusters(int level)
    {
        var distance = _distance * Math.Pow(LevelFactor, level);
        var sets = new DisjointSets(_paths.Count);
        foreach (var (length, a, b) in _forest)
        {
            if (length <= distance) sets.Join(a, b);
        }
        return [.. Enumerable.Range(0, _paths.Count).GroupBy(sets.Find).Select(g => g.Select(i => _paths[i]).ToList())];
    }

    /// <summary>A cluster in the two or more parts that its longest distance holds together; itself where it is one line.</summary>
    public List<List<ArtPath>> Part(IReadOnlyCollection<ArtPath> cluster)
    {
        var own = cluster.Select(p => _numberOf[p]).ToHashSet();
        var edges = _forest.Where(e => own.Contains(e.A) && own.Contains(e.B)).ToList();
        // What a hand joined may hang together by nothing: then it falls into what it was made of.
        var isWhole = edges.Count == own.Count - 1;
        var longest = isWhole && edges.Count > 0 ? edges.Max(e => e.Length) : double.PositiveInfinity;
        var sets = new DisjointSets(_paths.Count);
        foreach (var (length, a, b) in edges)
        {
            if (length < longest) sets.Join(a, b);
        }
        return [.. own.Order().GroupBy(sets.Find).Select(g => g.Select(i => _paths[i]).ToList())];
    }

    private double Floor
    {
        get
        {
            var all = _boxes.Aggregate(Box.Empty, (all, b) => all.Include(b));
            return all.IsEmpty ? LeastFloorMm : Math.Max(LeastFloorMm, FloorShare * new Point(all.Width, all.Height).Length);
        }
    }

    /// <summary>The distance in the middle of the largest jump from one edge of the forest to the next longer one.</summary>
    private double AtLargestJump()
    {
        var floor = Floor;
        var lengths = _forest.Select(e => Math.Max(e.Length, floor)).Where(double.IsFinite).Order().ToList();
        var (best, distance) = (LeastJump, floor);
        var before = floor;
        foreach (var length in lengths)
        {
            if (length / before > best) (best, distance) = (length / before, Math.Sqrt(length * before));
            before = length;
        }
        return distance;
    }

    /// <summary>Kruskal's algorithm over the nearest neighbours of each line; lines of one group are at distance 0.</summary>
    private List<(double Length, int A, int B)> Forest(List<List<int>> groups)
    {
        var count = _paths.Count;
        var edges = new List<(double Length, int A, int B)>();
        foreach (var group in groups)
        {
            for (var i = 1; i < group.Count; i++) edges.Add((0, group[0], group[i]));
        }
        edges.AddRange(Measured());
        var sets = new DisjointSets(count);
        var forest = new List<(double, int, int)>();
        foreach (var edge in edges.OrderBy(e => e.Length))
        {
            if (sets.AreOne(edge.A, edge.B)) continue;
            sets.Join(edge.A, edge.B);
            forest.Add(edge);
        }
        return forest;
    }

    private IEnumerable<(double Length, int A, int B)> Measured()
    {
        var budget = Budget.OfWork(MostWork);
        var near = new PathNearness?[_paths.Count];
        var all = _boxes.Aggregate(Box.Empty, (all, b) => all.Include(b));
        var tree = new BoxTree(_boxes);
        var isSpent = false;
        foreach (var (a, b, apart) in Pairs(tree, all))
        {
            if (!isSpent && Holds(a, b, all)) yield return (0, a, b);
            else yield return (isSpent ? apart : Exact(a, b), a, b);
        }

        double Exact(int a, int b)
        {
            try
            {
                var most = Far(_boxes[a], _boxes[b]);
                return (near[a] ??= new PathNearness(PathOf(a))).DistanceTo(PathOf(b), most, budget);
            }
            catch (BudgetSpent)
            {
                isSpent = true;
                return Apart(_boxes[a], _boxes[b]);
            }
        }
    }

    /// <summary>Each line with those whose boxes are nearest to its own.</summary>
    private IEnumerable<(int A, int B, double Apart)> Pairs(BoxTree tree, Box all)
    {
        var seen = new HashSet<(int, int)>();
        var start = Math.Max(LeastFloorMm, Math.Sqrt(Math.Max(all.Area, 1e-6) / Math.Max(1, _boxes.Count)) / 2);
        var diagonal = new Point(all.Width, all.Height).Length;
        for (var i = 0; i < _boxes.Count; i++)
        {
            // Of many that lie over it any do: they are all as near as can be, and thousands of them would be n² pairs to look at.
            var over = tree.Meeting(_boxes[i], Neighbours + 1);
            if (over.Count > Neighbours)
            {
                foreach (var k in over.Where(k => k != i).Take(Neighbours))
                {
                    if (seen.Add((Math.Min(i, k), Math.Max(i, k)))) yield return (i, k, 0);
                }
                continue;
            }
            for (var reach = start; ; reach *= 2)
            {
                var found = tree.Meeting(_boxes[i].Grow(reach)).Where(k => k != i).ToList();
                if (found.Count < Neighbours && found.Count < _boxes.Count - 1 && reach < diagonal) continue;
                var nearest = found.Select(k => (Apart: Apart(_boxes[i], _boxes[k]), Of: k)).ToArray();
                if (nearest.Length > Neighbours) Array.Sort(nearest);
                foreach (var (apart, k) in nearest.Take(Neighbours))
                {
                    if (seen.Add((Math.Min(i, k), Math.Max(i, k)))) yield return (i, k, apart);
                }
                break;
            }
        }
    }

    /// <summary>One closed line lies around the other, such as a face around its eyes, and is no frame of the sheet.</summary>
    private bool Holds(int a, int b, Box all)
    {
        return One(a, b) || One(b, a);

        bool One(int outer, int inner)
        {
            var path = PathOf(outer);
            return path.IsClosed && _boxes[outer].Contains(_boxes[inner], 0) && (_boxes[outer].Area <= FrameShare * all.Area || _paths.Count <= 3)
                && Polygons.Contains(path.Flat, PathOf(inner).Start);
        }
    }

    private Path PathOf(int number) => Drawing.Shapes[_paths[number].Shape].Paths[_paths[number].Path];

    private static double Apart(Box a, Box b) => new Point(
        Math.Max(0, Math.Max(a.MinX - b.MaxX, b.MinX - a.MaxX)), Math.Max(0, Math.Max(a.MinY - b.MaxY, b.MinY - a.MaxY))).Length;

    /// <summary>No two points of what the boxes hold are farther from each other.</summary>
    private static double Far(Box a, Box b) => a.Include(b) is var both ? new Point(both.Width, both.Height).Length : 0;
}
