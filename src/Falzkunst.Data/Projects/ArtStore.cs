using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>What the Art station shows of a file.</summary>
public sealed record ArtCard(
    Guid Id, string FileName, DateTimeOffset At, int Bytes, double WidthMm, double HeightMm, int Lines, int Pieces, int ByRule,
    string? Origin, ImmutableArray<RuleUse> RulesUsed, ImmutableArray<ReadingNote> Notes);

/// <summary>What a remembered rule did with a file.</summary>
/// <param name="Sentence">The rule.</param>
/// <param name="Lines">How many lines it spoke of.</param>
public sealed record RuleUse(string Sentence, int Lines);

/// <summary>Art files as they came.</summary>
public sealed class ArtStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>Keeps a file under a key of the caller's.</summary>
    public async Task KeepAsync(
        Guid owner, Guid art, Guid project, string fileName, byte[] content, Drawing drawing, int pieces,
        string? origin, ImmutableArray<RuleUse> rulesUsed, ImmutableArray<ReadingNote> notes, CancellationToken stop)
    {
        var row = new ArtFileRow
        {
            Id = art, Owner = owner, ProjectId = project, FileName = fileName, Content = content, At = clock.GetUtcNow(),
            WidthMm = drawing.Width, HeightMm = drawing.Height, Lines = drawing.LineCount, Pieces = pieces, ByRule = rulesUsed.Sum(r => r.Lines),
            Origin = origin, RulesUsed = StoredJson.Write(rulesUsed), Notes = StoredJson.Write(notes),
        };
        db.ArtFiles.Add(row);
        await db.SaveChangesAsync(stop);
    }

    /// <summary>What a file is called and whose hand it is from; null where the owner has none of that key in that project.</summary>
    public async Task<(string FileName, string? Origin)?> FindAsync(Guid owner, Guid project, Guid art, CancellationToken stop)
    {
        var row = await db.ArtFiles.AsNoTracking().Where(a => a.Id == art && a.ProjectId == project && a.Owner == owner)
            .Select(a => new { a.FileName, a.Origin }).SingleOrDefaultAsync(stop);
        return row is null ? null : (row.FileName, row.Origin);
    }

    /// <summary>A file that was found, as it came.</summary>
    public Task<byte[]> ContentAsync(Guid owner, Guid art, CancellationToken stop) =>
        db.ArtFiles.Where(a => a.Id == art && a.Owner == owner).Select(a => a.Content).SingleAsync(stop);

    /// <summary>The hands that files came from so far, by name.</summary>
    public Task<List<string>> OriginsAsync(Guid owner, CancellationToken stop) => db.ArtFiles
        .Where(a => a.Owner == owner && a.Origin != null).Select(a => a.Origin!).Distinct().OrderBy(o => o).ToListAsync(stop);

    /// <summary>The files that the project has at a revision: those brought in on the way to it, oldest first.</summary>
    public async Task<List<ArtCard>> ListAsync(Guid owner, Guid project, int head, CancellationToken stop)
    {
        var broughtIn = await db.Database.SqlQuery<Guid>($"""
            with recursive way as (
                select number, parent, edit from revisions where project_id = {project} and number = {head}
                union all
                select r.number, r.parent, r.edit from revisions r join way on r.number = way.parent where r.project_id = {project}
            )
            select (edit->>'art')::uuid as "Value" from way where edit->>'edit' in ('bring-in-art', 'keep-art')
            """).ToListAsync(stop);
        var rows = await db.ArtFiles.AsNoTracking()
            .Where(a => a.ProjectId == project && a.Owner == owner && broughtIn.Contains(a.Id))
            .OrderBy(a => a.At)
            .Select(a => new { a.Id, a.FileName, a.At, a.Content.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule, a.Origin, a.RulesUsed, a.Notes })
            .ToListAsync(stop);
        return [.. rows.Select(a => new ArtCard(
            a.Id, a.FileName, a.At, a.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule,
            a.Origin, StoredJson.Read<ImmutableArray<RuleUse>>(a.RulesUsed), StoredJson.Read<ImmutableArray<ReadingNote>>(a.Notes)))];
    }
}
