using System.Globalization;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A bar that shows a share of a whole; the number stands beside it in words.</summary>
[HtmlTargetElement("fill-bar", TagStructure = TagStructure.WithoutEndTag)]
public sealed class FillBar : TagHelper
{
    /// <summary>0 to 1.</summary>
    public double Share { get; set; }

    /// <summary>Colour of the filled part, #rrggbb.</summary>
    public string Colour { get; set; } = "#0E6E66";

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("class", "fill-bar");
        output.Attributes.SetAttribute("viewBox", "0 0 100 5");
        output.Attributes.SetAttribute("preserveAspectRatio", "none");
        output.Attributes.SetAttribute("aria-hidden", "true");
        var width = (Math.Clamp(Share, 0, 1) * 100).ToString("0.##", CultureInfo.InvariantCulture);
        output.Content.SetHtmlContent($"<rect width=\"100\" height=\"5\" fill=\"#E4DCCD\"/><rect width=\"{width}\" height=\"5\" fill=\"{Colour}\"/>");
    }
}
