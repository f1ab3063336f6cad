using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Open lines joined end to end.</summary>
public static class LineEnds
{
    /// <summary>Limits of how far ends may lie apart, mm.</summary>
    public const double LeastMm = 0.01, MostMm = 50;

    /// <summary>More open lines than anybody joins at once; their ends are compared pair by pair at each step.</summary>
    private const int MostLines = 200;

    /// <summary>Open lines of a piece joined where their ends lie nearest, again and again, by straight ways; what closes is closed.</summary>
    /// <param name="design">The design.</param>
    /// <param name="lines">The lines.</param>
    /// <param name="mostMm">Ends farther apart stay apart, mm.</param>
    /// <exception cref="EditRefused">No ends lie that near.</exception>
    public static Design Join(Design design, PickedLines lines, double mostMm)
    {
        if (!(mostMm is >= LeastMm and <= MostMm)) throw EditRefused.RangeMm(Measure.EndGap, LeastMm, MostMm, "gap");
        return design.With(lines.Piece, piece =>
        {
            var steps = Joins(Open(Mats.Unlocked(piece).Require(lines.Ids).Where(l => l.Id != piece.Outline.Id)), mostMm).ToList();
            if (steps.Count == 0) throw new EditRefused(Reason.NoEndsNear, new Mm(mostMm)) { Field = "gap" };
            foreach (var (line, gone, _) in steps)
            {
                piece = piece.EachLine([line.Id], _ => line);
                if (gone is not null) piece = piece.Without([gone.Id]);
            }
            return piece;
        });
    }

    /// <summary>The widest of the gaps that must be bridged until lines are closed, mm; null where none is open or there is no way to close all.</summary>
    /// <param name="lines">The lines; closed ones are left alone.</param>
    public static double? GapToClose(IEnumerable<Line> lines)
    {
        var open = lines.Where(l => !l.Path.IsClosed).ToList();
        if (open.Count is 0 or > MostLines) return null;
        var widest = 0.0;
        foreach (var (line, gone, gap) in Joins(open, MostMm))
        {
            widest = Math.Max(widest, gap);
            if (gone is not null) open.Remove(gone);
            open.RemoveAll(l => l.Id == line.Id);
            if (!line.Path.IsClosed) open.Add(line);
        }
        return open.Count == 0 ? widest : null;
    }

    private static List<Line> Open(IEnumerable<Line> lines)
    {
        var open = lines.Where(l => !l.Path.IsClosed).ToList();
        return open.Count <= MostLines ? open : throw new EditRefused(Reason.TooIntricate);
    }

    /// <summary>Line by line what joining comes to: a line as it is then, the line that went into it, and the gap between them, mm.</summary>
    private static IEnumerable<(Line Line, Line? Gone, double Gap)> Joins(IEnumerable<Line> lines, double mostMm)
    {
        var open = lines.ToList();
        while (Nearest(open) is { } pair && pair.Gap <= mostMm)
        {
            var (a, b) = (open[pair.A], open[pair.B]);
            var one = pair.A == pair.B ? Closed(a.Path) : Joined(pair.FromStart ? a.Path.Reversed() : a.Path, pair.ToEnd ? b.Path.Reversed() : b.Path);
            var line = a with { Path = one, Look = a.Look with { Closed = one.IsClosed } };
            open.Remove(a);
            open.Remove(b);
            if (!one.IsClosed) open.Add(line);
            yield return (line, pair.A == pair.B ? null : b, pair.Gap);
        }
    }

    /// <summary>The two ends that lie nearest: of two lines, or both of one that has more than one segment.</summary>
    private static (int A, int B, bool FromStart, bool ToEnd, double Gap)? Nearest(List<Line> open)
    {
        (int, int, bool, bool, double)? best = null;
        for (var a = 0; a < open.Count; a++)
        {
            if (open[a].Path.Segments.Length > 1) Try(a, a, false, false, open[a].Path.End.DistanceTo(open[a].Path.Start));
            for (var b = a + 1; b < open.Count; b++)
            {
                foreach (var (fromStart, toEnd) in new[] { (false, false), (false, true), (true, false), (true, true) })
                    Try(a, b, fromStart, toEnd, (fromStart ? open[a].Path.Start : open[a].Path.End).DistanceTo(toEnd ? open[b].Path.End : open[b].Path.Start));
            }
        }
        return best;

        void Try(int a, int b, bool fromStart, bool toEnd, double gap)
        {
            if (best is null || gap < best.Value.Item5) best = (a, b, fromStart, toEnd, gap);
        }
    }

    private static Path Closed(Path path) => new(path.Start, path.Segments, closed: true);

    private static Path Joined(Path first, Path second)
    {
        var segments = first.Segments;
        if (second.Start != first.End) segments = segments.Add(Segment.Straight(second.Start));
        return new Path(first.Start, segments.AddRange(second.Segments), closed: false);
    }
}
