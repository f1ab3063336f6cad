using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>What becomes of a part of a layer that hangs on nothing.</summary>
public enum LooseParts
{
    /// <summary>It is joined to the rest by a bridge.</summary>
    Bridge,

    /// <summary>It is left out of its layer and belongs to the one below.</summary>
    HandDown,
}

/// <summary>How a picture of several papers becomes a stack.</summary>
/// <param name="RimMm">Width of the rim that all layers share, mm.</param>
/// <param name="CloseMm">Gaps and slivers narrower than this are closed, mm; 0 for none.</param>
/// <param name="Loose">What becomes of loose parts.</param>
/// <param name="BridgeMm">Width of bridges, mm.</param>
public sealed record ColourStackOptions(double RimMm, double CloseMm = 0.3, LooseParts Loose = LooseParts.Bridge, double BridgeMm = 1)
{
    public const double LeastMm = 0.3, MostMm = 50, MostCloseMm = 5;

    /// <exception cref="EditRefused">A number is out of reach.</exception>
    internal void Check()
    {
        if (!(RimMm is >= LeastMm and <= MostMm)) throw EditRefused.RangeMm(Measure.RingWidth, LeastMm, MostMm, "rim");
        if (!(CloseMm is >= 0 and <= MostCloseMm)) throw EditRefused.RangeMm(Measure.SmallSize, 0, MostCloseMm, "close");
        if (!(BridgeMm is >= LeastMm and <= MostMm)) throw EditRefused.RangeMm(Measure.BridgeWidth, LeastMm, MostMm, "bridge");
    }
}

/// <summary>One layer of a stack.</summary>
/// <param name="Keeper">The piece that it keeps stock and name of.</param>
/// <param name="Members">Ids of the pieces that it is made of.</param>
/// <param name="Form">Its outline and openings on the card.</param>
/// <param name="Bridged">How many loose parts were bridged.</param>
/// <param name="HandedDown">How many were handed to the layer below.</param>
public sealed record StackLayer(Piece Keeper, ImmutableArray<string> Members, PathArea Form, int Bridged, int HandedDown);

/// <summary>
/// A picture of several papers inside one outline as a stack: each layer is its paper clipped to the outline and tied to a rim that all
/// share, the lowest is solid, and every layer is one piece. Seen from above the stack shows the picture, but for the rim and what was
/// closed, bridged or handed down. Stages: clip, add the rim, close narrow gaps and take slivers (closing and opening by half their
/// width), tie or hand down what is loose, count.
/// </summary>
public static class ColourLayers
{
    private const double Flatness = 0.001, FitMm = 0.008, WindowMm = 0.15;

    /// <summary>What rounding leaves is smaller, mm².</summary>
    private const double Speck = 0.01;

    /// <summary>The layers, lowest first; the first is the outline itself, solid.</summary>
    /// <param name="design">The design.</param>
    /// <param name="outline">Id of the piece that is the outline.</param>
    /// <param name="pieces">Ids of the papers; those of one stock that follow each other are one layer.</param>
    /// <param name="how">Rim, gaps, loose parts.</param>
    /// <exception cref="EditRefused">A number is out of reach, or none of the papers lies in the outline.</exception>
    public static ImmutableArray<StackLayer> Find(Design design, string outline, ImmutableArray<string> pieces, ColourStackOptions how)
    {
        how.Check();
        var outer = design.Require(outline);
        var papers = design.Pieces.Where(p => pieces.Contains(p.Id) && p.Id != outline).ToList();
        if (papers.Count == 0) throw new EditRefused(Reason.CombineTwo);
        var rings = new List<Path> { outer.Outline.Path.Map(outer.Place) };
        var first = new Dictionary<string, int>();
        foreach (var paper in papers)
        {
            first[paper.Id] = rings.Count;
            rings.AddRange(paper.Paper.Rings.Select(r => r.Map(paper.Place)));
        }
        var stitching = new Stitching(rings, Flatness, FitMm, WindowMm);
        var whole = Region.FromRings(stitching.Rings[0], []);
        var rim = whole.Minus(whole.Grow(-how.RimMm, Corners.Round, Arcs.QuarterEdges(how.RimMm)));
        var layers = new List<(Piece Keeper, ImmutableArray<string> Members, Region Area, int Bridged, int HandedDown)> { (outer, [outline], whole, 0, 0) };
        foreach (var group in Grouped(papers))
        {
            var paper = Region.UnionOf(group.Select(p => Region.FromRings(stitching.Rings[first[p.Id]], [.. Enumerable.Range(first[p.Id] + 1, p.Paper.Openings.Length).Select(i => stitching.Rings[i])])));
            var inside = paper.And(whole).Where(p => p.Area > Speck, _ => true);
            if (inside.IsEmpty) continue;
            layers.Add((group[0], [.. group.Select(p => p.Id)], Tidied(inside, rim, whole, how.CloseMm), 0, 0));
        }
        if (layers.Count == 1) throw new EditRefused(Reason.NothingInCommon, outer.Name, papers[0].Name);
        // From the top down, since what is handed down comes to the layer below.
        for (var i = layers.Count - 1; i > 0; i--)
        {
            var (keeper, members, area, _, _) = layers[i];
            var (one, handed, bridged) = OnePiece(area, rim, how);
            layers[i] = (keeper, members, one, bridged, handed.Count);
            if (handed.Count > 0 && i > 1) layers[i - 1] = layers[i - 1] with { Area = Region.UnionOf([layers[i - 1].Area, .. handed]) };
        }
        return [.. layers.Select(l => new StackLayer(l.Keeper, l.Members, FormOf(l.Area, stitching), l.Bridged, l.HandedDown))];
    }

    /// <summary>The papers become the layers of a stack, each with what is drawn and scored on it; the outline is the solid one below.</summary>
    /// <inheritdoc cref="Find"/>
    public static Design Make(Design design, string outline, ImmutableArray<string> pieces, ColourStackOptions how)
    {
        foreach (var id in pieces.Append(outline)) Mats.Unlocked(design.Require(id));
        var layers = Find(design, outline, pieces, how);
        // What does not lie in the outline stays as it is.
        var gone = layers.SelectMany(l => l.Members).ToHashSet();
        var at = design.Pieces.Select((p, i) => (p, i)).Where(t => gone.Contains(t.p.Id)).Min(t => t.i);
        var made = layers.Select(l =>
        {
            var back = l.Keeper.Place.Inverse();
            var form = new PathArea(l.Form.Outline.Map(back), [.. l.Form.Openings.Select(o => o.Map(back))]);
            var others = l.Members.Where(m => m != l.Keeper.Id).Select(design.Require).ToList();
            return Combining.Dressed(l.Keeper, others, [form], design).Made[0];
        });
        var rest = design.Pieces.Where(p => !gone.Contains(p.Id)).ToImmutableArray();
        return design with { Pieces = rest.InsertRange(Math.Min(at, rest.Length), made) };
    }

    private static IEnumerable<List<Piece>> Grouped(List<Piece> papers)
    {
        var group = new List<Piece>();
        foreach (var paper in papers)
        {
            if (group.Count > 0 && group[^1].Stock != paper.Stock)
            {
                yield return group;
                group = [];
            }
            group.Add(paper);
        }
        if (group.Count > 0) yield return group;
    }

    /// <summary>A layer with its rim, narrow gaps closed and slivers gone.</summary>
    private static Region Tidied(Region inside, Region rim, Region whole, double close)
    {
        var area = inside.Union(rim);
        if (close <= 0) return area;
        var (half, quarter) = (close / 2, Arcs.QuarterEdges(close / 2));
        // Only what closing adds in narrow places is taken, so that no other edge is touched.
        var added = area.Grow(half, Corners.Round, quarter).Grow(-half, Corners.Round, quarter).Minus(area).And(whole).Where(p => p.Area > Speck, _ => true);
        var slivers = inside.Minus(inside.Grow(-half, Corners.Round, quarter).Grow(half * 1.05, Corners.Round, quarter)).Where(p => p.Area > Speck && !Touches(p, rim), _ => true);
        return area.Union(added).Minus(slivers.Minus(rim));
    }

    private static bool Touches(Region part, Region rim) => part.And(rim.Grow(0.01, Corners.Round, 4)).Area > 0;

    /// <summary>A layer as one piece: parts that do not reach the rim are bridged to what does, or given away.</summary>
    private static (Region One, List<Region> Handed, int Bridged) OnePiece(Region area, Region rim, ColourStackOptions how)
    {
        var parts = area.Parts.Select(p => Region.FromRings(p.Outer, p.Openings)).Where(p => p.Area > Speck).OrderByDescending(p => p.And(rim).Area).ToList();
        var main = parts[0];
        var loose = parts.Skip(1).OrderByDescending(p => p.Area).ToList();
        if (how.Loose == LooseParts.HandDown) return (main, loose, 0);
        var count = loose.Count;
        while (loose.Count > 0)
        {
            // The nearest part first, so that parts behind it may hang on it.
            var (part, from, to) = loose.Select(p => NearestTo(main, p)).MinBy(w => w.From.DistanceTo(w.To));
            main = Region.UnionOf([main, part, Region.Around([Reaching(from, to, how.BridgeMm)], how.BridgeMm / 2, 8, flatEnds: true)]);
            loose.Remove(part);
        }
        return (main.Where(p => p.Area > Speck, _ => true), [], count);
    }

    private static Point[] Reaching(Point from, Point to, double width)
    {
        var along = to - from;
        var into = along.Length > 1e-9 ? along * (width / along.Length) : new Point(width, 0);
        return [from - into, to + into];
    }

    private static (Region Part, Point From, Point To) NearestTo(Region main, Region part)
    {
        var own = part.Rings.ToList();
        var (from, to) = main.Rings.SelectMany(ring => own.Select(o => Polygons.NearestPoints(ring, o))).MinBy(w => w.OnOne.DistanceTo(w.OnOther));
        return (part, from, to);
    }

    private static PathArea FormOf(Region area, Stitching stitching)
    {
        var parts = area.Parts.Where(p => Math.Abs(Polygons.SignedArea(p.Outer)) > Speck).ToList();
        // What should hold together does, or it is said.
        if (parts.Count != 1) throw new EditRefused(Reason.CutIntoParts, "A layer", parts.Count);
        return new PathArea(stitching.Ring(parts[0].Outer).Path, [.. parts[0].Openings.Where(o => Math.Abs(Polygons.SignedArea(o)) > Speck).Select(o => stitching.Ring(o).Path)]);
    }
}
