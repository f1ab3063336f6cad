using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Checking;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Json;
using Falzkunst.Data.Json.Upcasting;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Projects;

/// <summary>
/// Projects as chains of revisions. An edit is appended against the head it was made on; undo and redo move the head. See
/// docs/decisions/projects-as-revisions.md.
/// </summary>
public sealed class ProjectStore(FalzkunstDb db, PartStore parts, TimeProvider clock)
{
    /// <summary>The projects on the desk, and those taken off it; the last changed first.</summary>
    public async Task<(List<ProjectCard> OnTheDesk, List<ProjectCard> OffTheDesk)> ListAsync(Guid owner, CancellationToken stop)
    {
        var all = await db.Projects.Where(p => p.Owner == owner).OrderByDescending(p => p.ChangedAt)
            .Select(p => new { Card = new ProjectCard(p.Id, p.Name, p.ChangedAt, p.Pieces, p.Stocks, p.Findings, p.Head), IsOff = p.RemovedAt != null })
            .ToListAsync(stop);
        return ([.. all.Where(p => !p.IsOff).Select(p => p.Card)], [.. all.Where(p => p.IsOff).Select(p => p.Card)]);
    }

    /// <summary>A new project with a first revision.</summary>
    /// <param name="owner">Whose.</param>
    /// <param name="name">Its name.</param>
    /// <param name="value">What it begins as.</param>
    /// <param name="stop">Cancels.</param>
    /// <param name="key">Key that it shall have; where there is a project of that key already, that is it and nothing is written.</param>
    public async Task<Guid> CreateAsync(Guid owner, string name, Project value, CancellationToken stop, Guid? key = null)
    {
        if (key is { } asked && await db.Projects.AnyAsync(p => p.Id == asked && p.Owner == owner, stop)) return asked;
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var now = clock.GetUtcNow();
        var row = new ProjectRow { Id = key ?? Guid.CreateVersion7(), Owner = owner, Name = name, CreatedAt = now, ChangedAt = now, Head = 1, LastRevision = 1 };
        Summary.Of(value).WriteTo(row);
        db.Projects.Add(row);
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateException e) when (key is not null && e.IsTaken())
        {
            // A second touch of the same button.
            db.ChangeTracker.Clear();
            return row.Id;
        }
        var (revision, written) = Written(row.Id, null, "Began the project", value);
        revision.Number = 1;
        await parts.PutAsync(written, stop);
        db.Revisions.Add(revision);
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        parts.Remember(written);
        db.ChangeTracker.Clear();
        return row.Id;
    }

    /// <summary>Gives a project another name.</summary>
    public Task RenameAsync(Guid owner, Guid id, string name, CancellationToken stop) => db.Projects
        .Where(p => p.Id == id && p.Owner == owner)
        .ExecuteUpdateAsync(u => u.SetProperty(p => p.Name, name), stop);

    /// <summary>Takes a project off the desk, or brings it back.</summary>
    public async Task RemoveAsync(Guid owner, Guid id, bool removed, CancellationToken stop)
    {
        var at = removed ? clock.GetUtcNow() : (DateTimeOffset?)null;
        await db.Projects.Where(p => p.Id == id && p.Owner == owner).ExecuteUpdateAsync(u => u.SetProperty(p => p.RemovedAt, at), stop);
    }

    /// <summary>The project at its head; null where the owner has none of that key.</summary>
    public async Task<OpenProject?> OpenAsync(Guid owner, Guid id, CancellationToken stop)
    {
        var found = await db.Projects.AsNoTracking().Where(p => p.Id == id && p.Owner == owner)
            .Join(db.Revisions, p => new { Project = p.Id, Number = p.Head }, r => new { Project = r.ProjectId, r.Number }, (p, r) => new
            {
                p.Name,
                p.ChangedAt,
                Head = r,
                Drawer = db.Workshops.Where(w => w.Id == owner).Select(w => w.DrawerVersion).FirstOrDefault(),
                Redo = db.Revisions.Where(n => n.ProjectId == id && n.Parent == r.Number).OrderByDescending(n => n.Number).Select(n => n.Sentence).FirstOrDefault(),
            }).SingleOrDefaultAsync(stop);
        if (found is null) return null;
        var (head, value) = (found.Head, await ValueAsync(found.Head, stop));
        return new OpenProject(id, found.Name, head.Number, value, found.ChangedAt, head.Parent is null ? null : head.Sentence, found.Redo) { DrawerVersion = found.Drawer };
    }

    /// <summary>The value of any revision; null where there is none.</summary>
    public async Task<Project?> RevisionAsync(Guid owner, Guid id, int number, CancellationToken stop)
    {
        var revision = await db.Revisions.AsNoTracking()
            .Where(r => r.ProjectId == id && r.Number == number && db.Projects.Any(p => p.Id == id && p.Owner == owner))
            .SingleOrDefaultAsync(stop);
        return revision is null ? null : await ValueAsync(revision, stop);
    }

    /// <summary>The edit that made a revision; null for a first one, and where there is none.</summary>
    public async Task<Edit?> EditAsync(Guid owner, Guid id, int number, CancellationToken stop)
    {
        var made = await db.Revisions.AsNoTracking()
            .Where(r => r.ProjectId == id && r.Number == number && db.Projects.Any(p => p.Id == id && p.Owner == owner))
            .Select(r => new { r.Edit, r.SchemaVersion }).SingleOrDefaultAsync(stop);
        return made?.Edit is { } text ? StoredJson.Read<Edit>(text, StoredKind.Edit, made.SchemaVersion) : null;
    }

    /// <summary>Appends what an edit made of the project.</summary>
    /// <param name="owner">Whose project.</param>
    /// <param name="id">Which project.</param>
    /// <param name="expectedHead">The revision that the edit was made on.</param>
    /// <param name="edit">The edit.</param>
    /// <param name="after">What it made.</param>
    /// <param name="stop">Cancels the wait.</param>
    /// <param name="alongside">Other rows to write in the same transaction, told the number of the new revision.</param>
    /// <returns>The project as it stands after it.</returns>
    /// <exception cref="StaleEdit">The head is not <paramref name="expectedHead"/> any more; nothing was written.</exception>
    public async Task<OpenProject> AppendAsync(Guid owner, Guid id, int expectedHead, Edit edit, Project after, CancellationToken stop, Func<int, Task>? alongside = null)
    {
        // What takes long is computed while nothing is locked.
        var (revision, written) = Written(id, StoredJson.Write(edit), edit.Sentence, after);
        var summary = Summary.Of(after);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await HeadLock.DemandAsync(db, owner, id, expectedHead, stop);
        row.LastRevision++;
        (revision.Number, revision.Parent) = (row.LastRevision, row.Head);
        await parts.PutAsync(written, stop);
        db.Revisions.Add(revision);
        row.Head = row.LastRevision;
        row.ChangedAt = clock.GetUtcNow();
        summary.WriteTo(row);
        await db.SaveChangesAsync(stop);
        if (alongside is not null) await alongside(row.Head);
        await transaction.CommitAsync(stop);
        parts.Remember(written);
        db.ChangeTracker.Clear();
        return new OpenProject(id, row.Name, row.Head, after, row.ChangedAt, revision.Sentence, RedoSentence: null);
    }

    /// <summary>Goes back to the revision before the head.</summary>
    /// <exception cref="StaleEdit">The head has moved.</exception>
    /// <exception cref="EditRefused">There is nothing before it.</exception>
    public Task<int> UndoAsync(Guid owner, Guid id, int expectedHead, CancellationToken stop) => MoveHeadAsync(
        owner, id, expectedHead, Reason.NothingToUndo,
        () => db.Revisions.Where(r => r.ProjectId == id && r.Number == expectedHead).Select(r => r.Parent).SingleAsync(stop), stop);

    /// <summary>Goes forward again to the newest revision made from the head.</summary>
    /// <exception cref="StaleEdit">The head has moved.</exception>
    /// <exception cref="EditRefused">Nothing was undone.</exception>
    public Task<int> RedoAsync(Guid owner, Guid id, int expectedHead, CancellationToken stop) => MoveHeadAsync(
        owner, id, expectedHead, Reason.NothingToRedo,
        () => RedoOf(id, expectedHead).Select(r => (int?)r.Number).FirstOrDefaultAsync(stop), stop);

    /// <summary>Goes to any revision of the project; what lies after it stays in the history.</summary>
    /// <exception cref="StaleEdit">The head has moved.</exception>
    /// <exception cref="EditRefused">There is no such revision.</exception>
    public Task<int> GoToAsync(Guid owner, Guid id, int expectedHead, int number, CancellationToken stop) => MoveHeadAsync(
        owner, id, expectedHead, Reason.RevisionGone,
        () => db.Revisions.Where(r => r.ProjectId == id && r.Number == number).Select(r => (int?)r.Number).FirstOrDefaultAsync(stop), stop);

    /// <summary>The newest revisions, newest first, those on left branches among them.</summary>
    public async Task<List<RevisionCard>> HistoryAsync(Guid owner, Guid id, int most, CancellationToken stop)
    {
        var head = await db.Projects.Where(p => p.Id == id && p.Owner == owner).Select(p => p.Head).SingleAsync(stop);
        var rows = await db.Revisions.AsNoTracking().Where(r => r.ProjectId == id)
            .OrderByDescending(r => r.Number).Select(r => new { r.Number, r.Parent, r.Sentence, r.At }).ToListAsync(stop);
        var parents = rows.ToDictionary(r => r.Number, r => r.Parent);
        var way = new HashSet<int>();
        for (int? at = head; at is { } number; at = parents[number]) way.Add(number);
        return [.. rows.Take(most).Select(r => new RevisionCard(r.Number, r.Sentence, r.At, r.Number == head, way.Contains(r.Number)))];
    }

    private async Task<int> MoveHeadAsync(
        Guid owner, Guid id, int expectedHead, Reason nowhere, Func<Task<int?>> where, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await HeadLock.DemandAsync(db, owner, id, expectedHead, stop);
        row.Head = await where() ?? throw new EditRefused(nowhere);
        row.ChangedAt = clock.GetUtcNow();
        var revision = await db.Revisions.AsNoTracking().SingleAsync(r => r.ProjectId == id && r.Number == row.Head, stop);
        Summary.Of(await ValueAsync(revision, stop)).WriteTo(row);
        await db.SaveChangesAsync(stop);
        await MoveDrawerAsync(owner, id, row.Head, stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
        return row.Head;
    }

    /// <summary>What edits took out of the drawer and put into it holds for those on the way to the head alone.</summary>
    private async Task MoveDrawerAsync(Guid owner, Guid id, int head, CancellationToken stop)
    {
        var changed = await db.Database.ExecuteSqlAsync(
            $"""
            with recursive way as (
                select number, parent from revisions where project_id = {id} and number = {head}
                union all
                select r.number, r.parent from revisions r join way on r.number = way.parent where r.project_id = {id}
            )
            update drawer_movements set is_active = not is_active where project_id = {id} and is_active <> (revision in (select number from way))
            """, stop);
        if (changed > 0) await db.DrawerChangedAsync(owner, stop);
    }

    private IQueryable<RevisionRow> RedoOf(Guid id, int head) =>
        db.Revisions.AsNoTracking().Where(r => r.ProjectId == id && r.Parent == head).OrderByDescending(r => r.Number);

    /// <summary>A value as a revision and its parts; its number and parent are not told yet.</summary>
    private (RevisionRow Row, WrittenParts Parts) Written(Guid id, string? edit, string sentence, Project value)
    {
        var written = new WrittenParts();
        foreach (var piece in value.Design.Pieces.Concat(value.Variants.SelectMany(v => v.Pieces))) written.Add(piece.OwnShape);
        string Part<T>(T part) where T : class => written.Add(part, StoredJson.Write(part));
        var revision = new RevisionRow
        {
            ProjectId = id,
            Edit = edit,
            Sentence = sentence,
            At = clock.GetUtcNow(),
            SchemaVersion = StoredJson.SchemaVersion,
            SetOutHash = Part(value.SetOut),
            DesignHash = written.Add(value.Design, StoredJson.Write(StoredDesign.From(value.Design))),
            SheetsHash = value.Sheets is null ? null : Part(value.Sheets),
            VariantsHash = value.Variants.IsEmpty ? null : Part(StoredVariants.From(value.Variants)),
        };
        return (revision, written);
    }

    private Task<Project> ValueAsync(RevisionRow revision, CancellationToken stop) => new RevisionReader(parts).ReadAsync(revision, stop);

    /// <summary>What the desk shows of a project without opening it.</summary>
    private readonly record struct Summary(int Pieces, int Stocks, int Findings)
    {
        public static Summary Of(Project value) => new(
            value.Design.Pieces.Sum(p => p.Quantity), value.Design.Pieces.Select(p => p.Stock).Distinct().Count(), Checks.Findings(value.Design).Length);

        public void WriteTo(ProjectRow row) => (row.Pieces, row.Stocks, row.Findings) = (Pieces, Stocks, Findings);
    }
}
