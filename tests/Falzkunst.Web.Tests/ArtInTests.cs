using System.IO.Compression;
using System.Net;
using System.Text;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Tests.Shared;

namespace Falzkunst.Web.Tests;

/// <summary>Files as they come: without a size, in a ZIP, in colours that no stock has, with lines that lie on no piece.</summary>
public sealed class ArtInTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>A letter page in units that its file does not name, and a rectangle of 5 by 3 inches at 72 to the inch.</summary>
    private const string Letter = """<svg xmlns="http://www.w3.org/2000/svg" width="612" height="792" viewBox="0 0 612 792"><rect x="36" y="36" width="360" height="216" fill="none" stroke="#222222"/></svg>""";

    private static string Address(Guid id, string handler) => $"/projects/{id}/art?handler={handler}";

    private static async Task<string> Text(HttpResponseMessage answer) => WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));

    private async Task<string> BringIn(Guid id, string name, byte[] content, string? hand = null)
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(content), "files", name } };
        if (hand is not null) form.Add(new StringContent(hand), "origin");
        var answer = await site.SendAsync(Address(id, "BringIn"), form, (await site.ProjectAsync(id)).Head, withToken: true);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await Text(answer);
    }

    private async Task<HttpResponseMessage> Post(Guid id, string handler, Dictionary<string, string> fields) =>
        await site.PostAsync(Address(id, handler), fields, (await site.ProjectAsync(id)).Head);

    private async Task<double> WidthOf(Guid id) => Math.Round((await site.ProjectAsync(id)).Value.Design.Pieces[0].Size.Width, 3);

    [Fact]
    public async Task A_file_without_a_size_is_guessed_asked_and_settled_for_the_next_one_from_that_hand()
    {
        var id = await site.BeginAsync("Letter");
        var html = await BringIn(id, "letter.svg", Encoding.UTF8.GetBytes(Letter), "The kiosk");
        Assert.Equal(127, await WidthOf(id));
        Assert.Contains("The file does not say how large it is.", html, StringComparison.Ordinal);
        Assert.Contains("215.9 × 279.4 mm", html, StringComparison.Ordinal);
        Assert.DoesNotContain("True size", html, StringComparison.Ordinal);
        var file = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Art!.Value;
        // 96 to the inch was meant. What came in is scaled with it, and can be scaled back.
        var settled = await Post(id, "Size", new() { ["file"] = file.ToString(), ["scale"] = "1" });
        Assert.Equal(HttpStatusCode.OK, settled.StatusCode);
        Assert.Equal(95.25, await WidthOf(id));
        var next = await site.BeginAsync("The next letter");
        await BringIn(next, "letter.svg", Encoding.UTF8.GetBytes(Letter), "The kiosk");
        Assert.Equal(95.25, await WidthOf(next));
        var other = await site.BeginAsync("From another hand");
        await BringIn(other, "letter.svg", Encoding.UTF8.GetBytes(Letter), "Somebody else");
        Assert.Equal(127, await WidthOf(other));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "Size", new() { ["file"] = file.ToString(), ["scale"] = "1e9" })).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "Size", new() { ["file"] = Guid.NewGuid().ToString(), ["scale"] = "1" })).StatusCode);
    }

    [Fact]
    public async Task A_file_that_says_its_size_is_not_asked()
    {
        var id = await site.BeginAsync("In millimetres");
        var html = await BringIn(id, "mm.svg", Encoding.UTF8.GetBytes(Letter.Replace("\"612\"", "\"612mm\"", StringComparison.Ordinal).Replace("\"792\"", "\"792mm\"", StringComparison.Ordinal)));
        Assert.Equal(360, await WidthOf(id));
        Assert.DoesNotContain("does not say how large", html, StringComparison.Ordinal);
    }

    private async Task<string> BringInAll(Guid id, int head, params (string Name, byte[] Content)[] files)
    {
        var form = new MultipartFormDataContent();
        foreach (var (name, content) in files) form.Add(new ByteArrayContent(content), "files", name);
        return WebUtility.HtmlDecode(await (await site.SendAsync(Address(id, "BringIn"), form, head, withToken: true)).Content.ReadAsStringAsync(Stop));
    }

    private static byte[] Drawing(string size) => Encoding.UTF8.GetBytes($"<svg xmlns='http://www.w3.org/2000/svg' width='{size}' height='{size}' viewBox='0 0 100 100'><rect width='90' height='90'/></svg>");

    [Fact]
    public async Task Files_brought_together_are_one_edit_and_each_is_answered_by_itself()
    {
        var id = await site.BeginAsync("Together");
        var picture = MadePictures.Png(30, 20, (x, y) => ((byte)(x * 8), (byte)(y * 12), 90, 255));
        var html = await BringInAll(id, 1, ("one.svg", Drawing("100mm")), ("broken.svg", "<svg"u8.ToArray()), ("moon.png", picture), ("two.svg", Drawing("50mm")), ("huge.svg", Drawing("90000mm")), ("also.svg", "no"u8.ToArray()));
        var now = await site.ProjectAsync(id);
        Assert.Equal((2, 2, 1), (now.Head, now.Value.Design.Pieces.Length, now.Value.Design.Pictures.Length));
        Assert.Contains("broken.svg was not brought in", html, StringComparison.Ordinal);
        Assert.Contains("also.svg was not brought in", html, StringComparison.Ordinal);
        // The size of the one that is too large is asked all the same.
        Assert.Contains("huge.svg", html, StringComparison.Ordinal);
        Assert.Contains("handler=AtSize", html, StringComparison.Ordinal);
        var page = await site.Browser.GetStringAsync($"/projects/{id}/art", Stop);
        Assert.Contains("one.svg", page, StringComparison.Ordinal);
        Assert.Contains("two.svg", page, StringComparison.Ordinal);
        await site.PostAsync(Address(id, "Undo"), [], 2);
        Assert.Empty((await site.ProjectAsync(id)).Value.Design.Pieces);
        Assert.DoesNotContain("two.svg", await site.Browser.GetStringAsync($"/projects/{id}/art", Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Of_two_zips_both_can_be_gone_through()
    {
        byte[] Zip(string name)
        {
            using var packed = new MemoryStream();
            using (var archive = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
            {
                using var entry = archive.CreateEntry(name).Open();
                entry.Write(Drawing("40mm"));
            }
            return packed.ToArray();
        }
        var id = await site.BeginAsync("Two of them");
        var html = await BringInAll(id, 1, ("first.zip", Zip("a.svg")), ("second.zip", Zip("b.svg")));
        Assert.Contains("1 file in first.zip", html, StringComparison.Ordinal);
        var way = System.Text.RegularExpressions.Regex.Match(html, "hx-get=\"\\?handler=Zip&zip=([0-9a-f-]+)&others=([0-9a-f-]+)\"[^>]*>second.zip");
        var second = WebUtility.HtmlDecode(await site.Browser.GetStringAsync(Address(id, $"Zip&zip={way.Groups[1].Value}&others={way.Groups[2].Value}"), Stop));
        Assert.Contains("1 file in second.zip", second, StringComparison.Ordinal);
        Assert.Contains(">first.zip", second, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_zip_is_listed_looked_at_and_what_is_wanted_of_it_comes_in()
    {
        using var packed = new MemoryStream();
        using (var archive = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var name in new[] { "set/tram.svg", "set/tram.png", "set/moon.svg", "read me.txt" })
            {
                using var entry = archive.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(Letter));
            }
        }
        var id = await site.BeginAsync("Bought");
        var html = await BringIn(id, "bought.zip", packed.ToArray());
        Assert.Contains("4 files in bought.zip", html, StringComparison.Ordinal);
        Assert.Contains("the same motif again", html, StringComparison.Ordinal);
        Assert.Contains("read me.txt: no drawing", html, StringComparison.Ordinal);
        Assert.Empty((await site.ProjectAsync(id)).Value.Design.Pieces);
        var zip = System.Text.RegularExpressions.Regex.Match(html, "handler=ZipPicture&zip=([0-9a-f-]+)&entry=(\\d)");
        var picture = await site.Browser.GetAsync(Address(id, $"ZipPicture&zip={zip.Groups[1].Value}&entry=0"), Stop);
        Assert.StartsWith("<svg", await picture.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync(Address(id, $"ZipPicture&zip={zip.Groups[1].Value}&entry=3"), Stop)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "TakeZip", new() { ["zip"] = zip.Groups[1].Value, ["entries"] = "2" })).StatusCode);
        Assert.Single((await site.ProjectAsync(id)).Value.Design.Pieces);
        var page = await site.Browser.GetStringAsync($"/projects/{id}/art", Stop);
        Assert.Contains("moon.svg", page, StringComparison.Ordinal);
        Assert.DoesNotContain("tram.svg", page, StringComparison.Ordinal);
        // One project's ZIP is not another's.
        var other = await site.BeginAsync("Not bought");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(other, "TakeZip", new() { ["zip"] = zip.Groups[1].Value, ["entries"] = "2" })).StatusCode);
    }

    [Fact]
    public async Task Black_is_not_taken_for_red_without_a_word()
    {
        var id = await site.BeginAsync("Black paper");
        var html = await BringIn(id, "black.svg", Encoding.UTF8.GetBytes("""<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><rect x="5" y="5" width="80" height="50" fill="#000000"/></svg>"""));
        Assert.Contains("Which stock?", html, StringComparison.Ordinal);
        var piece = Assert.Single((await site.ProjectAsync(id)).Value.Design.Pieces);
        var meant = await Post(id, "Meant", new() { ["pieces"] = piece.Id, ["stock"] = "kraft-240" });
        Assert.Equal("kraft-240", (await site.ProjectAsync(id)).Value.Design.Pieces[0].Stock);
        Assert.DoesNotContain("Which stock?", await Text(meant), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Loose_lines_are_given_all_or_some_and_what_is_gone_is_refused()
    {
        var id = await site.BeginAsync("Loose");
        await BringIn(id, "loose.svg", Encoding.UTF8.GetBytes("""<svg xmlns="http://www.w3.org/2000/svg" width="190mm" height="60mm" viewBox="0 0 190 60" fill="none" stroke="#222222"><rect x="5" y="5" width="80" height="50"/><path d="M100 10h20M100 20h20M100 30h20M100 40h20"/></svg>"""));
        var design = (await site.ProjectAsync(id)).Value.Design;
        Assert.Equal(4, design.Loose.Length);
        var piece = design.Pieces[0].Id;
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "GiveLoose", new() { ["to"] = piece, ["lines"] = $"{design.Loose[0].Id},{design.Loose[2].Id}" })).StatusCode);
        var after = (await site.ProjectAsync(id)).Value.Design;
        Assert.Equal([design.Loose[1].Id, design.Loose[3].Id], after.Loose.Select(l => l.Id));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "GiveLoose", new() { ["to"] = piece, ["lines"] = design.Loose[0].Id })).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "DropLoose", new() { ["lines"] = design.Loose[1].Id })).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "GiveLoose", new() { ["to"] = piece })).StatusCode);
        var end = (await site.ProjectAsync(id)).Value.Design;
        Assert.Equal((0, 4), (end.Loose.Length, end.Pieces[0].Lines.Length));
    }

    [Fact]
    public async Task Passes_of_a_run_that_is_over_run_again_alone_with_other_numbers()
    {
        var id = await site.WithArtAsync("Again", "again.svg", Letter);
        await site.PostAsync($"/projects/{id}/sheets?handler=Place", new() { ["spacing"] = "2" }, 2);
        var sheet = (await site.ProjectAsync(id)).Value.Sheets!.Sheets[0];
        Task<HttpResponseMessage> Act(string handler, Dictionary<string, string> fields) => site.PostAsync($"/projects/{id}/run?handler={handler}", fields, 3);
        var run = RunOf(await Text(await Act("Begin", new() { ["sheet"] = sheet.Id })));
        // While it goes on nothing of it is run again.
        var early = await Text(await Act("Stop", new() { ["run"] = run }));
        Assert.Contains("Run again alone", early, StringComparison.Ordinal);
        Assert.Contains("stopped", early, StringComparison.OrdinalIgnoreCase);
        Dictionary<string, string> Fields(string passes, string force, string times) => new() { ["sheet"] = sheet.Id, ["run"] = run, ["passes"] = passes, ["force"] = force, ["times"] = times };
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Act("Again", Fields("0", "", ""))).StatusCode); // a stop, no pass
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Act("Again", Fields("1", "90000", ""))).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Act("Again", Fields("1", "", "0"))).StatusCode);
        var again = await Text(await Act("Again", Fields("1", "191", "2")));
        Assert.Contains("191 g", again, StringComparison.Ordinal);
        Assert.NotEqual(run, RunOf(again));
    }

    private static string RunOf(string html) => System.Text.RegularExpressions.Regex.Match(html, "\"run\": ?\"([0-9a-f-]{36})\"").Groups[1].Value;
}
