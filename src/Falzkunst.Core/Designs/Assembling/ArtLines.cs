using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs.Assembling;

/// <summary>The lines of a drawing, each with its operation by declaration, rule or default, and its ring group.</summary>
internal static class ArtLines
{
    public static List<ArtLine> Collect(Drawing drawing, IReadOnlyList<LookRule> rules, Budget budget)
    {
        var shared = SharedGroups(drawing);
        var lines = new List<ArtLine>();
        for (var order = 0; order < drawing.Shapes.Length; order++)
        {
            var shape = drawing.Shapes[order];
            var group = new RingGroup(LayerOf(shape, shared), shape.Appearance.Fill);
            var painted = PrintLook.From(shape.Appearance);
            foreach (var drawn in shape.Paths)
            {
                var path = CloseIfMeant(drawn, shape.Appearance);
                budget.Points(path.Flat.Length);
                budget.Work(50 + 4L * rules.Count);
                var look = Look.FromShape(shape, path);
                var rule = shape.Declared is null ? rules.FirstOrDefault(r => r.Fits(look)) : null;
                var operation = shape.Declared ?? rule?.Operation ?? DefaultOperations.For(look);
                var given = shape.Declared is not null || rule is not null || DefaultOperations.Suggested(look.Layer) is not null;
                lines.Add(new ArtLine(path, look, operation, given, group, order, shape.Name, rule, shape.Place, painted));
            }
        }
        return lines;
    }

    /// <summary>Ends that all but meet are joined; an area that is filled is closed, as its painter saw it.</summary>
    private static Path CloseIfMeant(Path path, Appearance appearance)
    {
        if (path.IsClosed || path.Segments.Length < 2) return path;
        var meets = path.Start.DistanceTo(path.End) <= Assembler.SnapMm && path.Length > 4 * Assembler.SnapMm;
        var filled = appearance is { Fill: not null, IsDashed: false } && Math.Abs(Polygons.SignedArea(path.Flat)) > 0.1;
        return meets || filled ? new Path(path.Start, path.Segments, closed: true) : path;
    }

    /// <summary>How many of the outermost named groups hold every shape of the drawing, and so say nothing.</summary>
    private static int SharedGroups(Drawing drawing)
    {
        if (drawing.Shapes.IsEmpty) return 0;
        var first = drawing.Shapes[0].Groups;
        var shared = 0;
        while (shared < first.Length && drawing.Shapes.All(s => s.Groups.Length > shared && s.Groups[shared] == first[shared])) shared++;
        return shared;
    }

    /// <summary>The layer that holds outline and openings together: the outermost named group that is not an operation's.</summary>
    private static string LayerOf(DrawnShape shape, int shared) =>
        shape.Groups.Skip(shared).FirstOrDefault(g => DefaultOperations.Stated(g) is null && DefaultOperations.Suggested(g) is null) ?? "";
}
