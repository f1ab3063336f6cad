using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Walks the tree in painting order and collects what is painted, in millimetres.</summary>
internal sealed class SvgWalker(
    SvgStyles styles,
    IReadOnlyDictionary<string, SvgNode> byId,
    Budget budget,
    NoteList notes,
    double pageScale,
    ITextFaces faces)
{
    private const int DeepestReuse = 24;
    private readonly List<string> _reusing = [];
    private int _groups;
    private readonly SvgClips _clips = new(styles, byId, budget, notes);

    public List<DrawnShape> Shapes { get; } = [];
    public List<DrawnPicture> Pictures { get; } = [];

    /// <summary>Pictures that the file shows, those included that were left out.</summary>
    public int PictureCount { get; private set; }

    /// <summary>What an element lies in.</summary>
    private sealed record Around(
        Affine Map, SvgStyle Style, ImmutableArray<string> Groups, ImmutableArray<int> Within, Operation? Declared, double Width, double Height, ImmutableArray<ClipArea> Clips, int Depth);

    public void Root(SvgNode root, SvgPage page)
    {
        var outside = new Around(page.Map, SvgStyle.Initial, [], [], null, page.UserWidth, page.UserHeight, [], 0);
        var style = styles.Compute(root, SvgStyle.Initial, page.UserWidth);
        if (style.Displayed) Children(root, outside with { Style = style });
    }

    private void Children(SvgNode node, Around around)
    {
        var inside = around with { Depth = around.Depth + 1 };
        foreach (var child in node.Children) Visit(child, inside);
    }

    private void Visit(SvgNode node, Around around)
    {
        budget.Deep(around.Depth);
        budget.Work(30);
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
                if (Enter(node, around) is { Style.Visible: true } here) Picture(node, here);
                break;
            case "text":
                if (Enter(node, around) is { } inText) Text(node, inText);
                break;
            case "foreignObject" or "video" or "iframe":
                if (Enter(node, around) is { Style.Visible: true }) notes.Add(new ReadingNote("element", $"A {node.Name} element was left out.", node.Place));
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
        budget.Work(20 + (text?.Length ?? 0));
        var map = SvgTransform.Read(text);
        if (map is null)
        {
            notes.Add(new ReadingNote("transform", "A transform was not understood and left out.", node.Place));
            map = Affine.Identity;
        }
        if (style.Opacity is > 0 and < 1 && node.Children.Count > 1)
            notes.Add(new ReadingNote("group-opacity", "A group that shines through as a whole now does so shape by shape.", node.Place));
        var placed = map.Value.Then(around.Map);
        return around with
        {
            Map = placed,
            Style = style,
            Groups = SvgBasicShapes.IsShape(node.Name) || string.IsNullOrWhiteSpace(node.Called) ? around.Groups : around.Groups.Add(node.Called.Trim()),
            Within = SvgBasicShapes.IsShape(node.Name) ? around.Within : around.Within.Add(++_groups),
            Declared = DeclaredBy(node) ?? around.Declared,
            Clips = new[] { style.ClipPath, style.Mask }.OfType<string>().Aggregate(around.Clips, (clips, id) => clips.AddRange(_clips.Resolve(id, node, placed, style, around.Width, around.Height))),
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
            notes.Add(new ReadingNote("reference", $"A reference to “{ShownText.Clean(id, 40)}” leads nowhere.", node.Place));
            return;
        }
        if (_reusing.Contains(id) || _reusing.Count >= DeepestReuse)
        {
            notes.Add(new ReadingNote("reference", $"A reference to “{ShownText.Clean(id, 40)}” leads back to itself and was left out.", node.Place));
            return;
        }
        _reusing.Add(id);
        var x = SvgLength.Read(node["x"], around.Width) ?? 0;
        var y = SvgLength.Read(node["y"], around.Height) ?? 0;
        var placed = inside with { Map = Affine.Move(x, y).Then(inside.Map), Depth = inside.Depth + 1 };
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

    /// <summary>The children of a symbol or inner svg, fitted into its viewport and cut off there.</summary>
    private void Viewport(SvgNode node, SvgNode sizedBy, Around around)
    {
        // A symbol has no place of its own; an svg keeps its place also where it is reached by a use.
        var x = node.Name == "svg" ? SvgLength.Read(node["x"], around.Width) ?? 0 : 0;
        var y = node.Name == "svg" ? SvgLength.Read(node["y"], around.Height) ?? 0 : 0;
        var w = SvgLength.Read(sizedBy["width"], around.Width) ?? SvgLength.Read(node["width"], around.Width) ?? around.Width;
        var h = SvgLength.Read(sizedBy["height"], around.Height) ?? SvgLength.Read(node["height"], around.Height) ?? around.Height;
        if (!(w > 0) || !(h > 0) || SvgViewBox.ShowsNothing(node["viewBox"])) return;
        var view = SvgViewBox.Read(node["viewBox"]);
        var map = view is { } v ? SvgViewBox.Fit(v, w, h, node["preserveAspectRatio"]) : Affine.Identity;
        Children(node, around with
        {
            Map = map.Then(Affine.Move(x, y)).Then(around.Map),
            Width = view?.Width ?? w,
            Height = view?.Height ?? h,
            Clips = around.Style.ShowsOverflow == true ? around.Clips
                : around.Clips.Add(new ClipArea([Path.Rectangle(x, y, w, h).Map(around.Map)], isEvenOdd: false, budget)),
        });
    }

    private void Picture(SvgNode node, Around around)
    {
        PictureCount++;
        var (x, y) = (SvgLength.Read(node["x"], around.Width) ?? 0, SvgLength.Read(node["y"], around.Height) ?? 0);
        var (w, h) = (SvgLength.Read(node["width"], around.Width), SvgLength.Read(node["height"], around.Height));
        var data = DataAddress.Read(node["href"]);
        budget.Work(node["href"]?.Length ?? 0);
        if (data is not { } picture)
        {
            notes.Add(new ReadingNote("image", "A picture outside the file was left out.", node.Place));
            return;
        }
        var place = Affine.Move(x, y).Then(around.Map);
        if (w is not (> 0 and < Far) || h is not (> 0 and < Far) || !IsSane(Path.Rectangle(0, 0, w.Value, h.Value).Map(place)))
        {
            notes.Add(new ReadingNote("image", "An embedded picture that says no size, or lies far off the page, was left out.", node.Place));
            return;
        }
        notes.Add(new ReadingNote("image", "An embedded picture was kept with its place; it is not drawn yet.", node.Place));
        Pictures.Add(new DrawnPicture(picture.Content, picture.MediaType, place, w.Value, h.Value, Shapes.Count, node.Called, around.Groups, node.Place));
    }

    private void Shape(SvgNode node, Around around)
    {
        if (Enter(node, around) is not { Style.Visible: true } here) return;
        var (paths, complete) = SvgBasicShapes.Read(node, around.Width, around.Height, budget);
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
        var mapped = paths.Select(p => p.Map(here.Map)).Where(IsSane).ToList();
        if (mapped.Count < paths.Count) notes.Add(new ReadingNote("path-data", "A line far off the page was left out.", node.Place));
        var box = BoxOf(paths);
        var pattern = appearance.Fill is not null && here.Style.Fill.Server is { } server ? SvgPattern.Find(server, byId) : null;
        if (pattern is null) appearance = Shaded(appearance, here.Style, box, here, node);
        var shown = here.Clips.Aggregate((IReadOnlyList<Path>)mapped, (left, clip) => SvgClips.Clipped(left, appearance, clip));
        if (shown.Count == 0) return;
        if (!ReferenceEquals(shown, mapped))
        {
            budget.Segments(shown.Sum(p => p.Segments.Length));
            if (appearance is { Fill: not null, Stroke: not null })
                notes.Add(new ReadingNote("clip-stroke", "A filled shape was cut off by a clip path; its stroke runs along the cut as well.", node.Place));
        }
        budget.Shape();
        Shapes.Add(new DrawnShape([.. shown], appearance, node.Called, here.Groups, here.Declared, node.Place) { Within = here.Within });
        if (pattern is not null) Tiles(pattern, mapped, appearance.FillEvenOdd, box, here, node);
    }

    private static Box BoxOf(IEnumerable<Path> paths) => paths.Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds));

    private Appearance Shaded(Appearance appearance, SvgStyle style, Box box, Around around, SvgNode node) => appearance.Fill is null || style.Fill.Server is null ? appearance
        : appearance with { Shading = styles.ShadingOf(style, box, around.Width, around.Height, around.Map, node) };

    /// <summary>What a pattern fills a shape with, tile by tile, printed on it and cut off at its edge.</summary>
    private void Tiles(SvgPattern pattern, IReadOnlyList<Path> shape, bool isEvenOdd, Box box, Around around, SvgNode node)
    {
        var key = $"pattern {pattern.Content.Place}";
        var tiles = _reusing.Contains(key) || _reusing.Count >= DeepestReuse ? null : pattern.Over(box, around.Width, around.Height);
        if (tiles is null)
        {
            notes.Add(new ReadingNote("pattern", "A pattern of very many tiles, or of itself, was left out; its shape is white.", node.Place));
            return;
        }
        _reusing.Add(key);
        var inShape = around.Clips.Add(new ClipArea(shape, isEvenOdd, budget));
        foreach (var (tile, content) in tiles)
        {
            budget.Work(100);
            Children(pattern.Content, around with
            {
                Map = content.Then(around.Map),
                Style = SvgStyle.Initial,
                Declared = Operation.Print,
                Depth = around.Depth + 1,
                Clips = inShape.Add(new ClipArea([tile.Map(around.Map)], isEvenOdd: false, budget)),
            });
        }
        _reusing.RemoveAt(_reusing.Count - 1);
    }

    /// <summary>What is written, set run by run in the nearest face; drawn unless the file says otherwise.</summary>
    private void Text(SvgNode node, Around around)
    {
        var text = new SvgWords(styles, faces, budget, notes, around.Width, around.Height);
        var runs = text.Set(node, around.Style).ToList();
        var box = BoxOf(runs.SelectMany(r => r.Item1));
        foreach (var (letters, style) in runs)
        {
            var appearance = Shaded(style.ToAppearance(around.Map.MeanScale, pageScale), style, box, around, node);
            if (!style.Visible || (appearance.Fill is null && appearance.Stroke is null)) continue;
            var mapped = letters.Select(p => p.Map(around.Map)).Where(IsSane).ToList();
            var shown = around.Clips.Aggregate((IReadOnlyList<Path>)mapped, (left, clip) => SvgClips.Clipped(left, appearance, clip));
            if (shown.Count == 0) continue;
            budget.Shape();
            budget.Segments(shown.Sum(p => p.Segments.Length));
            Shapes.Add(new DrawnShape([.. shown], appearance, node.Called, around.Groups, around.Declared ?? Operation.Draw, node.Place) { Within = around.Within });
        }
    }

    private static bool IsUneven(Affine map)
    {
        var (a, b) = (Math.Sqrt(map.A * map.A + map.B * map.B), Math.Sqrt(map.C * map.C + map.D * map.D));
        return Math.Abs(a - b) > 0.02 * Math.Max(a, b) || Math.Abs(map.A * map.C + map.B * map.D) > 0.02 * a * b;
    }

    /// <summary>Nothing lies a kilometre off the page, mm.</summary>
    private const double Far = 1e6;

    private static bool IsSane(Path path)
    {
        static bool Sane(Point p) => Math.Abs(p.X) < Far && Math.Abs(p.Y) < Far;
        return Sane(path.Start) && path.Segments.All(s => Sane(s.End) && (!s.IsCubic || (Sane(s.Handle1) && Sane(s.Handle2))));
    }
}
