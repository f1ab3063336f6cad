using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>
/// Points along the cuts of a piece with the direction into the material, and a grid over them.
/// </summary>
internal sealed class BoundarySamples
{
    private const int MostCells = 4_000_000;

    /// <summary>A sample takes some 150 bytes.</summary>
    private const int MostSamples = 2_000_000;

    /// <summary>Steps that a sample takes before it is asked anything.</summary>
    private const int WorkOfSample = 30;

    /// <summary>Corners nearer to each other than this are one, mm.</summary>
    private const double Crumb = 0.002;

    private readonly Box _box;
    private readonly double _cell;
    private readonly int _columns;
    private readonly int _rows;

    /// <summary>Where the samples of each cell begin in <see cref="_inCells"/>, and one past the last.</summary>
    private readonly int[] _cellStarts;
    private readonly int[] _inCells;

    /// <summary>Largest distance between two samples of a straight edge, mm.</summary>
    public double Step { get; }

    /// <summary>Where each sample lies.</summary>
    public Point[] At { get; }

    /// <summary>Unit direction into the material.</summary>
    public Point[] Inward { get; }

    /// <summary>Which ring it is on; cuts that do not close come after the rings.</summary>
    public int[] Ring { get; }

    /// <summary>The stretch of the cut that it stands for.</summary>
    public (Point A, Point B)[] Edge { get; }

    /// <summary>Length along the ring from its first sample, mm.</summary>
    public double[] Along { get; }

    /// <summary>Index of the first sample of each ring, and one past the last ring's last.</summary>
    public int[] Starts { get; }

    /// <summary>Looked at from the air.</summary>
    public bool IsAir { get; }

    public int Count => At.Length;

    /// <summary>The sample after (1) or before (-1) one on its ring, round and round.</summary>
    public int Beside(int sample, int way)
    {
        var (from, to) = (Starts[Ring[sample]], Starts[Ring[sample] + 1]);
        var next = sample + way;
        return next < from ? to - 1 : next >= to ? from : next;
    }

    /// <summary>Samples the rings.</summary>
    /// <param name="rings">Flat rings; even-odd tells which side is material.</param>
    /// <param name="slits">Cuts that do not close: material on both sides. Not looked at from the air.</param>
    /// <param name="step">Largest distance between two samples, mm.</param>
    /// <param name="reach">Nearest points are asked for within about this distance, mm.</param>
    /// <param name="fromAir">Seen from the air instead: "into the material" is away from it.</param>
    /// <param name="budget">What the work is drawn from.</param>
    /// <exception cref="BudgetSpent">There are more samples than can be worked with.</exception>
    public BoundarySamples(IReadOnlyList<Point[]> rings, IReadOnlyList<Point[]> slits, double step, double reach, bool fromAir, Budget budget)
    {
        var expected = rings.Concat(slits).Sum(r => LengthOf(r) / step + r.Length);
        if (expected > MostSamples) throw new BudgetSpent(BudgetPart.Points, MostSamples);
        budget.Work((long)(WorkOfSample * expected));
        (Step, IsAir) = (step, fromAir);
        var taken = new Taken();
        var region = new RegionIndex([.. rings]);
        foreach (var ring in rings)
        {
            taken.Ring(WithoutCrumbs(ring), SideOfMaterial(ring, region) * (fromAir ? -1 : 1), step);
        }
        foreach (var slit in fromAir ? [] : slits)
        {
            // There and back: the material lies on the same hand both times.
            taken.Ring(WithoutCrumbs([.. slit, .. slit.Reverse().Skip(1).SkipLast(1)]), 1, step);
        }
        (At, Inward, Ring, Edge, Along, Starts) = ([.. taken.At], [.. taken.Inward], [.. taken.Of], [.. taken.Edge], [.. taken.Along], [.. taken.Starts]);
        _box = Box.Around(At);
        _cell = Math.Max(Math.Max(step, reach / 3), Math.Sqrt(_box.Area / MostCells));
        (_columns, _rows) = ((int)(_box.Width / _cell) + 1, (int)(_box.Height / _cell) + 1);
        _cellStarts = new int[_columns * _rows + 1];
        foreach (var p in At) _cellStarts[Cell(p) + 1]++;
        for (var i = 1; i < _cellStarts.Length; i++) _cellStarts[i] += _cellStarts[i - 1];
        var filled = _cellStarts[..^1];
        _inCells = new int[At.Length];
        for (var i = 0; i < At.Length; i++) _inCells[filled[Cell(At[i])]++] = i;
    }

    /// <summary>Length of a flat ring or line, mm.</summary>
    internal static double LengthOf(Point[] line)
    {
        double length = 0;
        for (var i = 1; i < line.Length; i++) length += line[i].DistanceTo(line[i - 1]);
        return length;
    }

    private int Cell(Point p) => Column(p.X) + Row(p.Y) * _columns;
    private int Column(double x) => Math.Clamp((int)((x - _box.MinX) / _cell), 0, _columns - 1);
    private int Row(double y) => Math.Clamp((int)((y - _box.MinY) / _cell), 0, _rows - 1);

    /// <summary>Which way round a ring has material on the side that y is from x: seen at its longest edge, just off it.</summary>
    private static double SideOfMaterial(Point[] ring, RegionIndex region)
    {
        var best = 0;
        double longest = 0;
        for (var i = 0; i < ring.Length; i++)
        {
            var length = ring[i].DistanceTo(ring[(i + 1) % ring.Length]);
            if (length > longest) (best, longest) = (i, length);
        }
        var (a, b) = (ring[best], ring[(best + 1) % ring.Length]);
        var off = new Point(-(b - a).Y, (b - a).X) * (Math.Min(1e-4, longest / 100) / Math.Max(longest, 1e-12));
        return region.Contains(Point.Lerp(a, b, 0.5) + off) ? 1 : -1;
    }

    /// <summary>The corners without those that lie all but on the one before: crumbs of rounding, with directions of their own.</summary>
    private static List<Point> WithoutCrumbs(Point[] ring)
    {
        var kept = new List<Point>(ring.Length);
        foreach (var p in ring)
        {
            if (kept.Count == 0 || p.DistanceTo(kept[^1]) >= Crumb) kept.Add(p);
        }
        while (kept.Count > 1 && kept[^1].DistanceTo(kept[0]) < Crumb) kept.RemoveAt(kept.Count - 1);
        return kept;
    }

    /// <summary>Samples as they are gathered.</summary>
    private sealed class Taken
    {
        private const double FanStep = 15 * Math.PI / 180;

        public List<Point> At { get; } = [];
        public List<Point> Inward { get; } = [];
        public List<int> Of { get; } = [];
        public List<(Point A, Point B)> Edge { get; } = [];
        public List<double> Along { get; } = [];
        public List<int> Starts { get; } = [0];

        public void Ring(List<Point> corners, double side, double step)
        {
            double along = 0;
            for (var i = 0; i < corners.Count && corners.Count > 1; i++)
            {
                var (a, b, c) = (corners[i], corners[(i + 1) % corners.Count], corners[(i + 2) % corners.Count]);
                var (inward, next) = (Normal(a, b) * side, Normal(b, c) * side);
                var length = a.DistanceTo(b);
                var count = Math.Max(1, (int)Math.Ceiling(length / step));
                for (var k = 0; k < count; k++)
                {
                    var share = (k + 0.5) / count;
                    Add(Point.Lerp(a, b, share), inward, (Point.Lerp(a, b, (double)k / count), Point.Lerp(a, b, (k + 1.0) / count)), along + length * share);
                }
                along += length;
                foreach (var between in Fan(inward, next, side)) Add(b, between, (b, b), along);
            }
            Starts.Add(At.Count);
        }

        private void Add(Point at, Point inward, (Point, Point) edge, double along)
        {
            At.Add(at);
            Inward.Add(inward);
            Of.Add(Starts.Count - 1);
            Edge.Add(edge);
            Along.Add(along);
        }

        private static Point Normal(Point a, Point b) => new Point(-(b - a).Y, (b - a).X) * (1 / a.DistanceTo(b));

        /// <summary>
        /// At a corner that juts into the material: the directions between those of its edges, since a ball may touch the corner
        /// itself, as where two discs just overlap. A turn right back is the end of a slit, which juts in too.
        /// </summary>
        private static IEnumerable<Point> Fan(Point from, Point to, double side)
        {
            var turn = Math.Atan2(from.Cross(to), from.Dot(to));
            if (Math.Abs(turn) > Math.PI - 1e-6) turn = -side * Math.Abs(turn);
            if (turn * side > 0) yield break;
            var count = (int)Math.Ceiling(Math.Abs(turn) / FanStep) - 1;
            for (var k = 1; k <= count; k++)
            {
                var (sin, cos) = Math.SinCos(turn * k / (count + 1));
                yield return new Point(from.X * cos - from.Y * sin, from.X * sin + from.Y * cos);
            }
        }
    }

    /// <summary>Edges whose directions into the material point away from each other by at least this (as a dot product) face each other.</summary>
    private const double Facing = -0.17;

    /// <summary>The point nearest to a place on an edge that faces a sample's edge, within a distance; null where none is.</summary>
    /// <param name="p">The place.</param>
    /// <param name="within">The distance, mm.</param>
    /// <param name="sample">The sample.</param>
    /// <param name="visited">Raised by the samples that were looked at.</param>
    public (int Sample, Point Point, double Distance)? NearestFacing(Point p, double within, int sample, ref long visited)
    {
        (int, Point, double)? best = null;
        var least = within;
        var reach = within + Step / 2;
        var inward = Inward[sample];
        var (x0, x1, y0, y1) = (Column(p.X - reach), Column(p.X + reach), Row(p.Y - reach), Row(p.Y + reach));
        for (var y = y0; y <= y1; y++)
        {
            // The cells of a row lie one after the other.
            var (from, to) = (_cellStarts[y * _columns + x0], _cellStarts[y * _columns + x1 + 1]);
            visited += to - from + 1;
            for (var k = from; k < to; k++)
            {
                var i = _inCells[k];
                var away = least + Step / 2;
                var (dx, dy) = (At[i].X - p.X, At[i].Y - p.Y);
                if (dx * dx + dy * dy >= away * away || Inward[i].Dot(inward) > Facing) continue;
                var q = OnEdge(p, Edge[i]);
                var distance = p.DistanceTo(q);
                if (distance < least) (best, least) = ((i, q, distance), distance);
            }
        }
        return best;
    }

    /// <summary>Some cut passes nearer to a place than a distance.</summary>
    public bool HasEdgeWithin(Point p, double distance)
    {
        var reach = distance + Step / 2;
        var (x0, x1, y0, y1) = (Column(p.X - reach), Column(p.X + reach), Row(p.Y - reach), Row(p.Y + reach));
        for (var y = y0; y <= y1; y++)
        {
            for (var k = _cellStarts[y * _columns + x0]; k < _cellStarts[y * _columns + x1 + 1]; k++)
            {
                if (p.DistanceTo(OnEdge(p, Edge[_inCells[k]])) < distance) return true;
            }
        }
        return false;
    }

    private static Point OnEdge(Point p, (Point A, Point B) edge)
    {
        var along = edge.B - edge.A;
        if (along == default) return edge.A;
        var t = Math.Clamp((p - edge.A).Dot(along) / along.Dot(along), 0, 1);
        return Point.Lerp(edge.A, edge.B, t);
    }
}
