using Falzkunst.Data.Json;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Jobs;

/// <summary>
/// Long work. Several processes may take work from one database; a row that one of them holds is passed over by the others, and
/// one whose worker fell silent is taken up once more. Of one kind, project and subject there is one active job (a unique index).
/// </summary>
public sealed class JobStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>A worker that said nothing for so long is taken for gone.</summary>
    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(10);

    /// <summary>What broke its worker so often is poisoned.</summary>
    private const int MostAttempts = 2;

    private const string Waiting = nameof(JobPhase.Waiting);
    private const string Working = nameof(JobPhase.Working);

    /// <summary>Asks for work. Where the very same is under way already, that is it; where the same was asked of something else, that ends.</summary>
    /// <returns>Key of the job.</returns>
    public async Task<Guid> AskAsync(JobAsk ask, CancellationToken stop)
    {
        var (kind, now) = (ask.Kind.ToString(), clock.GetUtcNow());
        while (true)
        {
            await using var transaction = await db.Database.BeginTransactionAsync(stop);
            // What is over goes; what is active and made for something else is ended.
            await Matching(ask.Owner, ask.Project, ask.Kind, ask.Subject).Where(j => (j.Phase != Waiting && j.Phase != Working) || j.MadeFor != ask.MadeFor || j.Request != ask.Request).ExecuteDeleteAsync(stop);
            var id = Guid.CreateVersion7();
            var written = await db.Database.ExecuteSqlAsync(
                $"""
                insert into jobs (id, owner, project_id, revision, kind, subject, made_for, request, phase, attempts, asked_at, progress, answers, schema_version)
                values ({id}, {ask.Owner}, {ask.Project}, {ask.Revision}, {kind}, {ask.Subject}, {ask.MadeFor}, {ask.Request}, {Waiting}, 0, {now}, 0, 0, {StoredJson.SchemaVersion})
                on conflict do nothing
                """, stop);
            var active = written > 0 ? id : await Matching(ask.Owner, ask.Project, ask.Kind, ask.Subject).Where(j => j.Phase == Waiting || j.Phase == Working).Select(j => (Guid?)j.Id).FirstOrDefaultAsync(stop);
            await transaction.CommitAsync(stop);
            // It may have ended between the two questions; then there is room for a new one.
            if (active is { } known) return known;
        }
    }

    /// <summary>The job of a kind and subject, if there is one.</summary>
    public async Task<OpenJob?> OpenAsync(Guid owner, Guid project, JobKind kind, string subject, CancellationToken stop)
    {
        var row = await Matching(owner, project, kind, subject).AsNoTracking().OrderByDescending(j => j.AskedAt).FirstOrDefaultAsync(stop);
        return row is null ? null : JobOf(row);
    }

    /// <summary>A job by key; null where it is gone.</summary>
    public async Task<OpenJob?> OpenAsync(Guid owner, Guid id, CancellationToken stop) =>
        await db.Jobs.AsNoTracking().SingleOrDefaultAsync(j => j.Id == id && j.Owner == owner, stop) is { } row ? JobOf(row) : null;

    /// <summary>Subjects of a project for which work of a kind is under way.</summary>
    public Task<List<string>> UnderWayAsync(Guid owner, Guid project, JobKind kind, CancellationToken stop)
    {
        var word = kind.ToString();
        return db.Jobs.AsNoTracking().Where(j => j.Owner == owner && j.ProjectId == project && j.Kind == word && (j.Phase == Waiting || j.Phase == Working)).Select(j => j.Subject).ToListAsync(stop);
    }

    /// <summary>Asks whoever works on it to end; the best is kept.</summary>
    public Task StopAsync(Guid owner, Guid project, JobKind kind, string subject, CancellationToken stop) => Matching(owner, project, kind, subject)
        .Where(j => j.Phase == Waiting || j.Phase == Working)
        .ExecuteUpdateAsync(u => u.SetProperty(j => j.OverAt, clock.GetUtcNow()).SetProperty(j => j.Phase, nameof(JobPhase.Stopped)), stop);

    /// <summary>Forgets a job; whoever works on it ends.</summary>
    public Task DropAsync(Guid owner, Guid project, JobKind kind, string subject, CancellationToken stop) => Matching(owner, project, kind, subject).ExecuteDeleteAsync(stop);

    /// <summary>Takes the oldest work of some kinds that waits; null where there is none.</summary>
    public async Task<OpenJob?> ClaimAsync(Guid worker, IReadOnlyCollection<JobKind> kinds, CancellationToken stop)
    {
        var words = kinds.Select(k => k.ToString()).ToArray();
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await db.Jobs.FromSql($"select * from jobs where phase = {Waiting} and kind = any({words}) order by asked_at for update skip locked limit 1").SingleOrDefaultAsync(stop);
        if (row is null) return null;
        (row.Phase, row.Worker, row.BegunAt, row.BeatAt, row.Attempts) = (Working, worker, clock.GetUtcNow(), clock.GetUtcNow(), row.Attempts + 1);
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
        return JobOf(row);
    }

    /// <summary>Says that the work goes on, how far it is, and what has been found.</summary>
    /// <returns>It is still wanted of this worker.</returns>
    public async Task<bool> BeatAsync(Guid id, Guid worker, double progress, int answers, string? better, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var mine = db.Jobs.Where(j => j.Id == id && j.Worker == worker && j.Phase == Working);
        if (better is null) return await mine.ExecuteUpdateAsync(u => u.SetProperty(j => j.BeatAt, now).SetProperty(j => j.Progress, progress), stop) > 0;
        return await mine.ExecuteUpdateAsync(u => u
            .SetProperty(j => j.BeatAt, now).SetProperty(j => j.Progress, progress).SetProperty(j => j.BetterAt, now)
            .SetProperty(j => j.Answers, answers).SetProperty(j => j.Result, better), stop) > 0;
    }

    /// <summary>Says that the work has ended.</summary>
    public Task<int> EndAsync(Guid id, Guid worker, JobPhase phase, string? failure, CancellationToken stop) => db.Jobs
        .Where(j => j.Id == id && j.Worker == worker && j.Phase == Working)
        .ExecuteUpdateAsync(u => u
            .SetProperty(j => j.Phase, phase.ToString()).SetProperty(j => j.OverAt, clock.GetUtcNow()).SetProperty(j => j.Failure, failure)
            .SetProperty(j => j.Progress, j => phase == JobPhase.Done ? 1 : j.Progress), stop);

    /// <summary>
    /// Work whose worker is gone: what has a result is interrupted and keeps it; what has none waits once more, unless it was
    /// begun too often and so is taken for what ended its workers.
    /// </summary>
    public async Task<int> ReclaimAsync(CancellationToken stop)
    {
        var (now, before) = (clock.GetUtcNow(), clock.GetUtcNow() - Silence);
        var silent = db.Jobs.Where(j => j.Phase == Working && j.BeatAt < before);
        return await silent.Where(j => j.Result != null).ExecuteUpdateAsync(u => u.SetProperty(j => j.Phase, nameof(JobPhase.Interrupted)).SetProperty(j => j.OverAt, now), stop)
            + await silent.Where(j => j.Attempts >= MostAttempts).ExecuteUpdateAsync(u => u
                .SetProperty(j => j.Phase, nameof(JobPhase.Failed)).SetProperty(j => j.OverAt, now).SetProperty(j => j.Failure, "Its worker was gone each time."), stop)
            + await silent.ExecuteUpdateAsync(u => u.SetProperty(j => j.Phase, Waiting).SetProperty(j => j.Worker, (Guid?)null), stop);
    }

    private IQueryable<JobRow> Matching(Guid owner, Guid project, JobKind kind, string subject)
    {
        var word = kind.ToString();
        return db.Jobs.Where(j => j.Owner == owner && j.ProjectId == project && j.Kind == word && j.Subject == subject);
    }

    private static OpenJob JobOf(JobRow row) => new(
        row.Id, new JobAsk(row.Owner, row.ProjectId, row.Revision, Enum.Parse<JobKind>(row.Kind), row.Subject, row.MadeFor, row.Request),
        Enum.Parse<JobPhase>(row.Phase), row.Attempts, row.BegunAt, row.BetterAt, row.OverAt, row.Progress, row.Answers, row.Result, row.SchemaVersion);
}
