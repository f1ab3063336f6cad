using Falzkunst.Core.Designs;
using Falzkunst.Core.Nesting;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Settling;
using Falzkunst.Data.Workshop;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Work that waits in a real PostgreSQL until pieces have settled.</summary>
public sealed class SettlingTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static async Task<OpenProject> DemoAsync(IServiceProvider services)
    {
        var projects = services.GetRequiredService<ProjectStore>();
        return (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop))[0].Id, Stop))!;
    }

    [Fact]
    public async Task Work_is_claimed_once_reported_and_stopped()
    {
        await using var services = database.Restarted();
        var demo = await DemoAsync(services);
        var store = services.GetRequiredService<SettlingStore>();
        var id = await store.AskAsync(Owner, demo.Id, demo.Head, "kraft-240", demo.Value.Sheets!.MadeFor, 10, 7, Stop);
        await using var other = database.Restarted();
        var work = await store.ClaimAsync(Stop);
        Assert.Equal((id, "kraft-240", 7), (work!.Id, work.Stock, work.Seed));
        Assert.Null(await other.GetRequiredService<SettlingStore>().ClaimAsync(Stop));
        Assert.Equal(["kraft-240"], await store.UnderWayAsync(Owner, demo.Id, Stop));

        var best = demo.Value.Sheets.Of("kraft-240", demo.Value.Design);
        Assert.True(await store.BeatAsync(id, best, 1, Stop));
        var open = (await other.GetRequiredService<SettlingStore>().OpenAsync(Owner, demo.Id, "kraft-240", Stop))!;
        Assert.Equal(best.Sheets[0].Placements, open.Best!.Sheets[0].Placements);
        await store.StopAsync(Owner, demo.Id, "kraft-240", Stop);
        Assert.False(await store.BeatAsync(id, null, 1, Stop));
        open = (await store.OpenAsync(Owner, demo.Id, "kraft-240", Stop))!;
        Assert.Equal((SettlingPhase.Stopped, true), (open.Phase, open.Best is not null));
        await store.DropAsync(Owner, demo.Id, "kraft-240", Stop);
        Assert.Null(await store.OpenAsync(Owner, demo.Id, "kraft-240", Stop));
    }

    [Fact]
    public async Task Work_whose_worker_fell_silent_is_interrupted_and_keeps_its_best()
    {
        await using var services = database.Restarted();
        var demo = await DemoAsync(services);
        var store = services.GetRequiredService<SettlingStore>();
        var id = await store.AskAsync(Owner, demo.Id, demo.Head, "slate-220", demo.Value.Sheets!.MadeFor, 10, 7, Stop);
        Assert.NotNull(await store.ClaimAsync(Stop));
        await store.BeatAsync(id, demo.Value.Sheets.Of("slate-220", demo.Value.Design), 3, Stop);
        await store.InterruptSilentAsync(Stop);
        Assert.Equal(SettlingPhase.Working, (await store.OpenAsync(Owner, demo.Id, "slate-220", Stop))!.Phase);
        var later = new SettlingStore(services.GetRequiredService<Data.FalzkunstDb>(), new Ahead(TimeSpan.FromSeconds(30)));
        await later.InterruptSilentAsync(Stop);
        var open = (await store.OpenAsync(Owner, demo.Id, "slate-220", Stop))!;
        Assert.Equal((SettlingPhase.Interrupted, 3, true), (open.Phase, open.Answers, open.Best is not null));
    }

    [Fact]
    public async Task A_settled_layout_is_taken_once_it_stands_up_to_the_check_and_fits_the_pieces()
    {
        await using var services = database.Restarted();
        var demo = (await DemoAsync(services)).Value;
        var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop);
        var (stock, machine) = (drawer.Stock("slate-220"), drawer.Machine(demo.SetOut.Machine));
        var pinned = Edits.Apply(demo, new PinPlacements(demo.Sheets!.Sheets.First(s => s.Stock == "slate-220").Id, [], true), drawer);
        var now = pinned.Sheets!.Of("slate-220", demo.Design);
        Assert.All(now.Sheets[0].Placements, p => Assert.True(p.Pinned));
        var job = PaperJobs.JobFor(demo.Design, stock, machine, demo.SetOut.SpacingMm, demo.SetOut.Cards, now);
        var settled = PaperPlacing.LayoutOf(Nester.Nest(job, new NestEffort(TimeSpan.FromSeconds(1)), null, Stop), job, stock, "b");
        var taken = Edits.Apply(pinned, new TakeSettled("slate-220", settled.Sheets.Length) { Layout = settled, MadeFor = pinned.Sheets.MadeFor }, drawer);
        // All of it was pinned, so that nothing moved.
        Assert.Equal(now.Sheets[0].Placements.OrderBy(p => p.Piece).ThenBy(p => p.Copy), taken.Sheets!.Of("slate-220", demo.Design).Sheets[0].Placements.OrderBy(p => p.Piece).ThenBy(p => p.Copy));
        Assert.Equal(demo.Sheets.Sheets.Length, taken.Sheets.Sheets.Length);

        var heap = settled with { Sheets = [settled.Sheets[0] with { Placements = [.. settled.Sheets[0].Placements.Select(p => p with { Place = settled.Sheets[0].Placements[0].Place })] }] };
        Assert.Throws<EditRefused>(() => Edits.Apply(pinned, new TakeSettled("slate-220", 1) { Layout = heap, MadeFor = pinned.Sheets.MadeFor }, drawer));
        var changed = Edits.Apply(pinned, new SetQuantity(settled.Sheets[0].Placements[0].Piece, 3), drawer);
        Assert.Throws<EditRefused>(() => Edits.Apply(changed, new TakeSettled("slate-220", 1) { Layout = settled, MadeFor = pinned.Sheets.MadeFor }, drawer));
    }

    /// <summary>A clock that goes ahead.</summary>
    private sealed class Ahead(TimeSpan by) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + by;
    }
}
