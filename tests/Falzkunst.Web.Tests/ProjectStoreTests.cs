using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;
using Falzkunst.Data;
using Falzkunst.Data.Json;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Tests;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Tests;

/// <summary>Projects in a real PostgreSQL.</summary>
public sealed class ProjectStoreTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Drawer Drawer = new(SeedCatalogue.Stocks, SeedCatalogue.Machines);
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private static readonly Gen<Piece> Pieces =
        from n in Gen.Int[1, 1_000_000]
        from w in Gen.Double[1, 300]
        from h in Gen.Double[1, 300]
        from x in Gen.Double
        from y in Gen.Double[-1e3, 1e3]
        from name in Gen.String[Gen.Char.AlphaNumeric, 1, 40]
        from turn in Gen.Double[0, 360]
        from quantity in Gen.Int[1, 5]
        let look = new Look("#00FF00", null, true, false, name)
        let curve = new Path(new Point(x, y), [Segment.Cubic(new(w, y), new(h, w), new(1 / w, h / 3))], false)
        let lines = Piece.FromLines($"p{n}", name, "kraft-240", Affine.Turn(turn).Then(Affine.Move(y, w)),
            [new Line("", Path.Rectangle(0, 0, w, h), Operation.Cut, look, null, null), new Line("", curve, Operation.Draw, look, "“ä” \u0001", "#123456")])
        select (lines with { Quantity = quantity }).Plus(
            new EdgeLine("", w / 20, Corners.Sharp, Operation.Foil, "#B98300") { Settings = new LineSettings { TipMm = 1 / w } },
            new TextItem("", "Höhen\nund “Tiefen”", "face", h / 3, Operation.Draw, "#7B4BA8", Affine.Turn(turn)) { LetterSpacing = 3, SizeLocked = true, BoxWidthMm = w, Along = new TextAlong(null, turn), Shaped = new ShapedText([new Glyph([Path.Rectangle(0, 0, 1 / w, h)])], [new ShapedParagraph([new ShapedGlyph(0, 0, w, 1 / h, x)], false), new ShapedParagraph([], true)], false, ["ß"]) },
            new PictureItem("", "ab12", 40, 30, Affine.Scale(1 / w, h), 4, 3), new PrintedFill("", "#EBE2CB"));

    private async Task<OpenProject> OpenAfterRestart(Guid id)
    {
        await using var services = database.Restarted();
        return (await services.GetRequiredService<ProjectStore>().OpenAsync(Owner, id, Stop))!;
    }

    [Fact]
    public async Task A_project_comes_back_bit_for_bit_after_a_restart()
    {
        var pieces = Pieces.Array[0, 8].Array[6].Fixed();
        foreach (var some in pieces)
        {
            var project = Project.Empty with { Design = new Design([.. some.DistinctBy(p => p.Id)], [], [new Finding("a", Severity.Major, null, null, new Point(1.1, 1 / 3.0)) { LengthsMm = [1 / 3.0] }], 99) };
            if (!project.Design.Pieces.IsEmpty) project = Edits.Apply(project, new PutOnSheets(1.5), Drawer);
            await using var services = database.Restarted();
            var id = await services.GetRequiredService<ProjectStore>().CreateAsync(Owner, "Round", project, Stop);
            Assert.Equal(ProjectText.Write(project), ProjectText.Write((await OpenAfterRestart(id)).Value));
        }
    }

    [Fact]
    public async Task Undo_and_redo_after_any_sequence_of_edits_give_every_former_project_bit_for_bit()
    {
        var sequences = Gen.Int[0, 4].Array[3, 14].Array[5].Fixed();
        foreach (var choices in sequences)
        {
            await using var services = database.Restarted();
            var store = services.GetRequiredService<ProjectStore>();
            var project = Project.Empty with { Design = new Design([.. Pieces.Array[3].Fixed().Select((p, i) => p with { Id = $"p{i}" })], [], [], 3) };
            var id = await store.CreateAsync(Owner, "Edits", project, Stop);
            var history = new List<Project> { project };
            var head = 1;
            foreach (var (choice, i) in choices.Select((c, i) => (c, i)))
            {
                Edit edit = choice switch
                {
                    0 => new SetOperation([new("p1", ["l2", "l3"])], OperationWords.Choices[i % 8]),
                    1 => new SetStock(["p0", "p2"], SeedCatalogue.Stocks[i % 6].Key),
                    2 => new SetQuantity("p1", 1 + i),
                    3 => new RenamePiece("p2", $"Name {i}"),
                    _ => new ChangeSetOut(history[^1].SetOut with { Cards = 1 + i }),
                };
                history.Add(Edits.Apply(history[^1], edit, Drawer));
                head = (await store.AppendAsync(Owner, id, head, edit, history[^1], Stop)).Head;
            }
            for (var i = history.Count - 2; i >= 0; i--)
            {
                head = await store.UndoAsync(Owner, id, head, Stop);
                Assert.Equal(ProjectText.Write(history[i]), ProjectText.Write((await OpenAfterRestart(id)).Value));
            }
            await Assert.ThrowsAsync<EditRefused>(() => store.UndoAsync(Owner, id, head, Stop));
            for (var i = 1; i < history.Count; i++) head = await store.RedoAsync(Owner, id, head, Stop);
            Assert.Equal(ProjectText.Write(history[^1]), ProjectText.Write((await OpenAfterRestart(id)).Value));
            await Assert.ThrowsAsync<EditRefused>(() => store.RedoAsync(Owner, id, head, Stop));
        }
    }

    [Fact]
    public async Task Of_many_edits_on_one_head_exactly_one_is_kept_and_the_others_are_told_why()
    {
        await using var setup = database.Restarted();
        var project = Project.Empty with { Design = new Design([Pieces.Single() with { Id = "p1" }], [], [], 2) };
        var id = await setup.GetRequiredService<ProjectStore>().CreateAsync(Owner, "Race", project, Stop);
        var tries = await Task.WhenAll(Enumerable.Range(1, 8).Select(async i =>
        {
            await using var services = database.Restarted();
            var edit = new SetQuantity("p1", i);
            try
            {
                return (await services.GetRequiredService<ProjectStore>().AppendAsync(Owner, id, 1, edit, Edits.Apply(project, edit, Drawer), Stop)).Head;
            }
            catch (StaleEdit stale)
            {
                Assert.StartsWith("Set a quantity to", stale.WhatChanged, StringComparison.Ordinal);
                return -1;
            }
        }));
        Assert.Equal(2, Assert.Single(tries, t => t > 0));
        Assert.Equal(2, (await OpenAfterRestart(id)).Head);
    }

    [Fact]
    public async Task An_edit_after_undo_starts_there_and_the_left_branch_stays()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var id = await store.CreateAsync(Owner, "Branch", Project.Empty, Stop);
        Project Cards(int n) => Project.Empty with { SetOut = SetOut.Default with { Cards = n } };
        await store.AppendAsync(Owner, id, 1, new ChangeSetOut(Cards(2).SetOut), Cards(2), Stop);
        await store.UndoAsync(Owner, id, 2, Stop);
        Assert.Equal(3, (await store.AppendAsync(Owner, id, 1, new ChangeSetOut(Cards(3).SetOut), Cards(3), Stop)).Head);
        Assert.Equal(3, (await store.OpenAsync(Owner, id, Stop))!.Value.SetOut.Cards);
        Assert.Equal(2, (await store.RevisionAsync(Owner, id, 2, Stop))!.SetOut.Cards);
    }

    [Fact]
    public async Task A_shape_that_many_revisions_share_is_stored_once()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var db = services.GetRequiredService<FalzkunstDb>();
        var piece = Pieces.Single() with { Id = "p1" };
        var project = Project.Empty with { Design = new Design([piece], [], [], 2) };
        var id = await store.CreateAsync(Owner, "Once", project, Stop);
        var before = await db.Parts.CountAsync(Stop);
        await store.AppendAsync(Owner, id, 1, new RenamePiece("p1", "Other"), Edits.Apply(project, new RenamePiece("p1", "Other"), Drawer), Stop);
        Assert.Equal(before + 1, await db.Parts.CountAsync(Stop)); // the design alone
    }

    [Fact]
    public async Task Another_owner_sees_nothing()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var id = await store.CreateAsync(Owner, "Mine", Project.Empty, Stop);
        Assert.Null(await store.OpenAsync(Guid.NewGuid(), id, Stop));
        Assert.Null(await store.RevisionAsync(Guid.NewGuid(), id, 1, Stop));
        await Assert.ThrowsAsync<EditRefused>(() => store.UndoAsync(Guid.NewGuid(), id, 1, Stop));
    }

    [Fact]
    public async Task The_drawer_comes_back_as_it_was_seeded()
    {
        await using var services = database.Restarted();
        var drawer = await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop);
        Assert.Equal(System.Text.Encoding.UTF8.GetString(DrawerJson.Write(SeedCatalogue.Drawer)), System.Text.Encoding.UTF8.GetString(DrawerJson.Write(drawer)));
    }

    [Fact]
    public async Task A_rule_for_the_same_look_replaces_the_former_and_rules_keep_their_order()
    {
        await using var services = database.Restarted();
        var rules = services.GetRequiredService<Data.Workshop.LookRuleStore>();
        var look = new Look("#0000FF", null, true, false, null);
        await rules.RememberAsync(Owner, LookRule.Typical(look, Operation.Score)!, null, Stop);
        await rules.RememberAsync(Owner, LookRule.Typical(look with { Stroke = "#FF0000" }, Operation.Cut)!, "Atelier Nord", Stop);
        await rules.RememberAsync(Owner, LookRule.Typical(look, Operation.Perforate)!, null, Stop);
        var all = await rules.ListAsync(Owner, Stop);
        Assert.Equal([Operation.Perforate, Operation.Cut], all.Select(r => r.Rule.Operation));
        Assert.Equal([true, false], all.Select(r => r.IsFor("another hand")));
        await rules.MoveAsync(Owner, all[1].Id, up: true, Stop);
        await rules.ChangeAsync(Owner, all[0].Id, LookRule.Typical(look, Operation.Score)! with { Fold = FoldDirection.Mountain }, null, Stop);
        var changed = await rules.ListAsync(Owner, Stop);
        Assert.Equal([Operation.Cut, Operation.Score], changed.Select(r => r.Rule.Operation));
        Assert.Equal(FoldDirection.Mountain, changed[1].Rule.Fold);
        foreach (var r in all) await rules.ForgetAsync(Owner, r.Id, Stop);
        Assert.Empty(await rules.ListAsync(Owner, Stop));
    }
}
