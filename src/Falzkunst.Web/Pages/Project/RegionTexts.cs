using Falzkunst.Core.Designs;
using Microsoft.AspNetCore.Html;
using Microsoft.AspNetCore.Mvc.Rendering;

namespace Falzkunst.Web.Pages.Project;

/// <summary>A region of the page as text.</summary>
/// <param name="Target">Where it belongs, as a selector.</param>
/// <param name="Html">What stands there.</param>
public sealed record RegionText(string Target, IHtmlContent Html);

/// <summary>
/// Regions of a station, each with a version that is the same for the same text. The page says which versions it was sent, so
/// that a region that has not changed need not be sent twice.
/// </summary>
public sealed class RegionTexts(IHtmlHelper html, StationPage model)
{
    /// <summary>The header by which versions go to the page and come back: "#route=1f2e3d4c #over=…".</summary>
    public const string Header = "X-Regions";

    private const int VersionLength = 12;

    private readonly HashSet<string> _seen = [.. (model.Request.Headers[Header].FirstOrDefault() ?? "").Split(' ')];
    private readonly List<string> _versions = [];

    /// <summary>The versions of the regions that were asked for, as the header says them.</summary>
    public string Versions => string.Join(' ', _versions);

    /// <summary>A region's text; null where the page has it.</summary>
    public async Task<RegionText?> UnseenAsync(string target, string partial)
    {
        var text = await html.TextAsync(partial, model);
        var version = $"{target}={ContentHash.Short(text, VersionLength)}";
        _versions.Add(version);
        return _seen.Contains(version) ? null : new RegionText(target, new HtmlString(text));
    }
}
