using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Running;

/// <summary>The plan of one sheet of a layout.</summary>
public static class SheetPlan
{
    /// <summary>What the sheet is called at the machine.</summary>
    public static string Title(SheetLayout sheet, Stock stock) => $"{stock.Name}, sheet {sheet.Number}";

    /// <summary>Plans a sheet as it is asked for.</summary>
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan For(PlanRequest request)
    {
        var (sheet, stock) = (request.Sheet, request.Stock);
        return RunPlanner.Plan(Lines(request), Name(sheet, stock), sheet.Width, sheet.Height, request.Machine, stock, request.Printed, sheet.MarkFrame);
    }

    /// <summary>The lines that are run, as they lie on the sheet.</summary>
    private static List<SheetLine> Lines(PlanRequest request)
    {
        var lines = SheetLines.Collect(request.Sheet, request.Design, request.ScoreClearanceMm);
        if (request.Again is not { } again) return lines;
        return [.. lines.Where(l => again.Wanted.Contains((l.Piece, l.Copy, l.Line))).Select(Set)];

        SheetLine Set(SheetLine line) => again.ForceGrams is null && again.Times is null ? line : line with
        {
            Work = line.Work with { Settings = (line.Work.Settings ?? new ToolSettingsChange()) is var s ? s with { ForceGrams = again.ForceGrams ?? s.ForceGrams, Times = again.Times ?? s.Times } : null },
        };
    }

    private static string Name(SheetLayout sheet, Stock stock) => $"{Title(sheet, stock)} ({sheet.SizeName})";
}
