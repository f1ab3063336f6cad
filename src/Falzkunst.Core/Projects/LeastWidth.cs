using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Projects;

/// <summary>The narrowest part that a project trusts a stock with, and where the number comes from.</summary>
/// <param name="Mm">The width, mm.</param>
/// <param name="IsOwn">Set for this project; else from the catalogue.</param>
/// <param name="Stock">The stock; null where it is not in the drawer.</param>
public sealed record LeastWidth(double Mm, bool IsOwn, Stock? Stock)
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
    public static LeastWidth ForStock(SetOut setOut, string stock, Drawer drawer)
    {
        if (drawer.Stocks.FirstOrDefault(s => s.Key == stock) is not { } paper) return new(Unknown, false, null);
        return setOut.LeastWidths.TryGetValue(stock, out var own) ? new(own, true, paper) : new(paper.NarrowestFor(Tool.Blade), false, paper);
    }

    /// <summary>Sets the width for a stock; null goes back to the catalogue's.</summary>
    /// <exception cref="EditRefused">The width is out of reach.</exception>
    public static SetOut Set(SetOut setOut, Stock stock, double? mm)
    {
        if (mm is not { } width) return setOut with { LeastWidths = setOut.LeastWidths.Remove(stock.Key) };
        if (!(width is >= LeastMm and <= MostMm)) throw EditRefused.RangeMm(Measure.NarrowestPart, LeastMm, MostMm, "width");
        return setOut with { LeastWidths = setOut.LeastWidths.SetItem(stock.Key, width) };
    }
}
