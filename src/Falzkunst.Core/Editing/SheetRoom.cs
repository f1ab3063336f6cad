using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Looks for room on another sheet, which takes time; the edit that sends copies there is given what was found.</summary>
public static class SheetRoom
{
    /// <summary>Room on one sheet is looked for no longer than this.</summary>
    private static readonly NestEffort Effort = new(TimeSpan.FromSeconds(1.5)) { Patience = TimeSpan.FromSeconds(1) };

    /// <summary>The sheet with the copies on it; null where no room was found.</summary>
    /// <param name="project">The project.</param>
    /// <param name="edit">What shall be sent where.</param>
    /// <param name="drawer">The stock drawer.</param>
    /// <param name="stop">Gives up.</param>
    /// <exception cref="EditRefused">Something is not there any more.</exception>
    public static SheetLayout? Find(Project project, SendPlacements edit, Drawer drawer, CancellationToken stop)
    {
        var (from, to, copies) = Placing.Sending(project, edit, drawer);
        return Placing.Refusing(() => PaperPlacing.Add(to, copies, project.Made, project.AsLaid(drawer.Stock(from.Stock)), project.Sheets!.SpacingMm, Effort, stop));
    }
}
