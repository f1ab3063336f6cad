using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Running;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Runs;
using Falzkunst.Data.Workshop;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>
/// A database from before there were jobs and movements of the drawer: pieces settled, a rest kept and undone, and two projects
/// running on one machine, which that state allowed.
/// </summary>
public sealed class BeforeJobsTests : IAsyncLifetime
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private readonly TestDatabase _database = new();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await FormerDatabase.ScriptAsync("schema-2"));

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    [Fact]
    public async Task What_settled_is_a_job_the_drawer_is_as_it_was_and_one_run_goes_on()
    {
        await using var services = _database.Restarted();
        var (projects, jobs, runs) = (services.GetRequiredService<ProjectStore>(), services.GetRequiredService<JobStore>(), services.GetRequiredService<RunStore>());
        var all = (await projects.ListAsync(Owner, Stop)).OnTheDesk;
        Assert.Equal(2, all.Count);
        var demo = (await projects.OpenAsync(Owner, all.Single(p => p.Name != "Second card").Id, Stop))!;
        var settled = (await jobs.OpenAsync(Owner, demo.Id, JobKind.Settle, "kraft-240", Stop))!;
        Assert.Equal(JobPhase.Done, settled.Phase);
        Assert.Equal(10, JobJson.Read<SettleRequest>(settled.Ask.Request!).Seconds);
        Assert.NotEmpty(JobJson.Layout(settled)!.Sheets);

        // The former state left the rest of an undone edit in the drawer; it stays, and its name is not given again.
        var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop);
        var slate = drawer.Stock("slate-220");
        Assert.Equal((1, "Rest 2"), (slate.Offcuts.Length, slate.NextOffcut));

        // Its settings are the set "usual", nothing is put away, each machine has its one mat and the files that were always written.
        Assert.All(drawer.Stocks, s => Assert.Equal((Stock.UsualSet, false, 0), (s.SetName, s.IsPutAway, s.OtherSets.Length)));
        Assert.Equal([35, 150, 195], slate.Settings.Select(t => t.ForceGrams).Order());
        Assert.All(drawer.Machines, m => Assert.Equal((0, MachineFile.Usual.Length), (m.OtherMats.Length, m.Files.Length)));
        Assert.Equal(SeedCatalogue.Tools.Select(t => t.Key).Order(), drawer.Tools.Select(t => t.Key).Order());

        // Of two unfinished runs the newer one goes on.
        var cards = new List<RunCard>();
        foreach (var p in all) cards.AddRange(await runs.ListAsync(Owner, p.Id, Stop));
        Assert.Equal([RunPhase.Stopped, RunPhase.WaitingForPaper], cards.OrderBy(c => c.BegunAt).Select(c => c.Phase));
        var open = (await runs.OpenAsync(Owner, cards.MaxBy(c => c.BegunAt)!.Id, Stop))!;
        await runs.CommandAsync(Owner, open.Id, open.LastEvent, PracticeMachine.Confirm, Stop);

        // Undo and redo go where they went.
        var back = await projects.UndoAsync(Owner, demo.Id, demo.Head, Stop);
        Assert.Equal(demo.Head, await projects.RedoAsync(Owner, demo.Id, back, Stop));
    }
}
