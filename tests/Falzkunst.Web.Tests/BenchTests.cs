using System.Net;
using System.Text;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Json;
using Falzkunst.Tests;

namespace Falzkunst.Web.Tests;

/// <summary>Work on pieces over HTTP, as the page does it.</summary>
public sealed class BenchTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private const string Art = """
        <svg xmlns="http://www.w3.org/2000/svg" width="300mm" height="200mm" viewBox="0 0 300 200" fill="none" stroke="#222222" stroke-width=".3">
          <path id="wide" d="M10 10h100v60h-100ZM20 20c10 0 10 20 0 20c-10 0 -10 -20 0 -20Z"/><path d="M60 10v60" stroke="#2040E0" stroke-dasharray="3 2"/>
          <rect id="small" x="150" y="20" width="40" height="30"/><circle id="round" cx="240" cy="60" r="25"/><path d="M230 60h20" stroke="#C02020"/>
        </svg>
        """;

    private static string Address(Guid id, string handler, string station = "pieces") => $"/projects/{id}/{station}?handler={handler}";

    private Task<Guid> WithArtAsync(string name) => site.WithArtAsync(name, "art.svg", Art);

    private Task<HttpResponseMessage> SayAsync(Guid id, string text, string picked, int head, Dictionary<string, string>? more = null) =>
        site.PostAsync(Address(id, "Command"), new Dictionary<string, string>(more ?? []) { ["text"] = text }, head, picked: picked);

    private static readonly (string Text, string Picked)[] Commands =
    [
        ("move 3.7 -1in", "p1"), ("size 33 44", "p2"), ("scale 90", "p1,p3"), ("turn 17.3", "p1"), ("mirror across", "p2"), ("duplicate", "p3"),
        ("rows 2 columns 2 gap 3 4", "p2"), ("around 3 upright", "p3"), ("reflect bottom", "p1"), ("align middle card", "p1,p2,p3"), ("spread down", "p1,p2,p3"),
        ("lock size", "p1:l2"), ("fold mountain", "p1:l3"), ("fill inward 0.7", "p3:l1"), ("leave out", "p1:l2"), ("half cut", "p1:l2"), ("settings force 222", "p1:l2"),
        ("draw star 20 20 9 9", "p1"), ("draw rectangle 5 5 20 20 radius 2 apart", "p1"), ("node 2 move 40 40", "p3:l1"), ("node 1 smooth", "p2:l1"), ("take apart", "p1"),
        ("layer top", "p1"), ("hide", "p2"), ("keep aside Other", "p1"), ("take up Other", "p2"), ("give to p2", "p3:l2"), ("stock slate", "p2,p3"), ("delete", "p2"),
        ("thicken by 0.3", "p1,p2"), ("border 3 5 on kraft", "p3"), ("keep thickened by 0.2 as Stronger", "p2"), ("least width 0.55", "p1"),
    ];

    /// <summary>Done alone, each is done and no refusal is taken for it; undo gives back what was there.</summary>
    [Fact]
    public async Task Every_command_is_done_and_taken_back()
    {
        var id = await WithArtAsync("Each");
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "keep aside Other", "p2", 2)).StatusCode);
        // What is cut cannot be filled.
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "draw", "p3:l1", 3)).StatusCode);
        var head = 4;
        var before = ProjectText.Write((await site.ProjectAsync(id)).Value);
        foreach (var (text, picked) in Commands)
        {
            var answer = await SayAsync(id, text, picked, head);
            Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{text}: {await answer.Content.ReadAsStringAsync(Stop)}");
            var after = await site.ProjectAsync(id);
            Assert.True(before != ProjectText.Write(after.Value), $"{text} changes nothing");
            Assert.Equal(HttpStatusCode.OK, (await site.PostAsync(Address(id, "Undo"), [], after.Head)).StatusCode);
            var back = await site.ProjectAsync(id);
            Assert.Equal(before, ProjectText.Write(back.Value));
            head = back.Head;
        }
    }

    [Fact]
    public async Task Undo_after_any_commands_gives_each_former_project_bit_for_bit_also_after_a_restart()
    {
        foreach (var choices in Gen.Int[0, Commands.Length - 1].Array[12, 20].Array[4].Fixed())
        {
            var id = await WithArtAsync("Undo");
            var history = new List<string> { ProjectText.Write((await site.ProjectAsync(id)).Value) };
            var head = 2;
            foreach (var choice in choices)
            {
                var answer = await SayAsync(id, Commands[choice].Text, Commands[choice].Picked, head);
                // What no longer fits, such as a piece that is gone, is refused with a sentence and changes nothing.
                Assert.True(answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{Commands[choice]}: {answer.StatusCode}");
                var now = await site.ProjectAsync(id);
                Assert.Equal(answer.StatusCode == HttpStatusCode.OK, now.Head != head);
                if (now.Head == head)
                {
                    Assert.Contains("<p>", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
                    continue;
                }
                head = now.Head;
                history.Add(ProjectText.Write(now.Value));
            }
            await site.RestartAsync();
            Assert.Equal(history[^1], ProjectText.Write((await site.ProjectAsync(id)).Value));
            for (var back = history.Count - 2; back >= 0; back--)
            {
                Assert.Equal(HttpStatusCode.OK, (await site.PostAsync(Address(id, "Undo"), [], head)).StatusCode);
                var former = await site.ProjectAsync(id);
                head = former.Head;
                Assert.Equal(history[back], ProjectText.Write(former.Value));
            }
        }
    }

    [Fact]
    public async Task A_form_takes_sums_and_units_and_a_refused_one_is_told_its_field()
    {
        var id = await WithArtAsync("Fields");
        var done = await site.DoAsync(id, "repeat", new() { ["rows"] = "2", ["columns"] = "1", ["gapX"] = "1in / 2", ["gapY"] = "1in / 2" }, "p2", 2);
        Assert.Equal(HttpStatusCode.OK, done.StatusCode);
        var copy = (await site.ProjectAsync(id)).Value.Design.Pieces.Single(p => p.Name.EndsWith("(2)", StringComparison.Ordinal));
        Assert.Equal(20 + 30 + 12.7, copy.Place.F, 6);
        foreach (var (action, fields, field, word) in new (string, Dictionary<string, string>, string, string)[]
        {
            ("repeat", new() { ["rows"] = "<b>many" }, "rows", "is no whole number"), ("repeat", [], "rows", "needed"), ("turn", new() { ["degrees"] = "" }, "degrees", "no number"),
            ("resize", new() { ["width"] = "wide" }, "width", "not a length"), ("resize", new() { ["width"] = "-4" }, "width", "between"), ("operation", new() { ["operation"] = "garbage" }, "operation", "none of the choices"),
            ("quantity", new() { ["quantity"] = "201" }, "quantity", "between 0 and 200"), ("name", new() { ["name"] = " " }, "name", "between 1 and 80"),
        })
        {
            var refused = await site.DoAsync(id, action, fields, "p2", 3);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
            var told = Site.RefusedBy(refused);
            Assert.Equal(field, told?.Field);
            Assert.Contains(word, told?.Word, StringComparison.Ordinal);
            Assert.DoesNotContain("<b>", await refused.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        }
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.DoAsync(id, "dissolve", [], "p2", 3)).StatusCode);
        Assert.Equal(3, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task What_a_command_made_is_picked_after_it()
    {
        var id = await WithArtAsync("Picks");
        var made = await SayAsync(id, "duplicate", "p2", 2);
        Assert.Contains("\"selected\":\"p4\"", string.Concat(made.Headers.GetValues("HX-Trigger")), StringComparison.Ordinal);
        var drawn = await SayAsync(id, "draw slot 160 30 20 4 on piece", "p2", 3);
        Assert.Contains("\"selected\":\"p2:l2\"", string.Concat(drawn.Headers.GetValues("HX-Trigger")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_finding_is_mended_by_one_touch_and_an_old_touch_mends_nothing_else()
    {
        var id = await WithArtAsync("Mends");
        await SayAsync(id, "draw line 20 30 140 30 for draw", "p1", 2);
        var page = await site.Browser.GetStringAsync($"/projects/{id}/pieces?at=p1", Stop);
        Assert.Contains("past the edge", page, StringComparison.Ordinal);
        var mend = new Dictionary<string, string> { ["number"] = "1", ["code"] = "past-edge", ["way"] = "0" };
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync(Address(id, "Mend"), mend, 3, picked: "p1")).StatusCode);
        Assert.Equal(4, (await site.ProjectAsync(id)).Head);
        await site.PostAsync(Address(id, "Mend"), mend, 4, picked: "p1");
        Assert.Equal(4, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task A_rule_written_once_turns_cut_folds_of_a_file_into_folds_and_only_for_its_hand()
    {
        const string bought = """<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60" fill="none" stroke="#111111"><rect x="5" y="5" width="90" height="50"/><path d="M30 10v40M70 10v40" stroke="#30A060"/></svg>""";
        var id = await site.BeginAsync("Bought");
        await site.UploadAsync(Address(id, "BringIn", "art"), "bought.svg", Encoding.UTF8.GetBytes(bought), 1);
        await site.DoAsync(id, "operation", new() { ["operation"] = "Cut" }, "p1:l2", 2);
        var rule = new Dictionary<string, string>
        {
            ["rule"] = Guid.Empty.ToString(),
            ["operation"] = "valley",
            ["stroke"] = "#30a060",
            ["fill"] = "any",
            ["dashed"] = "any",
            ["closed"] = "open",
            ["apply"] = "true",
        };
        var answer = await site.PostAsync(Address(id, "Rule", "art"), rule, 3);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Contains("Green open lines are valley folds", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        var lines = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Lines;
        Assert.All(lines.Skip(1), l => Assert.Equal((Operation.Score, FoldDirection.Valley), (l.Operation, l.EffectiveSettings.Fold)));
        // The form tells what a rule would do here before it is kept.
        var words = await site.Browser.GetStringAsync(Address(id, "RuleWords&operation=cut&stroke=%2330a060", "art"), Stop);
        Assert.Contains($"It would change {lines.Length - 1} lines here.", words, StringComparison.Ordinal);
        rule["stroke"] = "greenish";
        var wrong = await (await site.PostAsync(Address(id, "Rule", "art"), rule, 4)).Content.ReadAsStringAsync(Stop);
        Assert.Contains("a colour such as", wrong, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Pieces_are_taken_from_another_project_which_stays_as_it_is()
    {
        var from = await WithArtAsync("Giver");
        var before = ProjectText.Write((await site.ProjectAsync(from)).Value);
        var id = await site.BeginAsync("Taker");
        Assert.Contains("3 motifs in Giver", await site.Browser.GetStringAsync(Address(id, "Other", "art") + $"&other={from}&first=1", Stop), StringComparison.Ordinal);
        var fields = new FormUrlEncodedContent([new("other", from.ToString()), new("motifs", "1"), new("motifs", "3")]);
        Assert.Equal(HttpStatusCode.OK, (await site.SendAsync(Address(id, "TakeOther", "art"), fields, 1, withToken: true)).StatusCode);
        Assert.Equal(["p1", "p2"], (await site.ProjectAsync(id)).Value.Design.Pieces.Select(p => p.Id));
        Assert.Equal(before, ProjectText.Write((await site.ProjectAsync(from)).Value));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.PostAsync(Address(id, "TakeOther", "art"), new() { ["other"] = Guid.NewGuid().ToString(), ["motifs"] = "1" }, 2)).StatusCode);
    }

    [Fact]
    public async Task A_sheet_of_motifs_is_laid_beside_the_project_and_three_are_taken()
    {
        var stars = string.Concat(Enumerable.Range(0, 20).Select(i => $"<path d='M{i % 5 * 30 + 5} {i / 5 * 30 + 5}h20v20h-20Z'/><path d='M{i % 5 * 30 + 10} {i / 5 * 30 + 10}h5' stroke='#2040E0'/>"));
        var id = await site.BeginAsync("Sheet");
        var read = await site.UploadAsync(Address(id, "BringIn", "art"), "sheet.svg", Encoding.UTF8.GetBytes($"<svg xmlns='http://www.w3.org/2000/svg' width='160mm' height='130mm' viewBox='0 0 160 130' fill='none' stroke='#000'>{stars}</svg>"), 1);
        Assert.Contains("20 motifs in sheet.svg", await read.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        var project = await site.ProjectAsync(id);
        Assert.Empty(project.Value.Design.Pieces);
        var page = await site.Browser.GetStringAsync($"/projects/{id}/art", Stop);
        var file = System.Text.RegularExpressions.Regex.Match(page, "data-select=\"([0-9a-f-]{36})\"").Groups[1].Value;
        var fields = new FormUrlEncodedContent([new("file", file), new("motifs", "2"), new("motifs", "7"), new("motifs", "20"), new("motifs", "999")]);
        await site.SendAsync(Address(id, "Take", "art"), fields, 2, withToken: true);
        var pieces = (await site.ProjectAsync(id)).Value.Design.Pieces;
        Assert.Equal(["p1", "p2", "p3"], pieces.Select(p => p.Id));
        Assert.All(pieces, p => Assert.Equal((2, Guid.Parse(file)), (p.Lines.Length, p.Art)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.PostAsync(Address(id, "Take", "art"), new() { ["file"] = file }, 3)).StatusCode);
        await site.PostAsync(Address(id, "Take", "art"), new() { ["file"] = file, ["all"] = "true" }, 3);
        Assert.Equal(23, (await site.ProjectAsync(id)).Value.Design.Pieces.Length);
    }
}
