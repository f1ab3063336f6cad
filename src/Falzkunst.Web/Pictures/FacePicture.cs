using System.Globalization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Texts;

namespace Falzkunst.Web.Pictures;

/// <summary>A line of words in a face, small.</summary>
public static class FacePicture
{
    /// <summary>Words beyond this show no more of a face.</summary>
    public const int MostCharacters = 40;

    private const double CapitalPx = 20, MarginPx = 10;

    /// <summary>Answers a request for words in a face; it needs no project, and the same words look the same tomorrow.</summary>
    public static IResult Answer(string face, string words, IFaces faces, HttpResponse response)
    {
        if (words.Length > MostCharacters || faces.Shape(face, words) is not { } shaped) return Results.NotFound();
        response.Headers.CacheControl = "private, max-age=86400";
        return Results.Content(Svg(shaped, words), "image/svg+xml");
    }

    public static string Svg(ShapedText shaped, string words)
    {
        var set = TextSetting.InBox(shaped, words, new TextStyle(CapitalPx));
        var paths = Letters.Placed(shaped, set).SelectMany(l => l).ToList();
        var box = paths.Aggregate(new Box(0, 0, Math.Max(set.Width, 1), CapitalPx), (b, p) => b.Include(p.Bounds)).Grow(2);
        // Letters below and above the capitals have room; what is higher still is made smaller.
        var (top, height) = (Math.Min(box.MinY, -MarginPx), Math.Max(box.MaxY, CapitalPx + MarginPx) - Math.Min(box.MinY, -MarginPx));
        var paint = shaped.IsStroke ? "fill=\"none\" stroke=\"#24313A\" stroke-width=\"1.1\"" : "fill=\"#24313A\"";
        return string.Create(CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{box.Width:0.#}\" height=\"{height:0.#}\" viewBox=\"{box.MinX:0.##} {top:0.##} {box.Width:0.##} {height:0.##}\"><path d=\"{string.Concat(paths.Select(p => PathText.Write(p, 2)))}\" {paint}/></svg>");
    }
}
