using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Html;
using Microsoft.AspNetCore.Mvc.Rendering;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Falzkunst.Web.Tray;

/// <summary>
/// The tray: a title part with tabs, and one panel at a time beside it. What is in a panel lies below each other and scrolls
/// downward; nothing in the tray scrolls sideways. The tab that was chosen last for this kind of pick is open again, which the page
/// keeps in a cookie (<see cref="OpenTabs"/>), so that every answer already has it.
/// </summary>
/// <example><code>&lt;tray kind="piece"&gt;&lt;tray-head&gt;…&lt;/tray-head&gt;&lt;tray-tab key="lines" name="Lines"&gt;…&lt;/tray-tab&gt;&lt;/tray&gt;</code></example>
[HtmlTargetElement("tray")]
public sealed class TrayTagHelper : TagHelper
{
    /// <summary>What is picked, as a word: tabs are remembered for each kind.</summary>
    public string Kind { get; set; } = "";

    /// <summary>The tab that there is reason to open, whatever was chosen last; null for none.</summary>
    public string? Open { get; set; }

    [ViewContext, HtmlAttributeNotBound]
    public ViewContext ViewContext { get; set; } = null!;

    public override async Task ProcessAsync(TagHelperContext context, TagHelperOutput output)
    {
        var parts = new TrayParts { Open = string.IsNullOrEmpty(Open) ? OpenTabs.Of(ViewContext.HttpContext.Request, Kind) : Open };
        context.Items[typeof(TrayParts)] = parts;
        await output.GetChildContentAsync();
        var chosen = parts.Tabs.Find(t => t.Key == parts.Open) ?? parts.Tabs.FirstOrDefault();
        output.TagName = null;
        var title = new TagBuilder("div");
        title.AddCssClass("tray-title");
        if (parts.Head is not null) title.InnerHtml.AppendHtml(parts.Head);
        if (parts.Tabs.Count > 1) title.InnerHtml.AppendHtml(TabList(parts.Tabs, chosen!));
        output.Content.AppendHtml(title);
        foreach (var tab in parts.Tabs)
        {
            var panel = new TagBuilder("div");
            panel.AddCssClass("tray-panel");
            panel.Attributes["id"] = PanelId(tab);
            panel.Attributes["tabindex"] = "0";
            panel.Attributes["role"] = parts.Tabs.Count > 1 ? "tabpanel" : "group";
            if (parts.Tabs.Count > 1) panel.Attributes["aria-labelledby"] = TabId(tab);
            else panel.Attributes["aria-label"] = tab.Name;
            if (tab != chosen) panel.Attributes["hidden"] = "hidden";
            if (tab.Content is { } content) panel.InnerHtml.AppendHtml(content);
            else
            {
                panel.Attributes["data-unmade"] = "";
                panel.InnerHtml.AppendHtml("<p class=\"quiet\">Working it out …</p>");
            }
            output.Content.AppendHtml(panel);
        }
    }

    private TagBuilder TabList(List<TrayTab> tabs, TrayTab chosen)
    {
        var list = new TagBuilder("div");
        list.AddCssClass("tray-tabs");
        list.Attributes["role"] = "tablist";
        list.Attributes["aria-orientation"] = "vertical";
        list.Attributes["aria-label"] = "Tray";
        list.Attributes["data-tabs"] = Kind;
        foreach (var tab in tabs)
        {
            var button = new TagBuilder("button");
            button.Attributes["type"] = "button";
            button.Attributes["role"] = "tab";
            button.Attributes["id"] = TabId(tab);
            button.Attributes["data-tab"] = tab.Key;
            button.Attributes["aria-controls"] = PanelId(tab);
            button.Attributes["aria-selected"] = tab == chosen ? "true" : "false";
            button.Attributes["tabindex"] = tab == chosen ? "0" : "-1";
            button.InnerHtml.Append(tab.Name);
            if (tab.Badge > 0)
            {
                var badge = new TagBuilder("span");
                badge.AddCssClass(tab.IsMinor ? "badge is-minor" : "badge");
                badge.InnerHtml.Append(tab.Badge.ToString(System.Globalization.CultureInfo.InvariantCulture));
                button.InnerHtml.AppendHtml(badge);
            }
            list.InnerHtml.AppendHtml(button);
        }
        return list;
    }

    private string TabId(TrayTab tab) => $"tab-{Kind}-{tab.Key}";

    private string PanelId(TrayTab tab) => $"panel-{Kind}-{tab.Key}";
}

/// <summary>What stands above the tabs: a name and its facts.</summary>
[HtmlTargetElement("tray-head", ParentTag = "tray")]
public sealed class TrayHeadTagHelper : TagHelper
{
    public override async Task ProcessAsync(TagHelperContext context, TagHelperOutput output)
    {
        TrayParts.In(context).Head = new HtmlString((await output.GetChildContentAsync()).GetContent(HtmlEncoder.Default));
        output.SuppressOutput();
    }
}

/// <summary>One tab with its panel.</summary>
[HtmlTargetElement("tray-tab", ParentTag = "tray")]
public sealed class TrayTabTagHelper : TagHelper
{
    /// <summary>By which it is remembered.</summary>
    public string Key { get; set; } = "";

    /// <summary>What it is called.</summary>
    public string Name { get; set; } = "";

    /// <summary>How much there is to be seen to in it; 0 shows no badge.</summary>
    public int Badge { get; set; }

    /// <summary>What there is to be seen to is of minor weight.</summary>
    public bool IsMinor { get; set; }

    /// <summary>What is in it takes work: it is made only while the tab is open, and asked for when it is opened.</summary>
    public bool IsCostly { get; set; }

    public override async Task ProcessAsync(TagHelperContext context, TagHelperOutput output)
    {
        var parts = TrayParts.In(context);
        var isMade = !IsCostly || parts.Open == Key || (parts.Open is null && parts.Tabs.Count == 0);
        var content = isMade ? new HtmlString((await output.GetChildContentAsync()).GetContent(HtmlEncoder.Default)) : null;
        parts.Tabs.Add(new TrayTab(Key, Name, Badge, IsMinor, content));
        output.SuppressOutput();
    }
}

internal sealed record TrayTab(string Key, string Name, int Badge, bool IsMinor, IHtmlContent? Content);

/// <summary>The parts of a tray while it is put together.</summary>
internal sealed class TrayParts
{
    public IHtmlContent? Head { get; set; }

    /// <summary>Key of the tab that is asked for; null for the first.</summary>
    public string? Open { get; init; }

    public List<TrayTab> Tabs { get; } = [];

    public static TrayParts In(TagHelperContext context) => (TrayParts)context.Items[typeof(TrayParts)];
}
