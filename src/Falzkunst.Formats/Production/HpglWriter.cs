using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Production;

/// <summary>
/// A sheet as HPGL: by the standard 40 units to the millimetre, y up, origin at the sheet's lower left corner, one pen for each tool.
/// Curves are flattened to 0.01 mm; rounding to units adds at most 0.018 mm at 40 units.
/// </summary>
public static class HpglWriter
{
    /// <summary>Older plotters read lines of limited length.</summary>
    private const int PointsPerCommand = 24;

    /// <summary>The file, and what each pen number is.</summary>
    /// <param name="page">The sheet.</param>
    /// <param name="inksApart">Pens and foils of different colours get numbers of their own.</param>
    /// <param name="way">Units and origin that the machine wants; null for the standard's.</param>
    public static (string Text, ImmutableSortedDictionary<int, string> Pens) Write(ProductionPage page, bool inksApart = true, MachineFile? way = null)
    {
        way ??= new MachineFile(MachineFormat.Hpgl);
        var text = new StringBuilder("IN;\n");
        var pens = new List<string>();
        foreach (var group in page.Groups.Where(g => g.Operation.ToolFor() is not null))
        {
            var name = inksApart && group.Ink is not null ? $"{group.Operation.Word()} {group.Ink}" : group.Operation.Word();
            if (!pens.Contains(name)) pens.Add(name);
            text.Append(CultureInfo.InvariantCulture, $"SP{pens.IndexOf(name) + 1};\n");
            foreach (var path in group.Paths)
            {
                for (var time = 0; time < group.Times; time++) Line(text, path, page.Height, way);
            }
        }
        text.Append("PU;SP0;\n");
        return (text.ToString(), pens.Select((name, i) => (name, i)).ToImmutableSortedDictionary(p => p.i + 1, p => p.name));
    }

    private static void Line(StringBuilder text, Path path, double height, MachineFile way)
    {
        var points = path.Flat;
        var count = path.IsClosed ? points.Length + 1 : points.Length;
        for (var i = 0; i < count; i++)
        {
            var p = points[i % points.Length];
            text.Append(i == 0 ? "PU" : (i - 1) % PointsPerCommand == 0 ? (i == 1 ? "PD" : ";\nPD") : ",");
            text.Append(CultureInfo.InvariantCulture,
                $"{Math.Round(p.X * way.UnitsPerMm):0},{Math.Round((way.Origin == FileOrigin.UpperLeft ? p.Y : height - p.Y) * way.UnitsPerMm):0}");
            if (i == 0) text.Append(";\n");
        }
        text.Append(";\n");
    }
}
