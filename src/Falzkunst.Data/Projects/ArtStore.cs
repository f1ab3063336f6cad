using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>What the Art station shows of a file.</summary>
public sealed record ArtCard(
    Guid Id, string FileName, DateTimeOffset At, int Bytes, double WidthMm, double HeightMm, int Lines, int Pieces, int ByRule,
    string? Origin, ImmutableArray<RuleUse> RulesUsed, ImmutableArray<ReadingNote> Notes)
{
    /// <summary>What its own lengths were multiplied by when it came in; width and height are after that.</summary>
    public double Scale { get; init; } = 1;

    /// <summary>How many units of a file that says no size were taken for an inch before the scale; null where the file says its size.</summary>
    public double? UnitsToInch { get; init; }
}

/// <summary>A picture embedded in a file; its bytes are in the file.</summary>
/// <param name="Content">SHA-256 of its bytes.</param>
/// <param name="MediaType">What the file says it is.</param>
/// <param name="Place">From its box to mm on the page.</param>
/// <param name="Width">Width of its box, before the place.</param>
/// <param name="Height">Height of its box.</param>
/// <param name="Above">How many of the file's shapes lie below it.</param>
/// <param name="Groups">The names of the groups it lies in, outermost first.</param>
public sealed record KeptPicture(string Content, string MediaType, Affine Place, double Width, double Height, int Above, ImmutableArray<string> Groups)
{
    internal static KeptPicture From(DrawnPicture p) =>
        new(ContentHash.Compute(p.Content), p.MediaType, p.Place, p.Width, p.Height, p.Above, p.Groups);
}

/// <summary>What a remembered rule did with a file.</summary>
/// <param name="Sentence">The rule.</param>
/// <param name="Lines">How many lines it spoke of.</param>
public sealed record RuleUse(string Sentence, int Lines);

/// <summary>Art files as they came.</summary>
public sealed class ArtStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>Keeps a file under a key of the caller's; where it is kept already, what came of it is replaced.</summary>
    public async Task KeepAsync(
        Guid owner, Guid art, Guid project, string fileName, byte[] content, Drawing drawing, double scale, int pieces,
        string? origin, ImmutableArray<RuleUse> rulesUsed, ImmutableArray<ReadingNote> notes, CancellationToken stop)
    {
        await db.ArtFiles.Where(a => a.Id == art && a.ProjectId == project && a.Owner == owner).ExecuteDeleteAsync(stop);
        var row = new ArtFileRow
        {
            Id = art,
            Owner = owner,
            ProjectId = project,
            FileName = fileName,
            Content = content,
            At = clock.GetUtcNow(),
            Scale = scale,
            UnitsToInch = drawing.UnitsToInch,
            Pictures = StoredJson.Write(drawing.Pictures.Select(KeptPicture.From).ToImmutableArray()),
            WidthMm = drawing.Width,
            HeightMm = drawing.Height,
            Lines = drawing.LineCount,
            Pieces = pieces,
            ByRule = rulesUsed.Sum(r => r.Lines),
            Origin = origin,
            RulesUsed = StoredJson.Write(rulesUsed),
            Notes = StoredJson.Write(notes),
        };
        db.ArtFiles.Add(row);
        await db.SaveChangesAsync(stop);
    }

    /// <summary>What a file is called, whose hand it is from and at which scale it was taken; null where the owner has none of that key in that project.</summary>
    public async Task<(string FileName, string? Origin, double Scale)?> FindAsync(Guid owner, Guid project, Guid art, CancellationToken stop)
    {
        var row = await db.ArtFiles.AsNoTracking().Where(a => a.Id == art && a.ProjectId == project && a.Owner == owner)
            .Select(a => new { a.FileName, a.Origin, a.Scale }).SingleOrDefaultAsync(stop);
        return row is null ? null : (row.FileName, row.Origin, row.Scale);
    }

    /// <summary>A file that was found, as it came.</summary>
    public Task<byte[]> ContentAsync(Guid owner, Guid art, CancellationToken stop) =>
        db.ArtFiles.Where(a => a.Id == art && a.Owner == owner).Select(a => a.Content).SingleAsync(stop);

    /// <summary>A file whose size was asked and never answered is kept so long.</summary>
    private static readonly TimeSpan Unanswered = TimeSpan.FromDays(30);

    /// <summary>Takes out files that no revision of their project ever brought in.</summary>
    public Task<int> ForgetUnansweredAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Unanswered;
        return db.Database.ExecuteSqlRawAsync(
            $$"""
            delete from art_files a where at < {0}
              and not exists (
                select from revisions r, {{StoredEdits.EachAsOne}}
                where r.project_id = a.project_id and one->>'art' = a.id::text)
            """, [before], stop);
    }

    /// <summary>The hands that files came from so far, by name.</summary>
    public Task<List<string>> OriginsAsync(Guid owner, CancellationToken stop) => db.ArtFiles
        .Where(a => a.Owner == owner && a.Origin != null).Select(a => a.Origin!).Distinct().OrderBy(o => o).ToListAsync(stop);

    /// <summary>Remembers at how many units to the inch a file was settled, for the next one from the same hand.</summary>
    public Task SettleUnitsAsync(Guid owner, Guid art, double units, CancellationToken stop) =>
        db.ArtFiles.Where(a => a.Id == art && a.Owner == owner).ExecuteUpdateAsync(set => set.SetProperty(a => a.SettledUnits, units), stop);

    /// <summary>At how many units to the inch the last file from a hand was settled; null where none was, or the hand is not known.</summary>
    public async Task<double?> UnitsOfAsync(Guid owner, string? origin, CancellationToken stop) => origin is null ? null
        : await db.ArtFiles.AsNoTracking().Where(a => a.Owner == owner && a.Origin == origin && a.SettledUnits != null).OrderByDescending(a => a.At)
            .Select(a => a.SettledUnits).FirstOrDefaultAsync(stop);

    /// <summary>The files that the project has at a revision: those brought in on the way to it, oldest first.</summary>
    public async Task<List<ArtCard>> ListAsync(Guid owner, Guid project, int head, CancellationToken stop)
    {
        var broughtIn = await db.Database.SqlQueryRaw<Guid>($$"""
            with recursive way as (
                select number, parent, edit from revisions where project_id = {0} and number = {1}
                union all
                select r.number, r.parent, r.edit from revisions r join way on r.number = way.parent where r.project_id = {0}
            )
            select (one->>'art')::uuid as "Value" from way r, {{StoredEdits.EachAsOne}}
            where one->>'edit' in ('bring-in-art', 'keep-art')
            """, project, head).ToListAsync(stop);
        var rows = await db.ArtFiles.AsNoTracking()
            .Where(a => a.ProjectId == project && a.Owner == owner && broughtIn.Contains(a.Id))
            .OrderBy(a => a.At)
            .Select(a => new { a.Id, a.FileName, a.At, a.Content.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule, a.Origin, a.RulesUsed, a.Notes, a.Scale, a.UnitsToInch })
            .ToListAsync(stop);
        return [.. rows.Select(a => new ArtCard(
            a.Id, a.FileName, a.At, a.Length, a.WidthMm, a.HeightMm, a.Lines, a.Pieces, a.ByRule,
            a.Origin, StoredJson.Read<ImmutableArray<RuleUse>>(a.RulesUsed), StoredJson.Read<ImmutableArray<ReadingNote>>(a.Notes))
        {
            Scale = a.Scale,
            UnitsToInch = a.UnitsToInch,
        })];
    }
}
