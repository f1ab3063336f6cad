using System.Net;
using System.Text;
using System.Text.Json;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Tests;

/// <summary>The Detail station over HTTP.</summary>
public sealed class DetailTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>Two plates joined by a bar 0.5 mm wide, a broad plate with a ring of air round an island, a pin hole.</summary>
    private const string Art = """
        <svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100" fill="#56646D">
          <path id="bone" d="M10 10h20v9.75h12V10h20v20h-20v-9.75H30V30H10Z"/>
          <path id="stencil" fill-rule="evenodd" d="M80 10h60v60H80Z M95 40a15 15 0 1 0 30 0a15 15 0 1 0 -30 0Z M103 40a7 7 0 1 0 14 0a7 7 0 1 0 -14 0Z M85 15a.1 .1 0 1 0 .2 0a.1 .1 0 1 0 -.2 0Z"/>
        </svg>
        """;

    private static string Address(Guid id, string handler = "", string more = "") => $"/projects/{id}/detail?handler={handler}{more}";

    private async Task<Guid> WithArtAsync(string name)
    {
        var id = await site.BeginAsync(name);
        Assert.Equal(HttpStatusCode.OK, (await site.UploadAsync($"/projects/{id}/art?handler=BringIn", "art.svg", Encoding.UTF8.GetBytes(Art), 1)).StatusCode);
        return id;
    }

    private async Task<string> PageAsync(Guid id, string more = "") => await site.Browser.GetStringAsync($"/projects/{id}/detail?{more}", Stop);

    private Task<HttpResponseMessage> SayAsync(Guid id, string text, string picked, int head) =>
        site.PostAsync(Address(id, "Command"), new() { ["text"] = text }, head, picked: picked);

    private async Task<string> IdOfAsync(Guid id, string name) => (await site.ProjectAsync(id)).Value.Design.Pieces.First(p => p.Name.StartsWith(name, StringComparison.Ordinal)).Id;

    [Fact]
    public async Task The_piece_that_needs_it_most_is_shown_with_its_places_and_mended_by_the_way_that_is_taken()
    {
        var id = await WithArtAsync("Bone");
        var bone = await IdOfAsync(id, "Bone");
        var html = await PageAsync(id);
        Assert.Contains("Mend 1 thin place", html, StringComparison.Ordinal);
        Assert.Contains("Slate 220 bears 0.80 mm", html, StringComparison.Ordinal);
        Assert.Contains("0.50 mm", html, StringComparison.Ordinal);
        var scene = JsonDocument.Parse(await site.Browser.GetStringAsync(Address(id, "Scene"), Stop)).RootElement.GetProperty("layouts")[0];
        Assert.Equal(0.8, scene.GetProperty("least").GetDouble());
        Assert.Contains("0.50 mm here over", scene.GetProperty("pins")[0].GetProperty("message").GetString(), StringComparison.Ordinal);
        Assert.NotEmpty(scene.GetProperty("widths").EnumerateArray());

        // A card waits for its job for a moment and is asked for again, as the page does.
        var card = "is-waiting";
        for (var look = 0; look < 100 && card.Contains("is-waiting", StringComparison.Ordinal); look++) card = await site.Browser.GetStringAsync(Address(id, "Candidate", $"&way=0&at={bone}"), Stop);
        Assert.Contains("Thin parts to 0.80", card, StringComparison.Ordinal);
        Assert.Contains("gaps ≥ 0.4 mm", WebUtility.HtmlDecode(card), StringComparison.Ordinal);
        Assert.StartsWith("<svg", await site.Browser.GetStringAsync(Address(id, "Window", $"&way=0&at={bone}"), Stop), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "thicken 0.8mm gap 0.4mm", bone, 2)).StatusCode);
        Assert.Contains("Nothing too thin", await PageAsync(id, $"&at={bone}"), StringComparison.Ordinal);
        Assert.InRange(PieceWidths.Narrowest((await site.ProjectAsync(id)).Value.Design.Require(bone), 1)!.Value, 0.8, 0.84);
    }

    [Fact]
    public async Task A_preview_shows_what_would_change_and_changes_nothing()
    {
        var id = await WithArtAsync("Preview");
        var bone = await IdOfAsync(id, "Bone");
        async Task<JsonElement> Preview(string action, Dictionary<string, string> fields)
        {
            var answer = await site.PostAsync(Address(id, "Preview", $"&act={action}"), fields, 2, picked: bone);
            return JsonDocument.Parse(await answer.Content.ReadAsStringAsync(Stop)).RootElement;
        }
        Assert.Single((await Preview("thicken", new() { ["amount"] = "0.8" })).GetProperty("paths").EnumerateArray());
        var border = new FormUrlEncodedContent([new("by", "3"), new("by", "5"), new("by", ""), new("picked", bone)]);
        var both = JsonDocument.Parse(await (await site.SendAsync(Address(id, "Preview", "&act=border"), border, 2, withToken: true)).Content.ReadAsStringAsync(Stop)).RootElement;
        Assert.Equal(2, both.GetProperty("paths").EnumerateArray().Count(p => p.GetProperty("isNew").GetBoolean()));
        Assert.Contains("between", (await Preview("thicken", new() { ["amount"] = "30" })).GetProperty("refusal").GetString(), StringComparison.Ordinal);
        var wrong = await site.PostAsync(Address(id, "Preview", "&act=thicken"), new() { ["amount"] = "<b>" }, 2, picked: bone);
        Assert.Equal((HttpStatusCode.UnprocessableEntity, "amount"), (wrong.StatusCode, Site.RefusedBy(wrong)?.Field));
        Assert.Equal(2, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task Places_are_looked_for_anew_when_stock_size_or_least_width_change()
    {
        var id = await WithArtAsync("Again");
        var bone = await IdOfAsync(id, "Bone");
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "least-width", new() { ["width"] = "0.45" }, bone, 2, "detail")).StatusCode);
        var html = await PageAsync(id, $"&at={bone}");
        Assert.Contains("Nothing too thin", html, StringComparison.Ordinal);
        Assert.Contains("set here", html, StringComparison.Ordinal);
        Assert.Contains("The catalogue says that Slate 220 bears 0.80 mm", html, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "scale 80", bone, 3)).StatusCode);
        Assert.Contains("0.40 mm", await PageAsync(id, $"&at={bone}"), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "stock mist", bone, 4)).StatusCode);
        Assert.Contains("Mist 160 bears 0.90 mm", await PageAsync(id, $"&at={bone}"), StringComparison.Ordinal);
        // The route says so at every other station as well, once the pieces have been looked at.
        Assert.Contains("1 thin piece waiting", await site.Browser.GetStringAsync($"/projects/{id}/pieces", Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Numbers_that_cannot_be_are_refused_beside_their_fields_and_kept()
    {
        var id = await WithArtAsync("Numbers");
        foreach (var (handler, field, typed, words) in new[] { ("Settings", "width", "900", "Between 0.02 and 20 mm."), ("Settings", "gap", "-1", "Between 0 and 20 mm."), ("Settings", "size", "<b>", "is not a length"), ("Settings", "size", "40", "The size of small things is between") })
        {
            var answer = await site.PostAsync(Address(id, handler), new() { [field] = typed }, 2, picked: await IdOfAsync(id, "Bone"));
            var html = await answer.Content.ReadAsStringAsync(Stop);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains($"id=\"{field}-word\" class=\"wrong\"", html, StringComparison.Ordinal);
            Assert.Contains(WebUtility.HtmlEncode(words), html, StringComparison.Ordinal);
            Assert.Contains($"value=\"{WebUtility.HtmlEncode(typed)}\"", html, StringComparison.Ordinal);
        }
        var refused = await site.DoAsync(id, "least-width", new() { ["width"] = "0" }, await IdOfAsync(id, "Bone"), 2, "detail");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(("width", "The narrowest part of a stock is between 0.05 mm and 10 mm."), Site.RefusedBy(refused));
    }

    [Fact]
    public async Task Small_things_and_islands_of_a_stencil_are_listed_and_mended()
    {
        var id = await WithArtAsync("Stencil");
        var plate = await IdOfAsync(id, "Stencil");
        var html = await PageAsync(id, $"&at={plate}");
        Assert.Contains("Take out all 1", html, StringComparison.Ordinal);
        Assert.Contains("1 loose island", html, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "small things 0.3", plate, 2)).StatusCode);
        var island = Islands.Find((await site.ProjectAsync(id)).Value.Design).Single().Piece.Id;
        var wrong = await site.DoAsync(id, "bridge", new() { ["width"] = "1.2", ["count"] = "9", ["act-on"] = island }, plate, 3, "detail");
        Assert.Equal(("count", "The number of bridges of an island is between 1 and 4."), Site.RefusedBy(wrong));
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "bridge", new() { ["width"] = "1.2", ["count"] = "3", ["act-on"] = island }, plate, 3, "detail")).StatusCode);
        var after = (await site.ProjectAsync(id)).Value;
        Assert.Equal(2, after.Design.Pieces.Length);
        Assert.Equal(1 + 3, after.Design.Require(plate).Lines.Length);
        Assert.Empty(Islands.Find(after.Design));
    }

    [Fact]
    public async Task A_form_kept_aside_is_taken_up_later()
    {
        var id = await WithArtAsync("Aside");
        var bone = await IdOfAsync(id, "Bone");
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "keep thickened 1.2mm gap 0.4mm as Only thin parts, to 1.20", bone, 2)).StatusCode);
        Assert.Contains("Only thin parts, to 1.20", await PageAsync(id, $"&at={bone}"), StringComparison.Ordinal);
        Assert.Equal(0.5, PieceWidths.Narrowest((await site.ProjectAsync(id)).Value.Design.Require(bone), 1)!.Value, 2);
        Assert.Equal(HttpStatusCode.OK, (await SayAsync(id, "take up 1", bone, 3)).StatusCode);
        Assert.InRange(PieceWidths.Narrowest((await site.ProjectAsync(id)).Value.Design.Require(bone), 1.3)!.Value, 1.2, 1.25);
    }
}
