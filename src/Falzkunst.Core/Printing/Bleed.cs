using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>Print that goes on past the cut.</summary>
/// <param name="Clip">Where print may be: the paper and a strip beyond its edge.</param>
/// <param name="Under">Colours carried outward from the cut, to be painted under everything else.</param>
/// <param name="Edge">The edge with what is seen along it: where that is a picture, its dots are carried outward (<see cref="CarriedEdge"/>).</param>
public sealed record Bled(Region Clip, ImmutableArray<FillLayer> Under, ImmutableArray<EdgeStretch> Edge);

/// <summary>
/// Art grown past the cut. Whatever is seen just inside a stretch of the edge goes on outward along its normals, by a strip for
/// each straight stretch and a fan about each corner that points outward; where two colours meet at a corner, they meet along
/// its bisector. So every place within the bleed has the colour of the nearest place of the edge.
/// </summary>
public static class Bleeding
{
    /// <summary>Strips begin so far inside the cut, so that no paper shows between them and the art, mm.</summary>
    private const double OverlapMm = PaperEdge.DepthMm;

    /// <summary>A fan has an edge for so many radians at most.</summary>
    private const double FanStep = Math.PI / 18;

    /// <summary>A fan reaches into its neighbours by so much, radians, so that no hair of paper shows between.</summary>
    private const double FanOverlap = 1e-3;

    /// <summary>What is printed of a piece, with its bleed.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="layers">Its printed layers, lowest first.</param>
    /// <param name="mm">How far print goes past the cut, mm.</param>
    public static Bled Of(Piece piece, ImmutableArray<PrintLayer> layers, double mm)
    {
        var paper = AreaOf(piece.Paper);
        if (mm <= 0 || layers.IsEmpty) return new(paper, [], []);
        var cells = new SortedDictionary<int, ImmutableArray<Path>.Builder>();
        var rings = PaperEdge.Stretches(piece.Paper, new PrintProbe(layers)).ToList();
        foreach (var ring in rings)
        {
            for (var i = 0; i < ring.Length; i++)
            {
                var (stretch, next) = (ring[i], ring[(i + 1) % ring.Length]);
                Add(stretch.Layer, Strip(stretch, mm));
                foreach (var (layer, fan) in Fans(stretch, next, mm)) Add(layer, fan);
            }
        }
        return new(
            paper.Grow(mm, Corners.Round, Arcs.QuarterEdges(mm)),
            [.. cells.Select(c => new FillLayer(c.Value.ToImmutable(), false, ColourOf(layers[c.Key])!) { Shading = (layers[c.Key] as FillLayer)?.Shading })],
            [.. rings.SelectMany(r => r)]);

        void Add(int layer, Path cell)
        {
            if (layer < 0 || ColourOf(layers[layer]) is null) return;
            if (!cells.TryGetValue(layer, out var all)) cells[layer] = all = ImmutableArray.CreateBuilder<Path>();
            all.Add(cell);
        }
    }

    /// <summary>The paper as an area.</summary>
    internal static Region AreaOf(Paper paper) => Region.FromRings(paper.Outline.Flat.ToArray(), [.. paper.Openings.Select(o => o.Flat.ToArray())]);

    /// <summary>The one colour of a layer; null for a picture.</summary>
    private static string? ColourOf(PrintLayer layer) => layer switch
    {
        FillLayer fill => fill.Colour,
        StrokeLayer stroke => stroke.Colour,
        _ => null,
    };

    private static Path Strip(EdgeStretch s, double mm)
    {
        var (inner, outer) = (s.Inward * OverlapMm, s.Inward * -mm);
        return Path.Polyline([s.From + outer, s.To + outer, s.To + inner, s.From + inner], closed: true);
    }

    /// <summary>What lies beyond a corner that points outward, in two halves.</summary>
    private static IEnumerable<(int Layer, Path Fan)> Fans(EdgeStretch a, EdgeStretch b, double mm)
    {
        var (from, to) = (a.Inward * -1, b.Inward * -1);
        var turn = Math.Atan2(from.Cross(to), from.Dot(to));
        // Paper lies where x turns to y, so that at such a corner the edge turns the same way.
        if (turn <= 1e-9) yield break;
        var start = Math.Atan2(from.Y, from.X);
        if (a.Layer == b.Layer) yield return (a.Layer, Fan(a.To, start, turn, mm));
        else
        {
            yield return (a.Layer, Fan(a.To, start, turn / 2, mm));
            yield return (b.Layer, Fan(a.To, start + turn / 2, turn / 2, mm));
        }
    }

    private static Path Fan(Point corner, double start, double turn, double mm)
    {
        (start, turn) = (start - FanOverlap, turn + 2 * FanOverlap);
        var steps = Math.Max(1, (int)Math.Ceiling(turn / FanStep));
        // Chords that touch the circle from outside.
        var radius = mm / Math.Cos(turn / steps / 2);
        return Path.Polyline(
            Enumerable.Range(0, steps + 1).Select(k => Math.SinCos(start + turn * k / steps)).Select(a => corner + new Point(a.Cos, a.Sin) * radius).Append(corner), closed: true);
    }
}
