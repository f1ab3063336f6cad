using System.Globalization;
using System.Text;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;
using Falzkunst.Formats.Fonts;

namespace Falzkunst.Lab;

/// <summary>Words as outlines or strokes: letters that overlap are one. The first baseline begins at 0, height.</summary>
internal static class TextVerb
{
    public static object Run(Arguments arguments)
    {
        var words = arguments.Words().ReplaceLineEndings("\n");
        var height = arguments.Number("--height", 0.1, 2000) ?? throw new LabRefused("text needs --height, the height of capital letters in mm");
        var to = arguments.Option("--to") ?? throw new LabRefused("text needs --to, the file to write");
        var wanted = arguments.Option("--face") ?? throw new LabRefused("text needs --face, the name of a face or a file");
        var (shaped, milliseconds) = Timed.Run(() => Shape(wanted, words));
        var style = new TextStyle(height);
        var set = TextSetting.InBox(shaped, words, style);
        var letters = Letters.Placed(shaped, set).ToList();
        var paths = shaped.IsStroke ? letters.SelectMany(l => l).ToList() : [.. Letters.AsOne(letters)];
        Arguments.WriteText(to, Svg(paths, shaped.IsStroke, height));
        return new
        {
            Width = Math.Round(set.Width, 4),
            Outlines = paths.Count,
            Segments = paths.Sum(p => p.Segments.Length),
            shaped.Missing,
            ElapsedMs = milliseconds,
        };
    }

    private static ShapedText Shape(string wanted, string words)
    {
        if (new FaceShelf().Find(wanted) is { } shipped) return shipped.Shape(words);
        if (!File.Exists(wanted)) throw new LabRefused($"--face takes a file or one of {string.Join(", ", FaceShelf.Shipped.Select(f => f.Key))}, not “{wanted}”");
        using var face = FaceFile.Read(Arguments.ReadBytes(wanted));
        return face.Shape(words);
    }

    /// <summary>The page begins at 0, 0 unless letters reach beyond it.</summary>
    private static string Svg(List<Core.Geometry.Path> paths, bool isStroke, double height)
    {
        var box = paths.Aggregate(new Box(0, 0, 1, height), (b, p) => b.Include(p.Bounds));
        var d = string.Concat(paths.Select(p => PathText.Write(p, 5)));
        var paint = isStroke ? "fill=\"none\" stroke=\"#24313A\" stroke-width=\"0.2\"" : "fill=\"#24313A\" fill-rule=\"evenodd\"";
        return new StringBuilder().Append(CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{box.Width:0.#####}mm\" height=\"{box.Height:0.#####}mm\" viewBox=\"{box.MinX:0.#####} {box.MinY:0.#####} {box.Width:0.#####} {box.Height:0.#####}\"><path d=\"{d}\" {paint}/></svg>").ToString();
    }
}
