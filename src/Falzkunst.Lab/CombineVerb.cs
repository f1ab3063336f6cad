using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Geometry.Overlay;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Lab;

/// <summary>Two areas of a file united, subtracted or intersected, with their curves kept.</summary>
internal static class CombineVerb
{
    private const double Flatness = 0.01;

    public static object Run(Arguments arguments)
    {
        var by = arguments.Option("--by");
        if (by is null || !Enum.TryParse<Combination>(by, ignoreCase: true, out var how) || !by.All(char.IsLetter))
            throw new LabRefused($"combine needs --by with {string.Join(", ", Enum.GetNames<Combination>().Select(n => n.ToLowerInvariant()))}");
        var to = arguments.Option("--to") ?? throw new LabRefused("combine needs --to, the file to write");
        var (bytes, _) = arguments.File();
        var drawing = ArtFile.Read(bytes);
        var (first, second) = FirstTwo(drawing);
        var (parts, milliseconds) = Timed.Run(() => Combine(how, Areas(first), Areas(second)));
        Arguments.WriteText(to, Svg(drawing, parts));
        return new
        {
            Area = Math.Round(parts.Sum(p => p.Area), 6),
            Segments = parts.Sum(p => p.SegmentCount),
            Parts = parts.Count,
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>The closed lines of the first two shapes that have some; of the only one, its first two lines.</summary>
    private static (List<Path> First, List<Path> Second) FirstTwo(Drawing drawing)
    {
        var shapes = drawing.Shapes.Select(s => s.Paths.Where(p => p.IsClosed && !p.Segments.IsEmpty).ToList()).Where(s => s.Count > 0).Take(2).ToList();
        return shapes switch
        {
            [var a, var b] => (a, b),
            [[var a, var b, ..]] => ([a], [b]),
            _ => throw new LabRefused("combine takes a file with two closed paths"),
        };
    }

    /// <summary>A shape as areas that lie apart: its outermost lines less those right in them, and so on inward.</summary>
    private static List<AreaRings> Areas(List<Path> lines)
    {
        var flat = lines.Select(l => Flattening.Trace(l, Flatness).Points).ToList();
        int Depth(int i) => Enumerable.Range(0, lines.Count).Count(j => j != i
            && Math.Abs(lines[j].SignedArea) > Math.Abs(lines[i].SignedArea) && flat[i].All(p => Polygons.Contains(flat[j], p)));
        return [.. Enumerable.Range(0, lines.Count).GroupBy(i => Depth(i) / 2, i => (IsOpening: Depth(i) % 2 == 1, Line: lines[i])).Select(level => new AreaRings(
            [.. level.Where(l => !l.IsOpening).Select(l => l.Line)], [.. level.Where(l => l.IsOpening).Select(l => l.Line)]))];
    }

    private static List<PathArea> Combine(Combination how, List<AreaRings> first, List<AreaRings> second) => how switch
    {
        Combination.Unite => [.. PathAreas.Combine(how, [.. first, .. second])],
        Combination.Subtract => [.. first.SelectMany(a => PathAreas.Combine(how, [a, .. second]))],
        _ => [.. first.SelectMany(a => second.SelectMany(b => PathAreas.Combine(how, a, b)))],
    };

    private static string Svg(Drawing drawing, List<PathArea> parts)
    {
        var d = string.Concat(parts.SelectMany(p => p.Openings.Prepend(p.Outline)).Select(p => PathText.Write(p, 6)));
        var box = parts.Aggregate(new Box(0, 0, drawing.Width, drawing.Height), (b, p) => b.Include(p.Outline.Bounds));
        return string.Create(CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{box.Width:0.######}mm\" height=\"{box.Height:0.######}mm\" viewBox=\"{box.MinX:0.######} {box.MinY:0.######} {box.Width:0.######} {box.Height:0.######}\"><path d=\"{d}\" fill=\"#24313A\" fill-rule=\"evenodd\"/></svg>");
    }
}
