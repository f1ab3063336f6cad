using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>Open lines joined end to end.</summary>
public static class LineEnds
{
    /// <summary>Limits of how far ends may lie apart, mm.</summary>
    public const double LeastMm = 0.01, MostMm = 50;

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
            var open = Mats.Unlocked(piece).Require(lines.Ids).Where(l => !l.Path.IsClosed && l.Id != piece.Outline.Id).ToList();
            var joined = false;
            while (Nearest(open) is { } pair && pair.Gap <= mostMm)
            {
                joined = true;
                var (a, b) = (open[pair.A], open[pair.B]);
                var one = pair.A == pair.B ? Closed(a.Path) : Joined(pair.FromStart ? a.Path.Reversed() : a.Path, pair.ToEnd ? b.Path.Reversed() : b.Path);
                var line = a with { Path = one, Look = a.Look with { Closed = one.IsClosed } };
                piece = piece.EachLine([a.Id], _ => line);
                if (pair.A != pair.B) piece = piece.Without([b.Id]);
                open.RemoveAt(Math.Max(pair.A, pair.B));
                if (pair.A != pair.B) open.RemoveAt(Math.Min(pair.A, pair.B));
                if (!one.IsClosed) open.Add(line);
            }
            return joined ? piece : throw new EditRefused(Reason.NoEndsNear, new Mm(mostMm)) { Field = "gap" };
        });
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
