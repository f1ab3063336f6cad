using System.Net;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Texts;

namespace Falzkunst.Web.Tests;

/// <summary>Words on pieces over the wire: written, after a restart, in pictures of faces.</summary>
public sealed class WordsTests(Site site) : IClassFixture<Site>
{
    private const string Art = """<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="80mm" viewBox="0 0 120 80"><rect x="5" y="5" width="110" height="70" fill="#F3EEE1"/></svg>""";

    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private async Task<TextItem> TextAsync(Guid id) => (await site.ProjectAsync(id)).Value.Design.Pieces[0].Items.OfType<TextItem>().Single();

    [Fact]
    public async Task Words_are_what_they_were_after_a_restart_and_after_undo()
    {
        var id = await site.WithArtAsync("Words", "plate.svg", Art);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "write", new() { ["words"] = "Grüße vom\r\nDepot", ["operation"] = "Foil" }, "p1", 2)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "face", new() { ["face"] = "garland" }, "p1:l2", 3)).StatusCode);
        var before = await TextAsync(id);
        Assert.Equal("Grüße vom\nDepot", before.Words);
        var piece = (await site.ProjectAsync(id)).Value.Design.Pieces[0];
        var lines = piece.Drawn.Where(l => l.Id == "l2").ToList();
        Assert.NotEmpty(lines);
        Assert.All(lines, l => Assert.Equal(Operation.Foil, l.Operation));
        await site.RestartAsync();
        var after = (await site.ProjectAsync(id)).Value.Design.Pieces[0];
        Assert.Equal(lines.Select(l => l.Path), after.Drawn.Where(l => l.Id == "l2").Select(l => l.Path));
        await site.PostAsync($"/projects/{id}/pieces?handler=Undo", [], 4);
        Assert.Equal(3, (await site.ProjectAsync(id)).Head);
        Assert.Equal("line-plain", (await TextAsync(id)).Face);
    }

    [Theory]
    [InlineData("words", "words", "  ", "words")]
    [InlineData("face", "face", "no-such-face", "face")]
    [InlineData("letters", "height", "0", "height")]
    [InlineData("letters", "lines", "900", "lines")]
    [InlineData("along", "arc", "99999", "arc")]
    public async Task What_cannot_be_is_told_beside_its_field(string action, string field, string value, string told)
    {
        var id = await site.WithArtAsync("Words", "plate.svg", Art);
        await site.DoAsync(id, "write", new() { ["words"] = "Depot" }, "p1", 2);
        var answer = await site.DoAsync(id, action, new() { [field] = value }, "p1:l2", 3);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(told, Site.RefusedBy(answer)?.Field);
        Assert.Equal(3, (await site.ProjectAsync(id)).Head);
    }

    [Theory]
    [InlineData("quill", "Depot", HttpStatusCode.OK)]
    [InlineData("line-plain", "<b>&\"'", HttpStatusCode.OK)]
    [InlineData("../plain", "Depot", HttpStatusCode.NotFound)]
    [InlineData("none", "Depot", HttpStatusCode.NotFound)]
    public async Task Faces_are_shown_in_any_words(string face, string words, HttpStatusCode expected)
    {
        var answer = await site.Browser.GetAsync($"/faces/{Uri.EscapeDataString(face)}?words={Uri.EscapeDataString(words)}", Stop);
        Assert.Equal(expected, answer.StatusCode);
        if (expected == HttpStatusCode.OK) Assert.DoesNotContain("<b>", await answer.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
        Assert.NotEqual(HttpStatusCode.OK, (await site.Browser.GetAsync($"/faces/quill?words={new string('a', 400)}", Stop)).StatusCode);
        Assert.Equal(25, FaceShelfCount);
    }

    private static int FaceShelfCount => Formats.Fonts.FaceShelf.Shipped.Count(f => Enum.IsDefined<FaceKind>(f.Kind));
}
