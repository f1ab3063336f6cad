using System.Collections.Immutable;
using System.Text;
using CsCheck;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Falzkunst.Data.Json;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Runs;
using Falzkunst.Data.Workshop;
using Falzkunst.Tests;
using Microsoft.Extensions.DependencyInjection;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Tests;

/// <summary>Stocks, machines and tools changed on a real PostgreSQL: by two at once, taken back, counted, carried in files.</summary>
public sealed class DrawerStoreTests(TestDatabase database) : IClassFixture<TestDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private async Task<T> Afresh<T>(Func<IServiceProvider, Task<T>> act)
    {
        await using var services = database.Restarted();
        return await act(services);
    }

    private Task<Drawer> DrawerAsync() => Afresh(s => s.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop));

    private async Task<Stock> StockAsync(string key) => (await DrawerAsync()).Stock(key);

    private async Task PutAsync(string sentence, params IDrawerThing[] things)
    {
        await using var services = database.Restarted();
        await services.GetRequiredService<DrawerStore>().PutAsync(Owner, sentence, things, Stop);
    }

    private Task<DrawerChange> UndoAsync() => Afresh(s => s.GetRequiredService<DrawerStore>().UndoAsync(Owner, Stop));

    private Task<DrawerChange> RedoAsync() => Afresh(s => s.GetRequiredService<DrawerStore>().RedoAsync(Owner, Stop));

    /// <summary>What a thing says of itself, its version aside.</summary>
    private static string Told(Stock stock) => Encoding.UTF8.GetString(DrawerJson.Write(new Drawer([stock], [])));

    private static Stock New(string key, string name) => SeedCatalogue.Stocks[0] with
    {
        Key = key,
        Name = name,
        Sheets = [SheetSizes.Named("Letter")! with { Count = 7 }],
        Offcuts = [new("Strip", OffcutShapes.Rectangle(200, 60), []), new("Corner", OffcutShapes.Angle(150, 120, 60, 40), [Path.Rectangle(20, 20, 10, 10)])],
        Pattern = StockPattern.Dots,
        Direction = StockDirection.Down,
        Suits = [Tool.Blade, Tool.Pen],
        TakesPrint = true,
        IsFavourite = true,
        OtherSets = [new("thick", [new(Tool.Blade, 260, 40, BladeOutMm: 0.5, Times: 2)], ImmutableSortedDictionary<Tool, SettingNote>.Empty.Add(Tool.Blade, new("typed here", DateTimeOffset.UnixEpoch)))],
    };

    [Fact]
    public async Task What_is_put_into_the_drawer_is_there_after_a_restart_with_all_it_says()
    {
        var stock = New("birch-300", "Birch 300");
        await PutAsync("Added Birch 300", stock);
        var kept = await StockAsync("birch-300");
        Assert.Equal(Told(stock), Told(kept));
        Assert.Equal(1, kept.Version);
        var machine = SeedCatalogue.Machines[1] with { Key = "twin-one", Name = "Twin, one holder", Holders = [new("only", [Tool.Pen, Tool.Blade])], OtherMats = [new("long", 330, 610)], Files = [new(MachineFormat.Hpgl, 100, FileOrigin.UpperLeft)] };
        var pen = new CraftTool("pen-sea", CraftToolKind.Pen, "Sea blue", "#1F5F8B", 0.3);
        await PutAsync("Added a machine and a pen", machine, pen);
        var drawer = await DrawerAsync();
        Assert.Equal(Encoding.UTF8.GetString(DrawerJson.Write(new Drawer([], [machine]))), Encoding.UTF8.GetString(DrawerJson.Write(new Drawer([], [drawer.Machine("twin-one")]))));
        Assert.Equal(pen with { Version = 1 }, drawer.Tools.Single(t => t.Key == "pen-sea"));
        var used = kept.Using("thick");
        await PutAsync("Thick work", used);
        Assert.Equal(260, (await StockAsync("birch-300")).SettingsFor(Tool.Blade).ForceGrams);
        Assert.Equal("usual", Assert.Single((await StockAsync("birch-300")).OtherSets).Name);
    }

    [Fact]
    public async Task Of_two_windows_on_one_stock_the_second_is_told_and_nothing_is_lost()
    {
        var seen = await StockAsync("mist-160");
        await PutAsync("Mist is 0.22 mm", seen with { ThicknessMm = 0.22 });
        var told = await Assert.ThrowsAsync<ThingChanged>(() => PutAsync("Mist is blue", seen with { Colour = "#0000FF" }));
        Assert.Equal(("Mist 160", "Mist is 0.22 mm"), (told.Name, told.WhatChanged));
        var now = await StockAsync("mist-160");
        Assert.Equal((0.22, seen.Colour, seen.Version + 1), (now.ThicknessMm, now.Colour, now.Version));
        // Six at the same moment: one of them is done.
        var done = await Task.WhenAll(Enumerable.Range(0, 6).Select(async i =>
        {
            try
            {
                await PutAsync($"Hand {i}", now with { Kind = $"hand {i}" });
                return 1;
            }
            catch (ThingChanged)
            {
                return 0;
            }
        }));
        Assert.Equal(1, done.Sum());
        Assert.Equal(now.Version + 1, (await StockAsync("mist-160")).Version);
        // A new thing never takes the place of one that is there.
        await Assert.ThrowsAsync<ThingChanged>(() => PutAsync("Mist anew", New("mist-160", "Mist anew")));
        Assert.Equal(Reason.NameTaken, (await Assert.ThrowsAsync<EditRefused>(() => PutAsync("Mist twice", New("mist-2", "mist 160")))).Reason);
    }

    [Fact]
    public async Task Changes_are_taken_back_and_done_again_and_other_parts_stay_as_they_are()
    {
        // What was taken back before something new was done is not done again by taking back that as well.
        await PutAsync("Kraft is paler", (await StockAsync("kraft-240")) with { Colour = "#C8B08A" });
        await UndoAsync();
        var first = await StockAsync("kraft-240");
        await PutAsync("Kraft is called Board", first with { Name = "Board 240" });
        await PutAsync("Board is heavier", (await StockAsync("kraft-240")) with { GramsPerSquareMetre = 250 });
        Assert.Equal("Board is heavier", (await UndoAsync()).Sentence);
        Assert.Equal("Kraft is called Board", (await UndoAsync()).Sentence);
        Assert.Equal(Told(first), Told(await StockAsync("kraft-240")));
        Assert.Equal("Kraft is called Board", (await RedoAsync()).Sentence);
        Assert.Equal("Board is heavier", (await RedoAsync()).Sentence);
        Assert.Equal(("Board 240", 250), ((await StockAsync("kraft-240")).Name, (await StockAsync("kraft-240")).GramsPerSquareMetre));
        await Assert.ThrowsAsync<NothingInDrawer>(RedoAsync);
        await UndoAsync();
        await PutAsync("Board is a favourite", (await StockAsync("kraft-240")) with { IsFavourite = true });
        // What was taken back before something new was done stays so.
        await Assert.ThrowsAsync<NothingInDrawer>(RedoAsync);
        var told = await Afresh(s => s.GetRequiredService<DrawerStore>().ChangesAsync(Owner, 3, Stop));
        Assert.Equal(["Board is a favourite", "Board is heavier", "Kraft is called Board"], told.Select(c => c.Sentence));
        Assert.Equal([false, true, false], told.Select(c => c.UndoneAt is not null));
        // New things are put away when they are taken back: a project may have them.
        await PutAsync("Added Ash", New("ash-200", "Ash 200"));
        await UndoAsync();
        Assert.True((await StockAsync("ash-200")).IsPutAway);
        Assert.DoesNotContain("ash-200", (await DrawerAsync()).Offered.Select(s => s.Key));
        await RedoAsync();
        Assert.False((await StockAsync("ash-200")).IsPutAway);
    }

    [Fact]
    public async Task Undo_leaves_a_rest_that_was_kept_meanwhile_and_refuses_where_the_same_part_is_another()
    {
        var before = await StockAsync("slate-220");
        await PutAsync("Slate bears less", before with { NarrowestMm = 1.1 });
        await KeepRestAsync("slate-220");
        Assert.Single((await StockAsync("slate-220")).Offcuts);
        await UndoAsync();
        Assert.Equal((before.NarrowestMm, 1), ((await StockAsync("slate-220")).NarrowestMm, (await StockAsync("slate-220")).Offcuts.Length));
        // A strip added, then a rest kept beside it: taken back, the strip alone goes.
        var now = await StockAsync("chalk-200");
        await PutAsync("A strip", now with { Offcuts = now.Offcuts.Add(new("Strip", OffcutShapes.Rectangle(100, 50), [])) });
        await KeepRestAsync("chalk-200");
        await UndoAsync();
        Assert.Equal("Rest 1", Assert.Single((await StockAsync("chalk-200")).Offcuts).Name);
        // Two changes of one number cannot both be taken back.
        var ember = await StockAsync("ember-220");
        await PutAsync("Ember is heavier", ember with { GramsPerSquareMetre = 260 });
        await database.BreakAsync("update stocks set grams_per_square_metre = 270 where key = 'ember-220'");
        await database.BreakAsync("update workshops set drawer_version = drawer_version + 1");
        await Assert.ThrowsAsync<ThingChanged>(UndoAsync);
        await PutAsync("Ember is as it was", (await StockAsync("ember-220")) with { GramsPerSquareMetre = ember.GramsPerSquareMetre });
    }

    [Fact]
    public async Task The_oldest_changes_are_forgotten_and_what_they_made_stays()
    {
        await PutAsync("Ash", New("ash-90", "Ash 90"));
        await database.BreakAsync($"update drawer_changes set number = number + {DrawerStore.MostChanges + 100} where sentence = 'Ash'");
        await Afresh(s => s.GetRequiredService<DrawerStore>().ForgetOldChangesAsync(Stop));
        Assert.Equal("Ash", Assert.Single(await Afresh(s => s.GetRequiredService<DrawerStore>().ChangesAsync(Owner, 10, Stop))).Sentence);
        Assert.Equal("Ash 90", (await StockAsync("ash-90")).Name);
    }

    [Fact]
    public async Task Sheets_that_were_used_meanwhile_do_not_stand_in_the_way_of_an_undo()
    {
        var before = await StockAsync("mist-160");
        var first = before.Sheets[0];
        await PutAsync("Bought ten more", before with { Sheets = before.Sheets.SetItem(0, first with { Count = first.Count + 10 }) });
        // A run takes one: the count goes by one, and is the drawer's own no more.
        await database.BreakAsync($"update stock_sheets set count = count - 1 where stock_key = 'mist-160' and name = '{first.Name}'");
        await database.BreakAsync("update workshops set drawer_version = drawer_version + 1");
        await UndoAsync();
        Assert.Equal(Math.Max(0, first.Count - 1), (await StockAsync("mist-160")).Sheets[0].Count);
    }

    [Fact]
    public async Task A_rest_put_in_place_of_another_has_its_own_outline_and_a_used_name_is_given_to_nobody()
    {
        Offcut Rest(double width) => new("Strip", OffcutShapes.Rectangle(width, 50), []);
        async Task SetAsync(params Offcut[] all) => await PutAsync("Rests", (await StockAsync("kraft-240")) with { Offcuts = [.. all] });
        await SetAsync(Rest(100));
        await SetAsync(Rest(60));
        Assert.Equal(60, (await StockAsync("kraft-240")).Offcuts.Single().Outline.Bounds.Width);
        await SetAsync();
        await SetAsync(Rest(40));
        Assert.Equal(40, (await StockAsync("kraft-240")).Offcuts.Single().Outline.Bounds.Width);
        // Names are counted from all that ever were.
        await SetAsync(Rest(40), Rest(70) with { Name = "Rest 7" });
        await SetAsync();
        Assert.Equal("Rest 8", (await StockAsync("kraft-240")).NextOffcut);
    }

    [Fact]
    public void A_rest_measured_off_its_corner_comes_in_at_it()
    {
        var off = new Offcut("Strip", Core.Geometry.Path.Rectangle(30, 40, 100, 50), [Core.Geometry.Path.Rectangle(40, 50, 10, 10)]);
        var birch = New("birch-300", "Birch 300") with { Offcuts = [off] };
        var read = DrawerJson.Read(DrawerJson.Write(new Drawer([birch], [SeedCatalogue.Machines[0]]))).Stocks[0].Offcuts.Single();
        Assert.Equal(default, read.Outline.Bounds.Min);
        Assert.Equal(new Core.Geometry.Point(10, 10), read.Holes[0].Bounds.Min);
    }

    [Fact]
    public void Nothing_is_nothing_wherever_it_stands_in_a_file()
    {
        var whole = Encoding.UTF8.GetString(DrawerJson.Write(SeedCatalogue.Drawer));
        var values = System.Text.RegularExpressions.Regex.Matches(whole, "(?<=[:\\[] ?\\n? *)(\"[^\"]*\"|-?[0-9.]+|true|false)(?= *[,\\n\\]}])").ToList();
        foreach (var value in Gen.Int[0, values.Count - 1].Array[60].Fixed().Select(i => values[i]))
            Assert.Throws<DrawerRefused>(() => DrawerJson.Read(Encoding.UTF8.GetBytes(whole[..value.Index] + "null" + whole[(value.Index + value.Length)..])));
        Assert.Throws<DrawerRefused>(() => DrawerJson.Read("null"u8.ToArray()));
    }

    [Theory]
    [InlineData(1, 0, 0, 1, 500, 0, 0.2)]
    [InlineData(0, 0, 0, 0, 0, 0, 0.2)]
    [InlineData(1.2, 0, 0, 1, 0, 0, 0.2)]
    [InlineData(1, 0, 0, 1, 0, 0, 900)]
    public void What_no_machine_is_off_by_is_neither_read_nor_used(double a, double b, double c, double d, double e, double f, double uncertain)
    {
        var wrong = SeedCatalogue.Machines[0] with { Calibrations = [new Calibration("", DateTimeOffset.UnixEpoch, new(a, b, c, d, e, f), uncertain, 0.5)] };
        Assert.Null(wrong.CalibrationFor(""));
        Assert.Equal(Reason.NoCalibration, Assert.Throws<DrawerRefused>(() => DrawerJson.Read(DrawerJson.Write(new Drawer([New("birch-300", "Birch 300")], [wrong])))).Why!.Reason);
        Assert.NotNull((wrong with { Calibrations = [wrong.Calibrations[0] with { Error = new(1.002, 0.001, 0, 0.999, 0.4, -0.3), UncertainMm = 0.1 }] }).CalibrationFor(""));
    }

    private Task<int> KeepRestAsync(string stock) => Afresh(async s =>
    {
        var (projects, catalogue) = (s.GetRequiredService<ProjectStore>(), s.GetRequiredService<CatalogueStore>());
        var demo = (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop)).OnTheDesk[^1].Id, Stop))!;
        var sheet = demo.Value.Sheets!.Sheets.First(x => x.Stock == stock);
        var rest = new Offcut((await catalogue.DrawerAsync(Owner, Stop)).Stock(stock).NextOffcut, OffcutShapes.Rectangle(90, 80), []);
        await projects.AppendAsync(Owner, demo.Id, demo.Head, new KeepRest(sheet.Id, rest.Name), demo.Value, Stop, revision => catalogue.KeepRestAsync(Owner, demo.Id, revision, sheet, rest, Stop));
        return 0;
    });

    /// <summary>A run of the demo's sheet of a stock, driven to its end by servers that come and go.</summary>
    private async Task<Guid> RunToEndAsync(string stock, bool takes = true)
    {
        Guid id;
        await using (var services = database.Restarted())
        {
            var projects = services.GetRequiredService<ProjectStore>();
            var demo = (await projects.OpenAsync(Owner, (await projects.ListAsync(Owner, Stop)).OnTheDesk[^1].Id, Stop))!;
            var drawer = await services.GetRequiredService<CatalogueStore>().DrawerAsync(Owner, Stop);
            var sheet = demo.Value.Sheets!.Sheets.First(s => s.Stock == stock);
            var plan = SheetPlan.For(new PlanRequest(sheet, demo.Value.Design, drawer.Machine("twin-330"), drawer.Stock(stock), 1, null));
            id = await services.GetRequiredService<RunStore>().BeginAsync(Owner, demo.Id, demo.Head, sheet.Id, stock, "twin-330", plan, 1000, Stop, takes ? (stock, sheet.SizeName) : null);
        }
        for (var turn = 0; turn < 400; turn++)
        {
            await using var services = database.Restarted();
            var runs = services.GetRequiredService<RunStore>();
            var run = (await runs.OpenAsync(Owner, id, Stop))!;
            if (run.State.IsOver) return id;
            try
            {
                if (run.State.Phase != RunPhase.Running) await runs.CommandAsync(Owner, id, run.LastEvent, PracticeMachine.Confirm, Stop);
                else await runs.AdvanceAsync(id, Stop);
            }
            catch (CommandRefused)
            {
                // The tip warms up.
                await Task.Delay(20, Stop);
                await runs.AdvanceAsync(id, Stop);
            }
            await Task.Delay(5, Stop);
        }
        throw new InvalidOperationException("The run came to no end.");
    }

    [Fact]
    public async Task A_sheet_that_went_through_its_run_is_gone_once()
    {
        async Task<int> Left() => (await StockAsync("ember-220")).Sheets.Sum(s => s.Count);
        var before = await Left();
        var id = await RunToEndAsync("ember-220");
        Assert.Equal(before - 1, await Left());
        // Whoever comes too late changes nothing any more, and the database knows it too.
        await using (var services = database.Restarted()) await services.GetRequiredService<RunStore>().AdvanceAsync(id, Stop);
        Assert.Equal("1", Assert.Single(await database.StoredAsync($"select count(*)::text from drawer_movements where run_id = '{id}'")));
        Assert.Equal(before - 1, await Left());
        // Its rest is of the same sheet; a second run of it is another sheet; passes run again alone take none.
        await KeepRestAsync("ember-220");
        Assert.Equal(before - 1, await Left());
        await RunToEndAsync("ember-220");
        Assert.Equal(before - 2, await Left());
        await RunToEndAsync("ember-220", takes: false);
        Assert.Equal(before - 2, await Left());
    }

    [Fact]
    public async Task Layouts_and_runs_tell_the_numbers_they_were_made_with()
    {
        var id = await RunToEndAsync("chalk-200-printed");
        var stock = await StockAsync("chalk-200-printed");
        await PutAsync("Other numbers", stock with { Settings = [new(Tool.Blade, 999, 11, BladeOutMm: 0.9)], Sheets = [stock.Sheets[0] with { WidthMm = 100, HeightMm = 100 }] });
        var run = (await Afresh(s => s.GetRequiredService<RunStore>().OpenAsync(Owner, id, Stop)))!;
        Assert.All(run.Plan.Passes.Where(p => p.Tool == Tool.Blade), p => Assert.Equal(145, p.Settings.ForceGrams));
        var demo = await Afresh(async s => await s.GetRequiredService<ProjectStore>().OpenAsync(Owner, run.Project, Stop));
        // The six tags lie on the smaller of its sizes, letter.
        Assert.Equal((215, 279), demo!.Value.Sheets!.Sheets.Where(x => x.Stock == "chalk-200-printed").Select(x => ((int)x.Width, (int)x.Height)).First());
    }

    private static readonly Gen<Stock> Stocks =
        from grams in Gen.Int[20, 2000]
        from thickness in Gen.Double[0.02, 6]
        from pattern in Gen.Enum<StockPattern>()
        from direction in Gen.Enum<StockDirection>()
        from suits in Gen.Shuffle(Enum.GetValues<Tool>(), 0, 5)
        from flags in Gen.Bool.Array[4]
        from sheets in Gen.Select(Gen.Double[10, 3000], Gen.Double[10, 3000], Gen.Int[0, 9999]).Array[1, 5]
        from sets in Gen.Select(Gen.Int[1, 5000], Gen.Double[1, 2000], Gen.Double[0.01, 10], Gen.Int[1, 20]).Array[0, 3].Array[1, 3]
        select New("any", "Any “stock” \\ <b>ä</b>") with
        {
            GramsPerSquareMetre = grams,
            ThicknessMm = thickness,
            Pattern = pattern,
            Direction = direction,
            Suits = [.. suits],
            BothSidesAlike = flags[0],
            TakesPrint = flags[1],
            IsFavourite = flags[2],
            IsPutAway = flags[3],
            Sheets = [.. sheets.Select((s, i) => new SheetSize($"size {i}", s.Item1, s.Item2, s.Item3))],
            OtherSets = [.. sets.Select((set, n) => new SettingsSet($"set {n}", [.. set.Select((t, i) => new ToolSettings((Tool)i, t.Item1, t.Item2, t.Item3, Times: t.Item4))], ImmutableSortedDictionary<Tool, SettingNote>.Empty))],
        };

    [Fact]
    public void A_drawer_in_a_file_reads_back_to_the_last_digit() => Stocks.Array[0, 3].ForAll(stocks =>
    {
        var drawer = new Drawer([.. stocks.Select((s, i) => s with { Key = $"any-{i}" })], SeedCatalogue.Machines) { Tools = SeedCatalogue.Tools };
        var file = DrawerJson.Write(drawer);
        Assert.Equal(Encoding.UTF8.GetString(file), Encoding.UTF8.GetString(DrawerJson.Write(DrawerJson.Read(file))));
    });

    [Theory]
    [InlineData("\"thicknessMm\": 0.32", "\"thicknessMm\": -1", "stocks[0]")]
    [InlineData("\"thicknessMm\": 0.32", "\"thicknessMm\": \"thin\"", "stocks[0].thicknessMm")]
    [InlineData("\"thicknessMm\": 0.32", "\"thickness\": 0.32", "stocks[0]")]
    [InlineData("\"key\": \"kraft-240\"", "\"key\": \"../kraft\"", "stocks[0]")]
    [InlineData("\"setInUse\": \"usual\"", "\"setInUse\": \"thick\"", "stocks[0]")]
    [InlineData("\"key\": \"mist-160\"", "\"key\": \"kraft-240\"", "twice")]
    [InlineData("\"schema\": 1", "\"schema\": 99", "schema 99")]
    [InlineData("\"falzkunst\": \"drawer\"", "\"falzkunst\": \"project\"", "no drawer")]
    public void A_file_that_is_no_drawer_is_refused_with_the_place(string there, string instead, string told)
    {
        var text = Encoding.UTF8.GetString(DrawerJson.Write(SeedCatalogue.Drawer));
        Assert.Contains(there, text, StringComparison.Ordinal);
        var at = text.IndexOf(there, StringComparison.Ordinal);
        var refused = Assert.Throws<DrawerRefused>(() => DrawerJson.Read(Encoding.UTF8.GetBytes(text[..at] + instead + text[(at + there.Length)..])));
        Assert.Contains(told, refused.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Spoiled_files_are_refused_or_read_and_nothing_else_happens()
    {
        var whole = DrawerJson.Write(new Drawer([New("birch-300", "Birch 300")], [SeedCatalogue.Machines[0]]));
        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte, Gen.Int[0, whole.Length - 1]).ForAll(t =>
        {
            var spoiled = whole.ToArray();
            spoiled[t.Item1] = t.Item2;
            foreach (var file in new[] { spoiled, whole[..t.Item3] })
            {
                try
                {
                    DrawerJson.Read(file);
                }
                catch (DrawerRefused)
                {
                    // Said in a sentence.
                }
            }
        });
        Assert.Throws<DrawerRefused>(() => DrawerJson.Read(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("[", 100_000)))));
        Assert.Throws<DrawerRefused>(() => DrawerJson.Read(new byte[DrawerJson.MostBytes + 1]));
    }
}
