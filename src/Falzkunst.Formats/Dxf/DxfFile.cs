using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Dxf;

/// <summary>A layer: its colour as an index or as #rrggbb, its line type, and whether it is shown.</summary>
internal sealed record DxfLayer(string Name, int Colour, string? TrueColour, string LineType, bool Shown);

/// <summary>A named set of entities with its base point.</summary>
internal sealed record DxfBlock(Point Base, List<DxfEntity> Entities);

/// <summary>The parts of a DXF file that matter here, as they stand in it.</summary>
internal sealed class DxfFile
{
    public Dictionary<string, DxfTag> Header { get; } = new(StringComparer.Ordinal);
    public Dictionary<string, DxfLayer> Layers { get; } = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Dash lengths by line type, in drawing units; pens down positive, gaps negative.</summary>
    public Dictionary<string, List<double>> LineTypes { get; } = new(StringComparer.OrdinalIgnoreCase);
    public Dictionary<string, DxfBlock> Blocks { get; } = new(StringComparer.OrdinalIgnoreCase);
    public List<DxfEntity> Entities { get; private set; } = [];

    /// <exception cref="BudgetSpent">There are more entities than are read.</exception>
    public static DxfFile Parse(List<DxfTag> tags, Budget budget)
    {
        var file = new DxfFile();
        var at = 0;
        while (at < tags.Count)
        {
            if (!(tags[at] is { Code: 0, Value: "SECTION" } && at + 1 < tags.Count))
            {
                at++;
                continue;
            }
            var name = tags[at + 1].Value;
            at += 2;
            var from = at;
            while (at < tags.Count && !(tags[at] is { Code: 0, Value: "ENDSEC" })) at++;
            var section = tags[from..at];
            switch (name)
            {
                case "HEADER": file.ReadHeader(section); break;
                case "TABLES": file.ReadTables(Entitled(section, budget)); break;
                case "BLOCKS": file.ReadBlocks(Entitled(section, budget)); break;
                case "ENTITIES": file.Entities = Gathered(Entitled(section, budget)); break;
            }
        }
        return file;
    }

    private void ReadHeader(List<DxfTag> tags)
    {
        for (var i = 0; i + 1 < tags.Count; i++)
        {
            if (tags[i].Code == 9) Header.TryAdd(tags[i].Value, tags[i + 1]);
        }
    }

    private static List<DxfEntity> Entitled(List<DxfTag> tags, Budget budget)
    {
        var all = new List<DxfEntity>();
        foreach (var tag in tags)
        {
            if (tag.Code == 0)
            {
                budget.Element();
                all.Add(new DxfEntity(tag.Value, tag.Line));
            }
            else if (all.Count > 0)
            {
                all[^1].Add(tag);
            }
        }
        return all;
    }

    // Vertices belong to the polyline before them, up to SEQEND.
    private static List<DxfEntity> Gathered(IEnumerable<DxfEntity> entities)
    {
        var all = new List<DxfEntity>();
        foreach (var e in entities)
        {
            if (e.Kind is "VERTEX" or "ATTRIB" && all.Count > 0) all[^1].Parts.Add(e);
            else if (e.Kind != "SEQEND") all.Add(e);
        }
        return all;
    }

    private void ReadTables(List<DxfEntity> rows)
    {
        foreach (var row in rows)
        {
            if (row.Kind == "LAYER")
            {
                var colour = row.Integer(62, 7);
                Layers.TryAdd(row.Text(2), new DxfLayer(row.Text(2), Math.Abs(colour), DxfColours.True(row.Find(420)), row.Text(6), colour >= 0 && (row.Integer(70) & 1) == 0));
            }
            else if (row.Kind == "LTYPE")
            {
                LineTypes.TryAdd(row.Text(2), row.Numbers(49));
            }
        }
    }

    private void ReadBlocks(List<DxfEntity> rows)
    {
        DxfEntity? begin = null;
        var inside = new List<DxfEntity>();
        foreach (var row in rows)
        {
            if (row.Kind == "BLOCK")
            {
                (begin, inside) = (row, []);
            }
            else if (row.Kind == "ENDBLK")
            {
                if (begin is not null) Blocks.TryAdd(begin.Text(2), new DxfBlock(begin.Point(10), Gathered(inside)));
                begin = null;
            }
            else if (begin is not null)
            {
                inside.Add(row);
            }
        }
    }
}
