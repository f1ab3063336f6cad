using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Projects;

/// <summary>The narrowest part that a project trusts a stock with.</summary>
/// <param name="Mm">The width, mm.</param>
/// <param name="IsOwn">Set for this project; else from the catalogue.</param>
/// <param name="Why">Where the number comes from, as a sentence.</param>
public sealed record LeastWidth(double Mm, bool IsOwn, string Why)
{
    /// <summary>Limits of what can be set, mm.</summary>
    public const double LeastMm = 0.05;
    public const double MostMm = 10;

    /// <summary>Taken for a stock that is not in the drawer, mm.</summary>
    private const double Unknown = 0.8;

    /// <summary>What a stock bears in a project: as set for it, else what the catalogue says for the blade.</summary>
    /// <param name="setOut">What is settled for the project.</param>
    /// <param name="stock">Key of the stock.</param>
    /// <param name="drawer">Stocks at hand.</param>
    public static LeastWidth Of(SetOut setOut, string stock, Drawer drawer)
    {
        if (drawer.Stocks.FirstOrDefault(s => s.Key == stock) is not { } paper)
            return new(Unknown, false, Text($"That stock is not in the drawer; {Unknown:0.00} mm is taken for it."));
        var fromCatalogue = paper.NarrowestFor(Tool.Blade);
        var settings = ToolWords.Describe(paper.SettingsFor(Tool.Blade));
        return setOut.LeastWidths.TryGetValue(stock, out var own)
            ? new(own, true, Text($"Set for this project. The catalogue says that {paper.Name} bears {fromCatalogue:0.00} mm ({settings})."))
            : new(fromCatalogue, false, Text($"The catalogue says that {paper.Name} bears {fromCatalogue:0.00} mm, cut with {settings}."));
    }

    /// <summary>Sets the width for a stock; null goes back to the catalogue's.</summary>
    /// <exception cref="EditRefused">The width is out of reach.</exception>
    public static SetOut Set(SetOut setOut, Stock stock, double? mm)
    {
        if (mm is not { } width) return setOut with { LeastWidths = setOut.LeastWidths.Remove(stock.Key) };
        if (!(width is >= LeastMm and <= MostMm)) throw new EditRefused(Text($"The narrowest part of {stock.Name} is between {LeastMm} and {MostMm} mm wide."));
        return setOut with { LeastWidths = setOut.LeastWidths.SetItem(stock.Key, width) };
    }

    private static string Text(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
