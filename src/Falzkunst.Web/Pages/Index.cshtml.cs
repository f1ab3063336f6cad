using System.Text.Json;
using Falzkunst.Core.Designs;
using Falzkunst.Data.Projects;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Pictures;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Falzkunst.Web.Pages;

/// <summary>The projects of the workshop.</summary>
public sealed class IndexModel(ProjectStore projects, ProjectDesk desk) : PageModel
{
    /// <summary>Projects that are in sight at once; pictures of the others are fetched when one comes to them.</summary>
    public const int InSight = 12;

    public IReadOnlyList<ProjectCard> Projects { get; private set; } = [];

    /// <summary>Key of the project that the form would begin, so that a second touch begins no second one.</summary>
    public Guid NextKey { get; } = Guid.CreateVersion7();
    public string? Wrong { get; private set; }
    public string? Name { get; private set; }

    /// <summary>Projects taken off the desk.</summary>
    public IReadOnlyList<ProjectCard> OffTheDesk { get; private set; } = [];

    /// <summary>The one that was taken off by the last click.</summary>
    public ProjectCard? JustRemoved { get; private set; }

    public async Task OnGetAsync(CancellationToken stop)
    {
        (Projects, OffTheDesk) = await projects.ListAsync(ProjectDesk.Owner, stop);
        JustRemoved = Guid.TryParse(TempData[nameof(JustRemoved)]?.ToString(), out var gone) ? OffTheDesk.FirstOrDefault(p => p.Id == gone) : null;
    }

    /// <summary>A small picture of a project; its address changes with what it shows, so that it is kept for good.</summary>
    public async Task<IActionResult> OnGetPictureAsync(Guid id, CancellationToken stop)
    {
        try
        {
            if (await desk.OpenAsync(id, stop) is not { } on) return NotFound();
            Response.Headers.CacheControl = "private, max-age=31536000, immutable";
            return Content(ProjectPicture.Svg(on.Value, on.Drawer), "image/svg+xml");
        }
        catch (Exception e) when (e is JsonException or FormatException or ArgumentException or KeyNotFoundException)
        {
            // A project that cannot be read has no picture; opened, it says so.
            return NotFound();
        }
    }

    public async Task<IActionResult> OnPostAsync(string? name, Guid? key, CancellationToken stop)
    {
        if (!ProjectDesk.IsName(name))
        {
            (Wrong, Name) = ($"A name has between 1 and {NameLimits.Project} characters.", name);
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            await OnGetAsync(stop);
            return Page();
        }
        var id = await projects.CreateAsync(ProjectDesk.Owner, name!.Trim(), Core.Projects.Project.Empty, stop, key);
        return RedirectToPage("/Project/SetOut/SetOut", new { id });
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
