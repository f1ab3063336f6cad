using Falzkunst.Core.Designs;
using Falzkunst.Formats.Pdf;
using Falzkunst.Formats.Production;

namespace Falzkunst.Lab;

internal static class ExportVerb
{
    private static readonly string[] Known = ["svg", "hpgl", "pdf"];

    public static object Run(Arguments arguments)
    {
        var (bytes, path) = arguments.File();
        var formats = (arguments.Option("--as") ?? throw new LabRefused("export needs --as")).Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var folder = arguments.Option("--to") ?? throw new LabRefused("export needs --to");
        if (arguments.Has("--knife")) throw new LabRefused("blade geometry (--knife) is not built yet; lines are written as drawn without it");
        if (formats.FirstOrDefault(f => !Known.Contains(f)) is { } other)
            throw new LabRefused($"the format “{other}” cannot be written; known are {string.Join(", ", Known)}");
        var drawing = ArtFile.Read(bytes);
        var name = Path.GetFileNameWithoutExtension(path);
        var ((svg, hpgl, pdf), milliseconds) = Timed.Run(() =>
        {
            var lines = ArtFile.Lines(ArtFile.Assemble(drawing, []))
                .Select(l => l with { Ink = null }); // pens by operation, as the contract has it
            var page = ProductionPage.FromLines(lines, drawing.Width, drawing.Height);
            return (ProductionSvgWriter.Write(page), HpglWriter.Write(page, inksApart: false), formats.Contains("pdf") ? ProductionPdfWriter.Write(page, name) : []);
        });
        try
        {
            Directory.CreateDirectory(folder);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new LabRefused($"cannot make the folder {folder}: {e.Message}");
        }
        var files = new List<string>();
        foreach (var format in formats)
        {
            var target = Path.Combine(folder, $"{name}.{format}");
            if (format == "pdf") Arguments.WriteBytes(target, pdf);
            else Arguments.WriteText(target, format == "svg" ? svg : hpgl.Text);
            files.Add(target);
        }
        return new
        {
            Files = files,
            Pens = formats.Contains("hpgl") ? hpgl.Pens.ToDictionary(p => p.Key.ToString(System.Globalization.CultureInfo.InvariantCulture), p => p.Value) : [],
            ElapsedMs = milliseconds,
        };
    }
}
