using System.Collections.Immutable;
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

    /// <summary>The strokes of a piece's filled areas in its own coordinates, by the id of the first line of each area.</summary>
    public static IReadOnlyDictionary<string, ImmutableArray<Path>> Strokes(Piece piece)
    {
        var areas = piece.Drawn
            .Where(l => l is { EffectiveSettings: { Fill: not null, LeftOut: false }, Path.IsClosed: true })
            .GroupBy(l => (l.Operation, l.Ink, l.Settings));
        return areas.ToDictionary(
            a => a.First().Id,
            a => Strokes([.. a.Select(l => l.Path)], a.Key.Settings!.Fill!, a.First().TipMm));
    }

    /// <summary>The strokes that fill an area.</summary>
    /// <param name="rings">Closed lines, read even-odd.</param>
    /// <param name="fill">How.</param>
    /// <param name="tipMm">Width of the tip; strokes stay half of it inside the area, so that the line round it stays sharp.</param>
    /// <returns>The strokes in the order they are best run; none where the area is narrower than the tip.</returns>
    public static ImmutableArray<Path> Strokes(IReadOnlyList<Path> rings, AreaFill fill, double tipMm)
    {
        var distance = fill.DistanceFor(tipMm);
        Region area;
        try
        {
            area = Region.EvenOdd(rings);
        }
        catch (BudgetSpent)
        {
            // Lines that cross so often bound no area that anybody could fill.
            return [];
        }
        return fill.Pattern switch
        {
            FillPattern.Inward => Inward(area, distance, tipMm / 2),
            FillPattern.Crossed => [.. Parallel(area, distance, tipMm / 2, fill.AngleDegrees), .. Parallel(area, distance, tipMm / 2, fill.AngleDegrees + 90)],
            _ => Parallel(area, distance, tipMm / 2, fill.AngleDegrees),
        };
    }

    /// <summary>The outline moved inward again and again until nothing is left; each ring one stroke.</summary>
    private static ImmutableArray<Path> Inward(Region area, double distance, double first)
    {
        var strokes = ImmutableArray.CreateBuilder<Path>();
        for (var inset = first; ; inset += distance)
        {
            var left = Shrunk(area, inset);
            if (left.IsEmpty) return strokes.ToImmutable();
            strokes.AddRange(left.Rings.Select(r => Path.Polyline(r, closed: true)));
            if (strokes.Count > MostStrokes) throw TooFine();
        }
    }

    private static Region Shrunk(Region area, double by) => area.Grow(-by, Corners.Round, QuarterEdges);

    /// <summary>
    /// Level rows over the turned area, run to and fro: the end of a stroke is joined to the beginning of the one in the next
    /// row where the way between them lies in the area, so that the tool is lifted seldom.
    /// </summary>
    private static ImmutableArray<Path> Parallel(Region area, double distance, double first, double angle)
    {
        var inner = Shrunk(area, first);
        if (inner.IsEmpty) return [];
        var turn = Affine.Turn(-angle);
        var back = turn.Inverse();
        var rings = inner.Rings.Select(r => r.Select(turn.Apply).ToArray()).ToList();
        var box = Box.Around(rings.SelectMany(r => r));
        var rows = (int)Math.Floor(box.Height / distance);
        if (rows > MostStrokes) throw TooFine();
        var top = box.MinY + (box.Height - rows * distance) / 2;
        var region = new RegionIndex(rings);
        var open = new List<List<Point>>();
        var done = new List<List<Point>>();
        for (var row = 0; row <= rows; row++)
        {
            var y = top + row * distance;
            var next = new List<List<Point>>();
            foreach (var (from, to) in Spans(rings, y))
            {
                // The nearest open stroke whose end can be joined without leaving the area.
                var joined = open.Where(s => CanJoin(region, s[^1], from, to, y, distance)).MinBy(s => Math.Min(Math.Abs(s[^1].X - from), Math.Abs(s[^1].X - to)));
                var stroke = joined ?? [];
                if (joined is not null) open.Remove(joined);
                var forward = joined is null || Math.Abs(joined[^1].X - from) <= Math.Abs(joined[^1].X - to);
                stroke.Add(new Point(forward ? from : to, y));
                stroke.Add(new Point(forward ? to : from, y));
                next.Add(stroke);
                if (done.Count + next.Count > MostStrokes) throw TooFine();
            }
            done.AddRange(open);
            open = next;
        }
        done.AddRange(open);
        return [.. done.Select(s => Path.Polyline(s.Select(back.Apply), closed: false))];
    }

    private static List<(double From, double To)> Spans(List<Point[]> rings, double y)
    {
        var crossings = new List<double>();
        foreach (var ring in rings) Polygons.AddCrossings(ring, y, crossings);
        crossings.Sort();
        var spans = new List<(double, double)>();
        for (var i = 0; i + 1 < crossings.Count; i += 2)
        {
            if (crossings[i + 1] > crossings[i]) spans.Add((crossings[i], crossings[i + 1]));
        }
        return spans;
    }

    private static bool CanJoin(RegionIndex region, Point end, double from, double to, double y, double distance)
    {
        var x = Math.Abs(end.X - from) <= Math.Abs(end.X - to) ? from : to;
        if (Math.Abs(x - end.X) > 6 * distance) return false;
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
