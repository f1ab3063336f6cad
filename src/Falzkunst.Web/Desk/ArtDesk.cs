using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;

namespace Falzkunst.Web.Desk;

/// <summary>Brings art files into projects: read, assembled by the remembered rules, kept as they came.</summary>
public sealed class ArtDesk(ProjectDesk desk, ArtStore art, LookRuleStore rules)
{
    /// <summary>Largest request with a file in it; the reader's own limit is a little lower and answers with a sentence.</summary>
    public const int LargestUpload = 24 * 1024 * 1024;

    private const int LongestName = 200;

    /// <summary>Brings a file in.</summary>
    /// <exception cref="ReadRefused">The file cannot be read; nothing was written.</exception>
    /// <exception cref="StaleEdit">The project has changed meanwhile; nothing was written.</exception>
    /// <exception cref="EditRefused">There is nothing in the file that could be brought in.</exception>
    public async Task<OnDesk> BringInAsync(OnDesk on, int seenHead, string fileName, byte[] content, CancellationToken stop)
    {
        var drawing = ArtReader.Read(content);
        if (drawing.LineCount == 0)
            throw new EditRefused("Nothing in this file can be cut, folded or drawn: it has no lines. If it holds text or a picture, turn that into outlines first.");
        var remembered = (await rules.ListAsync(ProjectDesk.Owner, stop)).Select(r => r.Rule).ToList();
        var design = Assembler.Assemble(drawing, remembered, on.Drawer.StockFor, on.Value.Design.NextPiece);
        var byRule = design.Pieces.SelectMany(p => p.Lines).Concat(design.Loose.Select(l => l.Line))
            .Count(l => remembered.FirstOrDefault(r => r.Fits(l.Look)) is { } rule && rule.Operation == l.Operation);
        var name = fileName.Length > LongestName ? fileName[^LongestName..] : fileName;
        var id = Guid.CreateVersion7();
        return await desk.DoAsync(on, seenHead, new BringInArt(id, name) { Pieces = design }, stop,
            () => art.KeepAsync(ProjectDesk.Owner, id, on.Project.Id, name, content, drawing, design.Pieces.Length, byRule, stop));
    }

    public Task<List<ArtCard>> FilesAsync(OnDesk on, CancellationToken stop) =>
        art.ListAsync(ProjectDesk.Owner, on.Project.Id, on.Project.Head, stop);
}
