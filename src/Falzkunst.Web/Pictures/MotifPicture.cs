using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A motif on a contact sheet.</summary>
[HtmlTargetElement("motif-picture", TagStructure = TagStructure.WithoutEndTag)]
public sealed class MotifPicture : TagHelper
{
    private const double Width = 92;
    private const double Height = 66;
    private const double Edge = 4;

    /// <summary>Points round an outline of a motif that is shown coarsely.</summary>
    private const int CoarsePoints = 200;

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
        var map = SmallPicture.Fit(Motif.Box, Width, Height, Edge);
        var isLarge = Motif.Pieces.Sum(p => p.Shape.Paths.Sum(path => path.Segments.Length)) > SmallPicture.MostSegments;
        int? coarse = isLarge ? CoarsePoints : null;
        var content = new StringBuilder();
        foreach (var piece in Motif.Pieces)
        {
            var place = piece.Place.Then(map);
            content.Append("<path d=\"");
            foreach (var path in isLarge ? [piece.Outline.Path] : piece.Paper.Rings) content.Append(SmallPicture.Data(path.Map(place), coarse));
            content.Append(CultureInfo.InvariantCulture, $"\" fill=\"{Drawer.ColourOf(piece.Stock)}\" fill-rule=\"evenodd\" stroke=\"#24313A\" stroke-width=\".7\"/>");
            if (isLarge) continue;
            foreach (var line in piece.Drawn.Where(l => piece.RoleOf(l) == LineRole.Inner)) Stroke(line, line.Path.Map(place));
        }
        foreach (var loose in Motif.Loose) Stroke(loose, loose.Path.Map(map));
        output.Content.SetHtmlContent(content.ToString());

        void Stroke(Line line, Core.Geometry.Path path) => content.Append(SmallPicture.Stroke(line, SmallPicture.Data(path), 0.7));
    }
}
