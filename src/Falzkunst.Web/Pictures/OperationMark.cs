using Falzkunst.Core.Designs;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A short sample of a line as its operation draws it, the same everywhere: pattern first, colour second.</summary>
[HtmlTargetElement("operation-mark", TagStructure = TagStructure.WithoutEndTag)]
public sealed class OperationMark : TagHelper
{
    public Operation Operation { get; set; }
    public string? Ink { get; set; }
    public int Width { get; set; } = 34;

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("class", $"mark mark-{Operation.Word()}");
        output.Attributes.SetAttribute("width", Width);
        output.Attributes.SetAttribute("height", 10);
        output.Attributes.SetAttribute("viewBox", $"0 0 {Width} 10");
        output.Attributes.SetAttribute("aria-hidden", "true");
        var line = $"M1 5H{Width - 1}";
        output.Content.SetHtmlContent(Operation switch
        {
            Operation.Foil => Stroke($"M1 3.5H{Width - 1}M1 6.5H{Width - 1}", Colour(), 1.1),
            Operation.Print => $"<path d=\"M1 1.5H{Width - 1}V8.5H1Z\" fill=\"{Operation.Colour()}\" fill-opacity=\".35\"/>",
            Operation.Score => Stroke(line, Colour(), 1.6, "10 4"),
            Operation.Perforate => Stroke(line, Colour(), 1.6, "4 4"),
            Operation.Emboss => Stroke(line, Colour(), 3, "0.1 4.6", "round"),
            Operation.Aid => Stroke(line, Colour(), 1.2, "0.1 3", "round"),
            Operation.Draw => Stroke(line, Colour(), 1.4, cap: "round"),
            _ => Stroke(line, Colour(), 1.6),
        });
    }

    private string Colour() => string.IsNullOrEmpty(Ink) ? Operation.Colour() : Ink;

    private static string Stroke(string d, string colour, double width, string? dash = null, string? cap = null) =>
        FormattableString.Invariant($"<path d=\"{d}\" fill=\"none\" stroke=\"{System.Net.WebUtility.HtmlEncode(colour)}\" stroke-width=\"{width}\"")
        + (dash is null ? "" : $" stroke-dasharray=\"{dash}\"") + (cap is null ? "" : $" stroke-linecap=\"{cap}\"") + "/>";
}
