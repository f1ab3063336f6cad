using Falzkunst.Core.Designs;
using Falzkunst.Data.Json;
using Falzkunst.Data.Json.Upcasting;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Settling;

/// <summary>Where settling pieces stand.</summary>
public enum SettlingPhase
{
    Waiting,
    Working,

    /// <summary>The time was over, or nothing more could be gained.</summary>
    Done,

    /// <summary>Somebody ended it.</summary>
    Stopped,

    /// <summary>Whoever worked on it is gone; the best so far is kept.</summary>
    Interrupted,

    /// <summary>It could not be worked on.</summary>
    Failed,
}

/// <summary>What pages show of pieces that settle.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Stock">Key of the stock.</param>
/// <param name="MadeFor">Fingerprint of pieces and machine.</param>
/// <param name="Phase">Where it stands.</param>
/// <param name="Seconds">The time limit.</param>
/// <param name="BegunAt">When work began.</param>
/// <param name="BetterAt">When the last better answer was found.</param>
/// <param name="OverAt">When it ended.</param>
/// <param name="Answers">How many better answers there were.</param>
/// <param name="Best">The best layout so far.</param>
public sealed record OpenSettling(
    Guid Id, string Stock, string MadeFor, SettlingPhase Phase, int Seconds, DateTimeOffset? BegunAt, DateTimeOffset? BetterAt, DateTimeOffset? OverAt, int Answers, StockLayout? Best)
{
    public bool IsUnderWay => Phase is SettlingPhase.Waiting or SettlingPhase.Working;
}

/// <summary>Work that was claimed: which pieces to settle, and how.</summary>
public sealed record SettlingWork(Guid Id, Guid Owner, Guid Project, int Revision, string Stock, int Seconds, int Seed);

/// <summary>
/// Layouts that are settled in the background. The table is the queue: several processes may take work from one database, and
/// a row that one of them holds is passed over by the others.
/// </summary>
public sealed class SettlingStore(FalzkunstDb db, TimeProvider clock)
{
    /// <summary>Work that nobody said a word about for so long is taken for interrupted.</summary>
    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(10);

    private const string Waiting = nameof(SettlingPhase.Waiting);
    private const string Working = nameof(SettlingPhase.Working);

    /// <summary>Asks for pieces to be settled; what was settled of that stock before is dropped.</summary>
    public async Task<Guid> AskAsync(Guid owner, Guid project, int revision, string stock, string madeFor, int seconds, int seed, CancellationToken stop)
    {
        await DropAsync(owner, project, stock, stop);
        var row = new SettlingRow
        {
            Id = Guid.CreateVersion7(), Owner = owner, ProjectId = project, Revision = revision, Stock = stock, MadeFor = madeFor,
            Phase = Waiting, SchemaVersion = StoredJson.SchemaVersion, Seconds = seconds, Seed = seed, AskedAt = clock.GetUtcNow(),
        };
        db.Settlings.Add(row);
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
        return row.Id;
    }

    /// <summary>The settling of a stock, if there is one.</summary>
    public async Task<OpenSettling?> OpenAsync(Guid owner, Guid project, string stock, CancellationToken stop)
    {
        var row = await db.Settlings.AsNoTracking().Where(s => s.Owner == owner && s.ProjectId == project && s.Stock == stock)
            .OrderByDescending(s => s.AskedAt).FirstOrDefaultAsync(stop);
        return row is null ? null : new OpenSettling(
            row.Id, row.Stock, row.MadeFor, Enum.Parse<SettlingPhase>(row.Phase), row.Seconds, row.BegunAt, row.BetterAt, row.OverAt, row.Answers,
            row.Best is null ? null : StoredJson.Read<StockLayout>(row.Best, StoredKind.StockLayout, row.SchemaVersion));
    }

    /// <summary>Stocks of a project whose pieces are settling at the moment.</summary>
    public Task<List<string>> UnderWayAsync(Guid owner, Guid project, CancellationToken stop) => db.Settlings.AsNoTracking()
        .Where(s => s.Owner == owner && s.ProjectId == project && (s.Phase == Waiting || s.Phase == Working)).Select(s => s.Stock).ToListAsync(stop);

    /// <summary>Asks whoever works on it to end; the best is kept.</summary>
    public Task StopAsync(Guid owner, Guid project, string stock, CancellationToken stop) => db.Settlings
        .Where(s => s.Owner == owner && s.ProjectId == project && s.Stock == stock && (s.Phase == Waiting || s.Phase == Working))
        .ExecuteUpdateAsync(u => u
            .SetProperty(s => s.OverAt, clock.GetUtcNow())
            .SetProperty(s => s.Phase, nameof(SettlingPhase.Stopped)), stop);

    /// <summary>Forgets what was settled of a stock; whoever works on it ends.</summary>
    public Task DropAsync(Guid owner, Guid project, string stock, CancellationToken stop) => db.Settlings
        .Where(s => s.Owner == owner && s.ProjectId == project && s.Stock == stock).ExecuteDeleteAsync(stop);

    /// <summary>Takes the oldest work that waits; null where there is none.</summary>
    public async Task<SettlingWork?> ClaimAsync(CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await db.Settlings.FromSql($"select * from settlings where phase = {Waiting} order by asked_at for update skip locked limit 1").SingleOrDefaultAsync(stop);
        if (row is null) return null;
        (row.Phase, row.BegunAt, row.BeatAt) = (Working, clock.GetUtcNow(), clock.GetUtcNow());
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
        return new SettlingWork(row.Id, row.Owner, row.ProjectId, row.Revision, row.Stock, row.Seconds, row.Seed);
    }

    /// <summary>Says that the work goes on, with a better answer where there is one.</summary>
    /// <returns>It is still wanted.</returns>
    public async Task<bool> BeatAsync(Guid id, StockLayout? better, int answers, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var mine = db.Settlings.Where(s => s.Id == id && s.Phase == Working);
        if (better is null) return await mine.ExecuteUpdateAsync(u => u.SetProperty(s => s.BeatAt, now), stop) > 0;
        var text = StoredJson.Write(better);
        return await mine.ExecuteUpdateAsync(u => u
            .SetProperty(s => s.BeatAt, now).SetProperty(s => s.BetterAt, now).SetProperty(s => s.Answers, answers).SetProperty(s => s.Best, text), stop) > 0;
    }

    /// <summary>Says that the work has ended.</summary>
    public Task<int> EndAsync(Guid id, SettlingPhase phase, CancellationToken stop) => db.Settlings
        .Where(s => s.Id == id && s.Phase == Working)
        .ExecuteUpdateAsync(u => u.SetProperty(s => s.Phase, phase.ToString()).SetProperty(s => s.OverAt, clock.GetUtcNow()), stop);

    /// <summary>Work whose worker is gone is interrupted; its best is kept.</summary>
    public Task<int> InterruptSilentAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Silence;
        return db.Settlings.Where(s => s.Phase == Working && s.BeatAt < before)
            .ExecuteUpdateAsync(u => u.SetProperty(s => s.Phase, nameof(SettlingPhase.Interrupted)).SetProperty(s => s.OverAt, clock.GetUtcNow()), stop);
    }
}
