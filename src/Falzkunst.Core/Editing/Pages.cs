using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>How sheets are printed, and where their marks stand.</summary>
internal static class Pages
{
    /// <exception cref="EditRefused">There is no such stock, a number is out of reach, or the machine reads no marks.</exception>
    public static Project Change(Project project, ChangePrinting edit, Drawer drawer)
    {
        var stock = drawer.Stock(edit.Stock);
        var printing = project.SetOut.Printing;
        if (edit.How is not { } how) return project with { SetOut = project.SetOut with { Printing = printing.Remove(stock.Key) } };
        Check(how);
        if (how.IsCut && drawer.Machine(project.SetOut.Machine) is { ReadsMarks: false } machine) throw new EditRefused(Reason.ReadsNoMarks, machine.Name) { Field = "marks" };
        return project with { SetOut = project.SetOut with { Printing = printing.SetItem(stock.Key, how) } };
    }

    /// <exception cref="EditRefused">The sheet is not there or bears no marks.</exception>
    public static Project Draw(Project project, DrawMarks edit)
    {
        if (project.Sheets?.Find(edit.Sheet) is not { } sheet || !project.SheetsAreCurrent) throw new EditRefused(Reason.SheetGone);
        if (!project.SetOut.Printing.TryGetValue(sheet.Stock, out var how) || how.Marks is not { } marks) throw new EditRefused(Reason.NoMarksThere);
        Box? frame = edit.In ? ClosestFrame.Find(sheet, project.Made, how) : null;
        if (frame == marks.Frame(sheet.Width, sheet.Height)) throw new EditRefused(Reason.MarksAreClose);
        var zones = marks.Zones(frame ?? marks.Frame(sheet.Width, sheet.Height), sheet.Width, sheet.Height);
        var drawn = sheet with { MarkFrame = frame, Blocked = [.. zones.Select(z => Path.Rectangle(z.MinX, z.MinY, z.Width, z.Height))] };
        return project with { Sheets = project.Sheets.With(sheet, drawn) };
    }

    private static void Check(PagePrinting how)
    {
        Between(how.MarginMm, 0, PagePrinting.MostMarginMm, Measure.PrinterMargin, "margin");
        Between(how.BleedMm, 0, PagePrinting.MostBleedMm, Measure.BleedWidth, "bleed");
        if (how.GlueMm is { } glue) Between(glue, 0, PagePrinting.MostGlueMm, Measure.GlueMargin, "glue");
        Between(how.ApartMm, 0, PagePrinting.MostBleedMm, Measure.SidesApart, "apart");
        if (how.Marks is not { } marks) return;
        Between(marks.InsetMm, MarkSettings.LeastInsetMm, MarkSettings.MostInsetMm, Measure.MarkInset, "inset");
        Between(marks.ArmMm, MarkSettings.LeastArmMm, MarkSettings.MostArmMm, Measure.MarkArm, "arm");
        Between(marks.LineMm, MarkSettings.LeastLineMm, MarkSettings.MostLineMm, Measure.MarkLine, "line");
        Between(marks.ClearMm, MarkSettings.LeastClearMm, MarkSettings.MostClearMm, Measure.MarkClear, "clear");
        // A mark in the strip that is not printed would be missing from the page.
        if (marks.InsetMm < how.MarginMm) throw new EditRefused(Reason.MarksInMargin, new Mm(how.MarginMm)) { Field = "inset" };
    }

    private static void Between(double mm, double least, double most, Measure measure, string field)
    {
        if (!(mm >= least && mm <= most)) throw EditRefused.RangeMm(measure, least, most, field);
    }
}
