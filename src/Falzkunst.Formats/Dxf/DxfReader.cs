using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>
/// Reads text DXF at true size: layers, blocks, lines, arcs, circles, ellipses, polylines of both ages with bulges, splines. A
/// DXF has no page; the drawing's page is the box around all it draws, turned so that y points down.
/// </summary>
internal static class DxfReader
{
    private const double MmToInch = 25.4;

    /// <summary>Reads a file.</summary>
    /// <exception cref="ReadRefused">The file is not read at all; what is read in part is in the drawing's notes.</exception>
    /// <exception cref="BudgetSpent">It asks for more than it may have.</exception>
    public static Drawing Read(ReadOnlyMemory<byte> bytes, Budget budget)
    {
        var file = DxfFile.Parse(DxfTags.Read(bytes, budget), budget);
        var notes = new NoteList();
        var (unit, isSaid) = DxfUnits.Millimetres(file, notes.Add);
        var walker = new DxfWalker(file, unit, budget, notes);
        walker.All();
        var box = walker.Shapes.SelectMany(s => s.Paths).Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds));
        if (box.IsEmpty) return new Drawing(0, 0, [], 0, notes.ToImmutable());
        var ontoPage = new Affine(1, 0, 0, -1, -box.MinX, box.MaxY);
        return new Drawing(
            Math.Round(box.Width, 9), Math.Round(box.Height, 9),
            [.. walker.Shapes.Select(s => s with { Paths = [.. s.Paths.Select(p => p.Map(ontoPage))] })],
            0, notes.ToImmutable())
        { UnitsToInch = isSaid ? null : MmToInch / unit };
    }
}
