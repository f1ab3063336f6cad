using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Building;

/// <summary>Words as paper: which parts they fall into, and what holds those together.</summary>
public static class WordShapes
{
    /// <summary>A bar is this share of the capital height where nothing else is said.</summary>
    private const double BarShare = 0.16;

    /// <summary>So much of a bar lies above the baseline, so that feet of letters reach into it.</summary>
    private const double BarAbove = 0.5;

    /// <summary>What a bar does not reach is bridged by this share of its height.</summary>
    private const double BridgeOfBar = 0.4;

    /// <summary>A bridge reaches into what it joins by this share of its width.</summary>
    private const double BridgeInto = 0.75;

    /// <summary>Letters are tried closer in steps of so many thousandths of the capital height, down to the least.</summary>
    private const int CloserStep = 10, Closest = -150;

    private static readonly ConditionalWeakTable<Piece, Dictionary<(string, WordTie, double), ImmutableArray<PathArea>>> Known = [];

    /// <summary>The usual size of what ties letters of a height, mm: of a bar, or of bridges no narrower than the stock bears.</summary>
    public static double UsualTieMm(WordTie tie, double capitalMm, double leastWidth) => tie switch
    {
        WordTie.Bar => Math.Max(leastWidth * 1.5, Math.Round(capitalMm * BarShare, 1)),
        WordTie.Bridges => Math.Round(leastWidth * 1.25, 2),
        _ => 0,
    };

    /// <summary>
    /// The parts of a piece's words, in its coordinates: the largest first, the others from the left. None where the words have gone, or
    /// have no outlines.
    /// </summary>
    public static ImmutableArray<PathArea> Parts(Piece piece, FromWords how)
    {
        var known = Known.GetOrCreateValue(piece);
        lock (known)
        {
            var key = (how.Text, how.Tie, how.TieMm);
            if (!known.TryGetValue(key, out var parts)) known[key] = parts = Find(piece, how);
            return parts;
        }
    }

    private static ImmutableArray<PathArea> Find(Piece piece, FromWords how)
    {
        if (piece.Worked(how.Text) is not TextItem text || Letters(piece, text) is not { Length: > 0 } letters) return [];
        var tied = how.Tie switch
        {
            WordTie.Bar => WithBars(letters, piece, text, how.TieMm),
            WordTie.Bridges => WithBridges(letters, how.TieMm),
            _ => letters,
        };
        return [tied[0], .. tied.Skip(1).OrderBy(p => p.Outline.Bounds.MinX)];
    }

    /// <summary>The parts that letters on a piece have of themselves, the largest first; none of a single-line face.</summary>
    public static ImmutableArray<PathArea> Letters(Piece piece, TextItem text) =>
        text.Shaped is null or { IsStroke: true } || text.PathsOn(piece) is not { IsEmpty: false } paths ? [] : PathAreas.Nest(paths) ?? [];

    /// <summary>A bar under each line; what it does not reach is bridged.</summary>
    private static ImmutableArray<PathArea> WithBars(ImmutableArray<PathArea> letters, Piece piece, TextItem text, double height)
    {
        var set = text.SetOn(piece);
        var place = text.PlaceOn(piece);
        var high = height / Math.Max(place.MeanScale, 1e-9);
        var bars = set.Lines.Where(l => l.Width > 0).Select(l => AreaRings.Inside(Path.Rectangle(l.Left, l.Baseline - high * BarAbove, l.Width, high).Map(place)));
        var onBar = PathAreas.Combine(Combination.Unite, [.. letters.Select(AreaRings.Of), .. bars]);
        // Dots, accents and further lines do not reach the bar.
        return WithBridges(onBar, Math.Max(FromWords.LeastTieMm, height * BridgeOfBar));
    }

    /// <summary>Each part joined to the nearest other by a short straight bridge: a tree of least length (Kruskal 1956).</summary>
    private static ImmutableArray<PathArea> WithBridges(ImmutableArray<PathArea> letters, double width)
    {
        if (letters.Length < 2) return letters;
        var ways = new List<(int A, int B, Point From, Point To, double Distance)>();
        for (var a = 0; a < letters.Length; a++)
        {
            for (var b = a + 1; b < letters.Length; b++)
            {
                var (from, to) = Polygons.NearestPoints(letters[a].Outline.Flat, letters[b].Outline.Flat);
                ways.Add((a, b, from, to, from.DistanceTo(to)));
            }
        }
        var joined = new DisjointSets(letters.Length);
        var bridges = new List<AreaRings>();
        foreach (var way in ways.OrderBy(w => w.Distance))
        {
            if (joined.AreOne(way.A, way.B)) continue;
            joined.Join(way.A, way.B);
            bridges.Add(AreaRings.Inside(Bridge(way.From, way.To, width)));
        }
        return PathAreas.Combine(Combination.Unite, [.. letters.Select(AreaRings.Of), .. bridges]);
    }

    private static Path Bridge(Point from, Point to, double width)
    {
        var along = to - from;
        var unit = along.Length > 1e-9 ? along * (1 / along.Length) : new Point(0, 1);
        var (into, half) = (unit * (width * BridgeInto), new Point(-unit.Y, unit.X) * (width / 2));
        return Path.Polyline([from - into + half, to + into + half, to + into - half, from - into - half], closed: true);
    }

    /// <summary>
    /// The largest distance between letters, below the one they have, at which no two letters of a line stand apart; null where none does
    /// so. Dots and accents are no letters.
    /// </summary>
    /// <param name="piece">The piece.</param>
    /// <param name="text">The words on it.</param>
    public static int? CloserSpacing(Piece piece, TextItem text)
    {
        var now = Count(text);
        var (best, fewest) = ((int?)null, now);
        for (var spacing = text.LetterSpacing - CloserStep; spacing >= Closest; spacing -= CloserStep)
        {
            var parts = Count(text with { LetterSpacing = spacing });
            if (parts >= fewest) continue;
            (best, fewest) = (spacing, parts);
            if (fewest <= 1) break;
        }
        return best;

        int Count(TextItem tried) => Letters(piece, tried) is { IsEmpty: false } parts ? parts.Length : int.MaxValue;
    }

    /// <summary>How far all parts must be grown, openings filled, until they are one, mm; with an answer to a tenth. Null where even the most is too little.</summary>
    public static double? GrowthToOne(ImmutableArray<PathArea> parts)
    {
        if (parts.Length < 2) return LeastLayerMm;
        var area = Region.UnionOf(parts.Select(p => Region.FromRings(Flattening.Flatten(p.Outline, 0.02), [])));
        if (!IsOne(MostLayerMm)) return null;
        var (low, high) = (0.0, MostLayerMm);
        while (high - low > 0.05)
        {
            var middle = (low + high) / 2;
            if (IsOne(middle)) high = middle;
            else low = middle;
        }
        // A neck of no width holds nothing together.
        return Math.Max(LeastLayerMm, Math.Ceiling((high + NeckMm) * 10) / 10);

        bool IsOne(double by) => area.Grow(by, Corners.Round, 6).PartCount <= 1;
    }

    private const double LeastLayerMm = 2, MostLayerMm = 20, NeckMm = 0.4;

    /// <summary>The words of a piece that stand apart from the largest part, as they are read: for naming what is loose.</summary>
    public static ImmutableArray<string> Loose(Piece piece, FromWords how)
    {
        if (piece.Worked(how.Text) is not TextItem { Shaped: { } shaped } text || Parts(piece, how) is not { Length: > 1 } parts) return [];
        var (set, place) = (text.SetOn(piece), text.PlaceOn(piece));
        var lines = text.Shown.Split('\n');
        var names = new List<string>();
        foreach (var part in parts.Skip(1))
        {
            var on = Sampling.Midpoints(part.Outline, 1, 8)[0];
            var glyph = set.Glyphs.FirstOrDefault(g => shaped.Glyphs[g.Index].Paths.Any(p => Polygons.DistanceToRing(p.Map(g.Place.Then(place)).Flat, on) < OnOutlineMm), new SetGlyph(-1, Affine.Identity));
            if (glyph.Index < 0) continue;
            var said = lines[set.Lines[glyph.Line].Paragraph];
            if (glyph.Cluster < said.Length && !char.IsLowSurrogate(said[glyph.Cluster])) names.Add(char.ConvertFromUtf32(char.ConvertToUtf32(said, glyph.Cluster)));
        }
        return [.. names.Distinct()];
    }

    /// <summary>A point of a part lies on the outline of the letter that it comes from, give or take this much, mm.</summary>
    private const double OnOutlineMm = 0.05;
}
