using System.Globalization;
using Falzkunst.Core.Projects;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>The page of a file drawn against the open card, both at one scale.</summary>
[HtmlTargetElement("size-picture", TagStructure = TagStructure.WithoutEndTag)]
public sealed class SizePicture : TagHelper
{
    private const double PictureWidth = 84;
    private const double PictureHeight = 44;
    private const double Edge = 2;

    /// <summary>Width of the file's page, mm.</summary>
    public double Width { get; set; }

    /// <summary>Height of the file's page, mm.</summary>
    public double Height { get; set; }

    public CardFormat Card { get; set; } = CardFormat.Default;

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("width", PictureWidth);
        output.Attributes.SetAttribute("height", PictureHeight);
        output.Attributes.SetAttribute("viewBox", $"0 0 {PictureWidth} {PictureHeight}");
        output.Attributes.SetAttribute("aria-hidden", "true");
        var scale = Math.Min((PictureWidth - 2 * Edge) / Math.Max(Width, Card.OpenWidth), (PictureHeight - 2 * Edge) / Math.Max(Height, Card.OpenHeight));
        string Box(double w, double h, string look) => string.Create(CultureInfo.InvariantCulture, $"<rect x=\"{Edge}\" y=\"{Edge}\" width=\"{w * scale:0.#}\" height=\"{h * scale:0.#}\" {look}/>");
        output.Content.SetHtmlContent(
            Box(Card.OpenWidth, Card.OpenHeight, "fill=\"#F1ECE2\" stroke=\"#9AA3A8\" stroke-dasharray=\"2 2\"")
            + Box(Width, Height, "fill=\"#2D6CDF\" fill-opacity=\".16\" stroke=\"#2D6CDF\" stroke-width=\"1.2\""));
    }
}
