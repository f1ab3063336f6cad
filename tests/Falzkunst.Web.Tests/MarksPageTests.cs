using System.Net;
using System.Text.RegularExpressions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Printing;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Core.Running;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Runs;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Desk;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>Marks found in a run, read on a scan, and the machine measured, as a browser asks.</summary>
public sealed partial class MarksPageTests(Site site) : IClassFixture<Site>
{
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private const string Art = """<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><rect x="5" y="5" width="90" height="50" fill="#EBE2CB"/></svg>""";

    [GeneratedRegex("\"run\": ?\"([0-9a-f-]{36})\"")]
    private static partial Regex RunId();

    /// <summary>A printed ticket on a page with marks.</summary>
    private async Task<(Guid Id, string Stock)> PrintedAsync(string name)
    {
        var id = await site.WithArtAsync(name, "ticket.svg", Art);
        await Done(id, "print-ground", ("fill", "#e6d9b8"));
        var stock = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Stock;
        await Done(id, "print-pages", ("stock", stock), ("marks", "true"));
        return (id, stock);
    }

    private async Task Done(Guid id, string action, params (string, string)[] fields)
    {
        var answer = await site.DoAsync(id, action, fields.ToDictionary(f => f.Item1, f => f.Item2), "p1", (await site.ProjectAsync(id)).Head, action == "print-ground" ? "pieces" : "print");
        Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{action}: {answer.StatusCode} {await Text(answer)}");
    }

    private static async Task<string> Text(HttpResponseMessage answer) => WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync(Stop));

    private async Task<OpenRun> RunAsync(Guid run)
    {
        await using var services = site.Database.Restarted();
        return (await services.GetRequiredService<RunStore>().OpenAsync(WorkshopRow.OnlyOne, run, Stop))!;
    }

    private async Task<(HttpStatusCode Code, string Text)> Post(Guid id, string station, string handler, params (string, string)[] fields)
    {
        var answer = await site.SendAsync($"/projects/{id}/{station}?handler={handler}", new FormUrlEncodedContent(fields.Select(f => KeyValuePair.Create(f.Item1, f.Item2))), (await site.ProjectAsync(id)).Head, withToken: true);
        return (answer.StatusCode, await Text(answer));
    }

    private async Task<(HttpStatusCode Code, string Text)> Upload(Guid id, string handler, byte[] file, params (string, string)[] fields)
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(file), "scan", "scan.png" } };
        foreach (var (name, value) in fields) form.Add(new StringContent(value), name);
        var answer = await site.SendAsync($"/projects/{id}/print?handler={handler}", form, (await site.ProjectAsync(id)).Head, withToken: true);
        return (answer.StatusCode, await Text(answer));
    }

    [Fact]
    public async Task A_run_waits_for_its_marks_is_refused_laid_anew_and_goes_on()
    {
        var (id, _) = await PrintedAsync("Marks in a run");
        var sheet = (await site.ProjectAsync(id)).Value.Sheets!.Sheets[0].Id;
        var (_, begun) = await Post(id, "run", "Begin", ("sheet", sheet));
        var run = Guid.Parse(RunId().Match(begun).Groups[1].Value);
        async Task<(string, string)> Seen() => ("seen", $"{(await RunAsync(run)).LastEvent}");
        await Post(id, "run", "Confirm", ("run", $"{run}"), await Seen());
        Assert.Equal(StopKind.Marks, ((Stop)(await RunAsync(run)).Plan.Steps[1]).Kind);
        var (code, text) = await Post(id, "run", "Confirm", ("run", $"{run}"), await Seen());
        Assert.Equal(HttpStatusCode.UnprocessableEntity, code);
        Assert.Contains("not found yet", text, StringComparison.Ordinal);
        // Nothing was looked at, so that nobody can show anything.
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "run", "ByHand", ("run", $"{run}"), await Seen(), ("x", "1"), ("y", "1"))).Code);

        (code, text) = await Post(id, "run", "Find", ("run", $"{run}"), await Seen(), ("trouble", "Crumb"));
        Assert.Equal(HttpStatusCode.OK, code);
        Assert.Contains("is covered", text, StringComparison.Ordinal);
        var image = await site.Browser.GetAsync($"/projects/{id}/run?handler=Mark&run={run}&corner=TopLeft", Stop);
        Assert.Equal("image/png", image.Content.Headers.ContentType!.MediaType);
        Assert.Equal(HttpStatusCode.NotFound, (await site.Browser.GetAsync($"/projects/{id}/run?handler=Mark&run={run}&corner=BottomRight", Stop)).StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "run", "Find", ("run", $"{run}"), ("seen", "1"), ("anew", "true"))).Code);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "run", "ByHand", ("run", $"{run}"), await Seen(), ("x", "NaN"), ("y", "4"))).Code);

        // Files for other machines are as laid out until the marks are read, and corrected by them from then on.
        async Task<(string Name, string Svg)> FileAsync()
        {
            var file = await site.Browser.GetAsync($"/projects/{id}/sheets?handler=File&sheet={sheet}&format=svg&back=false", Stop);
            return (file.Content.Headers.ContentDisposition!.FileNameStar!, await file.Content.ReadAsStringAsync(Stop));
        }
        var asLaid = await FileAsync();
        Assert.DoesNotContain("corrected", asLaid.Name, StringComparison.Ordinal);

        (_, text) = await Post(id, "run", "Find", ("run", $"{run}"), await Seen(), ("anew", "true"));
        Assert.Contains("Cut along the print", text, StringComparison.Ordinal);
        Assert.Contains("never measured", text, StringComparison.Ordinal);
        await site.RestartAsync();
        var corrected = await FileAsync();
        Assert.Contains("-corrected", corrected.Name, StringComparison.Ordinal);
        Assert.NotEqual(asLaid.Svg, corrected.Svg);
        Assert.Contains("corrected", await Text(await site.Browser.GetAsync($"/projects/{id}/sheets?handler=Files&sheet={sheet}", Stop)), StringComparison.Ordinal);
        var reading = (await RunAsync(run)).State.Readings[^1];
        Assert.Equal((2, 1, true), (reading.Laid, reading.Looked, reading.Lies is not null));
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "run", "Confirm", ("run", $"{run}"), await Seen())).Code);
        // A short cut may be through by now.
        Assert.True((await RunAsync(run)).State.Step >= 2);
        await Post(id, "run", "Stop", ("run", $"{run}"));
    }

    [Fact]
    public async Task Both_sides_have_their_marks_found_one_after_the_other_and_are_compared()
    {
        const string Embossed = """<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><rect x="5" y="5" width="90" height="50" fill="#EBE2CB"/><path d="M20 30H45" stroke="#20A070" fill="none"/></svg>""";
        var id = await site.WithArtAsync("Both sides", "ticket.svg", Embossed);
        var piece = (await site.ProjectAsync(id)).Value.Design.Pieces[0];
        var line = $"p1:{piece.Items.OfType<Core.Designs.Line>().First(l => !l.Path.IsClosed).Id}";
        foreach (var (action, picked, fields) in new (string, string, Dictionary<string, string>)[]
        {
            ("print-ground", "p1", new() { ["fill"] = "#e6d9b8" }), ("print-ground", "p1", new() { ["fill"] = "#7a98a8", ["onBack"] = "true" }),
            ("operation", line, new() { ["operation"] = "Emboss" }), ("from-back", line, new() { ["on"] = "true" }),
        })
        {
            var answer = await site.DoAsync(id, action, fields, picked, (await site.ProjectAsync(id)).Head);
            Assert.True(answer.StatusCode == HttpStatusCode.OK, $"{action}: {await Text(answer)}");
        }
        await Done(id, "print-pages", ("stock", piece.Stock), ("marks", "true"), ("flip", "upright"));
        var (_, begun) = await Post(id, "run", "Begin", ("sheet", (await site.ProjectAsync(id)).Value.Sheets!.Sheets[0].Id));
        var run = Guid.Parse(RunId().Match(begun).Groups[1].Value);
        var readings = new List<PageReading>();
        var text = begun;
        for (var i = 0; i < 40 && readings.Count < 2; i++)
        {
            var now = await RunAsync(run);
            (string, string)[] fields = [("run", $"{run}"), ("seen", $"{now.LastEvent}")];
            if (now.Plan.Steps[now.State.Step] is Stop { Kind: StopKind.Marks } && now.State.ReadingAt(now.State.Step) is null)
            {
                (_, text) = await Post(id, "run", "Find", [.. fields, ("trouble", "Nothing")]);
                readings.Add((await RunAsync(run)).State.Readings[^1]);
            }
            else if (now.Plan.Steps[now.State.Step] is Stop)
            {
                await Post(id, "run", "Confirm", [.. fields, ("anyway", "true")]);
            }
            else
            {
                await Post(id, "run", "Speed", ("run", $"{run}"), ("speed", "400"));
                await Task.Delay(200, Stop);
            }
        }
        Assert.Equal(2, readings.Count);
        Assert.All(readings, r => Assert.NotNull(r.Lies));
        // Each lies as it was laid; what is said of both is what laying does not make.
        Assert.NotEqual(PageFaults.Of(readings[0].Lies!.Value).TurnDegrees, PageFaults.Of(readings[1].Lies!.Value).TurnDegrees, 0.01);
        Assert.Matches("front and back differ by 0\\.[0-6]\\d mm", text);
        await Post(id, "run", "Stop", ("run", $"{run}"));
    }

    [Fact]
    public async Task A_scan_of_the_page_is_read_and_kept_and_another_is_refused_with_its_place()
    {
        var (id, stock) = await PrintedAsync("Own scan");
        var project = await site.ProjectAsync(id);
        var (sheet, how) = (project.Value.Sheets!.Sheets[0], project.Value.SetOut.Printing[stock]);
        var layout = MarkLayout.Of(how.Marks!, PrintPages.FrameOf(sheet, how.Marks!), sheet.Width, sheet.Height);
        byte[] Scan(MarkLayout printed)
        {
            const double Dots = 6;
            var map = Affine.Scale(0.996, 1.002).Then(Affine.Turn(0.7)).Then(Affine.Move(6, 3)).Then(Affine.Scale(Dots, Dots));
            return MarksDesk.Whole(PageScan.Take(printed, [], new ScanFaults((int)((sheet.Width + 12) * Dots), (int)((sheet.Height + 12) * Dots), Projection.From(map), 3)));
        }
        var (code, text) = await Upload(id, "Read", Scan(layout), ("taker", "Either"));
        Assert.True(code == HttpStatusCode.OK, text);
        Assert.Contains("Last reading", text, StringComparison.Ordinal);
        var reading = (await site.ProjectAsync(id)).Value.Sheets!.Sheets[0].Reading!;
        // Without a resolution the scale is that of the mean: what tells is how both differ.
        Assert.Equal(0.996 / 1.002, reading.ScaleX / reading.ScaleY, 0.0003);
        Assert.Equal(Calibration.UnknownMm, reading.RemainsMm, 0.1);
        Assert.InRange(reading.UnreadMm!.Value, 0.1, 0.6);
        var head = (await site.ProjectAsync(id)).Head;
        (_, text) = await Upload(id, "Read", Scan(layout with { Marks = layout.Marks.RemoveAt(1) }), ("taker", "Scanner"));
        Assert.Contains("upper right mark", text, StringComparison.Ordinal);
        Assert.Contains("data:image/png", text, StringComparison.Ordinal);
        foreach (var file in new[] { new byte[] { 1, 2, 3 }, [] })
        {
            (code, text) = await Upload(id, "Read", file);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, code);
        }
        Assert.Equal(head, (await site.ProjectAsync(id)).Head);
        // A page whose marks are drawn in is another page.
        await Done(id, "draw-marks", ("sheet", sheet.Id));
        Assert.Null((await site.ProjectAsync(id)).Value.Sheets!.Sheets[0].Reading);
    }

    [Fact]
    public async Task A_machine_is_measured_by_eye_and_by_scan_kept_and_taken_back()
    {
        var (id, _) = await PrintedAsync("Verniers");
        async Task<Machine> MachineAsync()
        {
            await using var services = site.Database.Restarted();
            return (await services.GetRequiredService<CatalogueStore>().DrawerAsync(WorkshopRow.OnlyOne, Stop)).Machine((await site.ProjectAsync(id)).Value.SetOut.Machine);
        }
        var (_, text) = await Post(id, "print", "Verniers");
        var seed = Regex.Match(text, "name=\"seed\" value=\"(\\d+)\"").Groups[1].Value;
        Assert.Equal(10, Regex.Count(text, "class=\"vernier\""));
        Assert.Equal("application/pdf", (await site.Browser.GetAsync($"/projects/{id}/print?handler=VernierPdf", Stop)).Content.Headers.ContentType!.MediaType);
        Assert.Equal(210, Regex.Count(await site.Browser.GetStringAsync($"/projects/{id}/print?handler=VernierCuts", Stop), "M[\\d.]+ [\\d.]+L"));
        var (code, told) = await Post(id, "print", "Calibrate", ("seed", seed), ("across", "40"), ("down", "1"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, code);
        Assert.Contains("from -10 to 10", told, StringComparison.Ordinal);
        (code, told) = await Post(id, "print", "Calibrate", ("seed", seed), ("across", "3"), ("down", ""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, code);
        Assert.Contains("middle verniers", told, StringComparison.Ordinal);
        Assert.Empty((await MachineAsync()).Calibrations);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "print", "Calibrate", ("seed", seed), ("across", "3"), ("down", "-2"))).Code);
        var scan = await (await site.Browser.GetAsync($"/projects/{id}/print?handler=VernierScan&seed=77", Stop)).Content.ReadAsByteArrayAsync(Stop);
        (code, told) = await Upload(id, "CalibrateScan", scan, ("seed", "77"));
        Assert.True(code == HttpStatusCode.OK, told);
        await site.RestartAsync();
        var machine = await MachineAsync();
        Assert.Equal(2, machine.Calibrations.Length);
        Assert.True(machine.Calibrations[0].UncertainMm < machine.Calibrations[1].UncertainMm);
        // What the scan measured while the first correction was on, and that together, is what the machine does.
        var work = new FindMarks("", MarkSettings.Usual, MarkSettings.Usual.Frame(215.9, 279.4), 215.9, 279.4, machine.Calibrations[0].Printer, 2, 1);
        var look = PageReader.Look(RunPlan.Empty, work, machine, 5, 1, 1, PracticeTrouble.Nothing);
        Assert.True(PageReader.TrulyApart(work, machine, look, 5)(new Point(108, 140)) < 0.08);
        Assert.Equal(HttpStatusCode.OK, (await Post(id, "print", "Uncalibrate")).Code);
        Assert.Single((await MachineAsync()).Calibrations);
        await Post(id, "print", "Uncalibrate");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Post(id, "print", "Uncalibrate")).Code);
    }

    [Fact]
    public async Task A_picture_without_the_squares_gives_no_scrap()
    {
        var answer = await site.SendAsync("/drawer/stocks/kraft-240?handler=Scrap", new MultipartFormDataContent { { new ByteArrayContent([1, 2, 3]), "scan", "scan.png" }, { new StringContent("letter"), "size" } }, null, withToken: true);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal("application/pdf", (await site.Browser.GetAsync("/drawer/stocks?handler=ScrapPage&size=A4", Stop)).Content.Headers.ContentType!.MediaType);
    }
}
