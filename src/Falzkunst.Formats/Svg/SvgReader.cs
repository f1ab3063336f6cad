using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats.Svg;

/// <summary>Reads SVG at true size. The file is taken as hostile: nothing outside it is touched and every growth draws from the budget.</summary>
internal static class SvgReader
{
    /// <summary>Reads a file.</summary>
    /// <exception cref="ReadRefused">The file is not read at all; what is read in part is in the drawing's notes.</exception>
    /// <exception cref="BudgetSpent">It asks for more than it may have.</exception>
    public static Drawing Read(ReadOnlyMemory<byte> file, Budget budget, ITextFaces faces)
    {
        var root = SvgTree.Read(file, budget);
        var notes = new NoteList();
        var sheet = new SvgStyleSheet(budget);
        var byId = new Dictionary<string, SvgNode>(StringComparer.Ordinal);
        foreach (var node in Everything(root))
        {
            if (node.Id is { } id) byId.TryAdd(id, node);
            if (node is { Name: "style", IsSvg: true }) sheet.Add(node, notes.Add);
        }
        var page = SvgPage.Read(root, notes.Add);
        var cascade = new SvgCascade(sheet, budget);
        var styles = new SvgStyles(cascade, new SvgPaintServers(byId, cascade), notes.Add, budget);
        var walker = new SvgWalker(styles, byId, budget, notes, page.PixelMm, faces);
        walker.Root(root, page);
        return new Drawing(page.Width, page.Height, [.. walker.Shapes], walker.PictureCount, notes.ToImmutable()) { Pictures = [.. walker.Pictures], UnitsToInch = page.SaysSize ? null : PixelsToInch };
    }

    /// <summary>CSS pixels to the inch.</summary>
    private const double PixelsToInch = 96;

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
