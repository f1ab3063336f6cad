using System.Security.Cryptography;
using System.Text;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Html;
using Microsoft.AspNetCore.Mvc.Rendering;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A station's ledger with a version that is the same for the same text, so that it need not be sent twice.</summary>
/// <param name="Html">The ledger, its version in a hidden element before it.</param>
/// <param name="Version">Short hash of the text.</param>
public sealed record LedgerText(IHtmlContent Html, string Version)
{
    public static async Task<LedgerText> RenderAsync(IHtmlHelper html, StationPage model)
    {
        await using var text = new StringWriter();
        (await html.PartialAsync(model.LedgerPartial, model)).WriteTo(text, HtmlEncoder.Default);
        var ledger = text.ToString();
        var version = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(ledger)))[..16];
        return new LedgerText(new HtmlString($"<i hidden data-ledger=\"{version}\"></i>{ledger}"), version);
    }
}
