using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// The clip paths of a file as areas in millimetres (CSS Masking Level 1, 5), and those masks that are the same as one: nothing but
/// white areas, through which all is seen and beside which nothing (7). Masks of greys are not applied.
/// </summary>
internal sealed class SvgClips(SvgStyles styles, IReadOnlyDictionary<string, SvgNode> byId, Budget budget, NoteList notes)
{
    /// <summary>Clip paths that are cut off by others are followed so far.</summary>
    private const int Deepest = 8;

    /// <summary>A clip path of more shapes is not worked out.</summary>
    private const int MostShapes = 200;

    private readonly Dictionary<(string, Affine), ImmutableArray<ClipArea>> _known = [];

    /// <summary>The areas that all hold what is shown of an element; none where the clip path is not understood, with a note.</summary>
    /// <param name="id">Id of the clip path.</param>
    /// <param name="node">The element.</param>
    /// <param name="map">From its user units to mm.</param>
    /// <param name="style">Its style.</param>
    /// <param name="width">Width of what percentages are of.</param>
    /// <param name="height">Height of that.</param>
    public ImmutableArray<ClipArea> Resolve(string id, SvgNode node, Affine map, SvgStyle style, double width, double height)
    {
        if (!byId.TryGetValue(id, out var clip) || !(clip.Name == "clipPath" || (clip.Name == "mask" && IsOfWhite(clip, width)))) return NotApplied(node, clip?.Name == "mask");
        if (clip[clip.Name == "mask" ? "maskContentUnits" : "clipPathUnits"] == "objectBoundingBox")
        {
            if (!SvgBasicShapes.IsShape(node.Name)) return NotApplied(node);
            var box = SvgBasicShapes.Read(node, width, height, budget).Paths.Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds));
            if (box.IsEmpty) return [];
            return Areas(clip, new Affine(box.Width, 0, 0, box.Height, box.MinX, box.MinY).Then(map), style, 1, 1, Deepest) ?? NotApplied(node);
        }
        if (!_known.TryGetValue((id, map), out var areas)) _known[(id, map)] = areas = Areas(clip, map, style, width, height, Deepest) ?? NotApplied(node);
        return areas;
    }

    /// <summary>What is left of a shape: of an area its share of the clip, of a line that is only stroked its parts in it.</summary>
    public static IReadOnlyList<Path> Clipped(IReadOnlyList<Path> paths, Appearance appearance, ClipArea clip)
    {
        if (appearance.Fill is not null) return clip.Area(paths, appearance.FillEvenOdd);
        var parts = paths.Select(p => (Whole: p, Parts: clip.Line(p).ToList())).ToList();
        return parts.TrueForAll(p => p.Parts is [var only] && ReferenceEquals(only, p.Whole)) ? paths : [.. parts.SelectMany(p => p.Parts)];
    }

    private ImmutableArray<ClipArea> NotApplied(SvgNode node, bool isMask = false)
    {
        notes.Add(isMask ? new ReadingNote("mask", "The mask of a shape was not applied; the shape is shown whole.", node.Place)
            : new ReadingNote("clip-path", "The clip path of a shape was not applied; the shape is shown whole.", node.Place));
        return [];
    }

    /// <summary>All that a mask shows are areas of pure white.</summary>
    private bool IsOfWhite(SvgNode mask, double width)
    {
        var around = styles.Compute(mask, SvgStyle.Initial, width);
        return mask.Children.Count <= MostShapes && mask.Children.Where(c => c.IsSvg && c.Name is not ("title" or "desc" or "metadata")).All(c =>
            SvgBasicShapes.IsShape(c.Name) && styles.Compute(c, around, width).ToAppearance(1, 1) is { Fill: "#FFFFFF", FillOpacity: 1, Opacity: 1, Stroke: null, Shading: null });
    }

    private ImmutableArray<ClipArea>? Areas(SvgNode clip, Affine map, SvgStyle style, double width, double height, int deepest)
    {
        if (deepest == 0 || clip.Children.Count > MostShapes) return null;
        var own = styles.Compute(clip, style, width);
        if (SvgTransform.Read(own.Transform ?? clip["transform"]) is not { } moved) return null;
        map = moved.Then(map);
        var shapes = new List<(List<Path> Rings, bool IsEvenOdd)>();
        foreach (var child in clip.Children.Where(c => c.IsSvg)) Add(child, map, own, width, height, shapes);
        ImmutableArray<ClipArea> areas = [Joined(shapes)];
        if (own.ClipPath is not { } further || !byId.TryGetValue(further, out var other) || other.Name != "clipPath") return areas;
        return Areas(other, map, style, width, height, deepest - 1) is { } more ? areas.AddRange(more) : null;
    }

    private void Add(SvgNode child, Affine map, SvgStyle around, double width, double height, List<(List<Path>, bool)> shapes)
    {
        var style = styles.Compute(child, around, width);
        if (!style.Displayed || !style.Visible || SvgTransform.Read(style.Transform ?? child["transform"]) is not { } moved) return;
        map = moved.Then(map);
        if (child.Name == "use" && child.Reference is { } id && byId.TryGetValue(id, out var target) && SvgBasicShapes.IsShape(target.Name))
        {
            var at = Affine.Move(SvgLength.Read(child["x"], width) ?? 0, SvgLength.Read(child["y"], height) ?? 0);
            Add(target, at.Then(map), style, width, height, shapes);
        }
        else if (SvgBasicShapes.IsShape(child.Name))
        {
            shapes.Add(([.. SvgBasicShapes.Read(child, width, height, budget).Paths.Select(p => p.Map(map))], child.Parent?.Name == "mask" ? style.EvenOdd : style.ClipEvenOdd));
        }
        else if (child.Name is not ("title" or "desc" or "metadata"))
        {
            notes.Add(new ReadingNote("clip-path", $"A {ShownText.Clean(child.Name, 40)} in a clip path was not understood.", child.Place));
        }
    }

    /// <summary>One area of all shapes; a single one keeps its curves.</summary>
    private ClipArea Joined(List<(List<Path> Rings, bool IsEvenOdd)> shapes)
    {
        if (shapes is [var only]) return new ClipArea(only.Rings, only.IsEvenOdd, budget);
        return new ClipArea(ClipArea.Union(shapes, budget), isEvenOdd: true, budget);
    }
}
