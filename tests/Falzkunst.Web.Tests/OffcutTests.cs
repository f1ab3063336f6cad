using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Workshop;
using Microsoft.Extensions.DependencyInjection;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Tests;

/// <summary>Rests of sheets in the stock drawer of a real PostgreSQL.</summary>
public sealed class OffcutTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private static readonly Path Bite = Path.Polyline([new(0, 0), new(150.25, 0), new(150.25, 100), new(70, 100), new(70, 60.1), new(0, 60.1)], closed: true);

    private async Task<T> Afresh<T>(Func<CatalogueStore, Task<T>> act)
    {
        await using var services = database.Restarted();
        return await act(services.GetRequiredService<CatalogueStore>());
    }

    private async Task<Stock> StockAsync(string key) => (await Afresh(s => s.DrawerAsync(Owner, Stop))).Stock(key);

    /// <summary>The demo's sheet of a stock, cut: its rest is kept as the edit of a page would.</summary>
    private async Task<(Guid Project, int Head)> KeepAsync(string stock, Offcut rest, string? cutFrom = null)
    {
        await using var services = database.Restarted();
        var (projects, catalogue) = (services.GetRequiredService<ProjectStore>(), services.GetRequiredService<CatalogueStore>());
        var demo = (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop)).OnTheDesk[0].Id, Stop))!;
        var sheet = demo.Value.Sheets!.Sheets.First(s => s.Stock == stock);
        if (cutFrom is not null) sheet = sheet with { SizeName = cutFrom, Id = $"{sheet.Id}-{cutFrom}" };
        var after = await projects.AppendAsync(
            Owner, demo.Id, demo.Head, new KeepRest(sheet.Id, rest.Name), demo.Value, Stop, revision => catalogue.KeepRestAsync(Owner, demo.Id, revision, sheet, rest, Stop));
        return (demo.Id, after.Head);
    }

    private async Task<int> MoveAsync(Guid project, int head, Func<ProjectStore, Guid, int, Task<int>> move)
    {
        await using var services = database.Restarted();
        return await move(services.GetRequiredService<ProjectStore>(), project, head);
    }

    [Fact]
    public async Task A_rest_takes_the_place_of_the_sheet_it_was_cut_from()
    {
        var before = await StockAsync("slate-220");
        var rest = new Offcut(before.NextOffcut, Bite, [Path.Rectangle(10, 10, 20, 5)]);
        var (project, head) = await KeepAsync("slate-220", rest, "A4");
        var after = await StockAsync("slate-220");
        Assert.Equal(before.Sheets.Single(s => s.Name == "A4").Count - 1, after.Sheets.Single(s => s.Name == "A4").Count);
        var kept = Assert.Single(after.Offcuts);
        // To the last bit, holes too.
        Assert.Equal(PathText.Write(Bite), PathText.Write(kept.Outline));
        Assert.Equal(rest.Area, kept.Area);
        Assert.Equal("Rest 2", after.NextOffcut);

        // Undo takes back what the edit did to the drawer, redo does it again; a name is not given twice.
        head = await MoveAsync(project, head, (s, id, at) => s.UndoAsync(Owner, id, at, Stop));
        var undone = await StockAsync("slate-220");
        Assert.Equal((before.Sheets.Single(s => s.Name == "A4").Count, 0, "Rest 2"), (undone.Sheets.Single(s => s.Name == "A4").Count, undone.Offcuts.Length, undone.NextOffcut));
        await MoveAsync(project, head, (s, id, at) => s.RedoAsync(Owner, id, at, Stop));
        Assert.Single((await StockAsync("slate-220")).Offcuts);

        // A rest of the rest.
        await KeepAsync("slate-220", new Offcut(after.NextOffcut, Path.Rectangle(0, 0, 60, 50), []), kept.Name);
        var last = await StockAsync("slate-220");
        Assert.Equal(["Rest 2"], last.Offcuts.Select(o => o.Name));
        Assert.Equal(after.Sheets, last.Sheets);
        await using (var services = database.Restarted()) await services.GetRequiredService<DrawerStore>().ThrowOffcutAsync(Owner, "slate-220", "Rest 2", Stop);
        Assert.Empty((await StockAsync("slate-220")).Offcuts);
    }

    [Fact]
    public async Task A_rest_that_cannot_be_kept_leaves_the_sheet_in_the_drawer()
    {
        await KeepAsync("ember-220", new Offcut("Rest 1", Bite, []), "A4");
        var before = await StockAsync("ember-220");
        // The name is taken: the sheet is not taken out either.
        await Assert.ThrowsAsync<DrawerChanged>(() => KeepAsync("ember-220", new Offcut("Rest 1", Bite, []), "A5"));
        Assert.Equal(before.Sheets, (await StockAsync("ember-220")).Sheets);
    }
}
