using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>
/// Strokes that fill areas with a pen, a foil tip or an embossing ball. Lines of one piece that are worked alike fill together,
/// read even-odd, so that the inside of a letter's bowl stays free.
/// </summary>
public static class AreaFills
{
    /// <summary>An area asks for at most this many strokes; a finer distance is refused.</summary>
    public const int MostStrokes = 20_000;

    /// <summary>Round joints of inward strokes are made of this many edges a quarter.</summary>
    private const int QuarterEdges = 8;

    /// <summary>A stroke goes on in the next row where that begins within so many distances; farther ways would be seen as strokes of their own.</summary>
    private const int JoinedWithin = 6;

    /// <summary>Levels at which rows cross the area's edges, all rows together; beyond, the strokes would be too many by far.</summary>
    private const int MostCrossings = 2_000_000;

    /// <summary>
    /// Steps that finding an area, or filling it in one way, may take: under two seconds where it was measured. 5,000 circles of 1.5 mm
    /// filled inward take half of it. It is work and not time, so that an area has the same strokes wherever they are asked for.
    /// </summary>
    public const long MostWork = 60_000_000;

    /// <summary>Moving an edge inwards, with all that noding asks, in steps of a budget; measured at some 0.7 µs.</summary>
    private const int StepsOfAnEdge = 60;

    private static readonly ConditionalWeakTable<PieceShape, Filled> Known = [];

    private sealed record Filled(ImmutableArray<Line> Of, IReadOnlyDictionary<string, ImmutableArray<Path>> Strokes, EditRefused? Refused)
    {
        /// <summary>Lines that are filled alike; of the same shape, so that only how they are worked can differ.</summary>
        public bool Holds(ImmutableArray<Line> lines) => Of == lines || Of.Zip(lines).All(z =>
            z.First.Id == z.Second.Id && z.First.Operation == z.Second.Operation && z.First.Ink == z.Second.Ink && Equals(z.First.Settings, z.Second.Settings));
    }

    private static Filled Of(Piece piece)
    {
        if (Known.TryGetValue(piece.Shape, out var known) && known.Holds(piece.Drawn)) return known;
        var found = Fill(piece);
        Known.AddOrUpdate(piece.Shape, found);
        return found;
    }

    /// <summary>
    /// The strokes of a piece's filled areas in its own coordinates, by the id of the first line of each area; found once for as long as neither its lines nor how they are worked change.
    /// An area that cannot be filled has none; no edit makes such a one (<see cref="DemandFit"/>), but scaling may.
    /// </summary>
    public static IReadOnlyDictionary<string, ImmutableArray<Path>> Strokes(Piece piece) => Of(piece).Strokes;

    /// <exception cref="EditRefused">A filled area of the piece has too many strokes, or its lines cross too often.</exception>
    public static void DemandFit(Piece piece)
    {
        if (Of(piece).Refused is { } refused) throw refused;
    }

    private static Filled Fill(Piece piece)
    {
        EditRefused? why = null;
        var areas = piece.Drawn
            .Where(l => l is { EffectiveSettings: { Fill: not null, LeftOut: false }, Path.IsClosed: true })
            .GroupBy(l => (l.Operation, l.Ink, l.Settings));
        return new(piece.Drawn, areas.ToDictionary(a => a.First().Id, a => StrokesOf(a, a.Key.Settings!.Fill!)), why);

        ImmutableArray<Path> StrokesOf(IEnumerable<Line> lines, AreaFill fill)
        {
            try
            {
                return Strokes([.. lines.Select(l => l.Path)], fill, lines.First().TipMm);
            }
            catch (EditRefused refused)
            {
                why = refused;
                return [];
            }
        }
    }

    /// <summary>The area inside an odd number of closed lines, which several ways to fill it are tried on.</summary>
    /// <exception cref="EditRefused">Its lines cross too often.</exception>
    public static Region AreaOf(IEnumerable<Path> rings, CancellationToken stop = default)
    {
        try
        {
            return Region.EvenOdd(rings, BudgetOf(stop));
        }
        catch (BudgetSpent)
        {
            throw TooFine();
        }
    }

    private static Budget BudgetOf(CancellationToken stop) => new(Budget.Unlimited.Limits with { Work = MostWork }, stop);

    /// <summary>The strokes that fill an area.</summary>
    /// <param name="rings">Closed lines, read even-odd.</param>
    /// <param name="fill">How.</param>
    /// <param name="tipMm">Width of the tip; strokes stay half of it inside the area, so that the line round it stays sharp.</param>
    /// <exception cref="EditRefused">They are too many, or the lines cross too often.</exception>
    public static ImmutableArray<Path> Strokes(IReadOnlyList<Path> rings, AreaFill fill, double tipMm) => Strokes(AreaOf(rings), fill, tipMm);

    /// <summary>The strokes that fill an area.</summary>
    /// <param name="area">The area.</param>
    /// <param name="fill">How.</param>
    /// <param name="tipMm">Width of the tip; strokes stay half of it inside the area, so that the line round it stays sharp.</param>
    /// <param name="stop">Whoever asked has left.</param>
    /// <returns>The strokes in the order they are best run; none where the area is narrower than the tip.</returns>
    /// <exception cref="EditRefused">They are too many.</exception>
    public static ImmutableArray<Path> Strokes(Region area, AreaFill fill, double tipMm, CancellationToken stop = default)
    {
        var distance = fill.DistanceFor(tipMm);
        var budget = BudgetOf(stop);
        try
        {
            var strokes = fill.Pattern switch
            {
                FillPattern.Inward => Inward(area, distance, tipMm / 2, budget),
                FillPattern.Crossed => [.. Parallel(area, distance, tipMm / 2, fill.AngleDegrees, budget), .. Parallel(area, distance, tipMm / 2, fill.AngleDegrees + 90, budget)],
                _ => Parallel(area, distance, tipMm / 2, fill.AngleDegrees, budget),
            };
            return strokes.Length > MostStrokes ? throw TooFine() : strokes;
        }
        catch (BudgetSpent)
        {
            throw TooFine();
        }
    }

    /// <summary>The outline of each part moved inward again and again until nothing is left; each ring one stroke.</summary>
    private static ImmutableArray<Path> Inward(Region area, double distance, double first, Budget budget)
    {
        var strokes = ImmutableArray.CreateBuilder<Path>();
        List<Region> parts = [.. area.EachPart()];
        for (var inset = first; parts.Count > 0; inset += distance)
        {
            List<Region> left = [];
            foreach (var part in parts)
            {
                var shrunk = Shrunk(part, inset, budget);
                if (shrunk.IsEmpty) continue;
                left.Add(part);
                strokes.AddRange(shrunk.Rings.Select(r => Path.Polyline(r, closed: true)));
                if (strokes.Count > MostStrokes) throw TooFine();
            }
            parts = left;
        }
        return strokes.ToImmutable();
    }

    private static Region Shrunk(Region part, double by, Budget budget)
    {
        budget.Work(part.CornerCount * StepsOfAnEdge);
        budget.Look();
        return part.Grow(-by, Corners.Round, QuarterEdges);
    }

    /// <summary>
    /// Level rows over the turned area, run to and fro: the end of a stroke is joined to the beginning of the one in the next
    /// row where the way between them lies in the area, so that the tool is lifted seldom.
    /// </summary>
    private static ImmutableArray<Path> Parallel(Region area, double distance, double first, double angle, Budget budget)
    {
        var turn = Affine.Turn(-angle);
        var back = turn.Inverse();
        // Parts lie apart and stay apart when they shrink, so that each does so on its own.
        var rings = area.EachPart().SelectMany(p => Shrunk(p, first, budget).Rings).Select(r => r.Select(turn.Apply).ToArray()).ToList();
        if (rings.Count == 0) return [];
        var box = Box.Around(rings.SelectMany(r => r));
        var rows = (int)Math.Floor(box.Height / distance);
        if (rows > MostStrokes) throw TooFine();
        var top = box.MinY + (box.Height - rows * distance) / 2;
        var region = new RegionIndex(rings);
        // Strokes whose end may go on, by where that lies.
        var open = new List<List<Point>>();
        var done = new List<List<Point>>();
        var crossings = Crossings(rings, top, distance, rows);
        for (var row = 0; row <= rows; row++)
        {
            var y = top + row * distance;
            var next = new List<List<Point>>();
            var taken = new HashSet<List<Point>>();
            foreach (var (from, to) in Spans(crossings[row]))
            {
                budget.Work(100);
                // The nearest open stroke whose end can be joined without leaving the area.
                var joined = Near(open, from, to, JoinedWithin * distance).Where(s => !taken.Contains(s) && CanJoin(region, s[^1], from, to, y, distance))
                    .MinBy(s => Math.Min(Math.Abs(s[^1].X - from), Math.Abs(s[^1].X - to)));
                var stroke = joined ?? [];
                if (joined is not null) taken.Add(joined);
                var forward = joined is null || Math.Abs(joined[^1].X - from) <= Math.Abs(joined[^1].X - to);
                stroke.Add(new Point(forward ? from : to, y));
                stroke.Add(new Point(forward ? to : from, y));
                next.Add(stroke);
                if (done.Count + next.Count > MostStrokes) throw TooFine();
            }
            done.AddRange(open.Where(s => !taken.Contains(s)));
            open = [.. next.OrderBy(s => s[^1].X)];
        }
        done.AddRange(open);
        return [.. done.Select(s => Path.Polyline(s.Select(back.Apply), closed: false))];
    }

    /// <summary>Where each row crosses the edges: every edge tells the rows that it passes, so that rows look at no others.</summary>
    private static List<double>[] Crossings(List<Point[]> rings, double top, double distance, int rows)
    {
        var crossings = new List<double>[rows + 1];
        for (var row = 0; row <= rows; row++) crossings[row] = [];
        long count = 0;
        foreach (var ring in rings)
        {
            for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
            {
                var (a, b) = (ring[j], ring[i]);
                var (low, high) = (Math.Min(a.Y, b.Y), Math.Max(a.Y, b.Y));
                var from = Math.Max(0, (int)Math.Ceiling((low - top) / distance) - 1);
                var to = Math.Min(rows, (int)Math.Floor((high - top) / distance) + 1);
                for (var row = from; row <= to; row++)
                {
                    var y = top + row * distance;
                    if (a.Y > y == b.Y > y) continue;
                    if (++count > MostCrossings) throw TooFine();
                    crossings[row].Add((b.X - a.X) * (y - a.Y) / (b.Y - a.Y) + a.X);
                }
            }
        }
        return crossings;
    }

    private static IEnumerable<(double From, double To)> Spans(List<double> crossings)
    {
        crossings.Sort();
        for (var i = 0; i + 1 < crossings.Count; i += 2)
        {
            if (crossings[i + 1] > crossings[i]) yield return (crossings[i], crossings[i + 1]);
        }
    }

    /// <summary>Those of the strokes in order of their ends that end near one end of a span.</summary>
    private static IEnumerable<List<Point>> Near(List<List<Point>> open, double from, double to, double reach)
    {
        var seen = -1;
        foreach (var x in new[] { from, to })
        {
            var (low, high) = (0, open.Count);
            while (low < high)
            {
                var middle = (low + high) / 2;
                if (open[middle][^1].X < x - reach) low = middle + 1;
                else high = middle;
            }
            for (var i = Math.Max(low, seen + 1); i < open.Count && open[i][^1].X <= x + reach; i++)
            {
                seen = i;
                yield return open[i];
            }
        }
    }

    private static bool CanJoin(RegionIndex region, Point end, double from, double to, double y, double distance)
    {
        var x = Math.Abs(end.X - from) <= Math.Abs(end.X - to) ? from : to;
        if (Math.Abs(x - end.X) > JoinedWithin * distance) return false;
        var beginning = new Point(x, y);
        for (var i = 1; i < 4; i++)
        {
            var p = Point.Lerp(end, beginning, i / 4.0);
            if (!region.Contains(p) && !region.IsNearEdge(p, distance * 0.25)) return false;
        }
        return true;
    }

    private static EditRefused TooFine() => new(Reason.FillTooFine) { Field = "distance" };
}
