using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web;

/// <summary>A motif on a contact sheet.</summary>
[HtmlTargetElement("motif-picture", TagStructure = TagStructure.WithoutEndTag)]
public sealed class MotifPicture : TagHelper
{
    private const double Width = 92;
    private const double Height = 66;
    private const double Edge = 4;

    /// <summary>A motif of more segments than this is shown by its outlines, coarsely.</summary>
    private const int MostSegments = 1500;

    public required Motif Motif { get; set; }
    public required Drawer Drawer { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("width", Width);
        output.Attributes.SetAttribute("height", Height);
        output.Attributes.SetAttribute("viewBox", $"0 0 {Width} {Height}");
        output.Attributes.SetAttribute("aria-hidden", "true");
        var box = Motif.Box;
        var scale = Math.Min((Width - 2 * Edge) / Math.Max(box.Width, 1e-6), (Height - 2 * Edge) / Math.Max(box.Height, 1e-6));
        var map = Affine.Move(-box.Centre.X, -box.Centre.Y).Then(Affine.Scale(scale, scale)).Then(Affine.Move(Width / 2, Height / 2));
        var isLarge = Motif.Pieces.Sum(p => p.Shape.Paths.Sum(path => path.Segments.Length)) > MostSegments;
        var content = new StringBuilder();
        foreach (var piece in Motif.Pieces)
        {
            var place = piece.Place.Then(map);
            content.Append("<path d=\"");
            foreach (var (line, path) in piece.Drawn)
            {
                if (line.Role == LineRole.Outline || (line.Role == LineRole.Opening && !isLarge)) content.Append(Text(path.Map(place), isLarge));
            }
            content.Append(CultureInfo.InvariantCulture, $"\" fill=\"{Drawer.ColourOf(piece.Stock)}\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".7\"/>");
            if (isLarge) continue;
            foreach (var (line, path) in piece.Drawn.Where(d => d.Line.Role == LineRole.Inner)) Stroke(content, line, path.Map(place));
        }
        foreach (var loose in Motif.Loose) Stroke(content, loose.Line, loose.Path.Map(map));
        output.Content.SetHtmlContent(content.ToString());
    }

    private static void Stroke(StringBuilder content, Line line, Core.Geometry.Path path) => content.Append(CultureInfo.InvariantCulture,
        $"<path d=\"{PathText.Write(path, 1)}\" fill=\"none\" stroke=\"{line.Ink ?? line.Operation.Colour()}\" stroke-width=\".7\"/>");

    private static string Text(Core.Geometry.Path path, bool coarse) => PathText.Write(
        coarse ? Core.Geometry.Path.Polyline(Sampling.Midpoints(path, path.Length / 200, 200), path.IsClosed) : path, 1);
}
