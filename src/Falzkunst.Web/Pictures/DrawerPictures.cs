using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Pictures;

/// <summary>A swatch of a stock: its colour, and its pattern over it.</summary>
[HtmlTargetElement("stock-swatch", TagStructure = TagStructure.WithoutEndTag)]
public sealed class StockSwatch : TagHelper
{
    public required Stock Stock { get; set; }
    public int Width { get; set; } = 26;
    public int Height { get; set; } = 18;

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("width", Width);
        output.Attributes.SetAttribute("height", Height);
        output.Attributes.SetAttribute("class", "swatch");
        output.Attributes.SetAttribute("aria-hidden", "true");
        var text = new StringBuilder();
        text.Append(CultureInfo.InvariantCulture, $"<rect x=\".5\" y=\".5\" width=\"{Width - 1}\" height=\"{Height - 1}\" rx=\"3\" fill=\"{Stock.Colour}\" stroke=\"#24313A\" stroke-opacity=\".4\"/>");
        foreach (var mark in Marks()) text.Append(CultureInfo.InvariantCulture, $"<path d=\"{mark}\" fill=\"none\" stroke=\"#24313A\" stroke-opacity=\".35\"/>");
        output.Content.SetHtmlContent(text.ToString());
    }

    /// <summary>Distance of the marks of a pattern, px.</summary>
    private const int Step = 6;

    private IEnumerable<string> Marks()
    {
        for (var y = Step; y < Height; y += Step)
        {
            if (Stock.Pattern is StockPattern.Stripes or StockPattern.Checks) yield return Invariant($"M1 {y}H{Width - 1}");
            for (var x = Step; x < Width; x += Step)
            {
                if (Stock.Pattern == StockPattern.Dots) yield return Invariant($"M{x} {y}h1.2");
                if (Stock.Pattern == StockPattern.Flecks) yield return Invariant($"M{x + y % 5} {y - x % 4}l1.5 1");
            }
        }
        if (Stock.Pattern != StockPattern.Checks) yield break;
        for (var x = Step; x < Width; x += Step) yield return Invariant($"M{x} 1V{Height - 1}");
    }

    private static string Invariant(FormattableString text) => FormattableString.Invariant(text);
}

/// <summary>A tool as one chooses it: a stroke in its colour and width, or a mark of its kind.</summary>
[HtmlTargetElement("tool-picture", TagStructure = TagStructure.WithoutEndTag)]
public sealed class ToolPicture : TagHelper
{
    /// <summary>Pixels to a millimetre of width, so that 0.3 and 0.8 are told apart.</summary>
    private const double PixelsPerMm = 4;

    public required CraftTool Tool { get; set; }

    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        output.TagName = "svg";
        output.TagMode = TagMode.StartTagAndEndTag;
        output.Attributes.SetAttribute("width", 44);
        output.Attributes.SetAttribute("height", 18);
        output.Attributes.SetAttribute("aria-hidden", "true");
        output.Content.SetHtmlContent(Tool.Kind switch
        {
            CraftToolKind.Foil => FormattableString.Invariant($"<rect x=\"3\" y=\"2\" width=\"38\" height=\"14\" rx=\"2\" fill=\"{Tool.Colour}\" stroke=\"#24313A\" stroke-opacity=\".4\"/>"),
            CraftToolKind.Printer => "<path d=\"M4 8H40V14H4Z M10 8V2H34V8 M10 14V17H34V14\" fill=\"none\" stroke=\"#24313A\" stroke-width=\"1.4\"/>",
            CraftToolKind.Blade => "<path d=\"M4 14L30 14L38 4\" fill=\"none\" stroke=\"#24313A\" stroke-width=\"1.6\"/>",
            _ => (IsPale ? "<rect width=\"44\" height=\"18\" rx=\"3\" fill=\"#56646D\"/>" : "") + FormattableString.Invariant($"<path d=\"M4 12C12 2 18 16 26 8S38 6 40 8\" fill=\"none\" stroke=\"{Tool.Colour ?? "#556169"}\" stroke-width=\"{Math.Clamp((Tool.WidthMm ?? 0.5) * PixelsPerMm, 1, 8):0.#}\" stroke-linecap=\"round\"/>"),
        });
    }

    /// <summary>It would not be seen on a white page.</summary>
    private bool IsPale => Tool.Colour is { } colour && StockColours.Difference(colour, "#FFFFFF") < 0.15;
}
