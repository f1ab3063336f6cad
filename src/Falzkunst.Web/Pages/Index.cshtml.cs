using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
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

    /// <summary>Lines beyond which a project is too large to be drawn small.</summary>
    private const int MostSegments = 4000;

    public IReadOnlyList<ProjectCard> Projects { get; private set; } = [];
    public Dictionary<Guid, Picture> Pictures { get; } = [];
    public string? Wrong { get; private set; }
    public string? Name { get; private set; }

    /// <summary>A project as its pieces lie on each other.</summary>
    public sealed record Picture(string ViewBox, IReadOnlyList<(string Path, string Fill)> Pieces);

    /// <summary>The project that was just taken off the desk.</summary>
    public (Guid Id, string Name)? Removed { get; private set; }

    public async Task OnGetAsync(CancellationToken stop)
    {
        if (Guid.TryParse(TempData[nameof(Removed)]?.ToString(), out var gone) && await projects.OpenAsync(ProjectDesk.Owner, gone, stop) is { } off)
            Removed = (off.Id, off.Name);
        Projects = await projects.ListAsync(ProjectDesk.Owner, stop);
        foreach (var card in Projects.Where(p => p.Pieces > 0).Take(MostPictures))
        {
            if (await desk.OpenAsync(card.Id, stop) is { } on && Draw(on) is { } picture) Pictures[card.Id] = picture;
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
        TempData[nameof(Removed)] = id.ToString();
        return RedirectToPage();
    }

    public async Task<IActionResult> OnPostBringBackAsync(Guid id, CancellationToken stop)
    {
        await projects.RemoveAsync(ProjectDesk.Owner, id, removed: false, stop);
        return RedirectToPage();
    }

    private static Picture? Draw(OnDesk on)
    {
        var pieces = on.Value.Design.Pieces;
        if (pieces.Sum(p => p.Shape.Paths.Sum(path => path.Segments.Length)) > MostSegments) return null;
        var spread = SpreadOut.Arrange(on.Value.Design);
        var box = Box.Empty;
        var drawn = new List<(string, string)>();
        for (var i = 0; i < pieces.Length; i++)
        {
            var paper = pieces[i].Drawn.Where(d => d.Line.Role != Core.Designs.LineRole.Inner).Select(d => d.Path.Map(spread[i])).ToList();
            box = box.Include(paper[0].Bounds);
            drawn.Add((string.Concat(paper.Select(p => PathText.Write(p, 1))), on.Drawer.ColourOf(pieces[i].Stock)));
        }
        return new Picture(FormattableString.Invariant($"{box.MinX:0.#} {box.MinY:0.#} {box.Width:0.#} {box.Height:0.#}"), drawn);
    }
}
