using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// Turns the rings of a region that grew out of some paths back into paths: where a ring still runs along the corners of an old
/// path, that path's own segments are taken over to the last bit; curves are fitted to what is new.
/// </summary>
internal sealed class Stitching
{
    /// <summary>A new stretch that keeps within this share of the tolerance of the old line is the old line.</summary>
    private const double Unchanged = 0.5;

    /// <summary>Ends nearer than this are one point, mm; overlays leave such steps.</summary>
    private const double NoLength = 1e-6;

    /// <summary>How many old corners are looked over for a stretch that has not really changed.</summary>
    private const int MostSkipped = 64;

    private readonly Path[] _paths;
    private readonly (Point[] Points, PathPlace[] Places)[] _traced;
    private readonly Dictionary<Point, (int Path, int Corner)> _corners = [];
    private readonly double _tolerance;
    private readonly double _window;

    /// <summary>Gets ready to stitch.</summary>
    /// <param name="paths">The old closed paths.</param>
    /// <param name="flatness">How near their corners lie to them, mm.</param>
    /// <param name="tolerance">How near fitted curves lie to what they are fitted to, mm.</param>
    /// <param name="window">Length over which a turn is judged to be a corner, mm.</param>
    public Stitching(IEnumerable<Path> paths, double flatness, double tolerance, double window)
    {
        _paths = [.. paths];
        (_tolerance, _window) = (tolerance, window);
        _traced = [.. _paths.Select(p => Flattening.Trace(PathNodes.WrittenOut(p), flatness))];
        for (var i = 0; i < _traced.Length; i++)
        {
            for (var k = 0; k < _traced[i].Points.Length; k++) _corners.TryAdd(_traced[i].Points[k], (i, k));
        }
    }

    /// <summary>The corners of the old paths; regions that are stitched are made of these.</summary>
    public IReadOnlyList<Point[]> Rings => [.. _traced.Select(t => t.Points)];

    /// <summary>A ring as a path, and the old path that most of its corners come from; -1 for none.</summary>
    public (Path Path, int From) Ring(Point[] ring)
    {
        var marks = Array.ConvertAll(ring, p => _corners.TryGetValue(p, out var at) ? at : (Path: -1, Corner: -1));
        var from = marks.Where(m => m.Path >= 0).GroupBy(m => m.Path).MaxBy(g => g.Count())?.Key ?? -1;
        if (Enumerable.Range(0, ring.Length).Sum(i => Step(marks[i], marks[(i + 1) % ring.Length])) < 0)
        {
            Array.Reverse(marks);
            ring = [.. ring.Reverse()];
        }
        bool IsLink(int i) => Step(marks[i % ring.Length], marks[(i + 1) % ring.Length]) == 1;
        var first = Enumerable.Range(0, ring.Length).FirstOrDefault(i => !IsLink(i), -1);
        if (first < 0) return (_paths[from], from);
        var runs = Runs(ring, marks, IsLink, first);
        if (runs.Count == 0) return (CurveFit.Closed(ring, _tolerance, _window), from);
        var whole = Joined(runs);
        return whole is { } old ? (_paths[old], old) : (Stitched(runs), from);
    }

    /// <summary>1 where the second corner follows the first on one old path, -1 where it comes before it, else 0.</summary>
    private int Step((int Path, int Corner) a, (int Path, int Corner) b)
    {
        if (a.Path < 0 || a.Path != b.Path) return 0;
        var count = _traced[a.Path].Points.Length;
        return b.Corner == (a.Corner + 1) % count ? 1 : a.Corner == (b.Corner + 1) % count ? -1 : 0;
    }

    /// <summary>A stretch of an old path, and the new points that follow it up to the next one.</summary>
    private sealed class Run
    {
        public required int Path;
        public required int First;
        public required int Last;
        public PathPlace From;
        public PathPlace To;
        public List<Point> After = [];
    }

    /// <summary>The old stretches round a ring, reaching up to where the new ones leave the old edges.</summary>
    private List<Run> Runs(Point[] ring, (int Path, int Corner)[] marks, Func<int, bool> isLink, int breakAt)
    {
        var runs = new List<Run>();
        var before = new List<Point>();
        Run? run = null;
        for (var n = 1; n <= ring.Length; n++)
        {
            var i = (breakAt + n) % ring.Length;
            if (run is not null && isLink((i + ring.Length - 1) % ring.Length) && n > 1)
            {
                run.Last = marks[i].Corner;
                continue;
            }
            var startsRun = n < ring.Length && isLink(i);
            if (startsRun)
            {
                run = new Run { Path = marks[i].Path, First = marks[i].Corner, Last = marks[i].Corner };
                runs.Add(run);
            }
            else
            {
                run = null;
                (runs.Count == 0 ? before : runs[^1].After).Add(ring[i]);
            }
        }
        if (runs.Count > 0) runs[^1].After.AddRange(before);
        for (var r = 0; r < runs.Count; r++) Extend(runs[r], runs[(r + runs.Count - 1) % runs.Count]);
        return runs;
    }

    /// <summary>Sets the places of a run's ends: on the old edges past its corners where the new points begin on those.</summary>
    private void Extend(Run run, Run previous)
    {
        var (points, places) = _traced[run.Path];
        (run.From, run.To) = (places[run.First], places[run.Last]);
        if (previous.After.Count > 0 && OnEdge(run.Path, (run.First + points.Length - 1) % points.Length, previous.After[^1]) is { } earlier)
        {
            run.From = earlier;
            previous.After.RemoveAt(previous.After.Count - 1);
        }
        if (run.After.Count > 0 && OnEdge(run.Path, run.Last, run.After[0]) is { } later)
        {
            run.To = later;
            run.After.RemoveAt(0);
        }
    }

    /// <summary>The place on the path of a point on the edge after a corner; null where it is not on that edge, or at its ends.</summary>
    private PathPlace? OnEdge(int path, int corner, Point p)
    {
        var (points, places) = _traced[path];
        var (a, b) = (points[corner], points[(corner + 1) % points.Length]);
        var along = b - a;
        var t = (p - a).Dot(along) / along.Dot(along);
        if (!(t is > 1e-9 and < 1 - 1e-9) || p.DistanceTo(Point.Lerp(a, b, t)) > 1e-6) return null;
        var (from, to) = (places[corner], places[(corner + 1) % points.Length]);
        var end = to.Segment == from.Segment ? to.T : 1;
        return new PathPlace(from.Segment, from.T + (end - from.T) * t);
    }

    /// <summary>Joins runs between which nothing has really changed; the old path where that is all of it.</summary>
    private int? Joined(List<Run> runs)
    {
        for (var r = 0; r < runs.Count;)
        {
            var (run, next) = (runs[r], runs[(r + 1) % runs.Count]);
            if (!IsUnchanged(run, next))
            {
                r++;
                continue;
            }
            if (runs.Count == 1) return run.Path;
            (run.Last, run.To, run.After) = (next.Last, next.To, next.After);
            runs.Remove(next);
        }
        return null;
    }

    private bool IsUnchanged(Run run, Run next)
    {
        if (run.Path != next.Path) return false;
        var points = _traced[run.Path].Points;
        var skipped = (next.First - run.Last + points.Length) % points.Length;
        if (skipped > MostSkipped || skipped >= points.Length - 1) return false;
        return run.After.TrueForAll(p => Enumerable.Range(run.Last, skipped + 1)
            .Any(k => Polygons.DistanceToStretch(p, points[k % points.Length], points[(k + 1) % points.Length]) < _tolerance * Unchanged))
            && Enumerable.Range(run.Last + 1, Math.Max(0, skipped - 1)).All(k => IsNear(points[k % points.Length]));

        // The old corners in between lie near the new stretch too, which also shows that it is the same way round.
        bool IsNear(Point p)
        {
            List<Point> way = [points[run.Last], .. run.After, points[next.First]];
            return Enumerable.Range(0, way.Count - 1).Any(k => Polygons.DistanceToStretch(p, way[k], way[k + 1]) < _tolerance * Unchanged);
        }
    }

    private Path Stitched(List<Run> runs)
    {
        var stretches = runs.Select(r => PathPlace.Stretch(PathNodes.WrittenOut(_paths[r.Path]), r.From, r.To)).ToList();
        var segments = ImmutableArray.CreateBuilder<Segment>();
        for (var r = 0; r < runs.Count; r++)
        {
            var (start, old) = stretches[r];
            segments.AddRange(old);
            var (next, following) = stretches[(r + 1) % runs.Count];
            var end = old.IsEmpty ? start : old[^1].End;
            var fitted = CurveFit.Open([end, .. runs[r].After, next], _tolerance, _window, Arriving(start, old), Leaving(next, following));
            segments.AddRange(WithExtent(end, fitted));
        }
        return new Path(stretches[0].Start, segments.ToImmutable(), closed: true);
    }

    /// <summary>New segments without those of no length, which no tool can run; the last one stays where it ends.</summary>
    private static IEnumerable<Segment> WithExtent(Point start, ImmutableArray<Segment> fitted)
    {
        var at = start;
        foreach (var segment in fitted)
        {
            if (segment.End.DistanceTo(at) < NoLength && (!segment.IsCubic || (segment.Handle1.DistanceTo(at) < NoLength && segment.Handle2.DistanceTo(at) < NoLength))) continue;
            yield return segment;
            at = segment.End;
        }
    }

    /// <summary>The direction at the end of a stretch; null for one without extent.</summary>
    private static Point? Arriving(Point start, ImmutableArray<Segment> way)
    {
        if (way.IsEmpty) return null;
        var last = way[^1];
        var from = way.Length > 1 ? way[^2].End : start;
        return Unit(last.IsCubic && last.Handle2 != last.End ? last.End - last.Handle2 : last.End - from);
    }

    private static Point? Leaving(Point start, ImmutableArray<Segment> way)
    {
        if (way.IsEmpty) return null;
        var first = way[0];
        return Unit(first.IsCubic && first.Handle1 != start ? first.Handle1 - start : first.End - start);
    }

    private static Point? Unit(Point d) => d.Length > 1e-9 ? d * (1 / d.Length) : null;
}
