using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// Node work on paths. Node 0 is the start, node i the end of segment i - 1; a closed path has as many nodes as segments. All
/// functions take paths whose way back to the start is written out, as <see cref="WrittenOut"/> gives them.
/// </summary>
public static class PathNodes
{
    /// <summary>A third of the way to the neighbour: where a handle of a plain curve lies.</summary>
    private const double Third = 1.0 / 3;

    /// <summary>The same path, with the straight way back of a closed one as a segment of its own.</summary>
    public static Path WrittenOut(Path path) => path.IsClosed && path.End != path.Start
        ? new Path(path.Start, path.Segments.Add(Segment.Straight(path.Start)), closed: true)
        : path;

    public static int Count(Path path) => path.IsClosed ? path.Segments.Length : path.Segments.Length + 1;

    public static Point At(Path path, int node) => node == 0 ? path.Start : path.Segments[node - 1].End;

    /// <summary>The path with a node elsewhere; its handles go with it.</summary>
    public static Path Move(Path path, int node, Point to)
    {
        var by = to - At(path, node);
        var segments = path.Segments.ToBuilder();
        if (Before(path, node) is { } before)
        {
            var s = segments[before];
            segments[before] = s with { Handle2 = s.IsCubic ? s.Handle2 + by : default, End = to };
        }
        if (After(path, node) is { } after && segments[after].IsCubic)
            segments[after] = segments[after] with { Handle1 = segments[after].Handle1 + by };
        return new Path(node == 0 ? to : path.Start, segments.ToImmutable(), path.IsClosed);
    }

    /// <summary>The path with one handle of a segment elsewhere; a straight segment becomes a curve.</summary>
    /// <param name="path">The path.</param>
    /// <param name="segment">Index of the segment.</param>
    /// <param name="first">The handle at the segment's beginning, else that at its end.</param>
    /// <param name="to">Where it goes.</param>
    public static Path MoveHandle(Path path, int segment, bool first, Point to)
    {
        var s = AsCubic(path, segment);
        return With(path, segment, first ? s with { Handle1 = to } : s with { Handle2 = to });
    }

    /// <summary>The path with a further node on a segment; its course does not change (de Casteljau).</summary>
    public static Path Insert(Path path, int segment, double t)
    {
        var (from, s) = (At(path, segment), path.Segments[segment]);
        var (a, b) = Split(from, s, t);
        return new Path(path.Start, path.Segments.SetItem(segment, a).Insert(segment + 1, b), path.IsClosed);
    }

    /// <summary>A segment in two at a parameter.</summary>
    public static (Segment First, Segment Second) Split(Point from, Segment s, double t)
    {
        var at = s.At(from, t);
        if (!s.IsCubic) return (Segment.Straight(at), Segment.Straight(s.End));
        var (ab, bc, cd) = (Point.Lerp(from, s.Handle1, t), Point.Lerp(s.Handle1, s.Handle2, t), Point.Lerp(s.Handle2, s.End, t));
        return (Segment.Cubic(ab, Point.Lerp(ab, bc, t), at), Segment.Cubic(Point.Lerp(bc, cd, t), cd, s.End));
    }

    /// <summary>The path without a node; null where too little would be left (2 nodes of an open path, 3 of a closed one).</summary>
    public static Path? Delete(Path path, int node)
    {
        if (Count(path) <= (path.IsClosed ? 3 : 2)) return null;
        var (before, after) = (Before(path, node), After(path, node));
        if (before is null) return new Path(path.Segments[0].End, path.Segments.RemoveAt(0), path.IsClosed);
        if (after is null) return new Path(path.Start, path.Segments.RemoveAt(path.Segments.Length - 1), path.IsClosed);
        var joined = Joined(path, before.Value, after.Value);
        if (node > 0) return new Path(path.Start, path.Segments.RemoveAt(after.Value).SetItem(before.Value, joined), path.IsClosed);
        // The start of a closed path goes: it then begins at what was the second node.
        return new Path(path.Segments[0].End, path.Segments.RemoveAt(0).SetItem(path.Segments.Length - 2, joined with { End = path.Segments[0].End }), closed: true);
    }

    /// <summary>The path with a node that it passes without a corner: both handles in the direction of the node's neighbours.</summary>
    public static Path Smooth(Path path, int node)
    {
        if (Before(path, node) is not { } before || After(path, node) is not { } after) return path;
        var (at, from, to) = (At(path, node), At(path, before), path.Segments[after].End);
        var along = to - from;
        if (along.Length == 0) return path;
        var unit = along * (1 / along.Length);
        var bent = With(path, before, AsCubic(path, before) with { Handle2 = at - unit * (at.DistanceTo(from) * Third) });
        return With(bent, after, AsCubic(bent, after) with { Handle1 = at + unit * (at.DistanceTo(to) * Third) });
    }

    /// <summary>The path with a corner at a node: its handles point straight at its neighbours.</summary>
    public static Path Corner(Path path, int node)
    {
        var (at, changed) = (At(path, node), path);
        if (Before(path, node) is { } before && path.Segments[before].IsCubic)
            changed = With(changed, before, changed.Segments[before] with { Handle2 = Point.Lerp(at, At(path, before), Third) });
        if (After(path, node) is { } after && path.Segments[after].IsCubic)
            changed = With(changed, after, changed.Segments[after] with { Handle1 = Point.Lerp(at, path.Segments[after].End, Third) });
        return changed;
    }

    /// <summary>The segment that ends at a node; null at the start of an open path.</summary>
    private static int? Before(Path path, int node) => node > 0 ? node - 1 : path.IsClosed ? path.Segments.Length - 1 : null;

    /// <summary>The segment that begins at a node; null at the end of an open path.</summary>
    private static int? After(Path path, int node) => node < path.Segments.Length ? node : null;

    private static Segment AsCubic(Path path, int segment)
    {
        var (from, s) = (At(path, segment), path.Segments[segment]);
        return s.IsCubic ? s : Segment.Cubic(Point.Lerp(from, s.End, Third), Point.Lerp(s.End, from, Third), s.End);
    }

    /// <summary>Two segments as one: the outer handles stay in their direction and reach as far as both parts did together.</summary>
    private static Segment Joined(Path path, int first, int second)
    {
        var (a, b) = (path.Segments[first], path.Segments[second]);
        if (!a.IsCubic && !b.IsCubic) return Segment.Straight(b.End);
        var from = At(path, first);
        (a, b) = (AsCubic(path, first), AsCubic(path, second));
        var (one, two) = (from.DistanceTo(a.End), a.End.DistanceTo(b.End));
        var (growOne, growTwo) = (one > 0 ? (one + two) / one : 1, two > 0 ? (one + two) / two : 1);
        return Segment.Cubic(from + (a.Handle1 - from) * growOne, b.End + (b.Handle2 - b.End) * growTwo, b.End);
    }

    private static Path With(Path path, int segment, Segment s) => new(path.Start, path.Segments.SetItem(segment, s), path.IsClosed);
}
