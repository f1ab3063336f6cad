using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Wording;

/// <summary>Where the narrowest part that a stock is trusted with comes from, as a sentence.</summary>
public static class LeastWidthWords
{
    public static string For(LeastWidth least)
    {
        if (least.Stock is not { } paper) return Text($"That stock is not in the drawer; {least.Mm:0.00} mm is taken for it.");
        var (width, settings) = (paper.NarrowestFor(Tool.Blade), ToolWords.Describe(paper.SettingsFor(Tool.Blade)));
        return least.IsOwn
            ? Text($"Set for this project. The catalogue says that {paper.Name} bears {width:0.00} mm ({settings}).")
            : Text($"The catalogue says that {paper.Name} bears {width:0.00} mm, cut with {settings}.");
    }

    private static string Text(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
