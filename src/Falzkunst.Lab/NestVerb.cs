using System.Globalization;
using System.Text;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Formats.Nesting;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Lab;

internal static class NestVerb
{
    private const double UsualSeconds = 10;

    public static object Run(Arguments arguments)
    {
        var seconds = arguments.Number("--seconds", 0, 86_400) ?? UsualSeconds;
        var seed = arguments.Number("--seed", 0, int.MaxValue) ?? 1;
        var (bytes, _) = arguments.File();
        var job = NestJobReader.Read(bytes);
        var (result, milliseconds) = Timed.Run(() => Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(seconds), (int)seed)));
        if (arguments.Option("--svg") is { } target) Arguments.WriteText(target, Picture(job, result));
        return new
        {
            Sheets = result.Sheets.Select(s => new
            {
                s.Sheet,
                Placements = s.Placements.Select(p => new { p.Id, X = p.Place.E, Y = p.Place.F, Rotation = p.Degrees, p.Mirrored }),
                Utilisation = Math.Round(s.Filled(job), 6),
            }),
            Unplaced = result.Left.SelectMany(l => Enumerable.Repeat(l.Id, l.Copies)),
            ElapsedMs = milliseconds,
        };
    }

    /// <summary>The sheets side by side with what lies on them.</summary>
    private static string Picture(NestJob job, NestResult result)
    {
        const double Gap = 10;
        var svg = new StringBuilder();
        double x = 0;
        foreach (var nested in result.Sheets)
        {
            var sheet = job.Sheets.Single(s => s.Id == nested.Sheet);
            svg.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({x:0.###} 0)\">");
            Draw(sheet.Outline ?? Path.Rectangle(0, 0, sheet.Width, sheet.Height), "#F1ECE2");
            var u = sheet.Usable;
            Draw(Path.Rectangle(u.MinX, u.MinY, u.Width, u.Height), "none");
            foreach (var zone in sheet.Blocked) Draw(zone, "#B3361E");
            foreach (var p in nested.Placements)
            {
                var piece = job.Pieces.Single(q => q.Id == p.Id);
                var d = string.Concat(piece.Openings.Prepend(piece.Outline).Select(o => PathText.Write(o.Map(p.Place), 4)));
                svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{d}\" fill=\"#0E6E66\" fill-opacity=\".6\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".2\"/>");
            }
            svg.Append("</g>");
            x += sheet.Width + Gap;
        }
        var height = result.Sheets.Select(s => job.Sheets.Single(q => q.Id == s.Sheet).Height).DefaultIfEmpty(1).Max();
        var width = Math.Max(1, x - Gap);
        return string.Create(CultureInfo.InvariantCulture, $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" viewBox=\"0 0 {width} {height}\">{svg}</svg>");

        void Draw(Path path, string fill) =>
            svg.Append(CultureInfo.InvariantCulture, $"<path d=\"{PathText.Write(path, 4)}\" fill=\"{fill}\" stroke=\"#5C6870\" stroke-width=\".3\"/>");
    }
}
