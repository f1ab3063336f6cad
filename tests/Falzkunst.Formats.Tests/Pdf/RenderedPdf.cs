using System.Globalization;
using System.Text.Json;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Formats.Pictures;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Formats.Tests.Pdf;

/// <summary>A PDF as other programs see it: poppler draws it, qpdf checks it.</summary>
internal sealed class RenderedPdf : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("falzkunst-pdf").FullName;
    private readonly string _file;

    public RenderedPdf(byte[] pdf)
    {
        _file = System.IO.Path.Combine(_folder, "page.pdf");
        File.WriteAllBytes(_file, pdf);
    }

    /// <summary>Bytes of the file.</summary>
    public long Size => new FileInfo(_file).Length;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>A page in dots.</summary>
    public PixelImage Page(int dotsPerInch, int page = 1)
    {
        var target = System.IO.Path.Combine(_folder, FormattableString.Invariant($"page-{page}-{dotsPerInch}"));
        var number = page.ToString(CultureInfo.InvariantCulture);
        Run("pdftoppm", "-png", "-singlefile", "-r", dotsPerInch.ToString(CultureInfo.InvariantCulture), "-f", number, "-l", number, _file, target);
        return PictureWriter.FromPng(File.ReadAllBytes(target + ".png"));
    }

    /// <summary>What qpdf has to say; nothing but praise where it is sound.</summary>
    public string Check() => Run("qpdf", "--check", _file);

    /// <summary>Names of its layers.</summary>
    public List<string> Layers() => [.. Json().RootElement.GetProperty("qpdf")[1].EnumerateObject()
        .Where(o => o.Value.TryGetProperty("value", out var value) && value.ValueKind == JsonValueKind.Object && value.TryGetProperty("/Type", out var type) && type.GetString() == "/OCG")
        .Select(o => o.Value.GetProperty("value").GetProperty("/Name").GetString()![2..])];

    private JsonDocument Json() => JsonDocument.Parse(Run("qpdf", "--json=2", "--json-stream-data=none", _file));

    /// <summary>The boxes of the first page, mm with y down.</summary>
    public Dictionary<string, Box> Boxes()
    {
        var lines = Run("pdfinfo", "-box", _file).Split('\n').Where(l => l.Contains("Box:", StringComparison.Ordinal))
            .Select(l => l.Split(':')).ToDictionary(l => l[0], l => l[1].Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(n => double.Parse(n, CultureInfo.InvariantCulture) * 25.4 / 72).ToArray());
        var height = lines["MediaBox"][3];
        return lines.ToDictionary(l => l.Key, l => new Box(l.Value[0], height - l.Value[3], l.Value[2], height - l.Value[1]));
    }

    /// <summary>The pictures in it, dot for dot.</summary>
    public List<PixelImage> Pictures()
    {
        Run("pdfimages", "-png", _file, System.IO.Path.Combine(_folder, "picture"));
        return [.. Directory.GetFiles(_folder, "picture-*.png").Order().Select(f => PictureWriter.FromPng(File.ReadAllBytes(f)))];
    }

    private static string Run(string program, params string[] arguments) => Production.OtherReaders.Run(program, arguments, "");
}
