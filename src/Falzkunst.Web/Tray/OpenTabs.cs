namespace Falzkunst.Web.Tray;

/// <summary>Which tab was chosen last for each kind of pick: "piece=size&amp;lines=manner" in a cookie that the page writes.</summary>
public static class OpenTabs
{
    /// <summary>The cookie's name, as js/tabs.js writes it.</summary>
    public const string Cookie = "tabs";

    private const int LongestCookie = 2000;

    /// <summary>The key of the tab for a kind of pick; null where none was chosen yet. It is compared and never shown.</summary>
    public static string? Of(HttpRequest request, string kind) => request.Cookies[Cookie] is { Length: < LongestCookie } text
        ? text.Split('&').Select(part => part.Split('=')).FirstOrDefault(p => p.Length == 2 && p[0] == kind)?[1] : null;
}
