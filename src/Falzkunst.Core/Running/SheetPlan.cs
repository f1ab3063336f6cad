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
    /// <exception cref="PlanRefused">The machine lacks a holder that a tool fits.</exception>
    public static RunPlan For(SheetLayout sheet, Design design, Machine machine, Stock stock, double scoreClearance) => RunPlanner.Plan(
        SheetLines.Collect(sheet, design, scoreClearance), $"{Title(sheet, stock)} ({sheet.SizeName})", sheet.Width, sheet.Height, machine, stock);
}
