using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A small picture of a project: its pieces spread out in the colours of their stocks.</summary>
[HtmlTargetElement("project-picture", TagStructure = TagStructure.WithoutEndTag)]
public sealed class ProjectPicture : TagHelper
{
    /// <summary>Beyond this many segments a small picture shows the outlines alone, as their boxes.</summary>
    private const int MostSegments = 4000;

    public required Project Project { get; set; }
    public required Drawer Drawer { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        var (content, viewBox) = Draw(Project, Drawer);
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("class", "project-picture");
        output.Attributes.SetAttribute("aria-hidden", "true");
        output.Attributes.SetAttribute("viewBox", viewBox);
        output.Content.SetHtmlContent(content);
    }

    /// <summary>The picture by itself.</summary>
    public static string Svg(Project project, Drawer drawer)
    {
        var (content, viewBox) = Draw(project, drawer);
        return $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{viewBox}\" stroke=\"#24313A\" stroke-width=\".4\" stroke-opacity=\".5\">{content}</svg>";
    }

    private static (string Content, string ViewBox) Draw(Project project, Drawer drawer)
    {
        var pieces = project.Design.Pieces;
        var spread = SpreadOut.Arrange(project.Design);
        var isLarge = pieces.Sum(p => p.Paper.Rings.Sum(path => path.Segments.Length)) > MostSegments;
        var box = Box.Empty;
        var content = new StringBuilder();
        for (var i = 0; i < pieces.Length; i++)
        {
            var size = pieces[i].Size;
            IEnumerable<Core.Geometry.Path> paper = isLarge
                ? [Core.Geometry.Path.Rectangle(size.MinX, size.MinY, size.Width, size.Height)]
                : pieces[i].Paper.Rings;
            content.Append("<path d=\"");
            foreach (var path in paper)
            {
                var placed = path.Map(spread[i]);
                box = box.Include(placed.Bounds);
                content.Append(PathText.Write(placed, 1));
            }
            content.Append("\" fill=\"").Append(drawer.ColourOf(pieces[i].Stock)).Append("\" fill-rule=\"evenodd\"/>");
        }
        return (content.ToString(), box.IsEmpty ? "0 0 100 60" : FormattableString.Invariant($"{box.MinX:0.#} {box.MinY:0.#} {box.Width:0.#} {box.Height:0.#}"));
    }
}
