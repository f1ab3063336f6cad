using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Core.Projects;

/// <summary>What becomes of layouts by edits.</summary>
internal static class Placing
{
    /// <summary>The project with a settled layout, which must still fit its pieces and stand up to the exact check.</summary>
    /// <exception cref="EditRefused">It does not.</exception>
    public static Project Take(Project project, TakeSettled edit, Drawer drawer)
    {
        if (edit.Layout is not { } layout) throw new EditRefused("There is no settled layout to take. Let the pieces settle first.");
        if (project.Sheets is not { } sheets || !project.SheetsAreCurrent || edit.MadeFor != sheets.MadeFor)
            throw new EditRefused("The pieces, the machine or the spacing have changed since this layout settled. Let them settle again.");
        var stock = drawer.Stock(edit.Stock);
        var job = PaperPlacing.JobFor(project.Design, stock, drawer.Machine(project.SetOut.Machine), project.SetOut.SpacingMm, project.SetOut.Cards, layout);
        if (Refusing(() => NestCheck.Faults(job, PaperPlacing.ResultOf(layout)).Any()))
            throw new EditRefused("The sheets in the drawer have changed since this layout settled. Let the pieces settle again.");
        return project with { Sheets = sheets.With(layout, project.Design) };
    }

    /// <exception cref="EditRefused">The sheet or one of the copies is not there.</exception>
    public static Project Pin(Project project, PinPlacements edit)
    {
        if (project.Sheets?.Find(edit.Sheet) is not { } sheet) throw new EditRefused("That sheet is gone. Reload the page to see what is there now.");
        var wanted = edit.Copies.Select(c => (c.Piece, c.Copy)).ToHashSet();
        if (wanted.Count > 0 && wanted.Any(w => !sheet.Placements.Any(p => p.Piece == w.Piece && p.Copy == w.Copy)))
            throw new EditRefused("One of those pieces does not lie on that sheet any more.");
        var placements = sheet.Placements.Select(p => wanted.Count == 0 || wanted.Contains((p.Piece, p.Copy)) ? p with { Pinned = edit.Pinned } : p);
        return project with { Sheets = project.Sheets with { Sheets = project.Sheets.Sheets.Replace(sheet, sheet with { Placements = [.. placements] }) } };
    }

    /// <summary>Does what a nester may refuse.</summary>
    /// <exception cref="EditRefused">It was refused.</exception>
    public static T Refusing<T>(Func<T> work)
    {
        try
        {
            return work();
        }
        catch (NestRefused refused)
        {
            throw new EditRefused($"The pieces cannot be put on sheets: {refused.Message}.");
        }
    }
}
