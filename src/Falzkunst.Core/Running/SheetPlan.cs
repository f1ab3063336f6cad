using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Running;

/// <summary>The plan of one sheet of a layout.</summary>
public static class SheetPlan
{
    /// <summary>What the sheet is called at the machine.</summary>
    public static string Title(SheetLayout sheet, Stock stock) => $"{stock.Name}, sheet {sheet.Number}";

    /// <summary>Plans a sheet of a design.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="design">The pieces on it.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="stock">The stock of the sheet.</param>
    /// <param name="scoreClearance">How far scores stop short of every cut, mm.</param>
    /// <param name="printed">How the sheet is printed before it is laid; null where it is not.</param>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan For(SheetLayout sheet, Design design, Machine machine, Stock stock, double scoreClearance, PagePrinting? printed = null) => RunPlanner.Plan(
        SheetLines.Collect(sheet, design, scoreClearance), Name(sheet, stock), sheet.Width, sheet.Height, machine, stock, printed, sheet.MarkFrame);

    /// <summary>Plans some lines of a sheet alone, those that failed say, with the settings they have or others.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="design">The pieces on it.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="stock">The stock of the sheet.</param>
    /// <param name="scoreClearance">How far scores stop short of every cut, mm.</param>
    /// <param name="wanted">Which lines of which copies.</param>
    /// <param name="forceGrams">Another force; null as it is set.</param>
    /// <param name="times">Another number of times over; null as it is set.</param>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan Again(
        SheetLayout sheet, Design design, Machine machine, Stock stock, double scoreClearance, IReadOnlySet<(string Piece, int Copy, string Line)> wanted, int? forceGrams, int? times)
    {
        var lines = SheetLines.Collect(sheet, design, scoreClearance).Where(l => wanted.Contains((l.Piece, l.Copy, l.Line)));
        return RunPlanner.Plan([.. lines.Select(Set)], Name(sheet, stock), sheet.Width, sheet.Height, machine, stock);

        SheetLine Set(SheetLine line) => forceGrams is null && times is null ? line : line with
        {
            Work = line.Work with { Settings = (line.Work.Settings ?? new ToolSettingsChange()) is var s ? s with { ForceGrams = forceGrams ?? s.ForceGrams, Times = times ?? s.Times } : null },
        };
    }

    private static string Name(SheetLayout sheet, Stock stock) => $"{Title(sheet, stock)} ({sheet.SizeName})";
}
