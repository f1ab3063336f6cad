using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Nesting.Papers;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Workshop;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Work that waits in a real PostgreSQL.</summary>
public sealed class JobTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static async Task<OpenProject> DemoAsync(IServiceProvider services)
    {
        var projects = services.GetRequiredService<ProjectStore>();
        return (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop)).OnTheDesk[0].Id, Stop))!;
    }

    private static JobAsk Ask(OpenProject demo, JobKind kind, string subject, string madeFor = "now") =>
        new(Owner, demo.Id, demo.Head, kind, subject, madeFor, JobJson.Write(new SettleRequest(10)));

    private static readonly Guid Worker = Guid.NewGuid();
    private static readonly JobKind[] Searches = [JobKind.Settle];

    [Fact]
    public async Task Work_is_claimed_once_reported_and_stopped()
    {
        await using var services = database.Restarted();
        var demo = await DemoAsync(services);
        var store = services.GetRequiredService<JobStore>();
        var id = await store.AskAsync(Ask(demo, JobKind.Settle, "kraft-240"), Stop);
        await using var other = database.Restarted();
        Assert.Null(await store.ClaimAsync(Worker, [JobKind.Survey], Stop));
        var work = await store.ClaimAsync(Worker, Searches, Stop);
        Assert.Equal((id, "kraft-240", 10, 1), (work!.Id, work.Ask.Subject, JobJson.Read<SettleRequest>(work.Ask.Request!).Seconds, work.Attempts));
        Assert.Null(await other.GetRequiredService<JobStore>().ClaimAsync(Guid.NewGuid(), Searches, Stop));
        Assert.Equal(["kraft-240"], await store.UnderWayAsync(Owner, demo.Id, JobKind.Settle, Stop));

        var best = demo.Value.Sheets!.ForStock("kraft-240", demo.Value.Design);
        Assert.False(await store.BeatAsync(id, Guid.NewGuid(), 0.5, 1, null, Stop));
        Assert.True(await store.BeatAsync(id, Worker, 0.5, 1, JobJson.Write(best), Stop));
        var open = (await other.GetRequiredService<JobStore>().OpenAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop))!;
        Assert.Equal(best.Sheets[0].Placements, JobJson.Layout(open)!.Sheets[0].Placements);
        Assert.Equal(0.5, open.Progress);
        await store.StopAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop);
        Assert.False(await store.BeatAsync(id, Worker, 0.6, 1, null, Stop));
        open = (await store.OpenAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop))!;
        Assert.Equal((JobPhase.Stopped, true), (open.Phase, open.Result is not null));
        await store.DropAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop);
        Assert.Null(await store.OpenAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop));
    }

    [Fact]
    public async Task Work_whose_worker_fell_silent_keeps_its_best_or_waits_once_more_and_then_counts_as_poisoned()
    {
        await using var services = database.Restarted();
        var demo = await DemoAsync(services);
        var store = services.GetRequiredService<JobStore>();
        var found = await store.AskAsync(Ask(demo, JobKind.Settle, "slate-220"), Stop);
        Assert.NotNull(await store.ClaimAsync(Worker, Searches, Stop));
        await store.BeatAsync(found, Worker, 0.3, 3, JobJson.Write(demo.Value.Sheets!.ForStock("slate-220", demo.Value.Design)), Stop);
        var empty = await store.AskAsync(Ask(demo, JobKind.Survey, ""), Stop);
        Assert.Equal(empty, (await store.ClaimAsync(Worker, [JobKind.Survey], Stop))!.Id);
        Assert.Equal(0, await store.ReclaimAsync(Stop));

        var later = new JobStore(services.GetRequiredService<Data.FalzkunstDb>(), new Ahead(TimeSpan.FromSeconds(30)));
        Assert.Equal(2, await later.ReclaimAsync(Stop));
        var open = (await store.OpenAsync(Owner, found, Stop))!;
        Assert.Equal((JobPhase.Interrupted, 3, true), (open.Phase, open.Answers, open.Result is not null));
        Assert.Equal(JobPhase.Waiting, (await store.OpenAsync(Owner, empty, Stop))!.Phase);
        Assert.Equal(2, (await store.ClaimAsync(Worker, [JobKind.Survey], Stop))!.Attempts);
        await later.ReclaimAsync(Stop);
        Assert.Equal(JobPhase.Failed, (await store.OpenAsync(Owner, empty, Stop))!.Phase);
        Assert.Null(await store.ClaimAsync(Worker, [JobKind.Survey], Stop));
    }

    [Fact]
    public async Task Asked_for_by_many_at_once_there_is_one_job()
    {
        await using var services = database.Restarted();
        var demo = await DemoAsync(services);
        var keys = await Task.WhenAll(Enumerable.Range(0, 8).Select(async _ =>
        {
            await using var mine = database.Restarted();
            return await mine.GetRequiredService<JobStore>().AskAsync(Ask(demo, JobKind.Settle, "chalk-200"), Stop);
        }));
        Assert.Single(keys.Distinct());
        var store = services.GetRequiredService<JobStore>();
        Assert.NotEqual(keys[0], await store.AskAsync(Ask(demo, JobKind.Settle, "chalk-200", "other pieces"), Stop));
        Assert.Null(await store.OpenAsync(Owner, keys[0], Stop));
        await store.DropAsync(Owner, demo.Id, JobKind.Settle, "chalk-200", Stop);
    }

    [Fact]
    public async Task A_settled_layout_is_taken_once_it_stands_up_to_the_check_and_fits_the_pieces()
    {
        await using var services = database.Restarted();
        var demo = (await DemoAsync(services)).Value;
        var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop);
        var (stock, machine) = (drawer.Stock("slate-220"), drawer.Machine(demo.SetOut.Machine));
        var pinned = Edits.Apply(demo, new PinPlacements(demo.Sheets!.Sheets.First(s => s.Stock == "slate-220").Id, [], true), drawer);
        var now = pinned.Sheets!.ForStock("slate-220", demo.Design);
        Assert.All(now.Sheets[0].Placements, p => Assert.True(p.Pinned));
        var job = PaperJobs.JobFor(demo.Design, stock, machine, demo.SetOut.SpacingMm, demo.SetOut.Cards, now);
        var settled = PaperPlacing.LayoutOf(Nester.Nest(job, new NestEffort(TimeSpan.FromHours(1), Rounds: 1), null, Stop), job, stock, "b");
        var taken = Edits.Apply(pinned, new TakeSettled("slate-220", settled.Sheets.Length) { Layout = settled, MadeFor = pinned.Sheets.MadeFor }, drawer);
        // All of it was pinned, so that nothing moved.
        Assert.Equal(now.Sheets[0].Placements.OrderBy(p => p.Piece).ThenBy(p => p.Copy), taken.Sheets!.ForStock("slate-220", demo.Design).Sheets[0].Placements.OrderBy(p => p.Piece).ThenBy(p => p.Copy));
        Assert.Equal(demo.Sheets.Sheets.Length, taken.Sheets.Sheets.Length);

        var heap = settled with { Sheets = [settled.Sheets[0] with { Placements = [.. settled.Sheets[0].Placements.Select(p => p with { Place = settled.Sheets[0].Placements[0].Place })] }] };
        Assert.Throws<EditRefused>(() => Edits.Apply(pinned, new TakeSettled("slate-220", 1) { Layout = heap, MadeFor = pinned.Sheets.MadeFor }, drawer));
        // What is edited of another stock leaves it as it is, once all lies on sheets again.
        var elsewhere = Edits.Apply(pinned, new SetQuantity(demo.Design.Pieces.First(p => p.Stock != "slate-220").Id, 3), drawer);
        elsewhere = Edits.Apply(elsewhere, new PutOnSheets(demo.SetOut.SpacingMm, Guid.NewGuid()), drawer);
        var fingerprint = pinned.LayoutFingerprint("slate-220");
        Assert.NotEqual(pinned.Sheets.MadeFor, elsewhere.Sheets!.MadeFor);
        Edits.Apply(elsewhere, new TakeSettled("slate-220", settled.Sheets.Length) { Layout = settled, MadeFor = fingerprint }, drawer);
        var changed = Edits.Apply(pinned, new SetQuantity(settled.Sheets[0].Placements[0].Piece, 3), drawer);
        Assert.Throws<EditRefused>(() => Edits.Apply(changed, new TakeSettled("slate-220", 1) { Layout = settled, MadeFor = pinned.Sheets.MadeFor }, drawer));
    }

    /// <summary>A clock that goes ahead.</summary>
    private sealed class Ahead(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + by;
    }
}
