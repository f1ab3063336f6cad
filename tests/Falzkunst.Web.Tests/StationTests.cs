using System.Net;
using System.Text;
using System.Text.Json;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Web.Desk;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Stations over HTTP: what they answer to good input, bad input and stale input.</summary>
public sealed class StationTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private const string Fold = """
        <svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60" fill="none" stroke-width=".3">
          <rect x="10" y="10" width="100" height="40" stroke="#E02020"/><path id="middle" d="M60 10V50" stroke="#20A040"/></svg>
        """;

    private static string Address(Guid id, string station, string handler = "") => $"/projects/{id}/{station}{(handler.Length > 0 ? "?handler=" + handler : "")}";

    [Theory]
    [InlineData("set-out")]
    [InlineData("art")]
    [InlineData("pieces")]
    [InlineData("detail")]
    [InlineData("sheets")]
    [InlineData("run")]
    public async Task Every_station_serves_under_a_strict_policy_without_inline_code(string station)
    {
        var answer = await site.Browser.GetAsync(Address((await site.DemoAsync()).Id, station), Stop);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var policy = string.Join(';', answer.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("default-src 'none'", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
        var html = await answer.Content.ReadAsStringAsync(Stop);
        Assert.DoesNotContain(" style=", html, StringComparison.Ordinal);
        Assert.DoesNotContain(" onclick=", html, StringComparison.Ordinal);
        Assert.DoesNotMatch("<script(?![^>]* src=)", html);
        var scene = JsonDocument.Parse(await site.Browser.GetStringAsync(Address((await site.DemoAsync()).Id, station, "Scene"), Stop)).RootElement;
        Assert.NotEmpty(scene.GetProperty("layouts")[0].GetProperty("frames").EnumerateArray().Concat(scene.GetProperty("layouts")[0].GetProperty("items").EnumerateArray()));
    }

    [Fact]
    public async Task What_is_not_there_says_so()
    {
        foreach (var path in new[] { Address(Guid.NewGuid(), "pieces"), "/projects/7/pieces", "/nothing" })
        {
            var answer = await site.Browser.GetAsync(path, Stop);
            Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
            Assert.Contains("Not here", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Without_its_token_nothing_is_changed()
    {
        var demo = await site.DemoAsync();
        var answer = await site.PostAsync(Address(demo.Id, "set-out", "Cards"), new() { ["cards"] = "3" }, demo.Head, withToken: false);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal(demo.Head, (await site.DemoAsync()).Head);
    }

    [Fact]
    public async Task A_file_becomes_pieces_a_choice_becomes_a_rule_and_the_next_file_obeys_it()
    {
        var id = await site.BeginAsync("Fold card");
        var read = await site.UploadAsync(Address(id, "art", "BringIn"), "fold.svg", Encoding.UTF8.GetBytes(Fold), 1);
        Assert.Equal(HttpStatusCode.OK, read.StatusCode);
        var piece = Assert.Single((await site.ProjectAsync(id)).Value.Design.Pieces);
        Assert.Equal(Operation.Score, piece.Lines[1].Operation); // from edge to edge
        var set = await site.DoAsync(id, "operation", new() { ["operation"] = "Perforate" }, $"{piece.Id}:{piece.Lines[1].Id}", 2);
        Assert.Equal(HttpStatusCode.OK, set.StatusCode);
        Assert.Contains("\"head\":3", string.Concat(set.Headers.GetValues("HX-Trigger")), StringComparison.Ordinal);
        // It is offered and not made; a yes makes it, for any file, since no hand was named.
        var offered = WebUtility.HtmlDecode(await set.Content.ReadAsStringAsync(Stop));
        Assert.Contains("Green lines are perforated.", offered, StringComparison.Ordinal);
        var before = await site.BeginAsync("Before the yes");
        await site.UploadAsync(Address(before, "art", "BringIn"), "fold.svg", Encoding.UTF8.GetBytes(Fold), 1);
        Assert.Equal(Operation.Score, (await site.ProjectAsync(before)).Value.Design.Pieces[0].Lines[1].Operation);
        var yes = await site.PostAsync(Address(id, "pieces", "KeepRule"), new() { ["operation"] = "Perforate", ["stroke"] = "#20A040" }, 3);
        Assert.Equal(HttpStatusCode.OK, yes.StatusCode);

        var next = await site.BeginAsync("Next card");
        await site.UploadAsync(Address(next, "art", "BringIn"), "fold again.svg", Encoding.UTF8.GetBytes(Fold), 1);
        Assert.Equal(Operation.Perforate, (await site.ProjectAsync(next)).Value.Design.Pieces[0].Lines[1].Operation);
        Assert.Contains("are perforated: <strong>1 line</strong>", await site.Browser.GetStringAsync(Address(next, "art"), Stop), StringComparison.Ordinal);

        var undone = await site.PostAsync(Address(next, "art", "Undo"), [], 2);
        Assert.Equal(HttpStatusCode.OK, undone.StatusCode);
        Assert.Empty((await site.ProjectAsync(next)).Value.Design.Pieces);
        Assert.DoesNotContain("<strong>fold again.svg", await site.Browser.GetStringAsync(Address(next, "art"), Stop), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("not an svg", "was not brought in")]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'/>", "it has no lines")]
    [InlineData("<!DOCTYPE svg [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'><desc>&x;</desc></svg>", "was not brought in")]
    public async Task A_file_that_cannot_be_used_is_refused_with_a_sentence_and_nothing_is_lost(string text, string words)
    {
        var id = await site.BeginAsync("Refusals");
        var answer = await site.UploadAsync(Address(id, "art", "BringIn"), "../../bad<b>.svg", Encoding.UTF8.GetBytes(text), 1);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var html = await answer.Content.ReadAsStringAsync(Stop);
        Assert.Contains(words, html, StringComparison.Ordinal);
        Assert.DoesNotContain("<b>", html, StringComparison.Ordinal);
        Assert.DoesNotContain("../", html, StringComparison.Ordinal);
        Assert.Equal(1, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task A_stale_edit_is_answered_with_what_changed_and_changes_nothing()
    {
        var id = await site.BeginAsync("Two windows");
        await site.PostAsync(Address(id, "set-out", "Cards"), new() { ["cards"] = "4" }, 1);
        var late = await site.PostAsync(Address(id, "set-out", "Cards"), new() { ["cards"] = "9" }, 1);
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        var html = await late.Content.ReadAsStringAsync(Stop);
        Assert.Contains("Settled card and machine", html, StringComparison.Ordinal);
        Assert.Contains("Show what is there now", html, StringComparison.Ordinal);
        Assert.False(late.Headers.Contains("HX-Trigger"));
        Assert.Equal(4, (await site.ProjectAsync(id)).Value.SetOut.Cards);
    }

    [Theory]
    [InlineData("set-out", "Card", "width", "wide", "not a length")]
    [InlineData("set-out", "Card", "width", "3", "between")]
    [InlineData("set-out", "Cards", "cards", "many", "whole number")]
    [InlineData("set-out", "Cards", "cards", "0", "whole number")]
    [InlineData("sheets", "Place", "spacing", "-1", "Between 0 and")]
    [InlineData("sheets", "Place", "spacing", "2 miles", "not a length")]
    public async Task Bad_numbers_get_a_word_beside_the_field_and_keep_what_was_typed(string station, string handler, string field, string typed, string word)
    {
        var demo = await site.DemoAsync();
        var answer = await site.PostAsync(Address(demo.Id, station, handler), new() { ["width"] = "100", ["height"] = "100", ["fold"] = "Left", [field] = typed }, demo.Head);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var html = await answer.Content.ReadAsStringAsync(Stop);
        Assert.Contains($"value=\"{typed}\"", html, StringComparison.Ordinal);
        Assert.Contains("aria-invalid=\"true\"", html, StringComparison.Ordinal);
        Assert.Contains(word, html, StringComparison.Ordinal);
        Assert.Equal(demo.Head, (await site.DemoAsync()).Head);
    }

    [Fact]
    public async Task Arithmetic_in_a_field_is_understood_and_echoed()
    {
        var id = await site.BeginAsync("Sums");
        var answer = await site.PostAsync(Address(id, "set-out", "Card"), new() { ["width"] = "8.5in/2 - 3", ["height"] = "150", ["fold"] = "Left" }, 1);
        Assert.Equal(104.95, (await site.ProjectAsync(id)).Value.SetOut.Card.FoldedWidth, 1e-9);
        Assert.Contains("is 105.0 mm", WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop)), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Names_are_shown_as_text()
    {
        var id = await site.BeginAsync("<script>alert(1)</script>");
        Assert.DoesNotContain("<script>alert", await site.Browser.GetStringAsync(Address(id, "pieces"), Stop), StringComparison.Ordinal);
        Assert.DoesNotContain("<script>alert", await site.Browser.GetStringAsync("/", Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_project_without_a_name_is_refused_beside_the_field()
    {
        var answer = await site.PostAsync("/", new() { ["name"] = "  " }, null);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains("between 1 and 120", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_project_is_taken_off_the_desk_and_brought_back_whole()
    {
        var id = await site.BeginAsync("Put away");
        Assert.Equal(HttpStatusCode.Redirect, (await site.PostAsync($"/?handler=Remove&id={id}", [], null)).StatusCode);
        var desk = await site.Browser.GetStringAsync("/", Stop);
        Assert.Contains("was taken off the desk", desk, StringComparison.Ordinal);
        Assert.DoesNotContain($"/projects/{id}/", desk, StringComparison.Ordinal);
        await site.PostAsync($"/?handler=BringBack&id={id}", [], null);
        Assert.Contains($"/projects/{id}/", await site.Browser.GetStringAsync("/", Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_project_gets_another_name_but_never_none()
    {
        var id = await site.BeginAsync("First name");
        await site.PostAsync(Address(id, "set-out", "ProjectName"), new() { ["name"] = " Second name " }, 1);
        Assert.Equal("Second name", (await site.ProjectAsync(id)).Name);
        var refused = await site.PostAsync(Address(id, "set-out", "ProjectName"), new() { ["name"] = "" }, 1);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal("Second name", (await site.ProjectAsync(id)).Name);
    }

    [Fact]
    public async Task Every_mark_of_an_operation_is_drawn_in_a_colour()
    {
        var html = await site.Browser.GetStringAsync(Address((await site.DemoAsync()).Id, "pieces"), Stop);
        Assert.Contains("mark-perforate", html, StringComparison.Ordinal);
        Assert.DoesNotContain("stroke=\"\"", html, StringComparison.Ordinal);
        Assert.DoesNotContain("fill=\"\"", html, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Scores_run_short_of_the_cut_by_what_was_set()
    {
        var id = await site.BeginAsync("Short scores");
        await site.UploadAsync(Address(id, "art", "BringIn"), "fold.svg", Encoding.UTF8.GetBytes(Fold.Replace("<path", "<path data-operation=\"score\"", StringComparison.Ordinal)), 1);
        await site.PostAsync(Address(id, "set-out", "Clearance"), new() { ["clearance"] = "2 mm" }, 2);
        var answer = await site.PostAsync(Address(id, "sheets", "Place"), new() { ["spacing"] = "2" }, 3);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var sheet = (await site.ProjectAsync(id)).Value.Sheets!.Sheets.Single();
        var svg = Formats.ArtReader.Read(await site.Browser.GetByteArrayAsync(Address(id, "sheets", $"File&sheet={sheet.Id}&format=svg"), Stop));
        Assert.Equal(40 - 2 * 2.01, svg.Shapes.Single(s => s.Declared == Operation.Score).Paths[0].Length, 1e-3);
    }

    [Fact]
    public async Task Sheets_are_taken_away_as_files_and_only_those_that_are_there()
    {
        var demo = await site.DemoAsync();
        foreach (var sheet in demo.Value.Sheets!.Sheets)
        {
            var svg = await site.Browser.GetAsync(Address(demo.Id, "sheets", $"File&sheet={sheet.Id}&format=svg"), Stop);
            Assert.Equal("attachment", svg.Content.Headers.ContentDisposition!.DispositionType);
            var back = Formats.ArtReader.Read(await svg.Content.ReadAsByteArrayAsync(Stop));
            Assert.Equal(sheet.Width, back.Width, 1e-3);
            Assert.All(back.Shapes, s => Assert.NotNull(s.Declared));
            Assert.StartsWith("IN;", await site.Browser.GetStringAsync(Address(demo.Id, "sheets", $"File&sheet={sheet.Id}&format=hpgl"), Stop), StringComparison.Ordinal);
        }
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync(Address(demo.Id, "sheets", "File&sheet=none&format=svg"), Stop)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync(Address(demo.Id, "sheets", $"File&sheet={demo.Value.Sheets.Sheets[0].Id}&format=exe"), Stop)).StatusCode);
    }

    [Fact]
    public async Task An_edit_made_on_another_revision_than_is_open_is_stale_even_where_the_head_has_come_back()
    {
        var id = await site.WithArtAsync("There and back", "one.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='40mm' viewBox='0 0 50 40'><rect width='48' height='35'/></svg>");
        await site.WithAsync(async services =>
        {
            var (desk, store) = (services.GetRequiredService<ProjectDesk>(), services.GetRequiredService<ProjectStore>());
            // Opened at 3, while another window takes 3 back: the head is 2 again when the edit of a page that shows 2 is written.
            await store.AppendAsync(ProjectDesk.Owner, id, 2, new RenamePiece("p1", "Hill"), (await desk.OpenAsync(id, Stop))!.With(new RenamePiece("p1", "Hill")).Value, Stop);
            var open = (await desk.OpenAsync(id, Stop))!;
            await store.UndoAsync(ProjectDesk.Owner, id, 3, Stop);
            await Assert.ThrowsAsync<StaleEdit>(() => desk.DoAsync(open, 2, new SetQuantity("p1", 7), Stop));
            return true;
        });
        var now = await site.ProjectAsync(id);
        Assert.Equal((2, "Hill"), (now.Head, now.Value.Design.Pieces[0].Name == "Hill" ? "undone work is back" : "Hill"));
        Assert.Equal(1, now.Value.Design.Pieces[0].Quantity);
    }

    [Fact]
    public async Task A_piece_too_large_for_its_sheets_is_a_finding_with_numbers()
    {
        var id = await site.BeginAsync("Large");
        await site.UploadAsync(Address(id, "art", "BringIn"), "large.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='500mm' height='400mm' viewBox='0 0 500 400'><rect width='480' height='350'/></svg>"u8.ToArray(), 1);
        var answer = await site.PostAsync(Address(id, "sheets", "Place"), new() { ["spacing"] = "2" }, 2);
        var html = WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));
        Assert.Contains("It is 480.0 × 350.0 mm", html, StringComparison.Ordinal);
        Assert.Contains("without a place", html, StringComparison.Ordinal);
    }

    [Fact]
    public async Task One_run_at_a_time_and_commands_in_their_order()
    {
        var demo = await site.DemoAsync();
        var sheets = demo.Value.Sheets!.Sheets;
        async Task<(HttpStatusCode Code, string Html)> Act(string handler, string key, string value)
        {
            var answer = await site.PostAsync(Address(demo.Id, "run", handler), new() { [key] = value }, demo.Head);
            return (answer.StatusCode, WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop)));
        }
        Assert.Equal(HttpStatusCode.OK, (await Act("Begin", "sheet", sheets[0].Id)).Code);
        var (code, html) = await Act("Begin", "sheet", sheets[1].Id);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, code);
        Assert.Contains("still carries", html, StringComparison.Ordinal);
        var run = System.Text.RegularExpressions.Regex.Match(html, "\"run\": \"([0-9a-f-]+)\"").Groups[1].Value;
        Assert.Contains("only a running machine", (await Act("Pause", "run", run)).Html, StringComparison.OrdinalIgnoreCase);
        // A command names the event that the page showed; one that names none, or another, is not done.
        Assert.Contains("gone on since", (await Act("Confirm", "run", run)).Html, StringComparison.Ordinal);
        var seen = System.Text.RegularExpressions.Regex.Match(html, "\"seen\": \"([0-9]+)\"").Groups[1].Value;
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync(Address(demo.Id, "run", "Confirm"), new() { ["run"] = run, ["seen"] = seen }, demo.Head)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Act("Stop", "run", run)).Code);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Act("Stop", "run", run)).Code);
        Assert.Equal(HttpStatusCode.OK, (await Act("Begin", "sheet", sheets[1].Id)).Code);
    }
}
