using Falzkunst.Core.Designs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Files brought in, what was not understood of them, and the rules that gave lines their operation.</summary>
public sealed class ArtModel(ProjectDesk desk, ArtDesk art, LookRuleStore rules) : StationPage(desk)
{
    public override Station Station => Station.Art;
    public override string? OverPartial => "_ArtOver";
    public override string Modes => "stacked spread";
    public override string EmptyTable => "This station is where drawings come in. Drop an SVG or DXF file here, or choose one below.";

    public IReadOnlyList<ArtCard> Files { get; private set; } = [];
    public IReadOnlyList<RememberedRule> Rules { get; private set; } = [];

    /// <summary>The file whose notes are shown: the chosen one, else the newest.</summary>
    public ArtCard? Shown => Files.FirstOrDefault(f => f.Id.ToString() == Selected) ?? (Files.Count > 0 ? Files[^1] : null);

    public override string? ShownKey => Shown?.Id.ToString();

    /// <summary>Findings on lines that lie on no piece.</summary>
    public IEnumerable<(int Number, Finding Finding)> LooseFindings =>
        Value.Design.Findings.Select((f, i) => (i + 1, f)).Where(f => f.f.Piece is null);

    protected override async Task LoadAsync(CancellationToken stop)
    {
        Files = await art.FilesAsync(On, stop);
        Rules = await rules.ListAsync(ProjectDesk.Owner, stop);
    }

    protected override Scene BuildScene()
    {
        var scene = SceneBuilder.Pieces(On);
        return scene with { Layouts = [.. scene.Layouts.Reverse()] };
    }

    public Task<IActionResult> OnPostBringInAsync(List<IFormFile> files, CancellationToken stop) => ActAsync(async () =>
    {
        if (files.Count == 0) throw new EditRefused("No file arrived. Choose an SVG or DXF file and try once more.");
        var head = SeenHead;
        foreach (var file in files)
        {
            using var content = new MemoryStream();
            await file.CopyToAsync(content, stop);
            var name = Path.GetFileName(file.FileName);
            try
            {
                Show(await art.BringInAsync(On, head, name, content.ToArray(), stop));
                head = On.Project.Head;
            }
            catch (ReadRefused e)
            {
                throw new EditRefused($"{name} was not brought in. {e.Message}");
            }
            catch (EditRefused e)
            {
                throw new EditRefused($"{name} was not brought in. {e.Message}");
            }
        }
    }, stop);

    public async Task<IActionResult> OnPostForgetAsync(Guid rule, CancellationToken stop)
    {
        await rules.ForgetAsync(ProjectDesk.Owner, rule, stop);
        return await RegionsAsync(stop);
    }
}
