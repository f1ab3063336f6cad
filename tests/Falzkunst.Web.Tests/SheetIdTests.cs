using System.Net;
using System.Text.RegularExpressions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Texts;

namespace Falzkunst.Web.Tests;

/// <summary>Sheets are the same for as long as they are: runs and files hang from them.</summary>
public sealed partial class SheetIdTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private const string Art = """
        <svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200" fill="none" stroke="#224466" stroke-width=".3">
          <rect x="5" y="5" width="120" height="80"/><rect x="150" y="5" width="60" height="40"/>
        </svg>
        """;

    private Task<HttpResponseMessage> PlaceAsync(Guid id, int head) => site.PostAsync($"/projects/{id}/sheets?handler=Place", new() { ["spacing"] = "2" }, head);

    private async Task<SheetLayouts> SheetsAsync(Guid id) => (await site.ProjectAsync(id)).Value.Sheets!;

    [Fact]
    public async Task A_machine_that_carries_a_sheet_refuses_another_and_leads_to_the_one_that_it_carries()
    {
        var (one, two) = (await site.WithArtAsync("Carried", "art.svg", Art), await site.WithArtAsync("Waits", "art.svg", Art));
        await PlaceAsync(one, 2);
        await PlaceAsync(two, 2);
        var (carried, waiting) = ((await SheetsAsync(one)).Sheets[0].Id, (await SheetsAsync(two)).Sheets[0].Id);
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{one}/run?handler=Begin", new() { ["sheet"] = carried }, 3)).StatusCode);
        var refused = await site.PostAsync($"/projects/{two}/run?handler=Begin", new() { ["sheet"] = waiting }, 3);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        var words = WebUtility.HtmlDecode(await refused.Content.ReadAsStringAsync(Stop));
        Assert.Contains("of “Carried”. Finish or stop that run first.", words, StringComparison.Ordinal);
        Assert.Contains($"href=\"/projects/{one}/run?at={carried}\"", words, StringComparison.Ordinal);
        var run = Run().Match(await StatusAsync(one, carried)).Groups[1].Value;
        await site.PostAsync($"/projects/{one}/run?handler=Stop", new() { ["run"] = run }, 3);
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{two}/run?handler=Begin", new() { ["sheet"] = waiting }, 3)).StatusCode);
        await site.PostAsync($"/projects/{two}/run?handler=Stop", new() { ["run"] = Run().Match(await StatusAsync(two, waiting)).Groups[1].Value }, 3);
    }

    [Fact]
    public async Task A_sheet_laid_anew_never_shows_anothers_run_and_an_unchanged_one_keeps_its_own()
    {
        var id = await site.WithArtAsync("Runs", "art.svg", Art);
        await site.DoAsync(id, "stock", new() { ["stock"] = "slate-220" }, "p2", 2);
        await PlaceAsync(id, 3);
        var (first, other) = (await SheetsAsync(id)).Sheets is [var a, var b] ? (a.Stock == "slate-220" ? (b, a) : (a, b)) : throw new InvalidOperationException("Two sheets were expected.");
        foreach (var sheet in new[] { first, other })
        {
            Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/run?handler=Begin", new() { ["sheet"] = sheet.Id }, 4)).StatusCode);
            // The machine carries one run at a time.
            var run = Run().Match(await StatusAsync(id, sheet.Id)).Groups[1].Value;
            Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/run?handler=Stop", new() { ["run"] = run }, 4)).StatusCode);
        }
        Assert.Contains("topped", Tray(await StatusAsync(id, first.Id)), StringComparison.Ordinal);

        // One piece changes: its sheet is another from now on, whatever its number is.
        await site.DoAsync(id, "resize", new() { ["width"] = "100" }, "p1", 4);
        await PlaceAsync(id, 5);
        var again = await SheetsAsync(id);
        Assert.DoesNotContain(again.Sheets, s => s.Id == first.Id);
        Assert.Contains(again.Sheets, s => s.Id == other.Id);
        var made = again.Sheets.Single(s => s.Stock == first.Stock);
        Assert.Equal(first.Number, made.Number);
        Assert.DoesNotContain("topped", Tray(await StatusAsync(id, made.Id)), StringComparison.Ordinal);
        Assert.Contains("topped", Tray(await StatusAsync(id, other.Id)), StringComparison.Ordinal);

        // Going back brings the sheet back, and with it its run.
        await site.PostAsync($"/projects/{id}/pieces?handler=Undo", [], 6);
        await site.PostAsync($"/projects/{id}/pieces?handler=Undo", [], 5);
        Assert.Contains((await SheetsAsync(id)).Sheets, s => s.Id == first.Id);
        Assert.Contains("topped", Tray(await StatusAsync(id, first.Id)), StringComparison.Ordinal);
    }

    private Task<string> StatusAsync(Guid id, string sheet) => site.Browser.GetStringAsync($"/projects/{id}/run?handler=Status&at={sheet}", Stop);

    /// <summary>What is said of the sheet itself, without the list of all.</summary>
    private static string Tray(string status) => status[status.IndexOf("#tray", StringComparison.Ordinal)..];

    [GeneratedRegex("\"run\": \"([0-9a-f-]+)\"")]
    private static partial Regex Run();

    [Fact]
    public async Task Files_of_sheets_that_are_out_of_date_are_not_served()
    {
        var id = await site.WithArtAsync("Files", "art.svg", Art);
        await PlaceAsync(id, 2);
        var sheet = (await SheetsAsync(id)).Sheets[0].Id;
        var address = $"/projects/{id}/sheets?handler=File&format=svg&sheet={sheet}";
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync(address, Stop)).StatusCode);
        await site.DoAsync(id, "resize", new() { ["width"] = "100" }, "p1", 3);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync(address, Stop)).StatusCode);
        await PlaceAsync(id, 4);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync(address, Stop)).StatusCode);
    }

    [Fact]
    public async Task Items_of_every_kind_come_back_bit_for_bit_after_any_edits_and_a_restart()
    {
        var plate = Piece.FromLines("p1", "Plate", "chalk-200", Core.Geometry.Affine.Move(10, 20),
        [
            new Line("", Core.Geometry.Path.Rectangle(0, 0, 100, 60), Operation.Cut, Look.DrawnHere, null, null),
            new Line("", Core.Geometry.Path.Rectangle(20, 20, 20, 20), Operation.Cut, Look.DrawnHere, null, null),
        ]).Plus(
            new EdgeLine("", 4, Core.Geometry.Corners.Round, Operation.Draw, "#24313A"),
            new TextItem("", "Wish you\nwere here", "plain", 6, Operation.Draw, "#7B4BA8", Core.Geometry.Affine.Turn(10)) { Align = TextAlign.Centre, LetterSpacing = 30, LineSpacing = 1.4 },
            new PictureItem("", new string('a', 64), 640, 480, Core.Geometry.Affine.Move(50, 30), 32, 24),
            new PrintedFill("", "#C9A227"));
        var id = await site.CreateAsync("Every kind", Project.Empty with { Design = new Design([plate], [], [], 2) });
        var history = new List<string> { ProjectText.Write((await site.ProjectAsync(id)).Value) };
        (string Action, Dictionary<string, string> Fields, string Picked)[] edits =
        [
            ("move", new() { ["dx"] = "3.7", ["dy"] = "-1in" }, "p1"), ("resize", new() { ["width"] = "133" }, "p1"), ("turn", new() { ["degrees"] = "17.3" }, "p1"),
            ("mirror", [], "p1"), ("duplicate", [], "p1"), ("operation", new() { ["operation"] = "Score" }, "p1:l3"), ("dash", new() { ["dash"] = "3" }, "p1:l3"),
            ("repeat", new() { ["rows"] = "2" }, "p2"), ("thicken", new() { ["amount"] = "0.3", ["even"] = "true" }, "p1"), ("make-plain", [], "p2:l3"),
            ("keep-aside", new() { ["name"] = "Kept" }, "p1"), ("delete", [], "p1"), ("border", new() { ["by"] = "3" }, "p2"),
        ];
        var head = 1;
        foreach (var (action, fields, picked) in edits)
        {
            var answer = await site.DoAsync(id, action, fields, picked, head);
            Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{action}: {answer.StatusCode} {await answer.Content.ReadAsStringAsync(Stop)}");
            var now = await site.ProjectAsync(id);
            head = now.Head;
            history.Add(ProjectText.Write(now.Value));
        }
        await site.RestartAsync();
        Assert.Equal(history[^1], ProjectText.Write((await site.ProjectAsync(id)).Value));
        for (var back = history.Count - 2; back >= 0; back--)
        {
            await site.PostAsync($"/projects/{id}/pieces?handler=Undo", [], head);
            var former = await site.ProjectAsync(id);
            head = former.Head;
            Assert.Equal(history[back], ProjectText.Write(former.Value));
        }
    }
}
