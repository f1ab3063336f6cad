using System.Net;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Formats.Fonts;

namespace Falzkunst.Web.Tests;

/// <summary>Faces that a user brings in: used, there after a restart, taken away and back; files that are none.</summary>
public sealed class OwnFaceTests(Site site) : IClassFixture<Site>
{
    private const string Art = """<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><rect x="5" y="5" width="110" height="70" fill="#F3EEE1"/></svg>""";

    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static byte[] Shipped(string file) => File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Faces", file));

    /// <summary>A face that ships with one byte behind it: the same letters, and no file that is known.</summary>
    private static byte[] Own(string file) => [.. Shipped(file), 0];

    private Task<HttpResponseMessage> BringAsync(Guid id, byte[] file, string picked, int head) => site.SendAsync($"/projects/{id}/pieces?handler=BringFace",
        new MultipartFormDataContent { { new ByteArrayContent(file), "face", "mine.ttf" }, { new StringContent(picked), "picked" } }, head, withToken: true);

    private async Task<Guid> WrittenAsync()
    {
        var id = await site.WithArtAsync("Own face", "plate.svg", Art);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "write", new() { ["words"] = "Depot", ["face"] = "plain" }, "p1", 2)).StatusCode);
        return id;
    }

    private async Task<TextItem> TextAsync(Guid id) => (await site.ProjectAsync(id)).Value.Design.Pieces[0].Items.OfType<TextItem>().Single();

    [Fact]
    public async Task A_face_brought_in_is_used_at_once_is_there_after_a_restart_and_its_words_stay_when_it_goes()
    {
        var id = await WrittenAsync();
        var content = Own("garland.ttf");
        Assert.Equal(HttpStatusCode.OK, (await BringAsync(id, content, "p1:l2", 3)).StatusCode);
        var text = await TextAsync(id);
        Assert.StartsWith("own-", text.Face, StringComparison.Ordinal);
        Assert.Equal(new FaceShelf().Shape("garland", "Depot")!.Paragraphs[0].Glyphs.AsEnumerable(), text.Shaped!.Paragraphs[0].Glyphs.AsEnumerable());
        Assert.Contains("Take ", await site.Browser.GetStringAsync($"/projects/{id}/pieces?at=p1:l2", Stop), StringComparison.Ordinal);

        await site.RestartAsync();
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"/faces/{text.Face}?words=Depot", Stop)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "words", new() { ["words"] = "Depot 7" }, "p1:l2", 4)).StatusCode);

        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/pieces?handler=RemoveFace", new() { ["face"] = text.Face }, 5, picked: "p1:l2")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync($"/faces/{text.Face}?words=Depot", Stop)).StatusCode);
        Assert.NotEmpty((await site.ProjectAsync(id)).Value.Design.Pieces[0].Drawn.Where(l => l.Id == "l2"));
        // Sized they need no face; other words do.
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "letters", new() { ["height"] = "9" }, "p1:l2", 5)).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await site.DoAsync(id, "words", new() { ["words"] = "Other" }, "p1:l2", 6)).StatusCode);
        // The same file once more is the same face.
        await BringAsync(id, content, "p1", 6);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "words", new() { ["words"] = "Other" }, "p1:l2", 6)).StatusCode);
    }

    [Theory]
    [InlineData("nothing")]
    [InlineData("noise")]
    [InlineData("cut off")]
    [InlineData("a drawing")]
    [InlineData("half of its glyphs overwritten")]
    public async Task A_file_that_is_no_face_leaves_nothing_behind_but_a_sentence(string what)
    {
        var id = await WrittenAsync();
        var good = Shipped("book.ttf");
        var noise = new byte[40_000];
        new Random(7).NextBytes(noise);
        var file = what switch
        {
            "nothing" => [],
            "noise" => noise,
            "cut off" => good[..(good.Length / 3)],
            "a drawing" => Encoding.UTF8.GetBytes(Art),
            _ => good[..(good.Length / 2)].Concat(noise).ToArray(),
        };
        var answer = await BringAsync(id, file, "p1:l2", 3);
        var said = await answer.Content.ReadAsStringAsync(Stop);
        Assert.True(answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{answer.StatusCode}");
        if ((await site.ProjectAsync(id)).Head > 3) return; // a damaged face that could be read to its last glyph is one
        Assert.Matches("class=\"notice|face|font|file", said);
        Assert.Equal("plain", (await TextAsync(id)).Face);
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync("/", Stop)).StatusCode);
    }
}
