using System.Collections.Immutable;
using System.Text.Json;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Workshop;

namespace Falzkunst.Web.Desk;

/// <summary>A project on the desk, with the drawer beside it.</summary>
public sealed record OnDesk(OpenProject Project, Drawer Drawer)
{
    public Project Value => Project.Value;

    /// <summary>What a plan of one of its sheets is asked for with; run, files and what runs again all ask with this.</summary>
    public PlanRequest PlanOf(SheetLayout sheet) => new(
        sheet, Value.Made, Drawer.Machine(Value.SetOut.Machine), Drawer.Stock(sheet.Stock), Value.SetOut.ScoreClearanceMm, Value.SetOut.Printing.GetValueOrDefault(sheet.Stock));

    /// <summary>The project as an edit would make it, still unwritten; its head is that of before.</summary>
    /// <exception cref="EditRefused">The edit does not fit.</exception>
    public OnDesk With(Edit edit) => this with { Project = Project with { Value = Edits.Apply(Value, edit, Drawer) } };

    /// <summary>What the checks say of the design as it is.</summary>
    public ImmutableArray<Finding> Findings => Checks.Findings(Value.Design);
}

/// <summary>Opens projects and carries edits out on them, for whoever works at this server.</summary>
public sealed class ProjectDesk(ProjectStore projects, CatalogueStore catalogue, OwnFaces faces)
{
    public static Guid Owner => WorkshopRow.OnlyOne;

    public static bool IsName(string? name) => !string.IsNullOrWhiteSpace(name) && name.Length <= NameLimits.Project;

    /// <summary>Gives the project another name; its revisions stay as they are.</summary>
    /// <exception cref="EditRefused">That is no name.</exception>
    public async Task<OnDesk> RenameAsync(OnDesk on, string? name, CancellationToken stop)
    {
        if (!IsName(name)) throw EditRefused.Range(Measure.NameLength, 1, NameLimits.Project, "name");
        await projects.RenameAsync(Owner, on.Project.Id, name!.Trim(), stop);
        return await AgainAsync(on, stop);
    }

    public async Task<OnDesk?> OpenAsync(Guid id, CancellationToken stop)
    {
        var project = await projects.OpenAsync(Owner, id, stop);
        if (project is null) return null;
        var drawer = await catalogue.DrawerAsync(Owner, stop, project.DrawerVersion);
        return new OnDesk(project, drawer with { Faces = faces.For(Owner, drawer.OwnFaces) });
    }

    /// <summary>Carries out an edit that was made looking at revision <paramref name="seenHead"/>, and opens the project again.</summary>
    /// <exception cref="StaleEdit">Somebody else was faster; nothing was written.</exception>
    /// <exception cref="EditRefused">The edit does not fit; nothing was written.</exception>
    public async Task<OnDesk> DoAsync(OnDesk on, int seenHead, Edit edit, CancellationToken stop, Func<int, Task>? alongside = null)
    {
        on.Project.DemandSeen(seenHead);
        var after = Edits.Apply(on.Value, edit, on.Drawer);
        return on with { Project = await projects.AppendAsync(Owner, on.Project.Id, seenHead, edit, after, stop, alongside) };
    }

    public async Task<OnDesk> UndoAsync(OnDesk on, int seenHead, CancellationToken stop)
    {
        await projects.UndoAsync(Owner, on.Project.Id, seenHead, stop);
        return await AgainAsync(on, stop);
    }

    public async Task<OnDesk> RedoAsync(OnDesk on, int seenHead, CancellationToken stop)
    {
        await projects.RedoAsync(Owner, on.Project.Id, seenHead, stop);
        return await AgainAsync(on, stop);
    }

    public async Task<OnDesk> GoToAsync(OnDesk on, int seenHead, int revision, CancellationToken stop)
    {
        await projects.GoToAsync(Owner, on.Project.Id, seenHead, revision, stop);
        return await AgainAsync(on, stop);
    }

    /// <summary>The newest revisions, each with what the project was then.</summary>
    public async Task<List<(RevisionCard Card, Project Value)>> HistoryAsync(OnDesk on, int most, CancellationToken stop)
    {
        var history = new List<(RevisionCard, Project)>();
        foreach (var card in await projects.HistoryAsync(Owner, on.Project.Id, most, stop))
        {
            try
            {
                if (await projects.RevisionAsync(Owner, on.Project.Id, card.Number, stop) is { } value) history.Add((card, value));
            }
            catch (JsonException)
            {
                // A revision that cannot be read is none to go to.
            }
        }
        return history;
    }

    private async Task<OnDesk> AgainAsync(OnDesk on, CancellationToken stop) =>
        await OpenAsync(on.Project.Id, stop) ?? throw new InvalidOperationException("A project vanished right after it was written.");
}
