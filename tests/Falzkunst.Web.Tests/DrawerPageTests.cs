using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Data.Json;
using Falzkunst.Web.Wording;

namespace Falzkunst.Web.Tests;

/// <summary>The drawer's pages, spoken to as forms do: what is typed wrong is told beside its field and changes nothing.</summary>
public sealed partial class DrawerPageTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private Task<string> GetAsync(string path) => site.Browser.GetStringAsync(path, Stop);

    private async Task<Drawer> DrawerAsync() => DrawerJson.Read(await site.Browser.GetByteArrayAsync("/drawer?handler=Export", Stop));

    private Task<HttpResponseMessage> PostAsync(string path, params (string, string)[] fields) =>
        site.PostAsync($"/drawer/{path}", fields.ToDictionary(f => f.Item1, f => f.Item2), head: null);

    /// <summary>The version that the sheet of a stock names.</summary>
    private async Task<string> VersionAsync(string stock) => Version().Match(await GetAsync($"/drawer/stocks/{stock}")).Groups[1].Value;

    private static (string, string)[] Fields(params (string, string)[] other) =>
    [
        .. new (string, string)[]
        {
            ("name", "Chalk 200"), ("kind", "card"), ("grams", "200"), ("thickness", "0.25"), ("colour", "#f3eee1"), ("pattern", "Plain"), ("narrowest", "0.6"), ("direction", "None"),
        }.Where(f => !other.Any(o => o.Item1 == f.Item1)), .. other,
    ];

    [Theory]
    [InlineData("thickness", "0", "thickness")]
    [InlineData("thickness", "thick", "thick")]
    [InlineData("grams", "5", "between 20 and 2000")]
    [InlineData("grams", "many", "many")]
    [InlineData("narrowest", "1/0", "")]
    [InlineData("name", "  ", "")]
    [InlineData("colour", "javascript:", "")]
    [InlineData("pattern", "Paisley", "Paisley")]
    public async Task A_bad_number_is_told_beside_its_field_and_nothing_is_changed(string field, string value, string told)
    {
        var before = await GetAsync("/drawer?handler=Export");
        var version = await VersionAsync("chalk-200");
        var answer = await PostAsync($"stocks/chalk-200?handler=Stock&version={version}", Fields((field, value)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var refused = Site.RefusedBy(answer);
        Assert.Equal(field, refused?.Field);
        Assert.Contains(told, refused!.Value.Word, StringComparison.Ordinal);
        Assert.Equal(before, await GetAsync("/drawer?handler=Export"));
    }

    [Theory]
    [InlineData("angle", "goneWidth")]
    [InlineData("rectangle", "offcutWidth")]
    public async Task A_bad_side_of_an_offcut_is_told_at_it(string shape, string field)
    {
        var answer = await PostAsync("stocks/kraft-240?handler=Offcut",
            [.. new[] { ("shape", shape), ("offcutWidth", "80"), ("offcutHeight", "60"), ("goneWidth", "20"), ("goneHeight", "20") }.Where(f => f.Item1 != field), (field, "900000")]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(field, Site.RefusedBy(answer)?.Field);
    }

    [Fact]
    public async Task The_second_of_two_windows_is_told_what_the_first_did()
    {
        var version = await VersionAsync("mist-160");
        Assert.Equal(HttpStatusCode.OK, (await PostAsync($"stocks/mist-160?handler=Favourite&version={version}", ("on", "true"))).StatusCode);
        var answer = await PostAsync($"stocks/mist-160?handler=StockAway&version={version}", ("away", "true"));
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Contains("changed meanwhile in another window", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        Assert.False((await DrawerAsync()).Stock("mist-160").IsPutAway);
        Assert.Equal(HttpStatusCode.OK, (await PostAsync("stocks?handler=Undo")).StatusCode);
        Assert.False((await DrawerAsync()).Stock("mist-160").IsFavourite);
    }

    /// <summary>Whatever is posted where, no answer is a fault of ours.</summary>
    [Fact]
    public async Task No_form_of_the_drawer_breaks_on_what_is_not_there_or_too_much()
    {
        var handlers = typeof(Pages.Catalogue.DrawerModel).GetMethods().Select(m => m.Name).Where(n => n.StartsWith("OnPost", StringComparison.Ordinal)).Select(n => n["OnPost".Length..].Replace("Async", "", StringComparison.Ordinal)).ToList();
        Assert.True(handlers.Count > 20);
        (string, string)[][] rubbish =
        [
            [], [("version", "-1")], [("version", "999999999999")],
            [("name", new string('x', 5000)), ("set", "<b>"), ("sheet", "\0"), ("size", ""), ("count", "-4"), ("tool", "Blade"), ("force", "NaN"), ("speed", "1e999"), ("times", "0")],
            [("shape", "corners"), ("corners", "1,2 3,4 NaN,5 " + new string('9', 400)), ("count", "2147483647"), ("mat", "none"), ("holder", "none"), ("holderName", ""), ("takes", "Axe"), ("kind", "9")],
        ];
        foreach (var path in new[] { "stocks/none", "machines/none", "tools", "machines/solo-305", "stocks/ember-220", "elsewhere/..%2f" })
        {
            foreach (var handler in handlers)
            {
                foreach (var fields in rubbish)
                {
                    if (handler is "Undo" or "Redo" || (handler.StartsWith("New", StringComparison.Ordinal) && fields.Length == 0)) continue;
                    var answer = await PostAsync($"{path}?handler={handler}", fields);
                    Assert.True((int)answer.StatusCode < 500, $"{path} {handler} of {string.Join(", ", fields.Select(f => f.Item1))}: {answer.StatusCode}");
                }
            }
        }
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync("/drawer/stocks/none", Stop)).StatusCode);
    }

    private async Task<string> ImportAsync(string json, HttpStatusCode expected)
    {
        var file = new ByteArrayContent(Encoding.UTF8.GetBytes(json));
        file.Headers.ContentType = new MediaTypeHeaderValue("application/json");
        var answer = await site.SendAsync("/drawer/stocks?handler=Import", new MultipartFormDataContent { { file, "file", "drawer.json" }, { new StringContent("false"), "replaces" } }, null, withToken: true);
        Assert.Equal(expected, answer.StatusCode);
        return WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));
    }

    [Theory]
    [InlineData("{", "")]
    [InlineData("[1]", "")]
    [InlineData("""{"schema": 1}""", "")]
    [InlineData("""{"falzkunst": "drawer", "schema": 99}""", "schema 99")]
    [InlineData("""{"falzkunst": "drawer", "schema": 1, "tools": [{"key": "a", "kind": "pen", "name": "A", "colour": "#102030", "widthMm": 0.3}, {"key": "b", "kind": "pen", "name": "B", "colour": "red", "widthMm": 0.3}]}""", "tools[1]")]
    [InlineData("""{"falzkunst": "drawer", "schema": 1, "stocks": [{"key": "sand-200", "name": "Sand 200"}]}""", "stocks[0]")]
    public async Task A_file_that_is_no_drawer_is_refused_with_its_place_and_changes_nothing(string json, string place)
    {
        var before = await GetAsync("/drawer?handler=Export");
        Assert.Contains(place, await ImportAsync(json, HttpStatusCode.UnprocessableEntity), StringComparison.Ordinal);
        Assert.Equal(before, await GetAsync("/drawer?handler=Export"));
    }

    [Fact]
    public async Task What_was_carried_out_comes_in_elsewhere_and_is_taken_back_at_once()
    {
        var file = JsonDocument.Parse(await GetAsync("/drawer?handler=Export"));
        var stock = file.RootElement.GetProperty("stocks")[0].GetRawText().Replace($"\"{(await DrawerAsync()).Stocks[0].Key}\"", "\"brought-in\"", StringComparison.Ordinal);
        Assert.Contains("1 thing came in", await ImportAsync($$"""{"falzkunst": "drawer", "schema": 1, "stocks": [{{stock}}]}""", HttpStatusCode.OK), StringComparison.Ordinal);
        Assert.Contains((await DrawerAsync()).Stocks, s => s.Key == "brought-in");
        Assert.Equal(HttpStatusCode.OK, (await PostAsync("stocks?handler=Undo")).StatusCode);
        Assert.DoesNotContain((await DrawerAsync()).Stocks, s => s.Key == "brought-in" && !s.IsPutAway);
    }

    [Fact]
    public async Task A_stock_put_away_is_offered_no_more_and_known_to_projects_that_use_it()
    {
        var id = await site.WithArtAsync("Uses kraft", "one.svg", """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="2" y="2" width="50" height="30" fill="#B48A58"/></svg>""");
        var project = await site.ProjectAsync(id);
        var key = project.Value.Design.Pieces[0].Stock;
        var name = (await DrawerAsync()).Stock(key).Name;
        Assert.Equal(HttpStatusCode.OK, (await PostAsync($"stocks/{key}?handler=StockAway&version={await VersionAsync(key)}", ("away", "true"))).StatusCode);
        Assert.Contains(name, await GetAsync($"/projects/{id}/sheets"), StringComparison.Ordinal);
        // Another project is not offered it.
        var empty = await site.BeginAsync("Without it");
        Assert.DoesNotContain($"value=\"{key}\"", await GetAsync($"/projects/{empty}/set-out"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await PostAsync("stocks?handler=Undo")).StatusCode);
    }

    [Fact]
    public async Task A_lines_number_kept_for_its_stock_holds_for_other_projects_and_the_line_has_it_from_there()
    {
        const string Art = """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="2" y="2" width="50" height="30" fill="#B48A58"/></svg>""";
        var id = await site.WithArtAsync("Keeps a number", "one.svg", Art);
        var piece = (await site.ProjectAsync(id)).Value.Design.Pieces[0];
        var pick = $"{piece.Id}:{piece.Outline.Id}";
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "settings", new() { ["force"] = "177" }, pick, 2)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/pieces?handler=KeepForStock", [], 3, picked: pick)).StatusCode);
        var stock = (await DrawerAsync()).Stock(piece.Stock);
        Assert.Equal(177, stock.SettingsFor(Tool.Blade).ForceGrams);
        Assert.Contains("Keeps a number", stock.Notes[Tool.Blade].From, StringComparison.Ordinal);
        Assert.Null((await site.ProjectAsync(id)).Value.Design.Pieces[0].Outline.Settings?.Tool);
    }

    [Fact]
    public async Task A_finished_runs_numbers_can_be_kept_for_its_stock_once()
    {
        var id = await site.WithArtAsync("Ran slower", "one.svg", """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect x="2" y="2" width="50" height="30" fill="#A6462F"/></svg>""");
        var piece = (await site.ProjectAsync(id)).Value.Design.Pieces[0];
        await site.DoAsync(id, "settings", new() { ["speed"] = "41" }, $"{piece.Id}:{piece.Outline.Id}", 2);
        await site.PostAsync($"/projects/{id}/sheets?handler=Place", new() { ["spacing"] = "2" }, 3);
        var sheet = (await site.ProjectAsync(id)).Value.Sheets!.Sheets[0];
        await site.PostAsync($"/projects/{id}/run?handler=Begin", new() { ["sheet"] = sheet.Id }, 4);
        var status = await GetAsync($"/projects/{id}/run?handler=Status&at={sheet.Id}");
        var run = Regex.Match(status, "\"run\": \"([0-9a-f-]+)\"").Groups[1].Value;
        Assert.DoesNotContain("handler=Keep", status, StringComparison.Ordinal);
        await site.PostAsync($"/projects/{id}/run?handler=Stop", new() { ["run"] = run }, 4);
        var over = await GetAsync($"/projects/{id}/run?handler=Status&at={sheet.Id}");
        var step = Regex.Match(over, "handler=Keep[^>]*\"step\": \"?([0-9]+)").Groups[1].Value;
        Assert.NotEmpty(step);
        var keep = new Dictionary<string, string> { ["run"] = run, ["step"] = step };
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/run?handler=Keep&at={sheet.Id}", keep, 4)).StatusCode);
        var stock = (await DrawerAsync()).Stock(piece.Stock);
        Assert.Equal(41, stock.SettingsFor(Tool.Blade).SpeedMmPerSecond);
        Assert.Contains("from the run of", stock.Notes[Tool.Blade].From, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.PostAsync($"/projects/{id}/run?handler=Keep&at={sheet.Id}", keep, 4)).StatusCode);
        await PostAsync("stocks?handler=Undo");
    }

    [Fact]
    public void Every_doubt_has_a_sentence_that_names_a_number_or_the_stock() => Assert.All(Enum.GetValues<SettingsWarning>(), w =>
    {
        var words = DoubtWords.For(new SettingsDoubt(w, 0.35), SeedCatalogue.Stocks[0], Core.Measures.Units.Millimetres);
        Assert.True(words.EndsWith('.') && (words.Contains("0.35", StringComparison.Ordinal) || words.Contains(SeedCatalogue.Stocks[0].Name, StringComparison.Ordinal)), words);
    });

    /// <summary>In inches fields round; what is not touched stays as it is to the last digit.</summary>
    [Fact]
    public async Task A_form_in_inches_changes_nothing_that_was_not_typed()
    {
        var before = (await DrawerAsync()).Stock("slate-220");
        var html = await GetAsync("/drawer/stocks/slate-220");
        Assert.Contains("0.28 mm", html, StringComparison.Ordinal);
        // A drawer opened from a project is in that project's units.
        var project = await site.BeginAsync("In inches");
        async Task ShowAsync(string units, int head)
        {
            Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{project}/set-out?handler=Units", new() { ["units"] = units }, head)).StatusCode);
            await GetAsync($"/projects/{project}/set-out");
        }
        await ShowAsync("Inches", 1);
        var shown = await GetAsync("/drawer/stocks/slate-220");
        string Shown(string field) => WebUtility.HtmlDecode(Regex.Match(shown, $"name=\"{field}\"[^>]*value=\"([^\"]*)\"").Groups[1].Value);
        Assert.EndsWith(" in", Shown("thickness"), StringComparison.Ordinal);
        var answer = await PostAsync(
            $"stocks/slate-220?handler=Stock&version={await VersionAsync("slate-220")}", Fields(("name", "Slate, inches"), ("thickness", Shown("thickness")), ("narrowest", Shown("narrowest")), ("colour", before.Colour)));
        await ShowAsync("Millimetres", 2);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var after = (await DrawerAsync()).Stock("slate-220");
        Assert.Equal("Slate, inches", after.Name);
        Assert.Equal((before.ThicknessMm, before.NarrowestMm), (after.ThicknessMm, after.NarrowestMm));
        await PostAsync("stocks?handler=Undo");
    }

    [GeneratedRegex("version=([0-9]+)")]
    private static partial Regex Version();
}
