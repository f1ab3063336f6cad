using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>A pattern as its file states it, what it takes from others included (SVG 2, 14.3): what is in a tile, and where tiles lie.</summary>
/// <param name="Content">The element whose children are in a tile.</param>
/// <param name="Says">Attributes by name, its own before those of the ones that it refers to.</param>
internal sealed record SvgPattern(SvgNode Content, IReadOnlyDictionary<string, string> Says)
{
    private const int MostHops = 16;

    /// <summary>More tiles than this over one shape are not drawn one by one.</summary>
    public const int MostTiles = 1500;

    /// <summary>A tile is larger by this share all round: a stroke along its edge, as grids have them, lies in it. It is drawn in its whole width then.</summary>
    private const double Hair = 1e-6;

    private static readonly string[] Names = ["x", "y", "width", "height", "patternUnits", "patternContentUnits", "patternTransform", "viewBox", "preserveAspectRatio"];

    /// <summary>The pattern of an id; null where there is none, or nothing is in it.</summary>
    public static SvgPattern? Find(string id, IReadOnlyDictionary<string, SvgNode> byId)
    {
        var says = new Dictionary<string, string>(StringComparer.Ordinal);
        SvgNode? content = null;
        for (var hop = 0; hop < MostHops && byId.TryGetValue(id, out var node) && node.Name == "pattern"; hop++)
        {
            foreach (var name in Names) if (node[name] is { } value) says.TryAdd(name, value);
            if (content is null && node.Children.Exists(c => c.IsSvg)) content = node;
            if (node.Reference is not { } next) break;
            id = next;
        }
        return content is null ? null : new SvgPattern(content, says);
    }

    /// <summary>The tiles over a shape: each its box and the map of what is in it, both to user units; none where they have no size, null where they are too many.</summary>
    /// <param name="box">The shape's, in user units.</param>
    /// <param name="width">What percentages of x are of, user units.</param>
    /// <param name="height">What percentages of y are of, user units.</param>
    public IReadOnlyList<(Path Box, Affine Content)>? Over(Box box, double width, double height)
    {
        var isOfBox = Says.GetValueOrDefault("patternUnits") != "userSpaceOnUse";
        if (isOfBox && !(box.Width > 0 && box.Height > 0)) return [];
        double Number(string name, double whole) => SvgLength.Read(Says.GetValueOrDefault(name), isOfBox ? 1 : whole) ?? 0;
        var (x, y, w, h) = (Number("x", width), Number("y", height), Number("width", width), Number("height", height));
        if (isOfBox) (x, y, w, h) = (box.MinX + x * box.Width, box.MinY + y * box.Height, w * box.Width, h * box.Height);
        if (!(w > 0 && h > 0) || SvgTransform.Read(Says.GetValueOrDefault("patternTransform")) is not { } map || !(Math.Abs(map.Determinant) > 1e-12)) return [];
        // What one tile holds, from its corner.
        var inTile = SvgViewBox.Read(Says.GetValueOrDefault("viewBox")) is { } view ? SvgViewBox.Fit(view, w, h, Says.GetValueOrDefault("preserveAspectRatio")).Then(Affine.Move(x, y))
            : (Says.GetValueOrDefault("patternContentUnits") == "objectBoundingBox" ? Affine.Scale(box.Width, box.Height) : Affine.Identity).Then(Affine.Move(x, y));
        var over = Path.Rectangle(box.MinX, box.MinY, box.Width, box.Height).Map(map.Inverse()).Bounds;
        var (left, top) = (Math.Floor((over.MinX - x) / w), Math.Floor((over.MinY - y) / h));
        var (across, down) = (Math.Ceiling((over.MaxX - x) / w) - left, Math.Ceiling((over.MaxY - y) / h) - top);
        if (!(across * down <= MostTiles)) return null;
        var tiles = new List<(Path, Affine)>();
        for (var row = 0; row < down; row++)
        {
            for (var column = 0; column < across; column++)
            {
                var step = Affine.Move((left + column) * w, (top + row) * h);
                tiles.Add((Path.Rectangle(x - w * Hair, y - h * Hair, w * (1 + 2 * Hair), h * (1 + 2 * Hair)).Map(step.Then(map)), inTile.Then(step).Then(map)));
            }
        }
        return tiles;
    }
}
