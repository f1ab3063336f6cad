using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Projects;
using Falzkunst.Formats;
using Falzkunst.Formats.Archive;
using Falzkunst.Formats.Pictures;
using Falzkunst.Web.Reading;

namespace Falzkunst.Web.Desk;

/// <summary>The files of a ZIP to choose from.</summary>
/// <param name="Id">Key under which the ZIP is kept.</param>
/// <param name="Name">Its name.</param>
/// <param name="Files">What is in it.</param>
/// <param name="Proposed">Numbers of those that are proposed: of each motif its best form.</param>
public sealed record ZipListing(Guid Id, string Name, ImmutableArray<ZippedFile> Files, ImmutableHashSet<int> Proposed);

/// <summary>ZIP archives as they are bought: kept for a month beside the project, listed, and those files taken that are wanted.</summary>
public sealed class ZipDesk(ArtStore art, IDrawingReader reader)
{
    private static readonly Drawing Nothing = new(0, 0, [], 0, []);

    /// <summary>Keeps a ZIP to choose from; nothing of it is in the project yet.</summary>
    /// <exception cref="ReadRefused">It is broken, or holds nothing that could be brought in.</exception>
    public async Task<Guid> KeepAsync(OnDesk on, string name, byte[] content, string? origin, CancellationToken stop)
    {
        if (!ZipFiles.List(content).Any(f => f.IsArt))
            throw new ReadRefused("zip-no-art", "There is no SVG or DXF file in it, and no picture.");
        var id = Guid.CreateVersion7();
        await art.KeepAsync(ProjectDesk.Owner, id, on.Project.Id, ArtDesk.Named(name), content, Nothing, 1, 0, origin, [], [], stop);
        return id;
    }

    /// <exception cref="EditRefused">The project has no such ZIP any more.</exception>
    public async Task<ZipListing> ListAsync(OnDesk on, Guid zip, CancellationToken stop)
    {
        var (name, _, content) = await OpenAsync(on, zip, stop);
        var files = ZipFiles.List(content);
        return new ZipListing(zip, name, files, [.. ZipFiles.Proposed(files).Select(f => f.Index)]);
    }

    /// <summary>What some ZIPs are called; those that are gone are left out.</summary>
    public async Task<List<(Guid Id, string Name)>> NamesAsync(OnDesk on, IReadOnlyList<Guid> some, CancellationToken stop)
    {
        var named = new List<(Guid, string)>();
        foreach (var zip in some)
        {
            if (await art.FindAsync(ProjectDesk.Owner, on.Project.Id, zip, stop) is { } found) named.Add((zip, found.FileName));
        }
        return named;
    }

    /// <summary>The hand that was named when the ZIP came.</summary>
    public async Task<string?> OriginAsync(OnDesk on, Guid zip, CancellationToken stop) => (await OpenAsync(on, zip, stop)).Origin;

    /// <summary>Some of its files, unpacked.</summary>
    /// <exception cref="ReadRefused">One of them is broken or too large.</exception>
    public async Task<IReadOnlyList<(string Name, byte[] Content)>> TakeAsync(OnDesk on, Guid zip, IReadOnlyCollection<int> entries, CancellationToken stop)
    {
        var (_, _, content) = await OpenAsync(on, zip, stop);
        return ZipFiles.Take(content, entries);
    }

    /// <summary>One of its drawings, to be looked at; null where it cannot be read.</summary>
    public async Task<Drawing?> DrawingAsync(OnDesk on, Guid zip, int entry, CancellationToken stop)
    {
        try
        {
            var (_, _, content) = await OpenAsync(on, zip, stop);
            return await reader.ReadAsync(ZipFiles.Unpack(content, entry), BudgetLimits.Reading.Time, stop);
        }
        catch (ReadRefused)
        {
            // The list shows a place without a picture; taking the file says why.
            return null;
        }
    }

    /// <summary>One of its pictures as it is in there; null where there is none of that number.</summary>
    public async Task<byte[]?> PictureAsync(OnDesk on, Guid zip, int entry, CancellationToken stop)
    {
        try
        {
            var file = ZipFiles.Unpack((await OpenAsync(on, zip, stop)).Content, entry);
            return PictureReader.LooksLikePicture(file) ? file : null;
        }
        catch (ReadRefused)
        {
            return null;
        }
    }

    private async Task<(string Name, string? Origin, byte[] Content)> OpenAsync(OnDesk on, Guid zip, CancellationToken stop)
    {
        var found = await art.FindAsync(ProjectDesk.Owner, on.Project.Id, zip, stop) ?? throw new EditRefused(Reason.FileGone);
        var content = await art.ContentAsync(ProjectDesk.Owner, zip, stop);
        return ZipFiles.IsZip(content) ? (found.FileName, found.Origin, content) : throw new EditRefused(Reason.FileGone);
    }
}
