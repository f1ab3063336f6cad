using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>Walks the entities and the blocks they insert, and collects what they draw, in millimetres with y still up.</summary>
internal sealed class DxfWalker(DxfFile file, double unit, Budget budget, NoteList notes)
{
    private const int DeepestInsert = 24;

    /// <summary>Splines become cubics no farther from them than this, mm.</summary>
    private const double SplineToleranceMm = 0.002;

    /// <summary>Lines in such files have no width; they are shown with this one, mm.</summary>
    private const double ShownWidthMm = 0.25;

    private const int MostDashes = 64;

    private static readonly Affine FromBehind = Affine.Scale(-1, 1);
    private readonly List<string> _inserting = [];
    private int _groups;

    public List<DrawnShape> Shapes { get; } = [];

    /// <summary>What an insert hands on: its layer for entities on layer 0, its colour for those that take the block's.</summary>
    private sealed record Around(Affine Map, string? Layer, string Colour, string LineType, ImmutableArray<int> Within);

    public void All() => Visit(file.Entities, new Around(Affine.Scale(unit, unit), null, DxfColours.ByIndex(7), "CONTINUOUS", []));

    private void Visit(List<DxfEntity> entities, Around around)
    {
        foreach (var e in entities)
        {
            budget.Work(50 + 2 * e.Tags.Count);
            if (e.Integer(67) == 1) continue; // paper space: the frame of a printed page, not the drawing
            Visit(e, around);
        }
    }

    private void Visit(DxfEntity e, Around around)
    {
        var layer = file.Layers.GetValueOrDefault(e.Text(8, "0"));
        if (layer is { Shown: false } || e.Integer(60) == 1) return;
        if (Math.Abs(e.Number(230, 1)) < 0.999)
        {
            notes.Add(new ReadingNote("not-flat", "Something that does not lie in the plane was left out.", e.Place));
            return;
        }
        // Most entities are drawn as seen along their normal; ellipses, splines and lines are in the drawing's own coordinates.
        var map = e.Number(230, 1) < 0 && e.Kind is not ("LINE" or "ELLIPSE" or "SPLINE") ? FromBehind.Then(around.Map) : around.Map;
        switch (e.Kind)
        {
            case "LINE": Draw(e, around, map, DxfCurves.Line(e)); break;
            case "CIRCLE": Draw(e, around, map, DxfCurves.Circle(e)); break;
            case "ARC": Draw(e, around, map, DxfCurves.Arc(e)); break;
            case "ELLIPSE": Draw(e, around, map, DxfCurves.Ellipse(e)); break;
            case "LWPOLYLINE": Draw(e, around, map, DxfCurves.Polyline(DxfCurves.Corners(e), (e.Integer(70) & 1) != 0)); break;
            case "POLYLINE": OldPolyline(e, around, map); break;
            case "SPLINE": Spline(e, around, map); break;
            case "INSERT": Insert(e, around, map); break;
            case "POINT" or "VIEWPORT" or "ATTDEF": break;
            case "TEXT" or "MTEXT": notes.Add(new ReadingNote("text", "Text was left out. Turn it into outlines in the drawing program.", e.Place)); break;
            case "HATCH" or "SOLID" or "TRACE": notes.Add(new ReadingNote("fill", "A filled area was left out; its edge is read where it is drawn as a line.", e.Place)); break;
            case "IMAGE": notes.Add(new ReadingNote("image", "A picture outside the file was left out.", e.Place)); break;
            default: notes.Add(new ReadingNote("element", $"A {ShownText.Clean(e.Kind, 40)} entity was not understood.", e.Place)); break;
        }
    }

    private void OldPolyline(DxfEntity e, Around around, Affine map)
    {
        if ((e.Integer(70) & (8 | 16 | 64)) != 0 && e.Parts.Exists(v => v.Number(30) != e.Parts[0].Number(30)))
            notes.Add(new ReadingNote("not-flat", "A line in space was laid flat.", e.Place));
        // Vertices of a spline's frame are not on the line.
        var corners = e.Parts.Where(v => v.Kind == "VERTEX" && (v.Integer(70) & 16) == 0).Select(v => (v.Point(10), v.Number(42))).ToList();
        Draw(e, around, map, DxfCurves.Polyline(corners, (e.Integer(70) & 1) != 0));
    }

    private void Spline(DxfEntity e, Around around, Affine map)
    {
        var path = DxfSpline.Read(e, SplineToleranceMm / map.MeanScale, budget);
        if (path is null) notes.Add(new ReadingNote("spline", "A spline whose knots do not fit its points was left out.", e.Place));
        else Draw(e, around, map, path);
    }

    private void Insert(DxfEntity e, Around around, Affine map)
    {
        var name = e.Text(2);
        if (!file.Blocks.TryGetValue(name, out var block))
        {
            notes.Add(new ReadingNote("reference", $"A block “{ShownText.Clean(name, 40)}” is inserted that the file does not hold.", e.Place));
            return;
        }
        if (_inserting.Contains(name) || _inserting.Count >= DeepestInsert)
        {
            notes.Add(new ReadingNote("reference", $"The block “{ShownText.Clean(name, 40)}” contains itself and was left out there.", e.Place));
            return;
        }
        _inserting.Add(name);
        var inside = around with { Layer = LayerOf(e, around), Colour = ColourOf(e, around), LineType = LineTypeOf(e, around) };
        var (columns, rows) = (Math.Clamp(e.Integer(70, 1), 1, 1000), Math.Clamp(e.Integer(71, 1), 1, 1000));
        for (var row = 0; row < rows; row++)
        {
            for (var column = 0; column < columns; column++)
            {
                var place = Affine.Move(-block.Base.X, -block.Base.Y)
                    .Then(Affine.Scale(e.Number(41, 1), e.Number(42, 1)))
                    .Then(Affine.Move(column * e.Number(44), row * e.Number(45)))
                    .Then(Affine.Turn(e.Number(50)))
                    .Then(Affine.Move(e.Point(10)))
                    .Then(map);
                if (place.Determinant != 0) Visit(block.Entities, inside with { Map = place, Within = around.Within.Add(++_groups) });
            }
        }
        _inserting.RemoveAt(_inserting.Count - 1);
    }

    private void Draw(DxfEntity e, Around around, Affine map, Path? path)
    {
        if (path is null) return;
        const double far = 1e6;
        var mapped = path.Map(map);
        if (!mapped.Bounds.Grow(1).Contains(mapped.Start) || !(Math.Abs(mapped.Bounds.MinX) < far && Math.Abs(mapped.Bounds.MaxX) < far && Math.Abs(mapped.Bounds.MinY) < far && Math.Abs(mapped.Bounds.MaxY) < far))
        {
            notes.Add(new ReadingNote("far", "A line far off the drawing was left out.", e.Place));
            return;
        }
        if (e.Kind != "SPLINE") budget.Segments(mapped.Segments.Length);
        budget.Shape();
        var layer = LayerOf(e, around);
        var dashes = file.LineTypes.GetValueOrDefault(LineTypeOf(e, around)) ?? [];
        var appearance = new Appearance
        {
            Stroke = ColourOf(e, around),
            StrokeWidth = ShownWidthMm,
            LineCap = "round",
            LineJoin = "round",
            Dashes = dashes.Exists(d => d < 0) ? [.. dashes.Take(MostDashes).Select(d => Math.Clamp(Math.Abs(d) * unit, 0.01, 1e6))] : [],
        };
        Shapes.Add(new DrawnShape([mapped], appearance, null, layer is null or "0" ? [] : [ShownText.Clean(layer)], DefaultOperations.Stated(layer), e.Place) { Within = around.Within });
    }

    private static string? LayerOf(DxfEntity e, Around around) => e.Text(8, "0") is var own && own == "0" ? around.Layer ?? own : own;

    private string ColourOf(DxfEntity e, Around around)
    {
        if (DxfColours.True(e.Find(420)) is { } full) return full;
        var index = e.Integer(62, 256);
        if (index == 0) return around.Colour;
        if (index is > 0 and < 256) return DxfColours.ByIndex(index);
        var layer = file.Layers.GetValueOrDefault(LayerOf(e, around) ?? "0");
        return layer?.TrueColour ?? DxfColours.ByIndex(layer?.Colour ?? 7);
    }

    private string LineTypeOf(DxfEntity e, Around around) => e.Text(6, "BYLAYER") switch
    {
        var byBlock when byBlock.Equals("BYBLOCK", StringComparison.OrdinalIgnoreCase) => around.LineType,
        var byLayer when byLayer.Equals("BYLAYER", StringComparison.OrdinalIgnoreCase) =>
            file.Layers.GetValueOrDefault(LayerOf(e, around) ?? "0")?.LineType ?? "CONTINUOUS",
        var own => own,
    };
}
