using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>
/// Scores that stop short of every cut, so that the paper does not tear there. Along a straight stretch the points closer to a
/// cut edge than the clearance form one interval, since what is that close to an edge is convex; what no interval takes, and
/// lies on paper, stays.
/// </summary>
public static class ScoreEnds
{
    /// <summary>Distance kept where nothing else is said, mm.</summary>
    public const double DefaultClearanceMm = 1;

    /// <summary>Straight scores that end farther from the clearance than this are not offered to be drawn out to it, mm.</summary>
    public const double DrawOutMm = 3.5;

    /// <summary>A score is not drawn out by less than this, mm.</summary>
    private const double LeastDrawOutMm = 0.05;

    /// <summary>What remains of a score and is shorter than this is no fold, mm.</summary>
    private const double LeastLengthMm = 0.5;

    /// <summary>Cut curves are looked at as polylines of <see cref="Flattening.DefaultTolerance"/>; that much is kept in addition.</summary>
    private const double Slack = Flattening.DefaultTolerance;

    /// <summary>
    /// The scores of a piece as they run, by line id: one path, several where an opening lies between, none where a score
    /// comes too close to a cut all along. A score that need not change is the very path that was drawn.
    /// </summary>
    /// <param name="piece">The piece; its shape is not changed.</param>
    /// <param name="clearance">Least distance from every cut, mm, 0 or more; at 0 the scores end at the edge.</param>
    public static IReadOnlyDictionary<string, ImmutableArray<Path>> Fit(Piece piece, double clearance)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(clearance);
        var scores = piece.Drawn.Where(l => l.Operation == Operation.Score).ToLookup(l => l.Id);
        if (scores.Count == 0) return ImmutableDictionary<string, ImmutableArray<Path>>.Empty;
        var edges = new CutEdges(piece, clearance + Slack);
        return scores.ToDictionary(s => s.Key, s => s.SelectMany(l => FitOne(l.Path, edges)).ToImmutableArray());
    }

    /// <summary>
    /// The straight scores of a piece that stop a little short of where they may run to, by line id, each as it would be drawn out
    /// to there. They run as they are drawn; this is what a mend offers.
    /// </summary>
    /// <param name="piece">The piece.</param>
    /// <param name="clearance">Least distance from every cut, mm, 0 or more.</param>
    public static IReadOnlyDictionary<string, Path> DrawnOut(Piece piece, double clearance)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(clearance);
        var scores = piece.Lines.Where(l => l.Operation == Operation.Score && l.Path is { IsClosed: false, Flat.Length: 2 }).ToList();
        if (scores.Count == 0) return ImmutableDictionary<string, Path>.Empty;
        var edges = new CutEdges(piece, clearance + Slack);
        var longer = new Dictionary<string, Path>();
        foreach (var score in scores)
        {
            var (a, b) = (score.Path.Flat[0], score.Path.Flat[1]);
            // Where an opening or an edge parts it already, there is no one longer line.
            if (edges.Free(a, b, DrawOutMm) is not [var (from, to)]) continue;
            (from, to) = (Math.Min(from, 0), Math.Max(to, 1));
            if ((to - from - 1) * a.DistanceTo(b) >= LeastDrawOutMm) longer[score.Id] = Path.Polyline([Point.Lerp(a, b, from), Point.Lerp(a, b, to)], closed: false);
        }
        return longer;
    }

    private static ImmutableArray<Path> FitOne(Path path, CutEdges edges)
    {
        var flat = path.Flat;
        if (flat.Length < 2) return [];
        if (path.IsClosed || flat.Length > 2) return Bent(path, edges);
        var (a, b) = (flat[0], flat[1]);
        return [.. edges.Free(a, b, drawOut: 0).Select(f => Kept(path, a, b, f))];
    }

    private static Path Kept(Path path, Point a, Point b, (double From, double To) free) => free is (0, 1)
        ? path
        : Path.Polyline([Point.Lerp(a, b, free.From), Point.Lerp(a, b, free.To)], closed: false);

    /// <summary>A score of several stretches: the free part of each, joined where the joint itself is free.</summary>
    private static ImmutableArray<Path> Bent(Path path, CutEdges edges)
    {
        var flat = path.Flat;
        var stretches = path.IsClosed ? flat.Length : flat.Length - 1;
        var runs = new List<List<Point>>();
        var untouched = true;
        for (var i = 0; i < stretches; i++)
        {
            var (a, b) = (flat[i], flat[(i + 1) % flat.Length]);
            var free = edges.Free(a, b, drawOut: 0, keepShort: true);
            untouched &= free is [(0, 1)];
            foreach (var (from, to) in free)
            {
                var (p, q) = (Point.Lerp(a, b, from), Point.Lerp(a, b, to));
                if (from == 0 && runs.Count > 0 && runs[^1][^1] == a) runs[^1].Add(q);
                else runs.Add([p, q]);
            }
        }
        if (untouched) return [path];
        if (path.IsClosed && runs.Count > 1 && runs[^1][^1] == runs[0][0])
        {
            runs[0] = [.. runs[^1], .. runs[0].Skip(1)];
            runs.RemoveAt(runs.Count - 1);
        }
        return [.. runs.Select(r => Path.Polyline(r, closed: false)).Where(p => p.Length >= LeastLengthMm)];
    }

    /// <summary>The cut edges of a piece, asked for what of a stretch keeps its distance from them all and lies on paper.</summary>
    private sealed class CutEdges
    {
        private readonly double _distance;
        private readonly List<(Point A, Point B)> _edges = [];
        private readonly BoxTree _tree;
        private readonly Paper _paper;

        public CutEdges(Piece piece, double distance)
        {
            _distance = distance;
            foreach (var line in piece.Drawn)
            {
                // A line that is not cut is no edge that tears; the outline always is one.
                if (!LawOfPaper.EndsScores(line, piece.RoleOf(line) == LineRole.Outline)) continue;
                var flat = line.Path.Flat;
                for (var i = 1; i < flat.Length; i++) _edges.Add((flat[i - 1], flat[i]));
                if (line.Path.IsClosed && flat.Length > 1) _edges.Add((flat[^1], flat[0]));
            }
            _tree = new BoxTree([.. _edges.Select(e => Box.Empty.Include(e.A).Include(e.B))]);
            _paper = piece.Paper;
        }

        /// <summary>The free parts of a stretch as shares of it; below 0 and above 1 where it was drawn out.</summary>
        public List<(double From, double To)> Free(Point a, Point b, double drawOut, bool keepShort = false)
        {
            var length = a.DistanceTo(b);
            if (length == 0) return [];
            var more = drawOut / length;
            var (low, high) = (-more, 1 + more);
            var reach = Box.Empty.Include(Point.Lerp(a, b, low)).Include(Point.Lerp(a, b, high)).Grow(_distance);
            var taken = _tree.Meeting(reach).Select(i => Near(a, b, _edges[i])).OfType<(double From, double To)>().OrderBy(t => t.From).ToList();
            var free = new List<(double From, double To)>();
            var at = low;
            foreach (var (from, to) in taken)
            {
                if (from > at) free.Add((at, Math.Min(from, high)));
                at = Math.Max(at, to);
                if (at >= high) break;
            }
            if (at < high) free.Add((at, high));
            return
            [
                .. free
                    // Drawn out only where an edge ends it: a score that ends in mid paper stays as it is.
                    .Select(f => (From: f.From == low ? Math.Max(f.From, 0) : f.From, To: f.To == high ? Math.Min(f.To, 1) : f.To))
                    .Where(f => f.To > f.From && f.To > 0 && f.From < 1)
                    .Where(f => keepShort || (f.To - f.From) * length >= LeastLengthMm)
                    .Where(f => _paper.Holds(Point.Lerp(a, b, (f.From + f.To) / 2))),
            ];
        }

        /// <summary>The shares of the line through a and b that are closer to an edge than the distance; null where none are.</summary>
        private (double From, double To)? Near(Point a, Point b, (Point A, Point B) edge)
        {
            var (from, to) = (double.PositiveInfinity, double.NegativeInfinity);
            void Take(double t)
            {
                from = Math.Min(from, t);
                to = Math.Max(to, t);
            }
            var along = b - a;
            var square = along.Dot(along);
            // The round ends.
            foreach (var end in new[] { edge.A, edge.B })
            {
                var middle = (end - a).Dot(along) / square;
                var off = end.DistanceTo(Point.Lerp(a, b, middle));
                if (off >= _distance) continue;
                var half = Math.Sqrt((_distance * _distance - off * off) / square);
                Take(middle - half);
                Take(middle + half);
            }
            // The straight sides: the edge moved by the distance either way.
            var side = edge.B - edge.A;
            var length = side.Length;
            if (length > 0)
            {
                var normal = new Point(-side.Y, side.X) * (_distance / length);
                foreach (var shift in new[] { normal, normal * -1 })
                {
                    var cross = along.Cross(side);
                    if (Math.Abs(cross) < 1e-12 * Math.Sqrt(square) * length) continue;
                    var rest = edge.A + shift - a;
                    var (t, u) = (rest.Cross(side) / cross, rest.Cross(along) / cross);
                    if (u is >= 0 and <= 1) Take(t);
                }
            }
            return to > from ? (from, to) : null;
        }
    }
}
