using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;

namespace Falzkunst.Core.Projects;

/// <summary>What stands in the way of pieces moved by hand, in a sentence with numbers.</summary>
public static class FaultWords
{
    /// <summary>Why copies may not lie on a sheet as they would; null where they may.</summary>
    /// <param name="hand">The layout they lie in.</param>
    /// <param name="there">The copies, as they would lie.</param>
    /// <param name="to">The sheet they would lie on.</param>
    /// <param name="project">Names, spacing and units.</param>
    public static string? WhyNot(HandPlacing hand, IReadOnlyList<Placement> there, SheetLayout to, Project project)
    {
        if (hand.Fault(Placed(there), to.Id) is not { } found) return null;
        var (fault, copy, other) = found;
        var (name, mm) = (Name(copy), Length.Show(fault.Mm, project.SetOut.Units));
        return fault.Kind switch
        {
            NestFaultKind.OverBorder => $"{name} would reach {mm} over the border.",
            NestFaultKind.OnBlocked when fault.Mm > 0 => $"{name} would lie {mm} from the edge of the offcut; {Length.Show(PaperJobs.OffcutBorderMm, project.SetOut.Units)} are kept.",
            NestFaultKind.OnBlocked => $"{name} would leave the paper of the offcut.",
            NestFaultKind.TooNear => $"{name} would lie {mm} from {Name(other!)}; {Length.Show(project.Sheets!.SpacingMm, project.SetOut.Units)} are kept.",
            NestFaultKind.Turned => $"{name} may not be turned like that: its paper has a direction.",
            _ => $"{name} would lie on {Name(other!)}.",
        };

        string Name(string piece) => project.Design.Find(piece)?.Name ?? "A piece";
    }

    /// <summary>Copies as the nester has them.</summary>
    public static IReadOnlyList<NestPlacement> Placed(IReadOnlyList<Placement> copies) => [.. copies.Select(p => PaperJobs.Placed(p.Piece, p.Copy, p.Place))];
}
