using System.Collections.Immutable;
using System.Globalization;
using System.Net;
using System.Text;
using CsCheck;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Tests;
using Falzkunst.Web.Pages.Project;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Tests;

/// <summary>What is picked, as it travels: lines of several pieces, kinds of thousands of lines.</summary>
public sealed class PicksTests(Site site) : IClassFixture<Site>
{
    private static Line Cut(double x, double y) => new("", Path.Rectangle(x, y, 1, 1), Operation.Cut, new Look("#AA0000", null, false, true, null), null, null);
    private static Line Fold(double x) => new("", Path.Polyline([new(x, 2), new(x, 8)], closed: false), Operation.Score, new Look("#0000AA", null, false, false, null), null, null);

    private static readonly Design Random = new(
        [.. Enumerable.Range(1, 3).Select(p => Piece.FromLines($"p{p}", $"Piece {p}", "chalk-200", Affine.Identity,
            [Cut(0, 0) with { Path = Path.Rectangle(0, 0, 200, 10) }, .. Enumerable.Range(0, 40).Select(i => i % 3 == 0 ? Fold(i * 4) : Cut(i * 4, 3))]))], [], [], 4);

    [Fact]
    public void Any_pick_is_the_same_after_it_was_written_and_read()
    {
        var lines = Gen.Select(Gen.Int[0, 2], Gen.Bool.Array[41]).Array[1, 3];
        lines.ForAll(chosen =>
        {
            var picked = Picked.OfLines([.. chosen.DistinctBy(c => c.Item1).OrderBy(c => c.Item1)
                .Select(c => new PickedLines($"p{c.Item1 + 1}", [.. Random.Pieces[c.Item1].Lines.Where((_, i) => c.Item2[i]).Select(l => l.Id)])).Where(l => !l.Ids.IsEmpty)]).In(Random);
            Assert.Equal(Flat(picked), Flat(PickedKey.Read(PickedKey.Write(picked, Random), Random)));
        });
        Gen.Int[1, 3].Array[1, 3].ForAll(pieces =>
        {
            var picked = Picked.OfPieces([.. pieces.Distinct().Select(p => $"p{p}")]);
            Assert.Equal(picked.Pieces, PickedKey.Read(PickedKey.Write(picked, Random), Random).Pieces);
        });
    }

    private static string[] Flat(Picked picked) => [.. picked.Lines.SelectMany(l => l.Ids.Select(id => $"{l.Piece}/{id}")).Order()];

    [Fact]
    public void A_whole_kind_is_said_in_a_few_letters()
    {
        var kind = LineKind.OnPiece(Random.Pieces[0]).MaxBy(k => k.Lines.Length)!;
        var key = PickedKey.Write(Picked.OfLines([new("p1", kind.Lines)]), Random);
        Assert.True(key.Length < 20, key);
        Assert.Equal(kind.Lines.Order(), PickedKey.Read(key, Random).Lines[0].Ids.Order());
    }

    [Theory]
    [InlineData("p1:l9~l2")]
    [InlineData("p1:@nothing")]
    [InlineData("p9:l1")]
    [InlineData("p1:")]
    [InlineData(";;;:::,,,~~~@")]
    [InlineData("p1:l1~l2~l3")]
    public void A_key_that_names_nothing_picks_nothing(string key) => Assert.True(PickedKey.Read(key, Random).IsEmpty);

    /// <summary>A sheet of two plates, each with thousands of small circles of one look.</summary>
    private static byte[] Sieves(int each)
    {
        var svg = new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"420mm\" height=\"200mm\" viewBox=\"0 0 420 200\" fill=\"none\" stroke=\"#222222\" stroke-width=\".1\">");
        for (var plate = 0; plate < 2; plate++)
        {
            svg.Append(CultureInfo.InvariantCulture, $"<rect x=\"{5 + plate * 205}\" y=\"5\" width=\"200\" height=\"190\"/>");
            for (var i = 0; i < each; i++) svg.Append(CultureInfo.InvariantCulture, $"<circle cx=\"{8 + plate * 205 + i % 75 * 2.6:0.##}\" cy=\"{8 + i / 75 * 2.6:0.##}\" r=\".9\" stroke=\"#B03060\"/>");
        }
        return Encoding.UTF8.GetBytes(svg.Append("</svg>").ToString());
    }

    [Fact]
    public async Task Five_thousand_lines_on_two_pieces_get_an_operation_in_one_request()
    {
        var id = await site.BeginAsync("Sieves");
        Assert.Equal(HttpStatusCode.OK, (await site.UploadAsync($"/projects/{id}/art?handler=BringIn", "sieves.svg", Sieves(2500), 1)).StatusCode);
        var before = (await site.ProjectAsync(id)).Value.Design;
        Assert.Equal(2, before.Pieces.Length);
        // Every line by its id, as a crafter might pick them: far more than an address or a form of one field each would take.
        var each = string.Join(';', before.Pieces.Select(p => $"{p.Id}:{string.Join(',', p.Lines.Skip(1).Select(l => l.Id))}"));
        Assert.True(each.Length > 25_000);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "operation", new() { ["operation"] = "Draw" }, each, 2)).StatusCode);
        var drawn = (await site.ProjectAsync(id)).Value.Design.Pieces;
        Assert.Equal(5000, drawn.Sum(p => p.Lines.Count(l => l.Operation == Operation.Draw)));
        // Paper is where it was an opening.
        Assert.All(drawn, p => Assert.Equal(200 * 190, p.Area, 3));
        // The answer says the pick in short, and that key means the same lines.
        var kinds = PickedKey.Write(PickedKey.Read(each, (await site.ProjectAsync(id)).Value.Design), (await site.ProjectAsync(id)).Value.Design);
        Assert.True(kinds.Length < 60, kinds);
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "tip", new() { ["width"] = "0.7" }, kinds, 3)).StatusCode);
        Assert.Equal(5000, (await site.ProjectAsync(id)).Value.Design.Pieces.Sum(p => p.Lines.Count(l => l.TipMm == 0.7)));
    }

    [Fact]
    public async Task One_setting_changed_changes_one_setting_of_each_line()
    {
        var id = await site.WithArtAsync("Settings", "art.svg", """<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40" fill="none" stroke="#123456"><rect width="60" height="40"/><path d="M10 5v30"/><path d="M30 5v30"/></svg>""");
        var head = 2;
        async Task Do(string action, string picked, params (string Name, string Value)[] fields)
        {
            Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, action, fields.ToDictionary(f => f.Name, f => f.Value), picked, head++)).StatusCode);
        }
        await Do("operation", "p1:l2,l3", ("operation", "Draw"));
        await Do("settings", "p1:l2", ("force", "90"), ("speed", "33"));
        await Do("settings", "p1:l3", ("times", "3"));
        await Do("tip", "p1:l2", ("width", "0.9"));
        // One number for both; all the others stay as each line has them, or the stock's.
        await Do("settings", "p1:l2,l3", ("speed", "55"));
        var lines = (await site.ProjectAsync(id)).Value.Design.Pieces[0].Lines;
        Assert.Equal(new ToolSettingsChange(90, 55, null, null, null), lines[1].EffectiveSettings.Tool);
        Assert.Equal(new ToolSettingsChange(null, 55, null, null, 3), lines[2].EffectiveSettings.Tool);
        Assert.Equal(0.9, lines[1].TipMm);
        Assert.Null(lines[2].EffectiveSettings.TipMm);
        // The same by command.
        await site.PostAsync($"/projects/{id}/pieces?handler=Command", new() { ["text"] = "settings force 70" }, head++, picked: "p1:l3");
        Assert.Equal(new ToolSettingsChange(70, 55, null, null, 3), (await site.ProjectAsync(id)).Value.Design.Pieces[0].Lines[2].EffectiveSettings.Tool);
        // A fill's angle alone neither pins its distance nor changes its pattern.
        await Do("operation", "p1:l1", ("operation", "Draw"));
        await Do("fill", "p1:l1", ("pattern", "Crossed"));
        await Do("fill", "p1:l1", ("angle", "30"));
        Assert.Equal(new AreaFill(FillPattern.Crossed, null, 30), (await site.ProjectAsync(id)).Value.Design.Pieces[0].Lines[0].EffectiveSettings.Fill);
    }

    [Fact]
    public async Task A_value_that_is_no_choice_is_refused_beside_its_field_and_stored_nowhere()
    {
        var id = await site.BeginAsync("Garbage");
        foreach (var fold in new[] { "garbage", "99", "-1" })
        {
            var refused = await site.PostAsync($"/projects/{id}/set-out?handler=Card", new() { ["width"] = "105", ["height"] = "148", ["fold"] = fold }, 1);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
            Assert.Equal("fold", Site.RefusedBy(refused)?.Field);
        }
        Assert.Equal(1, (await site.ProjectAsync(id)).Head);
    }

    [Fact]
    public async Task Quantity_0_leaves_a_piece_out_and_it_comes_back()
    {
        var id = await site.WithArtAsync("Left out", "art.svg", """<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="40mm" viewBox="0 0 90 40" fill="none" stroke="#654321"><rect width="40" height="40"/><rect x="50" width="40" height="40"/></svg>""");
        Assert.Equal(HttpStatusCode.OK, (await site.DoAsync(id, "quantity", new() { ["quantity"] = "0" }, "p1", 2)).StatusCode);
        Assert.Contains("left out", await site.Browser.GetStringAsync($"/projects/{id}/pieces", TestContext.Current.CancellationToken), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await site.PostAsync($"/projects/{id}/sheets?handler=Place", new() { ["spacing"] = "2" }, 3)).StatusCode);
        var laid = (await site.ProjectAsync(id)).Value;
        Assert.Equal(["p2"], laid.Sheets!.Sheets.SelectMany(s => s.Placements).Select(p => p.Piece).Distinct());
        Assert.True(laid.SheetsAreCurrent);
        await site.DoAsync(id, "quantity", new() { ["quantity"] = "2" }, "p1", 4);
        Assert.False((await site.ProjectAsync(id)).Value.SheetsAreCurrent);
    }
}
