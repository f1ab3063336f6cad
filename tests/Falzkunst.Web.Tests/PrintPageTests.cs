using System.Net;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;

namespace Falzkunst.Web.Tests;

/// <summary>Printed pieces and pages, as a browser asks.</summary>
public sealed class PrintPageTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private const string Art = """<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><rect x="5" y="5" width="90" height="50" fill="#EBE2CB"/></svg>""";

    private async Task<HttpResponseMessage> Do(Guid id, string action, string station = "pieces", params (string, string)[] fields) =>
        await site.DoAsync(id, action, fields.ToDictionary(f => f.Item1, f => f.Item2), "p1", (await site.ProjectAsync(id)).Head, station);

    private static async Task<string> Text(HttpResponseMessage answer) => WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));

    private async Task Done(Guid id, string action, string station = "pieces", params (string, string)[] fields)
    {
        var answer = await Do(id, action, station, fields);
        Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{action}: {answer.StatusCode} {await Text(answer)}");
    }

    [Fact]
    public async Task A_piece_is_printed_on_laid_on_a_page_made_a_pdf_undone_and_there_after_a_restart()
    {
        var id = await site.WithArtAsync("Ticket", "ticket.svg", Art);
        // Nothing printed yet: the station says what to do.
        Assert.Contains("Nothing printed yet", await site.Browser.GetStringAsync($"/projects/{id}/print", Stop), StringComparison.Ordinal);
        await Done(id, "print-ground", fields: ("fill", "#e6d9b8"));
        await Done(id, "print-border", fields: [("inset", "3 mm"), ("width", "0.8"), ("dash", "2"), ("gap", "1"), ("colour", "#24313a"), ("round", "true")]);
        var first = await site.Browser.GetStringAsync($"/projects/{id}/print", Stop);
        Assert.Contains("How are these pieces printed?", first, StringComparison.Ordinal);
        var stock = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Stock;
        await Done(id, "print-pages", "print", ("stock", stock), ("marks", "true"));
        var project = await site.ProjectAsync(id);
        Assert.True(project.Value.SheetsAreCurrent);
        var sheet = project.Value.Sheets!.Sheets[0];
        Assert.Equal(3, sheet.Blocked.Length);
        var html = WebUtility.HtmlDecode(await site.Browser.GetStringAsync($"/projects/{id}/print", Stop));
        foreach (var words in new[] { "page 1", "with marks", "ink 51 cm²", "hides a cut that is 1.9 mm off", "PDF of this page" }) Assert.Contains(words, html, StringComparison.Ordinal);
        var scene = await site.Browser.GetStringAsync($"/projects/{id}/print?handler=Scene", Stop);
        foreach (var words in new[] { "\"printed-cut\"", "\"zone\"", "\"printable\"", "handler=Preview" }) Assert.Contains(words, scene.Replace("\\u0026", "&", StringComparison.Ordinal), StringComparison.Ordinal);
        var pdf = await site.Browser.GetAsync($"/projects/{id}/print?handler=Pdf&sheet={sheet.Id}", Stop);
        Assert.Equal("application/pdf", pdf.Content.Headers.ContentType!.MediaType);
        Assert.Equal($"ticket-page-{stock}-1.pdf", pdf.Content.Headers.ContentDisposition!.FileName);
        Assert.StartsWith("%PDF-", Encoding.Latin1.GetString(await pdf.Content.ReadAsByteArrayAsync(Stop)), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync($"/projects/{id}/print?handler=Pdf&sheet=none", Stop)).StatusCode);
        // The run prints first; a plain page has none.
        Assert.Contains("at 100 %", WebUtility.HtmlDecode(await site.Browser.GetStringAsync($"/projects/{id}/run", Stop)), StringComparison.Ordinal);
        await site.RestartAsync();
        var after = await site.ProjectAsync(id);
        Assert.Equal(project.Value.SetOut.Printing[stock], after.Value.SetOut.Printing[stock]);
        Assert.Equal(2, PrintedArt.On(after.Value.Design.Pieces[0]).Length);
        await Done(id, "print-pages", "print", ("stock", stock), ("marks", "false"));
        Assert.Contains("There are no sheets yet", await site.Browser.GetStringAsync($"/projects/{id}/run", Stop), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/print?handler=Undo", [], (await site.ProjectAsync(id)).Head)).StatusCode);
        Assert.True((await site.ProjectAsync(id)).Value.SetOut.Printing[stock].IsCut);
    }

    [Fact]
    public async Task Numbers_out_of_reach_are_refused_beside_their_field_and_change_nothing()
    {
        var id = await site.WithArtAsync("Refused", "ticket.svg", Art);
        await Done(id, "print-ground", fields: ("fill", "#e6d9b8"));
        var before = (await site.ProjectAsync(id)).Head;
        var stock = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Stock;
        foreach (var (field, value, word) in new[] { ("inset", "2 mm", "Between"), ("arm", "90", "Between"), ("bleed", "50 mm", "Between"), ("margin", "30 mm", "prints nothing") })
        {
            var answer = await Do(id, "print-pages", "print", ("stock", stock), ("marks", "true"), (field, value));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains(word, Site.RefusedBy(answer)!.Value.Word, StringComparison.OrdinalIgnoreCase);
        }
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Do(id, "print-ground", fields: ("fill", "url(#x)"))).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Do(id, "print-border", fields: [("inset", "3"), ("width", "0.8"), ("colour", "red\"/>")])).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Do(id, "print-pages", "print", ("stock", "no-such"), ("marks", "true"))).StatusCode);
        Assert.Equal(before, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task A_file_keeps_how_its_lines_were_painted_and_prints_them_so()
    {
        var id = await site.WithArtAsync("Painted", "painted.svg", """
            <svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">
              <rect x="5" y="5" width="90" height="50" fill="#EBE2CB"/>
              <g id="print-art"><path d="M20 30H80" fill="none" stroke="#A6462F" stroke-width="2.5" stroke-dasharray="4 2" stroke-linecap="round"/>
              <path d="M20 10H40V25H20Z M25 13H35V22H25Z" fill="#2E5A7A" fill-rule="evenodd"/></g>
            </svg>
            """);
        var layers = PrintedArt.On((await site.ProjectAsync(id)).Value.Design.Pieces[0]);
        var stroke = Assert.Single(layers.OfType<StrokeLayer>());
        Assert.Equal(("#A6462F", 2.5, true, 10), (stroke.Colour, Math.Round(stroke.WidthMm, 9), stroke.RoundEnds, stroke.Strokes.Length));
        var fill = Assert.Single(layers.OfType<FillLayer>());
        Assert.Equal(("#2E5A7A", true, 2), (fill.Colour, fill.EvenOdd, fill.Rings.Length));
        // The drawing is made larger, and so is its stroke.
        await Done(id, "scale", fields: ("percent", "200"));
        Assert.Equal(5, Assert.Single(PrintedArt.On((await site.ProjectAsync(id)).Value.Design.Pieces[0]).OfType<StrokeLayer>()).WidthMm, 1e-6);
    }
}
