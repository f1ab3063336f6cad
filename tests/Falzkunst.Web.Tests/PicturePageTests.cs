using System.Net;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Pictures;
using Falzkunst.Data.Projects;
using Falzkunst.Formats.Pictures;
using Falzkunst.Tests.Shared;
using Falzkunst.Web.Desk;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Pictures at Art, as a browser asks: brought in, worked on, traced, laid on, kept over a restart.</summary>
public sealed class PicturePageTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    /// <summary>A red ring on white, 120 by 90 dots, 300 to the inch.</summary>
    private static readonly byte[] Ring = MadePictures.Png(120, 90, (x, y) =>
        Math.Sqrt((x - 60) * (x - 60) + (y - 45) * (y - 45)) is <= 38 and >= 16 ? ((byte)200, (byte)40, (byte)30, (byte)255) : ((byte)255, (byte)255, (byte)255, (byte)255), 11811);

    private static string Art(Guid id, string handler) => $"/projects/{id}/art?handler={handler}";

    private async Task<HttpResponseMessage> BringIn(Guid id, string name, byte[] content) =>
        await site.SendAsync(Art(id, "BringIn"), new MultipartFormDataContent { { new ByteArrayContent(content), "files", name } }, (await site.ProjectAsync(id)).Head, withToken: true);

    private async Task<HttpResponseMessage> Post(Guid id, string handler, Dictionary<string, string> fields) => await site.PostAsync(Art(id, handler), fields, (await site.ProjectAsync(id)).Head);

    private static async Task<string> Text(HttpResponseMessage answer) => WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));

    private static Dictionary<string, string> Step(string step) => new() { ["picture"] = "i1", ["step"] = step };

    private static readonly Dictionary<string, string> Trace = new()
    {
        ["picture"] = "i1",
        ["mode"] = "Rim",
        ["smooth"] = "0.05 mm",
        ["speck"] = "0.3 mm",
        ["colours"] = "6",
        ["border"] = "2 mm",
        ["threshold"] = "0",
    };

    [Fact]
    public async Task A_large_picture_is_traced_as_a_job_and_taken_when_it_is_done()
    {
        var id = await site.BeginAsync("Large");
        await BringIn(id, "large.png", MadePictures.Png(1800, 900, (x, y) => x is > 300 and < 1500 && y is > 200 and < 700 ? ((byte)30, (byte)40, (byte)50, (byte)255) : ((byte)255, (byte)255, (byte)255, (byte)255), 11811));
        var trace = new Dictionary<string, string>(Trace) { ["mode"] = "Areas" };
        var before = (await site.ProjectAsync(id)).Head;
        var html = await Text(await Post(id, "TakeTrace", trace));
        Assert.True(html.Contains("Tracing all of it", StringComparison.Ordinal) || html.Contains("Waiting for its turn", StringComparison.Ordinal) || html.Contains("traced-all", StringComparison.Ordinal), html);
        // Nothing is changed until it is taken; the page asks until it is there.
        Assert.Equal(before, (await site.ProjectAsync(id)).Head);
        for (var look = 0; look < 100 && !html.Contains("traced-all", StringComparison.Ordinal); look++)
        {
            await Task.Delay(200, Stop);
            html = await Text(await Post(id, "Show", []));
        }
        var job = html.Split("\"job\": \"")[1].Split('"')[0];
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "TakeTraced", new() { ["job"] = job })).StatusCode);
        var piece = Assert.Single((await site.ProjectAsync(id)).Value.Design.Pieces);
        Assert.Equal(1199 * 25.4 / 300, piece.Size.Width, 0.2);
        // Taken once; a second page that showed it is told.
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "TakeTraced", new() { ["job"] = job })).StatusCode);
    }

    [Fact]
    public async Task A_picture_is_worked_on_traced_and_laid_on_undone_and_there_after_a_restart()
    {
        var id = await site.BeginAsync("Ring");
        var html = await Text(await BringIn(id, "ring.png", Ring));
        Assert.Contains("ring.png", html, StringComparison.Ordinal);
        Assert.Contains("10.2 × 7.6 mm", html, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "PictureStep", Step("""{"step":"background-guessed","tolerance":0.1}"""))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "PictureStep", Step("""{"step":"background","x":0.5,"y":0.5,"tolerance":0.1,"everywhere":false}"""))).StatusCode);
        var shown = PictureWriter.FromPng(await site.Browser.GetByteArrayAsync($"{Art(id, "Dots")}&picture=i1&side=400&v=1", Stop));
        Assert.Equal((120, 90), (shown.Width, shown.Height));
        int Opaque(PixelImage image, int x, int y) => image.Rgba[image.At(x, y) + 3];
        Assert.Equal((0, 0, 255), (Opaque(shown, 3, 3), Opaque(shown, 60, 45), Opaque(shown, 60, 18)));
        // Each touch is taken back by itself.
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "DropStep", new() { ["picture"] = "i1", ["index"] = "1" })).StatusCode);
        shown = PictureWriter.FromPng(await site.Browser.GetByteArrayAsync($"{Art(id, "Dots")}&picture=i1&side=400&v=2", Stop));
        Assert.Equal((0, 255), (Opaque(shown, 3, 3), Opaque(shown, 60, 45)));
        var traced = await site.Browser.GetStringAsync($"{Art(id, "Traced")}&{string.Join('&', Trace.Select(t => $"{t.Key}={Uri.EscapeDataString(t.Value)}"))}", Stop);
        Assert.Equal(3, traced.Split("data-traced=").Length - 1);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "TakeTrace", Trace)).StatusCode);
        var project = await site.ProjectAsync(id);
        var piece = Assert.Single(project.Value.Design.Pieces);
        // 38 dots are 3.2 mm, with 2 mm round them.
        Assert.Equal(2 * (38.5 * 25.4 / 300 + 2), piece.Size.Width, 0.15);
        Assert.Equal("i1", Assert.IsType<PictureItem>(Assert.Single(piece.Items)).Of);
        // The table, small pictures and sheets have it.
        Assert.Contains("handler=Dots&picture=i1", (await site.Browser.GetStringAsync($"/projects/{id}/pieces?handler=Scene", Stop)).Replace("\\u0026", "&", StringComparison.Ordinal), StringComparison.Ordinal);
        Assert.Contains("data:image/png;base64,", await site.Browser.GetStringAsync($"/projects/{id}/pieces?handler=Thumbnail&piece=p1", Stop), StringComparison.Ordinal);
        foreach (var station in new[] { "set-out", "pieces", "build", "detail", "sheets", "run" })
            Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"/projects/{id}/{station}?handler=Dots&picture=i1&side=300&v=4", Stop)).StatusCode);
        await Post(id, "Undo", []);
        Assert.Empty((await site.ProjectAsync(id)).Value.Design.Pieces);
        await Post(id, "Redo", []);
        await site.RestartAsync();
        var after = await site.ProjectAsync(id);
        Assert.Equal(ProjectText.Write(project.Value), ProjectText.Write(after.Value));
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"{Art(id, "Dots")}&picture=i1&side=90&v=3", Stop)).StatusCode);
    }

    [Fact]
    public async Task The_same_file_is_kept_once_and_pictures_in_a_drawing_come_with_it()
    {
        var id = await site.BeginAsync("Twice");
        await BringIn(id, "one.png", Ring);
        await BringIn(id, "two.png", Ring);
        Assert.Equal(["1"], await site.Database.StoredAsync($"select count(*)::text from pictures where pixels_across = 120 and pixels_down = 90"));
        var svg = $"""<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="50mm" viewBox="0 0 60 50"><rect width="50" height="40" fill="#F3EEE1"/><image x="5" y="5" width="24" height="18" href="data:image/png;base64,{Convert.ToBase64String(Ring)}"/></svg>""";
        var answer = await BringIn(id, "card.svg", Encoding.UTF8.GetBytes(svg));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var design = (await site.ProjectAsync(id)).Value.Design;
        Assert.Single(design.Pieces);
        Assert.Equal(3, design.Pictures.Length);
        Assert.Equal(24, design.Pictures[2].SizeMm.Width, 1e-6);
    }

    [Fact]
    public async Task Middle_lines_go_onto_a_new_piece_and_colours_onto_stocks()
    {
        var id = await site.BeginAsync("Lines");
        await BringIn(id, "ring.png", Ring);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "TakeTrace", new(Trace) { ["mode"] = "MiddleLines", ["operation"] = "foil", ["onto"] = "new" })).StatusCode);
        var line = Assert.IsType<Line>(Assert.Single(Assert.Single((await site.ProjectAsync(id)).Value.Design.Pieces).Items));
        Assert.Equal((Operation.Foil, true), (line.Operation, line.Path.IsClosed));
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "TakeTrace", new(Trace) { ["mode"] = "Colours", ["again"] = "true" })).StatusCode);
        var design = (await site.ProjectAsync(id)).Value.Design;
        // White around, the ring, white within.
        Assert.Equal(3, design.Pieces.Length);
        Assert.Equal(2, design.Pieces.Select(p => p.Stock).Distinct().Count());
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "LayPicture", new() { ["picture"] = "i1", ["onto"] = design.Pieces[0].Id, ["pattern"] = "true" })).StatusCode);
        var laid = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Items.OfType<PictureItem>().Single();
        var moved = await site.DoAsync(id, "place-picture", new() { ["item"] = laid.Id, ["percent"] = "50", ["x"] = "1 mm" }, design.Pieces[0].Id, (await site.ProjectAsync(id)).Head);
        Assert.Equal(HttpStatusCode.OK, moved.StatusCode);
        Assert.Equal(0.5, (await site.ProjectAsync(id)).Value.Design.Pieces[0].Items.OfType<PictureItem>().Single().Place.MeanScale, 1e-9);
    }

    [Fact]
    public async Task What_is_no_picture_or_no_step_is_refused_in_a_sentence_and_changes_nothing()
    {
        var id = await site.BeginAsync("Hostile");
        var cut = await BringIn(id, "cut.png", Ring[..(Ring.Length / 2)]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, cut.StatusCode);
        Assert.Contains("cut.png was not brought in. The picture is damaged", await Text(cut), StringComparison.Ordinal);
        await BringIn(id, "ring.png", Ring);
        var head = (await site.ProjectAsync(id)).Head;
        foreach (var step in new[]
        {
            "", "{", "[]", "null", """{"step":"nonsense"}""", """{"step":"crop","x":0,"y":0,"width":2,"height":1}""", """{"step":"background","x":0.5,"y":0.5,"tolerance":"NaN"}""",
            """{"step":"straighten","degrees":1e300}""", """{"step":"brush","points":[],"radius":0.1,"gives":true}""", """{"step":"lay","way":"sideways"}""",
            """{"step":"crop","x":0,"y":0,"width":0.5,"height":0.5,"more":1}""", new string('[', 5000), $$"""{"step":"brush","points":[{{string.Join(',', Enumerable.Repeat("{\"x\":0.1,\"y\":0.2}", 15_000))}}],"radius":0.1,"gives":true}""",
        })
        {
            var answer = await Post(id, "PictureStep", Step(step));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        }
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "PictureStep", new() { ["picture"] = "i7", ["step"] = """{"step":"level-light"}""" })).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "TakeTrace", new(Trace) { ["smooth"] = "-4 mm" })).StatusCode);
        Assert.Equal(head, (await site.ProjectAsync(id)).Head);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync($"{Art(id, "Dots")}&picture=i7&side=90", Stop)).StatusCode);
        // Made on a state that is not any more.
        Assert.Equal(HttpStatusCode.Conflict, (await site.PostAsync(Art(id, "PictureStep"), Step("""{"step":"level-light"}"""), head - 1)).StatusCode);
    }

    [Fact]
    public async Task Pictures_that_nothing_ever_brought_in_are_swept_and_those_of_undone_edits_stay()
    {
        var id = await site.BeginAsync("Swept");
        var (taken, left) = (MadePictures.Png(40, 30, (x, y) => ((byte)x, (byte)y, 7, 255)), MadePictures.Png(40, 30, (x, y) => ((byte)x, (byte)y, 8, 255)));
        await BringIn(id, "taken.png", taken);
        await site.PostAsync($"/projects/{id}/art?handler=Undo", [], 2);
        await site.WithAsync(async s => await s.GetRequiredService<PictureDesk>().KeepAsync(left, Stop));
        await site.Database.BreakAsync("update pictures set at = at - interval '30 days'");
        await site.WithAsync(async s => await s.GetRequiredService<PictureStore>().ForgetUnreferredAsync(Stop));
        var kept = await site.Database.StoredAsync("select content from pictures");
        Assert.Contains(ContentHash.Compute(taken), kept);
        Assert.DoesNotContain(ContentHash.Compute(left), kept);
    }

    [Fact]
    public async Task A_step_that_cannot_be_carried_out_is_not_written()
    {
        var id = await site.BeginAsync("Unknown way");
        await BringIn(id, "ring.png", Ring);
        var picture = (await site.ProjectAsync(id)).Value.Design.Pictures[0].Id;
        foreach (var step in new[] { """{"step":"quarter-turn","way":99}""", """{"step":"mirror","way":"sideways"}""", "null", "[]" })
        {
            var answer = await site.PostAsync($"/projects/{id}/art?handler=PictureStep", new() { ["picture"] = picture, ["step"] = step }, 2);
            Assert.InRange((int)answer.StatusCode, 400, 499);
        }
        Assert.Equal(2, (await site.ProjectAsync(id)).Head);
        Assert.Equal(HttpStatusCode.OK, (await site.Browser.GetAsync($"/projects/{id}/art", Stop)).StatusCode);
    }
}
