using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>What the Art station shows of a file.</summary>
public sealed record ArtCard(
    Guid Id, string FileName, DateTimeOffset At, int Bytes, double WidthMm, double HeightMm, int Lines, int Pieces, int ByRule,
    ImmutableArray<ReadingNote> Notes);

/// <summary>Art files as they came.</summary>
public sealed class ArtStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>Keeps a file.</summary>
    public async Task<Guid> KeepAsync(
        Guid owner, Guid project, string fileName, byte[] content, Drawing drawing, int pieces, int byRule, CancellationToken stop)
    {
        var row = new ArtFileRow
        {
            Id = Guid.CreateVersion7(), Owner = owner, ProjectId = project, FileName = fileName, Content = content, At = clock.GetUtcNow(),
            WidthMm = drawing.Width, HeightMm = drawing.Height, Lines = drawing.LineCount, Pieces = pieces, ByRule = byRule,
            Notes = StoredJson.Write(drawing.Notes),
        };
        db.ArtFiles.Add(row);
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
        return row.Id;
    }

    public async Task<List<ArtCard>> ListAsync(Guid owner, Guid project, CancellationToken stop)
    {
        var rows = await db.ArtFiles.AsNoTracking()
            .Where(a => a.ProjectId == project && a.Owner == owner)
            .OrderBy(a => a.At)
            .Select(a => new { a.Id, a.FileName, a.At, a.Content.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule, a.Notes })
            .ToListAsync(stop);
        return [.. rows.Select(a => new ArtCard(
            a.Id, a.FileName, a.At, a.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule,
            StoredJson.Read<ImmutableArray<ReadingNote>>(a.Notes)))];
    }
}
