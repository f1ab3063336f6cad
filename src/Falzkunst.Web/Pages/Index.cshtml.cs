using Falzkunst.Data.Projects;
using Falzkunst.Web.Desk;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Falzkunst.Web.Pages;

/// <summary>The projects of the workshop.</summary>
public sealed class IndexModel(ProjectStore projects, ProjectDesk desk) : PageModel
{
    /// <summary>Projects shown with a picture; more would make the page slow.</summary>
    private const int MostPictures = 12;

    public IReadOnlyList<ProjectCard> Projects { get; private set; } = [];
    /// <summary>The first projects as they are, for their pictures.</summary>
    public Dictionary<Guid, OnDesk> Pictures { get; } = [];
    public string? Wrong { get; private set; }
    public string? Name { get; private set; }

    /// <summary>Projects taken off the desk.</summary>
    public IReadOnlyList<ProjectCard> OffTheDesk { get; private set; } = [];

    /// <summary>The one that was taken off by the last click.</summary>
    public ProjectCard? JustRemoved { get; private set; }

    public async Task OnGetAsync(CancellationToken stop)
    {
        OffTheDesk = await projects.ListAsync(ProjectDesk.Owner, stop, removed: true);
        JustRemoved = Guid.TryParse(TempData[nameof(JustRemoved)]?.ToString(), out var gone) ? OffTheDesk.FirstOrDefault(p => p.Id == gone) : null;
        Projects = await projects.ListAsync(ProjectDesk.Owner, stop);
        foreach (var card in Projects.Where(p => p.Pieces > 0).Take(MostPictures))
        {
            if (await desk.OpenAsync(card.Id, stop) is { } on) Pictures[card.Id] = on;
        }
    }

    public async Task<IActionResult> OnPostAsync(string? name, CancellationToken stop)
    {
        if (!ProjectDesk.IsName(name))
        {
            (Wrong, Name) = ($"A name has between 1 and {ProjectDesk.LongestName} characters.", name);
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            await OnGetAsync(stop);
            return Page();
        }
        var id = await projects.CreateAsync(ProjectDesk.Owner, name!.Trim(), Core.Projects.Project.Empty, stop);
        return RedirectToPage("/Project/SetOut", new { id });
    }

    public async Task<IActionResult> OnPostRemoveAsync(Guid id, CancellationToken stop)
    {
        await projects.RemoveAsync(ProjectDesk.Owner, id, removed: true, stop);
        TempData[nameof(JustRemoved)] = id.ToString();
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostBringBackAsync(Guid id, CancellationToken stop)
    {
        await projects.RemoveAsync(ProjectDesk.Owner, id, removed: false, stop);
        return RedirectToPage();
    }
}
