using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Running;
using Falzkunst.Core.Tracing;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Runs;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Falzkunst.Web.Tests;

/// <summary>A database as a former state left it, brought up to date as ./start does.</summary>
public sealed class FormerDatabase : IAsyncLifetime
{
    private readonly TestDatabase _database = new();

    public string Connection => _database.Connection;
    public ServiceProvider Restarted() => _database.Restarted();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await ScriptAsync("schema-1"));

    /// <summary>What a former state left, as SQL.</summary>
    internal static async Task<string> ScriptAsync(string name)
    {
        await using var file = File.OpenRead(System.IO.Path.Combine(AppContext.BaseDirectory, "Fixtures", $"{name}.sql.gz"));
        await using var sql = new GZipStream(file, CompressionMode.Decompress);
        using var text = new StreamReader(sql, Encoding.UTF8);
        return await text.ReadToEndAsync();
    }

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    /// <summary>One column of what was stored, as it was stored.</summary>
    public Task<List<string>> StoredAsync(string sql) => _database.StoredAsync(sql);
}

/// <summary>What a former state stored is read for ever: projects with their history, edits, runs.</summary>
public sealed class FormerStateTests(FormerDatabase database) : IClassFixture<FormerDatabase>
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;

    private async Task<Guid> DemoAsync() => Guid.Parse((await database.StoredAsync("select project_id::text from revisions group by project_id order by count(*) desc limit 1"))[0]);

    [Fact]
    public void Several_files_brought_in_by_one_edit_read_as_they_were_stored()
    {
        // As schema 2 stored them first.
        const string Stored = """{"edit": "together", "edits": [{"edit": "bring-in-picture", "name": "leaf.png", "content": "c0ffee", "mmPerDot": 0.1, "pixelsDown": 30, "pixelsAcross": 40}, {"edit": "keep-art", "art": "019ae3b2-0000-7000-8000-000000000001", "fileName": "sheet.svg"}]}""";
        var read = Assert.IsType<EditsTogether>(Data.Json.StoredJson.Read<Edit>(Stored));
        Assert.Equal(new BringInPicture("leaf.png", "c0ffee", 40, 30, 0.1), read.Edits[0]);
        Assert.Equal("sheet.svg", Assert.IsType<KeepArt>(read.Edits[1]).FileName);
        Assert.Equal("Brought in leaf.png, and 1 more", read.Sentence);
    }

    [Fact]
    public async Task Every_revision_of_schema_1_reads_as_it_was_stored()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var numbers = await database.StoredAsync("select project_id || ' ' || number from revisions where schema_version = 1 order by project_id, number");
        Assert.True(numbers.Count > 100);
        var shapes = new Dictionary<string, string[]>(StringComparer.Ordinal);
        foreach (var key in numbers.Select(n => n.Split(' ')))
        {
            var project = (await store.RevisionAsync(Owner, Guid.Parse(key[0]), int.Parse(key[1], null), Stop))!;
            var row = $"from revisions r join parts p on p.hash = r.design_hash where r.project_id = '{key[0]}' and r.number = {key[1]}";
            var stored = JsonNode.Parse((await database.StoredAsync($"select p.content {row}"))[0])!;
            var pieces = stored["pieces"]!.AsArray();
            Assert.Equal(pieces.Select(p => (string)p!["name"]!), project.Design.Pieces.Select(p => p.Name));
            foreach (var (was, piece) in pieces.Zip(project.Design.Pieces))
            {
                // Looked at without any of the code that reads it: each line with its path, look, operation, ink and manner.
                var shape = (string)was!["shape"]!;
                if (!shapes.TryGetValue(shape, out var paths)) shapes[shape] = paths = (await database.StoredAsync($"select content from parts where hash = '{shape}'"))[0].Split('\n');
                var lines = was["lines"]!.AsArray();
                Assert.Equal(lines.Select(l => (string)l!["id"]!), piece.Lines.Select(l => l.Id));
                Assert.Equal(paths, piece.Lines.Select(l => PathText.Write(l.Path)));
                Assert.Equal(lines.Select(l => (string)l!["operation"]!), piece.Lines.Select(l => l.Operation.Word()));
                Assert.Equal(lines.Select(l => (string?)l!["ink"]), piece.Lines.Select(l => l.Ink));
                Assert.Equal(lines.Select(l => (string?)l!["look"]!["layer"]), piece.Lines.Select(l => l.Look.Layer));
                Assert.Equal(lines.Select(l => (bool?)l!["sizeLocked"] ?? false), piece.Lines.Select(l => l.SizeLocked));
                Assert.Equal(lines.Select(l => (string?)l!["manner"]?["fill"]?["pattern"]), piece.Lines.Select(l => l.EffectiveSettings.Fill?.Pattern.ToString().ToLowerInvariant()));
                Assert.Equal(lines.Select(l => (int?)l!["manner"]?["settings"]?["forceGrams"]), piece.Lines.Select(l => l.EffectiveSettings.Tool?.ForceGrams));
                Assert.DoesNotContain(piece.Lines, l => l.Id == $"l{piece.NextItem}");
                Assert.Equal((string)was["stock"]!, piece.Stock);
                Assert.Equal((int)was["quantity"]!, piece.Quantity);
            }
            Assert.DoesNotContain(project.Design.Pieces, p => p.Id == $"p{project.Design.NextPiece}");
            Assert.Equal(stored["loose"]!.AsArray().Select(l => (string)l!["path"]!), project.Design.Loose.Select(l => PathText.Write(l.Path)));
            Assert.DoesNotContain(project.Design.Loose, l => l.Id == $"x{project.Design.NextLoose}");
        }
    }

    [Fact]
    public async Task It_opens_undoes_to_its_first_revision_and_redoes()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var id = await DemoAsync();
        var open = (await store.OpenAsync(Owner, id, Stop))!;
        var values = new List<string> { ProjectText.Write(open.Value) };
        Assert.NotEmpty(open.Value.Variants);
        Assert.True(open.Value.SheetsAreCurrent);
        var head = open.Head;
        while (open.UndoSentence is not null)
        {
            head = await store.UndoAsync(Owner, id, head, Stop);
            open = (await store.OpenAsync(Owner, id, Stop))!;
            values.Add(ProjectText.Write(open.Value));
        }
        Assert.Equal(1, head);
        Assert.Empty(open.Value.Design.Pieces);
        foreach (var value in values.AsEnumerable().Reverse().Skip(1))
        {
            head = await store.RedoAsync(Owner, id, head, Stop);
            // Redo takes the newest branch, which is the one that undo came by.
            Assert.Equal(value, ProjectText.Write((await store.OpenAsync(Owner, id, Stop))!.Value));
        }
        Assert.True(head > 90);
    }

    [Fact]
    public async Task Every_edit_is_read_and_its_lines_are_those_that_were_named()
    {
        await using var services = database.Restarted();
        var store = services.GetRequiredService<ProjectStore>();
        var kinds = new HashSet<Type>();
        foreach (var key in (await database.StoredAsync("select project_id || ' ' || number from revisions where edit is not null")).Select(n => n.Split(' ')))
        {
            var edit = (await store.EditAsync(Owner, Guid.Parse(key[0]), int.Parse(key[1], null), Stop))!;
            var was = JsonNode.Parse((await database.StoredAsync($"select edit::text from revisions where project_id = '{key[0]}' and number = {key[1]}"))[0])!;
            kinds.Add(edit.GetType());
            var named = was["lines"]?.AsArray() ?? was["what"]?["lines"]?.AsArray();
            var lines = edit switch
            {
                SetOperation e => e.Lines,
                ChangeLineSettings e => e.Lines,
                SetInk e => e.Lines,
                LockSize e => e.Lines,
                RemoveLines e => e.Lines,
                PickedEdit e => e.What.Lines,
                _ => [],
            };
            if (edit is SetOperation or ChangeLineSettings or SetInk or LockSize or RemoveLines or PickedEdit)
                Assert.Equal(named!.Select(l => (string)l!), lines.SelectMany(l => l.Ids));
        }
        Assert.True(kinds.Count >= 50, $"{kinds.Count}");
    }

    [Fact]
    public async Task Its_run_goes_on_with_the_words_it_was_frozen_with_and_hangs_from_its_sheet()
    {
        await using var services = database.Restarted();
        var (store, runs) = (services.GetRequiredService<ProjectStore>(), services.GetRequiredService<RunStore>());
        var id = await DemoAsync();
        var open = (await store.OpenAsync(Owner, id, Stop))!;
        var cards = await runs.ListAsync(Owner, id, Stop);
        Assert.Equal([RunPhase.Running, RunPhase.Done], cards.Select(c => c.Phase));
        var running = (await runs.OpenAsync(Owner, cards.Single(c => !c.IsOver).Id, Stop))!;
        // No edit has touched the layouts since the runs began, so both hang from sheets that are there.
        Assert.All(cards, c => Assert.Single(open.Value.Sheets!.Sheets, s => s.Id == c.SheetId));
        var stop = running.Plan.Steps.OfType<Stop>().First();
        Assert.StartsWith("Load Chalk 200", stop.Sentence!.Title, StringComparison.Ordinal);
        Assert.StartsWith("Lay Chalk 200", Wording.StopWords.Actions(stop)[0], StringComparison.Ordinal);
        var before = running.State;
        await Task.Delay(300, Stop);
        Assert.False(await runs.AdvanceAsync(running.Id, Stop));
        var after = (await runs.OpenAsync(Owner, running.Id, Stop))!.State;
        Assert.True(after.MachineSeconds > before.MachineSeconds);
        await runs.CommandAsync(Owner, running.Id, null, (_, s) => PracticeMachine.Stop(s), Stop);
        Assert.Equal(RunPhase.Stopped, (await runs.OpenAsync(Owner, running.Id, Stop))!.State.Phase);
    }

    [Fact]
    public async Task An_edit_on_top_of_it_is_stored_in_todays_schema_and_keeps_its_sheets()
    {
        await using var services = database.Restarted();
        var (store, drawer) = (services.GetRequiredService<ProjectStore>(), await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop));
        var id = Guid.Parse((await database.StoredAsync("select project_id::text from revisions group by project_id order by count(*) limit 1"))[0]);
        var open = (await store.OpenAsync(Owner, id, Stop))!;
        var edit = new RenamePiece(open.Value.Design.Pieces[0].Id, "Renamed");
        await store.AppendAsync(Owner, id, open.Head, edit, Edits.Apply(open.Value, edit, drawer), Stop);
        await using var again = database.Restarted();
        var after = (await again.GetRequiredService<ProjectStore>().OpenAsync(Owner, id, Stop))!;
        Assert.Equal("Renamed", after.Value.Design.Pieces[0].Name);
        Assert.Equal(ProjectText.Write(open.Value).Replace(open.Value.Design.Pieces[0].Name, "Renamed", StringComparison.Ordinal), ProjectText.Write(after.Value));
    }
}

/// <summary>A database of the state in which words had come, and nothing followed anything yet.</summary>
public sealed class WithWordsTests : IAsyncLifetime
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private readonly TestDatabase _database = new();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await FormerDatabase.ScriptAsync("schema-2-words"));

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    [Fact]
    public async Task Its_words_borders_and_run_are_read_and_go_on()
    {
        await using var services = _database.Restarted();
        var (projects, runs) = (services.GetRequiredService<ProjectStore>(), services.GetRequiredService<RunStore>());
        var drawer = await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop);
        var demo = (await projects.OpenAsync(Owner, Assert.Single((await projects.ListAsync(Owner, Stop)).OnTheDesk).Id, Stop))!;
        var pieces = demo.Value.Design.Pieces;
        var texts = pieces.SelectMany(p => p.Items.OfType<TextItem>().Select(t => (Piece: p, Text: t))).ToList();
        Assert.Equal(["Night at the depot\nwith lanterns", "Grüße"], texts.Select(t => t.Text.Words));
        Assert.All(texts, t => Assert.NotEmpty(t.Text.PathsOn(t.Piece)));
        Assert.All(texts, t => Assert.Equal((true, false, false), (t.Text.Forms.IsEmpty, t.Text.Shrinks, t.Text.IsShape)));
        Assert.All(pieces, p => Assert.Null(p.Follows));
        Assert.True(demo.Value.SheetsAreCurrent);
        Assert.Single(await runs.ListAsync(Owner, demo.Id, Stop));
        // Its borders stand for themselves; those made today follow.
        var edit = new MakeBorders(pieces[0].Id, [new Border(2, "kraft-240")]);
        var after = Edits.Apply(demo.Value, edit, drawer);
        await projects.AppendAsync(Owner, demo.Id, demo.Head, edit, after, Stop);
        await using var again = _database.Restarted();
        var open = (await again.GetRequiredService<ProjectStore>().OpenAsync(Owner, demo.Id, Stop))!;
        Assert.Equal(ProjectText.Write(after), ProjectText.Write(open.Value));
        Assert.IsType<FromBorder>(open.Value.Design.Pieces.Single(p => p.Follows is not null).Follows);
    }
}

/// <summary>A state in which pictures had come: with their steps, traced rims, patterns, middle lines, a border that follows and a tie moved by hand.</summary>
public sealed class WithPicturesTests : IAsyncLifetime
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private readonly TestDatabase _database = new();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await FormerDatabase.ScriptAsync("schema-2-pictures"));

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    [Fact]
    public async Task Its_pictures_and_what_came_of_them_are_read_and_go_on()
    {
        await using var services = _database.Restarted();
        var projects = services.GetRequiredService<ProjectStore>();
        var drawer = await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop);
        var demo = (await projects.OpenAsync(Owner, Assert.Single((await projects.ListAsync(Owner, Stop)).OnTheDesk).Id, Stop))!;
        var design = demo.Value.Design;
        var picture = Assert.Single(design.Pictures);
        Assert.Equal(("small-clip.png", 240, 180, 2), (picture.Name, picture.PixelsAcross, picture.PixelsDown, picture.Steps.Length));
        Assert.Equal([typeof(Core.Pictures.BackgroundGuessed), typeof(Core.Pictures.Lay)], picture.Steps.Select(s => s.GetType()));
        Assert.Equal((240, 180), ((await services.GetRequiredService<PictureStore>().FindAsync(Owner, picture.Content, Stop))!.PixelsAcross, (await services.GetRequiredService<PictureStore>().FindAsync(Owner, picture.Content, Stop))!.PixelsDown));
        Assert.Equal([false, true], design.Pieces.SelectMany(p => p.Items.OfType<PictureItem>()).Select(i => i.IsPattern).Order());
        Assert.Single(design.Pieces, p => p.Follows is FromRim);
        Assert.Single(design.Pieces, p => p.Follows is FromBorder);
        var held = Assert.Single(design.Pieces, p => p.Outline.Settings?.Hold is not null).Outline.Settings!.Hold!;
        Assert.Equal((0.0, 5.0, 0.0), (held.Moved(0), Math.Round(held.Moved(1), 6), held.Moved(2)));
        Assert.Equal(TraceMode.MiddleLines, picture.Trace!.Settings.Mode);
        // It goes on: another border round the rim, kept and read again.
        var edit = new ChangeRim(design.Pieces.Single(p => p.Follows is FromRim).Id, 5);
        var after = Edits.Apply(demo.Value, edit, drawer);
        await projects.AppendAsync(Owner, demo.Id, demo.Head, edit, after, Stop);
        await using var again = _database.Restarted();
        Assert.Equal(ProjectText.Write(after), ProjectText.Write((await again.GetRequiredService<ProjectStore>().OpenAsync(Owner, demo.Id, Stop))!.Value));
    }
}

/// <summary>A state in which print had come: grounds, borders, pages on both sides with marks drawn in.</summary>
public sealed class WithPrintTests : IAsyncLifetime
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private readonly TestDatabase _database = new();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await FormerDatabase.ScriptAsync("schema-2-print"));

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    [Fact]
    public async Task Its_printed_pieces_and_pages_are_read_and_go_on()
    {
        await using var services = _database.Restarted();
        var projects = services.GetRequiredService<ProjectStore>();
        var drawer = await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop);
        var demo = (await projects.OpenAsync(Owner, Assert.Single((await projects.ListAsync(Owner, Stop)).OnTheDesk).Id, Stop))!;
        var tag = demo.Value.Design.Pieces.Single(p => p.Name == "Ticket tag");
        var layers = Core.Printing.PrintedArt.On(tag);
        Assert.Equal("#E9DFC6", Assert.IsType<Core.Printing.FillLayer>(layers[0]).Colour);
        Assert.Equal([0.6, 2.0], layers.OfType<Core.Printing.StrokeLayer>().Where(s => s.Colour == "#8A5A2B").Select(s => s.WidthMm));
        var how = Assert.Single(demo.Value.SetOut.Printing).Value;
        Assert.Equal((1.5, 4.0, FlipEdge.Upright, MarkSettings.Usual), (how.BleedMm, how.GlueMm, how.Flip, how.Marks));
        Assert.True(demo.Value.SheetsAreCurrent);
        var sheet = demo.Value.Sheets!.Sheets.Single(s => s.Stock == tag.Stock);
        Assert.NotNull(sheet.MarkFrame);
        // It goes on: another bleed, kept and read again.
        var edit = new ChangePrinting(tag.Stock, how with { BleedMm = 3 }, Guid.NewGuid());
        var after = Edits.Apply(demo.Value, edit, drawer);
        await projects.AppendAsync(Owner, demo.Id, demo.Head, edit, after, Stop);
        await using var again = _database.Restarted();
        Assert.Equal(ProjectText.Write(after), ProjectText.Write((await again.GetRequiredService<ProjectStore>().OpenAsync(Owner, demo.Id, Stop))!.Value));
    }
}

/// <summary>What was stored when marks came to be read.</summary>
public sealed class WithMarksTests : IAsyncLifetime
{
    private static readonly Guid Owner = WorkshopRow.OnlyOne;
    private static readonly CancellationToken Stop = TestContext.Current.CancellationToken;
    private readonly TestDatabase _database = new();

    public async ValueTask InitializeAsync() => await _database.InitializeAsync(await FormerDatabase.ScriptAsync("schema-2-marks"));

    public ValueTask DisposeAsync() => _database.DisposeAsync();

    [Fact]
    public async Task Its_readings_calibrations_and_run_are_read()
    {
        await using var services = _database.Restarted();
        var drawer = await services.GetRequiredService<Data.Workshop.CatalogueStore>().DrawerAsync(Owner, Stop);
        var projects = services.GetRequiredService<ProjectStore>();
        var demo = (await projects.OpenAsync(Owner, Assert.Single((await projects.ListAsync(Owner, Stop)).OnTheDesk).Id, Stop))!;
        var reading = demo.Value.Sheets!.Sheets.Single(s => s.Reading is not null).Reading!;
        Assert.InRange(reading.ScaleX, 0.999, 1.001);
        Assert.Equal(Calibration.UnknownMm, reading.RemainsMm, 0.05);
        var calibration = Assert.Single(drawer.Machine(demo.Value.SetOut.Machine).Calibrations);
        Assert.InRange(calibration.UncertainMm, 0.1, 0.5);
        var runs = services.GetRequiredService<RunStore>();
        var run = (await runs.OpenAsync(Owner, Assert.Single(await runs.ListAsync(Owner, demo.Id, Stop)).Id, Stop))!;
        Assert.Equal(RunPhase.Done, run.State.Phase);
        Assert.Equal([false, true], run.State.Readings.Select(r => r.Lies is not null));
        Assert.Single(drawer.Stock("kraft-240").Offcuts);
    }
}
