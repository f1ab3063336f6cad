using System.Collections.Immutable;
using System.Text.Json;
using Falzkunst.Core.Running;
using Falzkunst.Data.Json;
using Falzkunst.Data.Json.Upcasting;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Data.Runs;

/// <summary>
/// Runs of the practice machine: state and events are written together, so that after any crash the run stands at its last
/// event. Several processes may drive one database; a run that one of them is moving is passed over by the others.
/// </summary>
public sealed class RunStore(FalzkunstDb db, PartStore parts, TimeProvider clock)
{
    /// <summary>Time in which nobody drove a run (a restart, say) does not count beyond this.</summary>
    private static readonly TimeSpan LongestStep = TimeSpan.FromSeconds(1);

    private static readonly string[] Timed = [nameof(RunPhase.Running), nameof(RunPhase.WaitingForTool)];

    /// <summary>
    /// A run at its first stop, frozen to a revision and a plan. What it takes, a stock's key with the name of a size or an offcut, is
    /// out of the drawer once it is done; null where it takes no sheet of its own.
    /// </summary>
    /// <exception cref="StaleEdit">The project is at another revision than the page showed; nothing was begun.</exception>
    /// <exception cref="MachineBusy">The machine carries another run; nothing was begun.</exception>
    public async Task<Guid> BeginAsync(
        Guid owner, Guid project, int revision, string sheetId, string sheetTitle, string machine, RunPlan plan, int speedUp, CancellationToken stop, (string Stock, string Sheet)? takes = null)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await HeadLock.DemandAsync(db, owner, project, revision, stop);
        if (await UnfinishedAsync(owner, machine, stop) is { } carried) throw new MachineBusy(carried);
        var written = new WrittenParts();
        var hash = written.Add(plan, StoredJson.Write(plan));
        await parts.PutAsync(written, stop);
        var (state, happened) = PracticeMachine.Begin();
        var now = clock.GetUtcNow();
        var row = new RunRow
        {
            Id = Guid.CreateVersion7(),
            Owner = owner,
            ProjectId = project,
            Revision = revision,
            SheetId = sheetId,
            SheetTitle = sheetTitle,
            Machine = machine,
            TakesStock = takes?.Stock,
            TakesSheet = takes?.Sheet,
            PlanHash = hash,
            BegunAt = now,
            AdvancedAt = now,
            SpeedUp = speedUp,
            Phase = state.Phase.ToString(),
            SchemaVersion = StoredJson.SchemaVersion,
        };
        db.Runs.Add(row);
        Write(row, state, happened, now);
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateException e) when (e.IsTaken())
        {
            // Another project began at the same moment.
            throw new MachineBusy(null);
        }
        await transaction.CommitAsync(stop);
        parts.Remember(written);
        db.ChangeTracker.Clear();
        return row.Id;
    }

    private async Task<CarriedSheet?> UnfinishedAsync(Guid owner, string machine, CancellationToken stop) =>
        await db.Runs.AsNoTracking().Where(r => r.Owner == owner && r.Machine == machine && !Over.Contains(r.Phase))
            .Join(db.Projects, r => r.ProjectId, p => p.Id, (r, p) => new CarriedSheet(r.SheetTitle, r.SheetId, p.Id, p.Name)).FirstOrDefaultAsync(stop);

    private static readonly string[] Over = [nameof(RunPhase.Done), nameof(RunPhase.Stopped), nameof(RunPhase.Broken)];

    /// <summary>A run with its plan; one whose plan or state cannot be read is broken, and has no steps.</summary>
    public async Task<OpenRun?> OpenAsync(Guid owner, Guid id, CancellationToken stop)
    {
        var row = await db.Runs.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id && r.Owner == owner, stop);
        if (row is null) return null;
        var (plan, state) = (RunPlan.Empty, new RunState(RunPhase.Broken, row.Step, row.Line, row.SecondsInto, row.MachineSeconds));
        try
        {
            (plan, state) = (await PlanAsync(row, stop), StateOf(row));
        }
        catch (Exception e) when (IsUnreadable(e))
        {
            // Shown as such; nothing else stops for it.
        }
        return new OpenRun(
            row.Id, row.ProjectId, row.Revision, await SheetIdAsync(row, stop), row.SheetTitle, row.Machine, row.BegunAt, row.OverAt, row.SpeedUp, plan, state, row.LastEvent);
    }

    /// <summary>What is stored is no such value, as against a database that does not answer.</summary>
    private static bool IsUnreadable(Exception e) => e is JsonException or ArgumentException or FormatException or KeyNotFoundException or NotSupportedException or IndexOutOfRangeException;

    /// <summary>All runs of a project, newest first.</summary>
    public async Task<List<RunCard>> ListAsync(Guid owner, Guid project, CancellationToken stop)
    {
        var rows = await (
            from run in db.Runs.AsNoTracking()
            join revision in db.Revisions on new { run.ProjectId, Number = run.Revision } equals new { revision.ProjectId, revision.Number }
            where run.ProjectId == project && run.Owner == owner
            orderby run.BegunAt descending
            select new { Run = run, revision.SheetsHash }).ToListAsync(stop);
        return
        [
            .. rows.Select(r => new RunCard(
                r.Run.Id, SheetId(r.Run, r.SheetsHash), r.Run.SheetTitle, r.Run.Revision, PhaseOf(r.Run), r.Run.BegunAt, r.Run.OverAt, r.Run.MachineSeconds)),
        ];
    }

    private async Task<string> SheetIdAsync(RunRow row, CancellationToken stop) => row.SchemaVersion > 1 ? row.SheetId : SheetId(
        row, await db.Revisions.Where(r => r.ProjectId == row.ProjectId && r.Number == row.Revision).Select(r => r.SheetsHash).SingleAsync(stop));

    private static string SheetId(RunRow row, string? sheetsHash) => row.SchemaVersion > 1 || sheetsHash is null ? row.SheetId : RevisionReader.SheetId(row.SheetId, sheetsHash);

    /// <summary>What happened in a run, in order.</summary>
    public async Task<List<(RunHappening What, DateTimeOffset At)>> EventsAsync(Guid owner, Guid id, CancellationToken stop)
    {
        var rows = await db.RunEvents.AsNoTracking()
            .Where(e => e.RunId == id && db.Runs.Any(r => r.Id == id && r.Owner == owner))
            .OrderBy(e => e.Number).ToListAsync(stop);
        return [.. rows.Where(e => Enum.TryParse<RunHappeningKind>(e.Kind, out _)).Select(e => (new RunHappening(Enum.Parse<RunHappeningKind>(e.Kind), e.Step, e.Line, e.MachineSeconds), e.At))];
    }

    /// <summary>Gives a command to the machine.</summary>
    /// <param name="owner">Whose run.</param>
    /// <param name="id">Which run.</param>
    /// <param name="seenEvent">Number of the last event that the page showed; null for a command that holds whatever has happened since.</param>
    /// <param name="command">The next state and what happened, from plan and state.</param>
    /// <param name="stop">Cancels the wait.</param>
    /// <exception cref="CommandRefused">The command does not fit, or the run is gone; nothing was written.</exception>
    public async Task CommandAsync(
        Guid owner, Guid id, int? seenEvent, Func<RunPlan, RunState, (RunState State, ImmutableArray<RunHappening> Happened)> command, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await db.Runs.FromSql($"select * from runs where id = {id} and owner = {owner} for update").SingleOrDefaultAsync(stop)
            ?? throw new CommandRefused(RunRefusal.Gone);
        if (seenEvent is { } seen && seen != row.LastEvent) throw new CommandRefused(RunRefusal.Stale);
        var plan = await PlanAsync(row, stop);
        var (state, happened) = command(plan, StateOf(row));
        Write(row, state, happened, clock.GetUtcNow());
        await SaveAsync(row, transaction, stop);
    }

    /// <summary>Sets how much faster than the clock a run goes.</summary>
    public Task SetSpeedUpAsync(Guid owner, Guid id, int speedUp, CancellationToken stop) => db.Runs
        .Where(r => r.Id == id && r.Owner == owner)
        .ExecuteUpdateAsync(u => u.SetProperty(r => r.SpeedUp, Math.Clamp(speedUp, 1, 1000)), stop);

    /// <summary>Runs that time moves.</summary>
    public Task<List<Guid>> TimedAsync(CancellationToken stop) => db.Runs.AsNoTracking().Where(r => Timed.Contains(r.Phase)).Select(r => r.Id).ToListAsync(stop);

    /// <summary>Moves a run on by the time that went by since it was last moved. One that cannot be read is marked as broken.</summary>
    /// <returns>It is broken now.</returns>
    public async Task<bool> AdvanceAsync(Guid id, CancellationToken stop)
    {
        try
        {
            await MoveAsync(id, stop);
            return false;
        }
        catch (Exception e) when (IsUnreadable(e))
        {
            db.ChangeTracker.Clear();
            await db.Runs.Where(r => r.Id == id).ExecuteUpdateAsync(u => u.SetProperty(r => r.Phase, nameof(RunPhase.Broken)).SetProperty(r => r.OverAt, clock.GetUtcNow()), stop);
            return true;
        }
    }

    private async Task MoveAsync(Guid id, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var row = await db.Runs.FromSql($"select * from runs where id = {id} for update skip locked").SingleOrDefaultAsync(stop);
        if (row is null || !Timed.Contains(row.Phase)) return;
        var now = clock.GetUtcNow();
        var passed = now - row.AdvancedAt;
        var seconds = Math.Clamp(passed.TotalSeconds, 0, LongestStep.TotalSeconds) * row.SpeedUp;
        var plan = await PlanAsync(row, stop);
        var (state, happened) = PracticeMachine.Advance(plan, StateOf(row), seconds);
        // A tip that heats up needs no word a blink: where nothing happened its time is written once a second.
        if (happened.IsEmpty && state.Phase == RunPhase.WaitingForTool && passed < LongestStep)
        {
            db.ChangeTracker.Clear();
            return;
        }
        Write(row, state, happened, now);
        await SaveAsync(row, transaction, stop);
    }

    /// <summary>State, events and the sheet that a run at its end has taken are written together or not at all.</summary>
    private async Task SaveAsync(RunRow row, Microsoft.EntityFrameworkCore.Storage.IDbContextTransaction transaction, CancellationToken stop)
    {
        if (row is { Phase: nameof(RunPhase.Done), TakesStock: { } stock, TakesSheet: { } sheet } && !await db.DrawerMovements.AnyAsync(m => m.RunId == row.Id, stop))
        {
            db.DrawerMovements.Add(new DrawerMovementRow
            {
                Id = Guid.CreateVersion7(),
                Owner = row.Owner,
                ProjectId = row.ProjectId,
                RunId = row.Id,
                SheetId = row.SheetId,
                StockKey = stock,
                Took = sheet,
                IsActive = true,
                At = clock.GetUtcNow(),
            });
            await db.DrawerChangedAsync(row.Owner, stop);
        }
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        db.ChangeTracker.Clear();
    }

    private void Write(RunRow row, RunState state, ImmutableArray<RunHappening> happened, DateTimeOffset now)
    {
        (row.Phase, row.Step, row.Line, row.SecondsInto, row.MachineSeconds) =
            (state.Phase.ToString(), state.Step, state.Line, state.SecondsInto, state.MachineSeconds);
        if (!state.Readings.IsEmpty) row.Readings = StoredJson.Write(state.Readings);
        row.AdvancedAt = now;
        if (state.IsOver) row.OverAt ??= now;
        foreach (var h in happened)
        {
            db.RunEvents.Add(new RunEventRow
            {
                RunId = row.Id,
                Number = ++row.LastEvent,
                Kind = h.Kind.ToString(),
                Step = h.Step,
                Line = h.Line,
                MachineSeconds = h.MachineSeconds,
                At = now,
            });
        }
    }

    private Task<RunPlan> PlanAsync(RunRow row, CancellationToken stop) => parts.GetAsync(row.PlanHash, text => StoredJson.Read<RunPlan>(text, StoredKind.RunPlan, row.SchemaVersion), stop);

    private static RunPhase PhaseOf(RunRow row) => Enum.TryParse<RunPhase>(row.Phase, out var phase) ? phase : RunPhase.Broken;

    private static RunState StateOf(RunRow row) =>
        new(PhaseOf(row), row.Step, row.Line, row.SecondsInto, row.MachineSeconds) { Readings = row.Readings is { } read ? StoredJson.Read<ImmutableArray<PageReading>>(read) : [] };
}
