using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Production;

/// <summary>
/// A sheet as HPGL: by the standard 40 units to the millimetre, y up, origin at the sheet's lower left corner, one side and one pen for each
/// way of working.
/// Curves are flattened to 0.01 mm; rounding to units adds at most 0.018 mm at 40 units.
/// </summary>
public static class HpglWriter
{
    /// <summary>Older plotters read lines of limited length.</summary>
    private const int PointsPerCommand = 24;

    /// <summary>The file, and what each pen number is.</summary>
    /// <exception cref="ArgumentException">The page has lines of both sides.</exception>
    /// <param name="page">The sheet.</param>
    /// <param name="inksApart">Pens and foils of different colours get numbers of their own.</param>
    /// <param name="way">Units and origin that the machine wants; null for the standard's.</param>
    public static (string Text, ImmutableSortedDictionary<int, string> Pens) Write(ProductionPage page, bool inksApart = true, MachineFile? way = null)
    {
        way ??= new MachineFile(MachineFormat.Hpgl);
        if (page.Groups.Select(g => g.IsFaceDown).Distinct().Count() > 1) throw new ArgumentException("One file has one side.", nameof(page));
        var text = new StringBuilder("IN;\n");
        var pens = new List<PenKey>();
        foreach (var group in page.Groups.Where(g => g.Operation.ToolFor() is not null))
        {
            var pen = PenKey.Of(group, inksApart);
            if (!pens.Contains(pen)) pens.Add(pen);
            text.Append(CultureInfo.InvariantCulture, $"SP{pens.IndexOf(pen) + 1};\n");
            foreach (var path in group.Paths)
            {
                for (var time = 0; time < group.Times; time++) Line(text, path, page.Height, way);
            }
        }
        text.Append("PU;SP0;\n");
        return (text.ToString(), pens.Select((pen, i) => (Name: NameOf(pen, pens), i)).ToImmutableSortedDictionary(p => p.i + 1, p => p.Name));
    }

    /// <summary>What a machine must be told of a pen: lines that differ in any of it have pens of their own, since nothing else in the file parts them.</summary>
    private sealed record PenKey(Operation Operation, bool IsHalfCut, string? Ink, int? ForceGrams, double? SpeedMmPerSecond, double? BladeOutMm)
    {
        public static PenKey Of(ProductionGroup g, bool inksApart) => new(
            g.Operation, g.IsHalfCut, inksApart ? g.Ink : null, g.Settings?.ForceGrams, g.Settings?.SpeedMmPerSecond, g.Settings?.BladeOutMm);

        public string Word => IsHalfCut ? "half cut" : Operation.Word();
    }

    /// <summary>The operation with its ink, and its numbers where another pen has the same.</summary>
    private static string NameOf(PenKey pen, List<PenKey> all)
    {
        var name = pen.Ink is null ? pen.Word : $"{pen.Word} {pen.Ink}";
        return all.Count(o => o.Word == pen.Word && o.Ink == pen.Ink) == 1 ? name : string.Create(CultureInfo.InvariantCulture, $"{name} {pen.ForceGrams} g {pen.SpeedMmPerSecond:0.#} mm/s");
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
