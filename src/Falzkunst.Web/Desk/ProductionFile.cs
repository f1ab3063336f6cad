using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Running;
using Falzkunst.Formats.Production;

namespace Falzkunst.Web.Desk;

/// <summary>A sheet as a file for a machine.</summary>
public sealed record ProductionFile(byte[] Content, string MediaType, string Name)
{
    /// <summary>The file of a sheet; null where there is no such sheet as it is now, or no such format.</summary>
    /// <param name="on">The project.</param>
    /// <param name="sheet">Id of the sheet.</param>
    /// <param name="format">svg (a named group for each pass) or hpgl (a pen for each tool).</param>
    public static ProductionFile? Write(OnDesk on, string sheet, string format)
    {
        var value = on.Value;
        // A sheet that is out of date would be cut as the pieces were.
        if (!value.SheetsAreCurrent || value.Sheets?.Find(sheet) is not { } layout || on.Drawer.Stocks.FirstOrDefault(s => s.Key == layout.Stock) is not { } stock) return null;
        var plan = SheetPlan.For(layout, value.Made, on.Drawer.Machine(value.SetOut.Machine), stock, value.SetOut.ScoreClearanceMm);
        var page = ProductionPage.FromPlan(plan, layout.Width, layout.Height);
        var name = $"{InFileName(on.Project.Name)}-{layout.Stock}-{layout.Number}";
        return format switch
        {
            "svg" => new(Encoding.UTF8.GetBytes(ProductionSvgWriter.Write(page)), "image/svg+xml", $"{name}.svg"),
            "hpgl" => new(Encoding.ASCII.GetBytes(HpglWriter.Write(page, way: on.Drawer.Machine(value.SetOut.Machine).Files.FirstOrDefault(f => f.Format == MachineFormat.Hpgl)).Text), "application/vnd.hp-hpgl", $"{name}.hpgl"),
            _ => null,
        };
    }

    /// <summary>A name as files bear it: letters, digits and hyphens.</summary>
    public static string InFileName(string name)
    {
        var words = new string([.. name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')]).Trim('-');
        return words.Length == 0 ? "card" : words;
    }
}
