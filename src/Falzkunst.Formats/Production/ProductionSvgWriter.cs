using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats.Production;

/// <summary>
/// A sheet as SVG at true size, one named group for each pass; a group's id begins with its operation's word, so that the
/// file comes back in with its operations.
/// </summary>
public static class ProductionSvgWriter
{
    private const int Decimals = 4;
    private const string HairlineMm = "0.1";

    public static string Write(ProductionPage page)
    {
        var text = new StringBuilder();
        SvgText.Open(text, page.Width, page.Height);
        var used = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (var group in page.Groups)
        {
            text.Append("<g id=\"").Append(Id(group, used)).Append("\" data-operation=\"").Append(group.Operation.Word())
                .Append(group.Times > 1 ? $"\" data-times=\"{group.Times}" : "").Append("\" fill=\"none\" stroke=\"").Append(group.Ink ?? group.Operation.Colour())
                .Append("\" stroke-width=\"").Append(HairlineMm).Append("\">\n<title>").Append(SvgText.Escape(group.Title)).Append(group.Times > 1 ? $", {group.Times} times over" : "").Append("</title>\n");
            foreach (var path in group.Paths) text.Append("<path d=\"").Append(PathText.Write(path, Decimals)).Append("\"/>\n");
            text.Append("</g>\n");
        }
        text.Append("</svg>\n");
        return text.ToString();
    }

    private static string Id(ProductionGroup group, Dictionary<string, int> used)
    {
        var word = group.Operation.Word();
        var id = group.Title.ToLowerInvariant().Replace(",", "", StringComparison.Ordinal).Replace(' ', '-') is var title && title == word ? word : $"{word}-{title}";
        used[id] = used.GetValueOrDefault(id) + 1;
        return used[id] == 1 ? id : $"{id}-{used[id]}";
    }
}
