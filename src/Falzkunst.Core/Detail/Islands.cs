using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json.Serialization;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Detail;

/// <summary>A piece that lies loose in an opening of another of its stock: the inside of an O.</summary>
/// <param name="Host">The piece with the opening.</param>
/// <param name="Piece">The loose piece.</param>
public sealed record Island(Piece Host, Piece Piece);

/// <summary>How islands are held.</summary>
/// <param name="WidthMm">Width of each bridge, mm.</param>
/// <param name="Count">Bridges for each island.</param>
public sealed record Bridging(double WidthMm, int Count)
{
    public const double LeastMm = 0.2;
    public const double MostMm = 50;
    public const int MostCount = 4;

    /// <summary>Why it cannot be done so; null where it can.</summary>
    [JsonIgnore]
    public EditRefused? Refusal =>
        !(WidthMm is >= LeastMm and <= MostMm) ? EditRefused.RangeMm(Measure.BridgeWidth, LeastMm, MostMm, "width")
        : Count is < 1 or > MostCount ? EditRefused.Range(Measure.BridgeCount, 1, MostCount, "count")
        : null;
}

/// <summary>Finds loose islands, and joins them to what they lie in by bridges.</summary>
public static class Islands
{
    /// <summary>Places looked at along an island's outline.</summary>
    private const int Places = 72;

    /// <summary>A bridge that leaves the edge aslant counts as so much longer for each unit of the sine of its slant.</summary>
    private const double SlantWeight = 1.5;

    /// <summary>Bridges one above the other, along the upright of the sheet, read as meant: others count as this much longer.</summary>
    private const double AsideWeight = 0.25;

    /// <summary>Bridges on one side of the island hold it badly: two that point the same way count as so many more of middling length.</summary>
    private const double SameSideWeight = 4;

    /// <summary>Two bridges stand at least so many widths apart.</summary>
    private const double LeastApart = 2;

    /// <summary>Steps that the islands of one design may take to find, about half a second; of what lies beyond nothing is said.</summary>
    private const long MostWork = 50_000_000;

    private static readonly ConditionalWeakTable<Design, IReadOnlyList<Island>> Known = [];

    /// <summary>The loose islands of a design, each with the smallest piece around it. Found once for a design.</summary>
    public static IReadOnlyList<Island> Find(Design design) => Known.GetValue(design, static d => FindAll(d));

    private static List<Island> FindAll(Design design)
    {
        var found = new List<Island>();
        var budget = Budget.OfWork(MostWork);
        var hosts = design.Pieces.Where(p => !p.Paper.Openings.IsEmpty).Select(p => (Piece: p, Area: Math.Abs(p.Outline.Path.SignedArea))).ToList();
        var tree = new BoxTree([.. hosts.Select(h => h.Piece.Outline.Path.BoundsUnder(h.Piece.Place))]);
        try
        {
            foreach (var piece in design.Pieces)
            {
                var near = tree.Meeting(piece.Outline.Path.BoundsUnder(piece.Place));
                budget.Work(20 + 8L * near.Count);
                foreach (var (host, _) in near.Select(i => hosts[i]).Where(h => h.Piece.Id != piece.Id && h.Piece.Stock == piece.Stock).OrderBy(h => h.Area))
                {
                    budget.Work(20 + (long)piece.Outline.Path.Segments.Length * 4);
                    if (OpeningAround(host, piece) is null) continue;
                    found.Add(new Island(host, piece));
                    break;
                }
            }
        }
        catch (BudgetSpent)
        {
            // The first ones are listed.
        }
        return found;
    }

    /// <summary>A piece as an island; null where it lies in no opening of another of its stock.</summary>
    public static Island? Find(Design design, Piece piece) => design.Pieces
        .Where(p => p.Id != piece.Id && p.Stock == piece.Stock && !p.Paper.Openings.IsEmpty && OpeningAround(p, piece) is not null)
        .MinBy(p => Math.Abs(p.Outline.Path.SignedArea)) is { } host ? new Island(host, piece) : null;

    private static Line? OpeningAround(Piece host, Piece piece)
    {
        var outline = piece.Outline.Path.Map(piece.Place.Then(host.Place.Inverse()));
        if (!host.Size.Contains(outline.Bounds, 0)) return null;
        return host.RingLines.Skip(1).FirstOrDefault(opening => opening.Path.Bounds.Contains(outline.Bounds, 0)
            && new RegionIndex([opening.Path.Flat.ToArray()]) is var inside && outline.Flat.ToArray().All(inside.Contains));
    }

    /// <summary>A bridge reaches so many widths into what it joins, so that it meets slanting edges and points with its whole width.</summary>
    private const double Over = 2;

    /// <summary>A bridge in the middle of a side reads as meant: one beside it counts as so much longer for each millimetre.</summary>
    private const double OffCentreWeight = 0.06;

    /// <summary>The two pieces joined by bridges into one, with all lines of both.</summary>
    /// <param name="island">The island.</param>
    /// <param name="how">Width and number of the bridges.</param>
    /// <param name="others">Further pieces that bridges had better not run over.</param>
    /// <exception cref="EditRefused">The numbers are out of reach, or there is no opening around it.</exception>
    public static Piece Bridged(Island island, Bridging how, IEnumerable<Piece>? others = null)
    {
        if (how.Refusal is { } refusal) throw refusal;
        var (host, loose) = island;
        if (OpeningAround(host, loose) is not { } around) throw new EditRefused(Reason.NotAnIsland, loose.Name);
        var map = loose.Place.Then(host.Place.Inverse());
        Item[] brought = [(Line)loose.Outline.With(Operation.Cut), .. loose.Items];
        var whole = host.Plus(brought.Select(i => i.Under(map)));
        // Which is which there: the island's rings lie in an opening, and would be none of the piece's by themselves.
        var idThere = brought.Select((item, i) => (item.Id, There: whole.Items[host.Items.Length + i].Id)).ToDictionary(p => p.Id, p => p.There);
        var hostRings = Reshaping.Rings(host);
        ImmutableArray<Line> lines = [.. hostRings, .. Reshaping.Rings(loose).Select(l => whole.Find(idThere[l.Id])).OfType<Line>()];
        var stitching = Reshaping.Stitching(lines);
        var first = hostRings.Length;
        var (plate, inner) = (Reshaping.Material([.. stitching.Rings.Take(first)]), Reshaping.Material([.. stitching.Rings.Skip(first)]));
        var air = Region.FromRings(stitching.Rings[hostRings.IndexOf(around)], []).Minus(plate).Minus(Region.FromRings(stitching.Rings[first], [])).Grow(0.002, Corners.Sharp, 4);
        var back = host.Place.Inverse();
        var obstacles = (others ?? [])
            .Where(p => p.Id != host.Id && p.Id != loose.Id)
            .Select(p => p.Outline.Path.Map(p.Place.Then(back)))
            .Where(o => o.Bounds.Overlaps(around.Path.Bounds))
            .Select(o => Region.FromRings([.. o.Flat], [])).ToList();
        var ways = Ways(stitching.Rings[first], Rim(plate), how.WidthMm, obstacles, host.Place);
        var chosen = Best(ways, how.Count, LeastApart * how.WidthMm);
        if (chosen.Count == 0) throw new EditRefused(Reason.NoRoomForBridge, new Mm(how.WidthMm), loose.Name) { Field = "width" };
        var joined = plate.Union(inner);
        foreach (var way in chosen)
        {
            // What reaches through a narrow island and out at its other side is no part of the bridge.
            var bridge = Region.Around([way.Line(Over * how.WidthMm)], how.WidthMm / 2, 4, flatEnds: true).And(air);
            joined = joined.Union(bridge.Where(part => part.Contains(Point.Lerp(way.From, way.To, 0.5)), _ => true));
        }
        if (joined.PartCount != 1) throw new EditRefused(Reason.BridgeTooShort, loose.Name, host.Name) { Field = "width" };
        return Reshaping.Stitched(whole, lines, stitching, joined).Piece;
    }

    /// <summary>The edges that a bridge can land on.</summary>
    private static List<(Point A, Point B)> Rim(Region plate) =>
        [.. plate.Rings.SelectMany(r => Enumerable.Range(0, r.Length).Select(i => (r[i], r[(i + 1) % r.Length])))];

    /// <summary>A way for a bridge.</summary>
    private sealed record Way(Point From, Point To, double Cost)
    {
        public Point Direction => (To - From) * (1 / Math.Max(From.DistanceTo(To), 1e-9));

        /// <summary>Its middle line, reaching over both ends so that it meets slanting and round edges with its whole width.</summary>
        public Point[] Line(double over) => [From - Direction * over, To + Direction * over];
    }

    /// <summary>From places round the island, the shortest way to the rim, and what each counts.</summary>
    private static List<Way> Ways(Point[] island, List<(Point A, Point B)> rim, double width, List<Region> obstacles, Affine place)
    {
        var outline = Path.Polyline(island, closed: true);
        var ways = new List<Way>();
        var (centre, upright) = (outline.Bounds.Centre, Upright(place));
        foreach (var p in Sampling.Midpoints(outline, outline.Length / Places, Places * 4).Concat(Middles(island, centre, upright)))
        {
            var nearest = rim.MinBy(e => Polygons.DistanceToStretch(p, e.A, e.B));
            var along = nearest.B - nearest.A;
            var q = Point.Lerp(nearest.A, nearest.B, Math.Clamp((p - nearest.A).Dot(along) / Math.Max(along.Dot(along), 1e-12), 0, 1));
            var length = p.DistanceTo(q);
            if (length < 1e-6) continue;
            var direction = (q - p) * (1 / length);
            var slant = Slant(island, p, direction);
            var aside = Math.Abs(direction.Cross(upright));
            var off = Math.Abs((p - centre).Cross(direction));
            var isCrossed = obstacles.Exists(o => Enumerable.Range(1, 5).Any(k => o.Contains(Point.Lerp(p, q, k / 6.0))));
            ways.Add(new Way(p, q, (length + width) * (1 + SlantWeight * slant + AsideWeight * aside) + OffCentreWeight * off + (isCrossed ? 1e6 : 0)));
        }
        return ways;
    }

    /// <summary>The direction in the piece that is upright on the card.</summary>
    private static Point Upright(Affine place)
    {
        var back = place.Inverse();
        var d = back.Apply(new Point(0, 1)) - back.Apply(default);
        return d * (1 / Math.Max(d.Length, 1e-12));
    }

    /// <summary>Where the upright and the level through the middle of an island cross its outline.</summary>
    private static IEnumerable<Point> Middles(Point[] island, Point centre, Point upright)
    {
        foreach (var along in new[] { upright, new Point(-upright.Y, upright.X) })
        {
            for (var i = 0; i < island.Length; i++)
            {
                var (a, b) = (island[i], island[(i + 1) % island.Length]);
                var (before, after) = ((a - centre).Cross(along), (b - centre).Cross(along));
                if (before * after < 0) yield return Point.Lerp(a, b, before / (before - after));
            }
        }
    }

    /// <summary>Sine of the angle between a way and the perpendicular of the edge that it leaves.</summary>
    private static double Slant(Point[] ring, Point p, Point direction)
    {
        var edge = Enumerable.Range(0, ring.Length).MinBy(i => Polygons.DistanceToStretch(p, ring[i], ring[(i + 1) % ring.Length]));
        var along = ring[(edge + 1) % ring.Length] - ring[edge];
        return along.Length < 1e-9 ? 1 : Math.Abs(along.Dot(direction)) / along.Length;
    }

    /// <summary>So many ways that are short together and hold from different sides: the best first two tried whole, then one by one.</summary>
    private static List<Way> Best(List<Way> ways, int count, double apart)
    {
        if (ways.Count == 0) return [];
        if (count == 1) return [ways.MinBy(w => w.Cost)!];
        var unit = ways.Average(w => Math.Min(w.Cost, 1e5));
        double Together(Way a, Way b) => SameSideWeight * unit * Math.Pow((1 + a.Direction.Dot(b.Direction)) / 2, 2);
        bool AreApart(Way a, Way b) => Math.Min(a.From.DistanceTo(b.From), a.To.DistanceTo(b.To)) >= apart;
        var (first, second) = (from a in ways from b in ways where AreApart(a, b) select (a, b)).MinBy(pair => pair.a.Cost + pair.b.Cost + Together(pair.a, pair.b));
        if (first is null) return [ways.MinBy(w => w.Cost)!];
        List<Way> chosen = [first, second];
        while (chosen.Count < count && ways.Where(w => chosen.TrueForAll(c => AreApart(w, c))).MinBy(w => w.Cost + chosen.Sum(c => Together(w, c))) is { } next) chosen.Add(next);
        return chosen;
    }
}
