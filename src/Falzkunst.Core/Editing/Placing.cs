using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>What becomes of layouts by edits.</summary>
internal static class Placing
{
    /// <summary>The project with a settled layout, which must still fit its pieces and stand up to the exact check.</summary>
    /// <exception cref="EditRefused">It does not.</exception>
    public static Project Take(Project project, TakeSettled edit, Drawer drawer)
    {
        if (edit.Layout is not { } layout) throw new EditRefused(Reason.NothingSettled);
        if (project.Sheets is not { } sheets || !project.SheetsAreCurrent || !project.WasAskedForThese(edit.MadeFor, edit.Stock))
            throw new EditRefused(Reason.SettledStale);
        var now = sheets.ForStock(edit.Stock, project.Made);
        now.DemandUncut();
        var settled = layout.Sheets.SelectMany(s => s.Placements).ToHashSet();
        if (now.Sheets.SelectMany(s => s.Placements).Any(p => p.Pinned && !settled.Contains(p)))
            throw new EditRefused(Reason.SettledPins);
        var stock = project.AsLaid(drawer.Stock(edit.Stock));
        var job = PaperJobs.JobFor(project.Made, stock, drawer.Machine(project.SetOut.Machine), project.SetOut.SpacingMm, project.SetOut.Cards, layout);
        if (!layout.Sheets.GroupBy(s => s.SizeName).All(g => job.Sheets.Any(s => s.Id == g.Key && s.Count >= g.Count()))
            || Refusing(() => NestCheck.Faults(job, PaperJobs.ResultOf(layout)).Any()))
        {
            throw new EditRefused(Reason.SettledSheets);
        }
        return project with { Sheets = sheets.With(layout, project.Made) };
    }

    /// <exception cref="EditRefused">The sheet or one of the copies is not there.</exception>
    public static Project Pin(Project project, PinPlacements edit)
    {
        var (sheets, sheet) = Require(project, edit.Sheet);
        var pinned = edit.Copies.IsEmpty ? sheet.Placements : [.. Require(sheet, edit.Copies)];
        var placements = sheet.Placements.Select(p => pinned.Contains(p) ? p with { Pinned = edit.Pinned } : p);
        return project with { Sheets = sheets.With(sheet, sheet with { Placements = [.. placements] }) };
    }

    /// <exception cref="EditRefused">Something is not there any more, or may not lie there; the sentence says what stands in the way.</exception>
    public static Project Move(Project project, MovePlacements edit)
    {
        if (!(double.IsFinite(edit.Degrees) && Math.Abs(edit.By.X) < FarthestMm && Math.Abs(edit.By.Y) < FarthestMm && Math.Abs(edit.About.X) < FarthestMm && Math.Abs(edit.About.Y) < FarthestMm))
            throw new EditRefused(Reason.BeyondSheets);
        var (sheets, from) = Require(project, edit.Sheet);
        var (_, to) = Require(project, edit.To);
        if (to.Stock != from.Stock) throw new EditRefused(Reason.OtherStock);
        var now = sheets.ForStock(from.Stock, project.Made);
        now.DemandUncut();
        var copies = Require(from, edit.Copies);
        var there = copies.Select(p => p with { Place = p.Place.Then(edit.Map), Pinned = true }).ToList();
        var hand = Refusing(() => new HandPlacing(now, project.Made, project.SpacingOn(from.Stock, sheets.SpacingMm)));
        if (PlacingFaults.WhyNot(hand, there, to, project) is { } why) throw why;
        return Lifted(project, from, copies, layout => layout with { Sheets = [.. layout.Sheets.Select(s => s.Id == to.Id ? s with { Placements = [.. s.Placements, .. there] } : s)] });
    }

    /// <exception cref="EditRefused">Something is not there any more, or what was found does not stand up to the exact check.</exception>
    public static Project Send(Project project, SendPlacements edit, Drawer drawer)
    {
        var (from, to, copies) = Sending(project, edit, drawer);
        if (edit.Filled is not { } filled) throw new EditRefused(Reason.NoRoomOnSheet, edit.To is null ? 0 : to.Number, copies.Count, project.Made.Require(copies[0].Piece).Name);
        var came = filled.Placements.Where(p => !to.Placements.Contains(p)).Select(p => p with { Pinned = true }).ToList();
        if (filled.Id != to.Id || !to.Placements.All(filled.Placements.Contains) || !came.Select(p => (p.Piece, p.Copy)).Order().SequenceEqual(copies.Select(p => (p.Piece, p.Copy)).Order()))
        {
            throw new EditRefused(Reason.SettledStale);
        }
        var full = to with { Placements = [.. to.Placements, .. came] };
        var after = Lifted(project, from, copies, l => l with { Sheets = edit.To is null ? l.Sheets.Add(full) : [.. l.Sheets.Select(s => s.Id == to.Id ? full : s)] });
        var layout = after.Sheets!.ForStock(to.Stock, project.Made);
        var job = PaperJobs.JobFor(project.Made, project.AsLaid(drawer.Stock(to.Stock)), drawer.Machine(project.SetOut.Machine), project.Sheets!.SpacingMm, project.SetOut.Cards, layout);
        return Refusing(() => NestCheck.Faults(job, PaperJobs.ResultOf(layout)).Any()) ? throw new EditRefused(Reason.SettledStale) : after;
    }

    /// <summary>What copies are sent from and to, and the copies.</summary>
    internal static (SheetLayout From, SheetLayout To, List<Placement> Copies) Sending(Project project, SendPlacements edit, Drawer drawer)
    {
        var (sheets, from) = Require(project, edit.Sheet);
        var copies = Require(from, edit.Copies);
        var stock = project.AsLaid(drawer.Stock(from.Stock));
        var layout = sheets.ForStock(from.Stock, project.Made);
        layout.DemandUncut();
        var to = edit.To is { } id ? Require(project, id).Sheet
            : PaperPlacing.OneMore(layout, stock, drawer.Machine(project.SetOut.Machine), edit.Size ?? "", SheetLayouts.BatchKey(edit.Batch)) ?? throw new EditRefused(Reason.NoFurtherSheet, edit.Size ?? "", stock.Name);
        return to.Id == from.Id || to.Stock != from.Stock ? throw new EditRefused(Reason.SameSheet) : (from, to, copies);
    }

    /// <exception cref="EditRefused">The sheet is gone, or its rest is kept already.</exception>
    public static Project Keep(Project project, KeepRest edit)
    {
        var (sheets, sheet) = Require(project, edit.Sheet);
        if (sheet.RestKept is not null) throw new EditRefused(Reason.RestKept, sheet.Number, sheet.RestKept);
        return project with { Sheets = sheets.With(sheet, sheet with { RestKept = edit.Rest }) };
    }

    /// <summary>Sets how pieces may lie; where they lie so already, their sheets stay as they are.</summary>
    public static Project Set(Project project, SetAllowedTurns edit)
    {
        // Rows of a list lie as their piece may.
        var ids = edit.Pieces.Select(NameList.PieceOf).ToHashSet();
        var after = project with { Design = ids.Aggregate(project.Design, (d, id) => d.With(id, p => p with { AllowedTurns = edit.AllowedTurns })) };
        if (!project.SheetsAreCurrent) return after;
        var stands = after.Design.Pieces.Where(p => ids.Contains(p.Id)).Select(p => p.Stock).Distinct()
            .All(stock => PaperJobs.AllowsTurns(project.Sheets!.ForStock(stock, after.Made), after.Made));
        return stands ? after with { Sheets = project.Sheets! with { MadeFor = after.LayoutFingerprint() } } : after;
    }

    /// <summary>No sheet is so large, mm.</summary>
    private const double FarthestMm = 10_000;

    private static (SheetLayouts Sheets, SheetLayout Sheet) Require(Project project, string id)
    {
        if (project.Sheets?.Find(id) is not { } sheet) throw new EditRefused(Reason.SheetGone);
        return project.SheetsAreCurrent ? (project.Sheets, sheet) : throw new EditRefused(Reason.SheetsStale);
    }

    private static List<Placement> Require(SheetLayout sheet, ImmutableArray<PlacedCopy> copies) => copies.IsDefaultOrEmpty
        ? throw new EditRefused(Reason.NoCopies)
        : [.. copies.Distinct().Select(c => sheet.Find(c.Piece, c.Copy) ?? throw new EditRefused(Reason.CopyGone))];

    /// <summary>The project with copies taken off a sheet and the stock's layout changed then; a sheet that is left empty goes.</summary>
    private static Project Lifted(Project project, SheetLayout off, List<Placement> copies, Func<StockLayout, StockLayout> change)
    {
        var lifted = project.Sheets!.With(off, off with { Placements = [.. off.Placements.Where(p => !copies.Contains(p))] });
        return project with { Sheets = lifted.With(change(lifted.ForStock(off.Stock, project.Made)).Tidy(), project.Made) };
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
            throw new EditRefused(Reason.CannotNest, refused.Reason);
        }
    }
}
