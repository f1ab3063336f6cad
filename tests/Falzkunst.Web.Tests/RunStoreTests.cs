using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Running;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Runs;
using Falzkunst.Data.Workshop;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Runs of the practice machine in a real PostgreSQL.</summary>
public sealed class RunStoreTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>A run of the demo's ember sheet, which has a foil stop with a wait.</summary>
    private static async Task<(Guid Run, RunPlan Plan)> BeginAsync(IServiceProvider services, int speedUp, bool endsOthers = true, int? seenHead = null)
    {
        var projects = services.GetRequiredService<ProjectStore>();
        var demo = (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop)).OnTheDesk[0].Id, Stop))!;
        var runs = services.GetRequiredService<RunStore>();
        // A machine carries one run; that of the test before is ended.
        foreach (var other in (await runs.ListAsync(Owner, demo.Id, Stop)).Where(r => endsOthers && !r.IsOver)) await runs.CommandAsync(Owner, other.Id, null, (_, s) => PracticeMachine.Stop(s), Stop);
        var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop);
        var sheet = demo.Value.Sheets!.Sheets.Single(s => s.Stock == "ember-220");
        var plan = SheetPlan.For(new PlanRequest(sheet, demo.Value.Design, drawer.Machine("twin-330"), drawer.Stock("ember-220"), 1, null));
        var run = await runs.BeginAsync(Owner, demo.Id, seenHead ?? demo.Head, sheet.Id, "Ember 220, sheet 1", "twin-330", plan, speedUp, Stop);
        return (run, plan);
    }

    private static async Task AdvanceAllAsync(RunStore runs)
    {
        foreach (var id in await runs.TimedAsync(Stop)) Assert.False(await runs.AdvanceAsync(id, Stop));
    }

    [Fact]
    public async Task A_second_touch_confirms_only_what_it_has_seen()
    {
        await using var services = database.Restarted();
        var (id, _) = await BeginAsync(services, 1);
        var runs = services.GetRequiredService<RunStore>();
        var seen = (await runs.OpenAsync(Owner, id, Stop))!.LastEvent;
        // Twice at once, as by an impatient finger: one of them is told that the machine has gone on.
        var done = await Task.WhenAll(Enumerable.Range(0, 2).Select(async _ =>
        {
            await using var own = database.Restarted();
            try
            {
                await own.GetRequiredService<RunStore>().CommandAsync(Owner, id, seen, PracticeMachine.Confirm, Stop);
                return "confirmed";
            }
            catch (CommandRefused refused)
            {
                return refused.Reason.ToString();
            }
        }));
        Assert.Equal(["Stale", "confirmed"], done.Order(StringComparer.Ordinal));
        Assert.Equal(1, (await runs.EventsAsync(Owner, id, Stop)).Count(e => e.What.Kind == RunHappeningKind.Confirmed));
    }

    [Fact]
    public async Task A_machine_carries_one_run_and_begins_on_what_the_page_shows()
    {
        await using var services = database.Restarted();
        var (id, _) = await BeginAsync(services, 1);
        await Assert.ThrowsAsync<MachineBusy>(() => BeginAsync(services, 1, endsOthers: false));
        await services.GetRequiredService<RunStore>().CommandAsync(Owner, id, null, (_, s) => PracticeMachine.Stop(s), Stop);
        await Assert.ThrowsAsync<StaleEdit>(() => BeginAsync(services, 1, seenHead: 1));
        var begun = await Task.WhenAll(Enumerable.Range(0, 6).Select(async _ =>
        {
            await using var own = database.Restarted();
            try
            {
                return (await BeginAsync(own, 1, endsOthers: false)).Run;
            }
            catch (MachineBusy)
            {
                return Guid.Empty;
            }
        }));
        Assert.Single(begun, run => run != Guid.Empty);
    }

    [Fact]
    public async Task A_run_that_cannot_be_read_is_shown_as_broken_and_holds_up_no_other()
    {
        await using var services = database.Restarted();
        var (id, _) = await BeginAsync(services, 1);
        await services.GetRequiredService<RunStore>().CommandAsync(Owner, id, null, PracticeMachine.Confirm, Stop);
        // A plan that was cut off on its way to the disk.
        await database.BreakAsync($"insert into parts (hash, content) values ('broken', '{{\"steps\":[{{\"step\":') on conflict do nothing");
        await database.BreakAsync($"update runs set plan_hash = 'broken', phase = 'Running' where id = '{id}'");
        await using var later = database.Restarted();
        var runs = later.GetRequiredService<RunStore>();
        Assert.Equal(RunPhase.Broken, (await runs.OpenAsync(Owner, id, Stop))!.State.Phase);
        Assert.Contains(id, await runs.TimedAsync(Stop));
        Assert.True(await runs.AdvanceAsync(id, Stop));
        Assert.DoesNotContain(id, await runs.TimedAsync(Stop));
        Assert.True((await runs.ListAsync(Owner, (await runs.OpenAsync(Owner, id, Stop))!.Project, Stop)).Single(r => r.Id == id).IsOver);
        await BeginAsync(later, 1, endsOthers: false);
    }

    [Fact]
    public async Task A_run_goes_through_restarts_to_its_end_with_every_event_in_order()
    {
        Guid id;
        await using (var first = database.Restarted()) (id, _) = await BeginAsync(first, speedUp: 1000);
        for (var turn = 0; turn < 400; turn++)
        {
            // Every turn is a process of its own.
            await using var services = database.Restarted();
            var runs = services.GetRequiredService<RunStore>();
            var run = (await runs.OpenAsync(Owner, id, Stop))!;
            if (run.State.IsOver) break;
            if (run.State.Phase is RunPhase.WaitingForPaper or RunPhase.WaitingForTool)
            {
                try
                {
                    await runs.CommandAsync(Owner, id, null, PracticeMachine.Confirm, Stop);
                }
                catch (CommandRefused)
                {
                    await Task.Delay(20, Stop); // the tip warms up
                    await AdvanceAllAsync(runs);
                }
            }
            else
            {
                await Task.Delay(5, Stop);
                await AdvanceAllAsync(runs);
            }
        }
        await using var last = database.Restarted();
        var store = last.GetRequiredService<RunStore>();
        var over = (await store.OpenAsync(Owner, id, Stop))!;
        Assert.Equal(RunPhase.Done, over.State.Phase);
        Assert.NotNull(over.OverAt);
        var events = await store.EventsAsync(Owner, id, Stop);
        Assert.Equal(RunHappeningKind.Created, events[0].What.Kind);
        Assert.Equal(RunHappeningKind.Done, events[^1].What.Kind);
        Assert.Equal(events.Select(e => (e.What.Step, e.What.Line, e.What.MachineSeconds)).Order(), events.Select(e => (e.What.Step, e.What.Line, e.What.MachineSeconds)));
        Assert.Equal(over.Plan.Steps.OfType<Stop>().Count(), events.Count(e => e.What.Kind == RunHappeningKind.Confirmed));
        foreach (var (pass, step) in over.Plan.Steps.Select((s, i) => (s, i)).Where(s => s.s is Pass))
            Assert.Equal(((Pass)pass).Lines.Length, events.Where(e => e.What.Kind == RunHappeningKind.LinesDone && e.What.Step == step).Max(e => e.What.Line));
        Assert.Equal(over.Plan.Passes.Sum(p => p.Seconds), over.State.MachineSeconds, 1e-6);
    }

    [Fact]
    public async Task The_plan_is_frozen_to_the_last_digit()
    {
        await using var services = database.Restarted();
        var (id, plan) = await BeginAsync(services, 1);
        await using var later = database.Restarted();
        var run = (await later.GetRequiredService<RunStore>().OpenAsync(Owner, id, Stop))!;
        Assert.Equal(Data.Json.StoredJson.Write(plan), Data.Json.StoredJson.Write(run.Plan));
    }

    [Fact]
    public async Task A_refused_command_writes_nothing()
    {
        await using var services = database.Restarted();
        var (id, _) = await BeginAsync(services, 1);
        var runs = services.GetRequiredService<RunStore>();
        await Assert.ThrowsAsync<CommandRefused>(() => runs.CommandAsync(Owner, id, null, (_, s) => PracticeMachine.Pause(s), Stop));
        await Assert.ThrowsAsync<CommandRefused>(() => runs.CommandAsync(Guid.NewGuid(), id, null, PracticeMachine.Confirm, Stop));
        Assert.Single(await runs.EventsAsync(Owner, id, Stop));
    }

    [Fact]
    public async Task Two_drivers_do_not_move_a_run_twice_as_fast()
    {
        await using var services = database.Restarted();
        var (id, plan) = await BeginAsync(services, 1);
        await services.GetRequiredService<RunStore>().CommandAsync(Owner, id, null, PracticeMachine.Confirm, Stop);
        // Whatever stop comes first, it is passed by hand until something runs.
        var run = (await services.GetRequiredService<RunStore>().OpenAsync(Owner, id, Stop))!;
        Assert.True(run.State.Step >= 1);
        var began = DateTimeOffset.UtcNow;
        var before = run.State;
        await Task.WhenAll(Enumerable.Range(0, 4).Select(async _ =>
        {
            await using var own = database.Restarted();
            for (var i = 0; i < 10; i++) await AdvanceAllAsync(own.GetRequiredService<RunStore>());
        }));
        var after = (await services.GetRequiredService<RunStore>().OpenAsync(Owner, id, Stop))!.State;
        var moved = after.MachineSeconds + after.SecondsInto - before.MachineSeconds - before.SecondsInto;
        Assert.InRange(moved, 0, 2 * (DateTimeOffset.UtcNow - began).TotalSeconds + 0.5);
    }
}
