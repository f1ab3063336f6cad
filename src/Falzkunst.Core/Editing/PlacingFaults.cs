using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>What stands in the way of pieces moved by hand.</summary>
public static class PlacingFaults
{
    /// <summary>Why copies may not lie on a sheet as they would; null where they may.</summary>
    /// <param name="hand">The layout they lie in.</param>
    /// <param name="there">The copies, as they would lie.</param>
    /// <param name="to">The sheet they would lie on.</param>
    /// <param name="project">Names and spacing.</param>
    public static EditRefused? WhyNot(HandPlacing hand, IReadOnlyList<Placement> there, SheetLayout to, Project project)
    {
        if (hand.Fault(Placed(there), to.Id) is not { } found) return null;
        var (fault, copy, other) = found;
        var (name, by) = (Name(copy), new Mm(fault.Mm));
        return fault.Kind switch
        {
            NestFaultKind.OverBorder => new(Reason.OverBorder, name, by),
            NestFaultKind.OnBlocked when to.Outline is null && project.SetOut.Printing.GetValueOrDefault(to.Stock)?.Marks is { } marks => new(Reason.InMarkZone, name, new Mm(marks.ClearMm)),
            NestFaultKind.OnBlocked when fault.Mm > 0 => new(Reason.NearOffcutEdge, name, by, new Mm(PaperJobs.OffcutBorderMm)),
            NestFaultKind.OnBlocked => new(Reason.OffOffcut, name),
            NestFaultKind.TooNear => new(Reason.TooNear, name, by, Name(other!), new Mm(project.SpacingOn(to.Stock, project.Sheets!.SpacingMm))),
            NestFaultKind.Turned => new(Reason.AgainstDirection, name),
            _ => new(Reason.LiesOnOther, name, Name(other!)),
        };

        string Name(string piece) => project.Made.Find(piece)?.Name ?? "";
    }

    /// <summary>Copies as the nester has them.</summary>
    public static IReadOnlyList<NestPlacement> Placed(IReadOnlyList<Placement> copies) => [.. copies.Select(p => PaperJobs.Placed(p.Piece, p.Copy, p.Place))];
}
