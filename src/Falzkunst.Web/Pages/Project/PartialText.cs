using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Mvc.Rendering;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Partials as texts, to be kept or compared.</summary>
internal static class PartialText
{
    public static async Task<string> TextAsync(this IHtmlHelper html, string partial, object model)
    {
        await using var writer = new StringWriter();
        (await html.PartialAsync(partial, model)).WriteTo(writer, HtmlEncoder.Default);
        return writer.ToString();
    }
}
