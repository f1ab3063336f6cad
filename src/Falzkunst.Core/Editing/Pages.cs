using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
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
        if (edit.How is not { } how) return LaidAnew(project, project with { SetOut = project.SetOut with { Printing = printing.Remove(stock.Key) } }, stock, edit.Batch, drawer);
        Check(how);
        if (how.IsCut && drawer.Machine(project.SetOut.Machine) is { ReadsMarks: false } machine) throw new EditRefused(Reason.ReadsNoMarks, machine.Name) { Field = "marks" };
        return LaidAnew(project, project with { SetOut = project.SetOut with { Printing = printing.SetItem(stock.Key, how) } }, stock, edit.Batch, drawer);
    }

    /// <exception cref="EditRefused">The piece is gone, or so many are too many.</exception>
    public static Project Lay(Project project, LayPrinted edit, Drawer drawer)
    {
        var piece = project.Design.Require(edit.Piece);
        var counted = Edits.Apply(project, new SetQuantity(edit.Piece, edit.Quantity), drawer);
        return LaidAnew(project, counted, drawer.Stock(piece.Stock), edit.Batch, drawer);
    }

    /// <summary>The pieces of a stock laid where its pages leave room now; the other stocks' sheets stay. What lay nowhere, or was out of date, is left so.</summary>
    private static Project LaidAnew(Project before, Project now, Stock stock, Guid batch, Drawer drawer)
    {
        if (batch == default || now.Design.Pieces.IsEmpty) return now;
        if (before.Sheets is not { } sheets || !before.SheetsAreCurrent) return Edits.Apply(now, new PutOnSheets(now.SetOut.SpacingMm, batch), drawer);
        if (before.LayoutFingerprint() == now.LayoutFingerprint()) return now;
        var layout = sheets.ForStock(stock.Key, before.Made);
        // What is cut cannot be laid otherwise any more.
        if (layout.Sheets.Any(s => s.RestKept is not null)) return now;
        var alone = now.Made with { Pieces = [.. now.Made.Pieces.Where(p => p.Stock == stock.Key)] };
        var laid = Placing.Refusing(() => PaperPlacing.Place(
            alone, [now.AsLaid(stock)], drawer.Machine(now.SetOut.Machine), now.SetOut.SpacingMm, now.SetOut.Cards, "", NestEffort.FirstAnswer, SheetLayouts.BatchKey(batch), sheets));
        return now with
        {
            Sheets = sheets.With(laid.ForStock(stock.Key, alone), now.Made) with { MadeFor = now.LayoutFingerprint(), Papers = SheetLayouts.PapersOf(now.Made) },
        };
    }

    /// <exception cref="EditRefused">The sheet is not there or bears no marks.</exception>
    public static Project Draw(Project project, DrawMarks edit, Drawer drawer)
    {
        if (project.Sheets?.Find(edit.Sheet) is not { } sheet || !project.SheetsAreCurrent) throw new EditRefused(Reason.SheetGone);
        if (!project.SetOut.Printing.TryGetValue(sheet.Stock, out var how) || how.Marks is not { } marks) throw new EditRefused(Reason.NoMarksThere);
        Box? frame = edit.In ? ClosestFrame.Find(sheet, project.Made, how) : null;
        if (frame == marks.Frame(sheet.Width, sheet.Height)) throw new EditRefused(Reason.MarksAreClose);
        var drawn = sheet with { Reading = null, MarkFrame = frame, Blocked = PaperJobs.Zones(project.AsLaid(drawer.Stock(sheet.Stock)).Room!, frame, sheet.Width, sheet.Height) };
        return project with { Sheets = project.Sheets.With(sheet, drawn) };
    }

    /// <exception cref="EditRefused">The sheet is not there, or bears no marks.</exception>
    public static Project Keep(Project project, KeepReading edit)
    {
        if (project.Sheets?.Find(edit.Sheet) is not { } sheet || !project.SheetsAreCurrent) throw new EditRefused(Reason.SheetGone);
        if (project.SetOut.Printing.GetValueOrDefault(sheet.Stock) is not { IsCut: true }) throw new EditRefused(Reason.NoMarksThere);
        return project with { Sheets = project.Sheets.With(sheet, sheet with { Reading = edit.Reading }) };
    }

    private static void Check(PagePrinting how)
    {
        Between(how.MarginMm, 0, PagePrinting.MostMarginMm, Measure.PrinterMargin, "margin");
        Between(how.BleedMm, 0, PagePrinting.MostBleedMm, Measure.BleedWidth, "bleed");
        if (how.GlueMm is { } glue) Between(glue, 0, PagePrinting.MostGlueMm, Measure.GlueMargin, "glue");
        Between(how.ApartMm, 0, PagePrinting.MostBleedMm, Measure.SidesApart, "apart");
        if (how.WaitOverMm is { } wait) Between(wait, PagePrinting.LeastWaitOverMm, PagePrinting.MostWaitOverMm, Measure.CutApart, "waitOver");
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
