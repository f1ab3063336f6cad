using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>Reads SVG at true size. The file is taken as hostile: nothing outside it is touched and every growth has a limit.</summary>
public static class SvgReader
{
    /// <summary>Reads a file.</summary>
    /// <param name="file">Its bytes.</param>
    /// <param name="limits">How much it may ask for.</param>
    /// <exception cref="ReadRefused">The file is not read at all; what is read in part is in the drawing's notes.</exception>
    public static Drawing Read(ReadOnlyMemory<byte> file, ReadLimits? limits = null)
    {
        limits ??= ReadLimits.Default;
        using var time = new CancellationTokenSource(limits.Time);
        var root = SvgTree.Read(file, limits, time.Token);
        var notes = new NoteList(limits.Notes);
        var sheet = new SvgStyleSheet();
        var byId = new Dictionary<string, SvgNode>(StringComparer.Ordinal);
        foreach (var node in Everything(root))
        {
            if (node.Id is { } id) byId.TryAdd(id, node);
            if (node is { Name: "style", IsSvg: true }) sheet.Add(node, notes.Add);
        }
        var page = SvgPage.Of(root);
        var styles = new SvgStyles(sheet, new SvgPaintServers(byId, sheet), notes.Add);
        var walker = new SvgWalker(styles, byId, limits, notes, page.PixelMm, time.Token);
        walker.Root(root, page);
        return new Drawing(page.Width, page.Height, [.. walker.Shapes], walker.Images, notes.ToImmutable());
    }

    private static IEnumerable<SvgNode> Everything(SvgNode root)
    {
        var open = new Stack<SvgNode>([root]);
        while (open.TryPop(out var node))
        {
            yield return node;
            for (var i = node.Children.Count - 1; i >= 0; i--) open.Push(node.Children[i]);
        }
    }
}
