using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Walks the tree in painting order and collects what is painted, in millimetres.</summary>
internal sealed class SvgWalker(
    SvgStyles styles,
    IReadOnlyDictionary<string, SvgNode> byId,
    ReadLimits limits,
    NoteList notes,
    double pageScale,
    CancellationToken time)
{
    private const int DeepestReuse = 24;
    private readonly List<string> _reusing = [];
    private int _segments;
    private int _visited;

    public List<DrawnShape> Shapes { get; } = [];
    public int Images { get; private set; }

    /// <summary>What an element lies in.</summary>
    private sealed record Around(
        Affine Map, SvgStyle Style, ImmutableArray<string> Groups, Operation? Declared, double Width, double Height);

    public void Root(SvgNode root, SvgPage page)
    {
        var outside = new Around(page.Map, SvgStyle.Initial, [], null, page.UserWidth, page.UserHeight);
        var style = styles.Compute(root, SvgStyle.Initial, page.UserWidth);
        if (style.Displayed) Children(root, outside with { Style = style });
    }

    private void Children(SvgNode node, Around around)
    {
        foreach (var child in node.Children) Visit(child, around);
    }

    private void Visit(SvgNode node, Around around)
    {
        if ((++_visited & 255) == 0) Checks.Time(time);
        if (!node.IsSvg) return;
        switch (node.Name)
        {
            case "g" or "a":
                if (Enter(node, around) is { } inGroup) Children(node, inGroup);
                break;
            case "switch":
                if (Enter(node, around) is { } inSwitch && node.Children.FirstOrDefault(Supported) is { } chosen) Visit(chosen, inSwitch);
                break;
            case "svg":
                if (Enter(node, around) is { } inSvg) Viewport(node, node, inSvg);
                break;
            case "use":
                Use(node, around);
                break;
            case "image":
                if (Enter(node, around) is { Style.Visible: true }) Image(node);
                break;
            case "text" or "foreignObject" or "video" or "iframe":
                if (Enter(node, around) is { Style.Visible: true })
                    notes.Add(new ReadingNote(node.Name == "text" ? "text" : "element",
                        node.Name == "text" ? "Text was left out. Turn it into outlines in the drawing program." : $"A {node.Name} element was left out.", node.Place));
                break;
            case "script":
                notes.Add(new ReadingNote("script", "A script was left out.", node.Place));
                break;
            case "animate" or "animateTransform" or "animateMotion" or "set":
                notes.Add(new ReadingNote("animation", "An animation was left out; the picture stands as it begins.", node.Place));
                break;
            default:
                if (SvgBasicShapes.IsShape(node.Name)) Shape(node, around);
                else if (!IsSilent(node.Name)) notes.Add(new ReadingNote("element", $"A {node.Name} element was not understood.", node.Place));
                break;
        }
    }

    private static bool IsSilent(string name) => name is "defs" or "symbol" or "clipPath" or "mask" or "marker" or "pattern"
        or "linearGradient" or "radialGradient" or "filter" or "style" or "title" or "desc" or "metadata" or "view" or "cursor" or "font";

    private static bool Supported(SvgNode node) =>
        node.IsSvg && node["requiredExtensions"] is null && (SvgBasicShapes.IsShape(node.Name) || node.Name is "g" or "svg" or "use" or "a" or "text" or "image");

    /// <summary>Style, transform, name and declaration of an element on top of what it lies in; null where it is not shown.</summary>
    private Around? Enter(SvgNode node, Around around)
    {
        var style = styles.Compute(node, around.Style, around.Width);
        if (!style.Displayed) return null;
        var text = style.Transform ?? node["transform"];
        var map = SvgTransform.Read(text);
        if (map is null)
        {
            notes.Add(new ReadingNote("transform", "A transform was not understood and left out.", node.Place));
            map = Affine.Identity;
        }
        if (style.Opacity is > 0 and < 1 && node.Children.Count > 1)
            notes.Add(new ReadingNote("group-opacity", "A group that shines through as a whole now does so shape by shape.", node.Place));
        var name = node["label"] ?? node.Id;
        return around with
        {
            Map = map.Value.Then(around.Map),
            Style = style,
            Groups = SvgBasicShapes.IsShape(node.Name) || string.IsNullOrWhiteSpace(name) ? around.Groups : around.Groups.Add(name.Trim()),
            Declared = DeclaredBy(node) ?? around.Declared,
        };
    }

    private static Operation? DeclaredBy(SvgNode node) =>
        OperationWords.TryRead(node["data-operation"]?.Trim() ?? "", out var stated) ? stated : DefaultOperations.Stated(node.Id);

    private void Use(SvgNode node, Around around)
    {
        if (Enter(node, around) is not { } inside) return;
        if (node.Reference is not { } id)
        {
            notes.Add(new ReadingNote("reference", "A reference to something outside the file was left out.", node.Place));
            return;
        }
        if (!byId.TryGetValue(id, out var target))
        {
            notes.Add(new ReadingNote("reference", $"A reference to “{id}” leads nowhere.", node.Place));
            return;
        }
        if (_reusing.Contains(id) || _reusing.Count >= DeepestReuse)
        {
            notes.Add(new ReadingNote("reference", $"A reference to “{id}” leads back to itself and was left out.", node.Place));
            return;
        }
        _reusing.Add(id);
        var x = SvgLength.Read(node["x"], around.Width) ?? 0;
        var y = SvgLength.Read(node["y"], around.Height) ?? 0;
        var placed = inside with { Map = Affine.Move(x, y).Then(inside.Map) };
        if (target.Name is "symbol" or "svg")
        {
            if (Enter(target, placed) is { } inTarget) Viewport(target, node, inTarget);
        }
        else
        {
            Visit(target, placed);
        }
        _reusing.RemoveAt(_reusing.Count - 1);
    }

    /// <summary>The children of a symbol or inner svg, fitted into its viewport.</summary>
    private void Viewport(SvgNode node, SvgNode sizedBy, Around around)
    {
        var inner = node.Name == "svg" && sizedBy == node;
        var x = inner ? SvgLength.Read(node["x"], around.Width) ?? 0 : 0;
        var y = inner ? SvgLength.Read(node["y"], around.Height) ?? 0 : 0;
        var w = SvgLength.Read(sizedBy["width"], around.Width) ?? SvgLength.Read(node["width"], around.Width) ?? around.Width;
        var h = SvgLength.Read(sizedBy["height"], around.Height) ?? SvgLength.Read(node["height"], around.Height) ?? around.Height;
        if (!(w > 0) || !(h > 0)) return;
        var view = SvgViewBox.Read(node["viewBox"]);
        var map = view is { } v ? SvgViewBox.Fit(v, w, h, node["preserveAspectRatio"]) : Affine.Identity;
        Children(node, around with
        {
            Map = map.Then(Affine.Move(x, y)).Then(around.Map), Width = view?.Width ?? w, Height = view?.Height ?? h,
        });
    }

    private void Image(SvgNode node)
    {
        Images++;
        var outside = node["href"] is not { } href || !href.StartsWith("data:", StringComparison.OrdinalIgnoreCase);
        notes.Add(new ReadingNote("image",
            outside ? "A picture outside the file was left out." : "An embedded picture was left out.", node.Place));
    }

    private void Shape(SvgNode node, Around around)
    {
        if (Enter(node, around) is not { Style.Visible: true } here) return;
        var (paths, complete) = SvgBasicShapes.Read(node, around.Width, around.Height);
        if (!complete) notes.Add(new ReadingNote("path-data", "A line has an error in its data; it was read up to there.", node.Place));
        if (paths.Count == 0) return;
        var scale = here.Map.MeanScale;
        var appearance = here.Style.ToAppearance(scale, pageScale);
        if (appearance.Fill is null && appearance.Stroke is null)
        {
            notes.Add(new ReadingNote("unpainted", "A shape that is neither filled nor stroked was left out.", node.Place));
            return;
        }
        if (appearance.Stroke is not null && IsUneven(here.Map))
            notes.Add(new ReadingNote("uneven-stroke", "A stroke that was stretched more one way than the other is now even.", node.Place));
        var mapped = paths.Select(p => p.Map(here.Map)).Where(IsSane).ToImmutableArray();
        if (mapped.Length < paths.Count) notes.Add(new ReadingNote("path-data", "A line far off the page was left out.", node.Place));
        if (mapped.IsEmpty) return;
        _segments += mapped.Sum(p => p.Segments.Length);
        if (_segments > limits.Segments) throw new ReadRefused("too-many-segments", $"The lines have more than {limits.Segments:N0} segments. Simplify the drawing or split it.");
        if (Shapes.Count >= limits.Shapes) throw new ReadRefused("too-many-shapes", $"The file draws more than {limits.Shapes:N0} shapes. Split the drawing into parts.");
        Shapes.Add(new DrawnShape(mapped, appearance, node["label"] ?? node.Id, here.Groups, here.Declared, node.Place));
    }

    private static bool IsUneven(Affine map)
    {
        var (a, b) = (Math.Sqrt(map.A * map.A + map.B * map.B), Math.Sqrt(map.C * map.C + map.D * map.D));
        return Math.Abs(a - b) > 0.02 * Math.Max(a, b) || Math.Abs(map.A * map.C + map.B * map.D) > 0.02 * a * b;
    }

    private static bool IsSane(Path path)
    {
        const double far = 1e6;
        static bool Sane(Point p) => Math.Abs(p.X) < far && Math.Abs(p.Y) < far;
        return Sane(path.Start) && path.Segments.All(s => Sane(s.End) && (!s.IsCubic || (Sane(s.Handle1) && Sane(s.Handle2))));
    }
}
