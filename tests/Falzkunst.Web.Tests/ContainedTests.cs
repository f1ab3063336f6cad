using System.Net;
using System.Reflection;
using System.Text;
using System.Text.RegularExpressions;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Tests.Shared;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Falzkunst.Web.Tests;

/// <summary>What comes from files, clients and a damaged table stays where it is.</summary>
public sealed class ContainedTests(Site site) : IClassFixture<Site>
{
    private const string Markup = "<img src=x onerror=alert(1)>";
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private static readonly string[] Stations = ["set-out", "art", "pieces", "detail", "sheets", "run"];
    private static readonly byte[] Ordinary = "<svg xmlns='http://www.w3.org/2000/svg' width='50mm' height='40mm' viewBox='0 0 50 40'><rect width='30' height='20'/></svg>"u8.ToArray();

    /// <summary>Every handler of every page, by the page's path and its own name.</summary>
    private static IEnumerable<(string Station, string Verb, string Name)> Handlers() =>
        from page in typeof(Program).Assembly.GetTypes()
        where page.IsSubclassOf(typeof(PageModel)) && !page.IsAbstract && page.Name != "TroubleModel"
        from method in page.GetMethods(BindingFlags.Public | BindingFlags.Instance)
        let match = Regex.Match(method.Name, "^On(Get|Post)(.*?)(Async)?$")
        where match.Success && method.Name is not "OnGetAsync" and not "OnPostAsync"
        let station = page.Name == "IndexModel" ? "" : page.Name == "SetOutModel" ? "set-out" : page.Name.Replace("Model", "", StringComparison.Ordinal).ToLowerInvariant()
        select (station, match.Groups[1].Value, match.Groups[2].Value);

    public static TheoryData<string> Hostile()
    {
        var seed = int.TryParse(Environment.GetEnvironmentVariable("FALZKUNST_SEED"), out var given) ? given : 14;
        return new(HostileFiles.All.GroupBy(f => f.Family).Select((g, i) => g.ElementAt((seed + 3 + i) % g.Count()).Name));
    }

    [Theory]
    [MemberData(nameof(Hostile))]
    public async Task A_hostile_file_gets_pieces_or_a_sentence_and_the_next_file_is_read(string name)
    {
        var id = await site.BeginAsync(name);
        var answer = await site.UploadAsync($"/projects/{id}/art?handler=BringIn", $"{name}.svg", HostileFiles.All.Single(f => f.Name == name).Make(), 1);
        var html = await answer.Content.ReadAsStringAsync(Stop);
        Assert.True(answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{answer.StatusCode}");
        if (answer.StatusCode != HttpStatusCode.OK) Assert.Matches("class=\"notice\"[^>]*>\\s*<p>[^<]+\\.\\s*</p>", html);
        Assert.DoesNotContain("<img src=x", html, StringComparison.Ordinal);
        foreach (var station in Stations) Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"/projects/{id}/{station}", Stop)).StatusCode);
        var next = await site.BeginAsync("after");
        Assert.Equal(HttpStatusCode.OK, (await site.UploadAsync($"/projects/{next}/art?handler=BringIn", "next.svg", Ordinary, 1)).StatusCode);
    }

    [Fact]
    public async Task No_handler_breaks_over_what_is_not_there_or_answers_with_bare_text_or_markup_of_a_file()
    {
        var art = $"<svg xmlns='http://www.w3.org/2000/svg' width='90mm' height='90mm' viewBox='0 0 90 90'>"
            + $"<g id='{WebUtility.HtmlEncode(Markup)}'><path id='{WebUtility.HtmlEncode(Markup)}' fill='none' stroke='#123456' d='M0 0h40v40h-40z'/><path stroke='red' d='M5 5l9 9' id='x{WebUtility.HtmlEncode(Markup)}'/></g></svg>";
        var id = await site.WithArtAsync(Markup, $"{Markup}.svg", art);
        await site.PostAsync($"/projects/{id}/sheets?handler=Place", new() { ["spacing"] = "2" }, 2);
        var value = (await site.ProjectAsync(id)).Value;
        var ids = string.Join('&', new[] { "file", "other", "run", "rule", "id" }.Select(k => $"{k}={Guid.NewGuid()}")) + "&sheet=none&stock=none&offcut=none&piece=none&way=7&first=999&revision=999&format=svg&text=%3Cimg+src%3Dx";
        var rule = $"&operation=score&layer={Uri.EscapeDataString(Markup)}&origin={Uri.EscapeDataString(Markup)}";
        var seen = 0;
        foreach (var (station, verb, name) in Handlers())
        {
            var page = station.Length == 0 ? "/" : $"/projects/{id}/{station}";
            var path = $"{page}?handler={name}&{ids}{rule}";
            var head = (await site.ProjectAsync(id)).Head;
            var answer = verb == "Get" ? await site.Browser.GetAsync(path, Stop) : await site.PostAsync(path, new() { ["picked"] = value.Design.Pieces[0].Id, ["act"] = "none" }, head);
            var body = await answer.Content.ReadAsStringAsync(Stop);
            Assert.True((int)answer.StatusCode < 500, $"{verb} {station} {name}: {answer.StatusCode}");
            Assert.DoesNotContain("<img src=x", body, StringComparison.Ordinal);
            if (body.Length > 0) Assert.True(answer.Content.Headers.ContentType?.MediaType is "text/html" or "application/json" or "image/svg+xml" or "application/vnd.hp-hpgl", $"{verb} {station} {name}: {answer.Content.Headers.ContentType}");
            seen++;
        }
        Assert.True(seen > 50, $"{seen}");
        foreach (var station in Stations) Assert.DoesNotContain("<img src=x", await site.Browser.GetStringAsync($"/projects/{id}/{station}", Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_page_that_would_answer_with_bare_text_is_stopped()
    {
        var filter = new Binding.NoBareText();
        Microsoft.AspNetCore.Mvc.Filters.ResultExecutingContext Filtered(Microsoft.AspNetCore.Mvc.IActionResult result) => new(
            new Microsoft.AspNetCore.Mvc.ActionContext(new Microsoft.AspNetCore.Http.DefaultHttpContext(), new(), new()), [], result, new object());
        Assert.Throws<InvalidOperationException>(() => filter.OnResultExecuting(Filtered(new Microsoft.AspNetCore.Mvc.ContentResult { Content = "bare" })));
        filter.OnResultExecuting(Filtered(new Microsoft.AspNetCore.Mvc.ContentResult { Content = "<svg/>", ContentType = "image/svg+xml" }));
        await Task.CompletedTask;
    }

    [Fact]
    public async Task Characters_that_no_keyboard_has_are_answered_and_kept_out()
    {
        var id = await site.BeginAsync("Nul");
        byte[] body = [.. "--X\r\nContent-Disposition: form-data; name=\"files\"; filename=\"a\0b\u0007.svg\"\r\nContent-Type: image/svg+xml\r\n\r\n"u8, .. Ordinary, .. "\r\n--X--\r\n"u8];
        var content = new ByteArrayContent(body);
        content.Headers.TryAddWithoutValidation("Content-Type", "multipart/form-data; boundary=X");
        var answer = await site.SendAsync($"/projects/{id}/art?handler=BringIn", content, 1, withToken: true);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await site.PostAsync($"/projects/{id}/set-out?handler=ProjectName", new() { ["name"] = "a\0b" }, 2)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await site.Browser.GetAsync($"/projects/{id}/pieces?at=%00", Stop)).StatusCode);
        foreach (var command in new[] { "name \"\"", "\"\"", "name \"", "\" \"", "stock \"\"", "// \"\" \"", "name \u0001" })
        {
            var said = await site.PostAsync($"/projects/{id}/pieces?handler=Command", new() { ["text"] = command }, (await site.ProjectAsync(id)).Head, picked: "p1");
            Assert.True((int)said.StatusCode < 500, $"{command}: {said.StatusCode}");
        }
    }

    [Fact]
    public async Task Another_host_is_no_guest()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/") { Headers = { Host = "elsewhere.example" } };
        Assert.Equal(HttpStatusCode.BadRequest, (await site.Browser.SendAsync(request, Stop)).StatusCode);
    }

    [Fact]
    public async Task A_project_that_cannot_be_read_is_said_to_be_so_and_the_list_goes_on()
    {
        var id = await site.WithArtAsync("Damaged", "a.svg", Encoding.UTF8.GetString(Ordinary).Replace("30", "31", StringComparison.Ordinal));
        await site.Database.BreakAsync($"insert into parts (hash, content) values ('cut-off', '{{\"styles\":') on conflict do nothing");
        await site.Database.BreakAsync($"update revisions set design_hash = 'cut-off' where project_id = '{id}'");
        await site.RestartAsync();
        Assert.Contains("Damaged", await site.Browser.GetStringAsync("/", Stop), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync($"/?handler=Picture&id={id}", Stop)).StatusCode);
        foreach (var station in Stations)
        {
            var answer = await site.Browser.GetAsync($"/projects/{id}/{station}", Stop);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains("This project cannot be read", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        }
        var demo = await site.DemoAsync();
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"/projects/{demo.Id}/art", Stop)).StatusCode);
    }

    [Fact]
    public async Task Begun_twice_by_one_form_there_is_one_project()
    {
        var key = Guid.NewGuid().ToString();
        var answers = await Task.WhenAll(Enumerable.Range(0, 2).Select(_ => site.PostAsync("/", new() { ["name"] = "Touched twice", ["key"] = key }, null)));
        Assert.All(answers, a => Assert.True(a.StatusCode is HttpStatusCode.Redirect or HttpStatusCode.Conflict, $"{a.StatusCode}"));
        Assert.Single(Regex.Matches(await site.Browser.GetStringAsync("/", Stop), "Touched twice</span>\\s*<span class=\"facts\">"));
    }

    [Fact]
    public async Task Art_larger_than_any_sheet_by_far_is_asked_for_its_size_and_comes_in_at_the_chosen_one()
    {
        var id = await site.BeginAsync("Large");
        var art = "<svg xmlns='http://www.w3.org/2000/svg' width='5000mm' height='4000mm' viewBox='0 0 5000 4000'><rect width='4200' height='3100'/></svg>"u8.ToArray();
        var asked = await site.UploadAsync($"/projects/{id}/art?handler=BringIn", "tram.svg", art, 1);
        var html = WebUtility.HtmlDecode(await asked.Content.ReadAsStringAsync(Stop));
        Assert.Contains("How large is tram.svg meant to be?", html, StringComparison.Ordinal);
        Assert.Contains("meant in millimetres", html, StringComparison.Ordinal);
        Assert.Equal(1, (await site.ProjectAsync(id)).Head);
        var (file, scale) = Regex.Match(html, "\"file\": \"([0-9a-f-]+)\", \"scale\": \"(0\\.0393[0-9]*)\"") is var m ? (m.Groups[1].Value, m.Groups[2].Value) : default;
        var taken = await site.PostAsync($"/projects/{id}/art?handler=AtSize", new() { ["file"] = file, ["scale"] = scale }, 1);
        Assert.Equal(HttpStatusCode.OK, taken.StatusCode);
        Assert.Equal(4200 / 25.4, (await site.ProjectAsync(id)).Value.Design.Pieces.Single().Size.Width, 1e-6);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.PostAsync($"/projects/{id}/art?handler=AtSize", new() { ["file"] = file, ["scale"] = "-1" }, 2)).StatusCode);
    }
}
