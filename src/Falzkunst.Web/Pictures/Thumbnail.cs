using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Printing;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A small true picture of a piece in the colour of its stock.</summary>
[HtmlTargetElement("piece-thumbnail", TagStructure = TagStructure.WithoutEndTag)]
public sealed class Thumbnail : TagHelper
{
    private const double Side = 48;
    private const double Edge = 4;

    /// <summary>Points round the outline of a piece that is shown coarsely.</summary>
    private const int CoarsePoints = 300;

    public required Piece Piece { get; set; }
    public required string Colour { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "img";
        output.TagMode = TagMode.SelfClosing;
        output.Attributes.SetAttribute("class", "thumbnail");
        output.Attributes.SetAttribute("width", Side);
        output.Attributes.SetAttribute("height", Side);
        output.Attributes.SetAttribute("alt", "");
        output.Attributes.SetAttribute("loading", "lazy");
        output.Attributes.SetAttribute("src", $"?handler=Thumbnail&piece={Uri.EscapeDataString(Piece.Id)}&v={VersionOf(Piece, Colour)}");
    }

    /// <summary>Changes with everything that the picture shows.</summary>
    private static string VersionOf(Piece piece, string colour)
    {
        var shown = new StringBuilder(piece.Shape.Hash).Append(colour);
        foreach (var line in piece.Drawn) shown.Append((char)('a' + line.Operation)).Append((char)('a' + piece.RoleOf(line))).Append(line.Ink);
        foreach (var fill in piece.Items.OfType<PrintedFill>()) shown.Append(fill);
        foreach (var line in piece.Drawn.Where(l => l.Operation == Operation.Print)) shown.Append(PrintLook.Of(line));
        foreach (var picture in piece.Items.OfType<PictureItem>()) shown.Append(picture.Key).Append(picture.Place).Append(picture.IsPattern);
        return ContentHash.Short(shown.ToString(), 16);
    }

    /// <summary>Longest side of a picture that lies on a piece, dots.</summary>
    public const int PictureSide = 96;

    /// <summary>The picture by itself.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="colour">Colour of its stock.</param>
    /// <param name="pictures">Dots of the pictures on it as PNG, by the id of the picture.</param>
    public static string Svg(Piece piece, string colour, IReadOnlyDictionary<string, byte[]>? pictures = null)
    {
        var map = SmallPicture.Fit(piece.Size, Side, Side, Edge);
        var paper = new StringBuilder();
        var lines = new StringBuilder();
        var isLarge = piece.Shape.Paths.Sum(p => p.Segments.Length) > SmallPicture.MostSegments;
        foreach (var path in isLarge ? [piece.Outline.Path] : piece.Paper.Rings) paper.Append(SmallPicture.Data(path.Map(map), isLarge ? CoarsePoints : null));
        foreach (var line in isLarge ? [] : piece.Drawn.Where(l => piece.RoleOf(l) == LineRole.Inner))
        {
            var d = SmallPicture.Data(line.Path.Map(map));
            if (line.Operation is not (Operation.Aid or Operation.Print)) lines.Append(SmallPicture.Stroke(line, d, 0.8));
        }
        var printed = isLarge ? "" : SmallPrint.Svg(PrintedArt.On(piece), map, i => pictures?.GetValueOrDefault(i.Of!) is { } png ? $"data:image/png;base64,{Convert.ToBase64String(png)}" : null);
        return string.Create(CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{Side}\" height=\"{Side}\" viewBox=\"0 0 {Side} {Side}\"><path d=\"{paper}\" fill=\"{colour}\" fill-rule=\"evenodd\"/><clipPath id=\"p\"><path d=\"{paper}\" clip-rule=\"evenodd\"/></clipPath><g clip-path=\"url(#p)\">{printed}</g><path d=\"{paper}\" fill=\"none\" stroke=\"{Operation.Cut.Colour()}\" stroke-opacity=\".55\" stroke-width=\".6\"/>{lines}</svg>");
    }
}
