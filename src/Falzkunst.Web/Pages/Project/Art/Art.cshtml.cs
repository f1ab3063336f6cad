using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.ArtSheets;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Formats.Archive;
using Falzkunst.Formats.Pictures;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Jobs;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Files brought in, what was not understood of them, their motifs, and the rules that give lines their operation.</summary>
public sealed partial class ArtModel(ProjectDesk desk, ArtDesk art, ZipDesk zips, LookRuleStore rules, PictureDesk pictures, JobDesk jobs, JobStore jobStore) : CommandPage(desk)
{
    /// <summary>Longest side of a picture in a ZIP as it is looked at, dots.</summary>
    private const int SmallSide = 160;

    /// <summary>Motifs on one page of a contact sheet.</summary>
    public const int MotifsAPage = 60;

    public override Station Station => Station.Art;
    public override string? OverPartial => "_ArtOver";
    public override string Modes => "stacked spread";
    public override string EmptyTable => "This station is where drawings come in. Drop an SVG or DXF file, a picture or a ZIP of them here, or choose one below.";

    public IReadOnlyList<ArtCard> Files { get; private set; } = [];
    public IReadOnlyList<RememberedRule> Rules { get; private set; } = [];

    /// <summary>How many lines on the table each rule would change now, in their order.</summary>
    public ImmutableArray<int> RuleChanges { get; private set; } = [];

    /// <summary>The hands that files came from so far.</summary>
    public IReadOnlyList<string> Origins { get; private set; } = [];

    /// <summary>The motifs of the file on show while they are chosen from; null otherwise.</summary>
    public ContactSheet? Sheet { get; private set; }

    /// <summary>The project that pieces are chosen from; null where a file is chosen from, or nothing is.</summary>
    public (Guid Id, string Name)? Other { get; private set; }

    /// <summary>Projects that pieces can be taken from.</summary>
    public IReadOnlyList<ProjectCard> Others { get; private set; } = [];

    /// <summary>The rule that is being written; null where none is.</summary>
    public RememberedRule? Editing { get; private set; }

    /// <summary>Files whose size is asked, since no paper is so large.</summary>
    public IReadOnlyList<SizeAsked> Asked { get; private set; } = [];

    private bool _broughtIn;
    private bool _isNewSheet;
    private readonly List<Guid> _zips = [];

    /// <summary>The files of a ZIP while they are chosen from; null otherwise.</summary>
    public ZipListing? Zip { get; private set; }

    /// <summary>Other ZIPs that came with it, with their names.</summary>
    public IReadOnlyList<(Guid Id, string Name)> OtherZips { get; private set; } = [];

    /// <summary>The tab that the tray opens by itself: the size, where it is asked of a file that just came in.</summary>
    public string? OpenTab => Asked.Count > 0 || (_broughtIn && Shown is { UnitsToInch: not null }) ? "size" : null;

    /// <summary>Files whose size is a question: those too large to be meant, and those that say none.</summary>
    public IReadOnlyList<SizeQuestion> SizeQuestions => [.. Asked.Select(SizeQuestion.TooLarge), .. Files.Reverse().Where(f => f.UnitsToInch is not null).Select(f => SizeQuestion.WithoutUnits(f, On))];

    /// <summary>The file whose notes are shown: the one just brought in, the chosen one, else the newest.</summary>
    public ArtCard? Shown => ShownPicture is not null ? null : (_broughtIn ? null : Files.FirstOrDefault(f => f.Id.ToString() == Selected)) ?? (Files.Count > 0 ? Files[^1] : null);

    public override string? ShownKey => ShownPicture?.Id ?? Shown?.Id.ToString();

    /// <summary>The one piece that was picked at the station before; null for none or several.</summary>
    public Piece? PickedPiece => PickedElsewhere is { } key && PickedKey.Read(key, Value.Design).PieceIds is [var only] ? Value.Design.Find(only) : null;

    public string ColourOf(Piece piece) => On.Drawer.ColourOf(piece.Stock);

    /// <summary>Pieces on the table that came from a file.</summary>
    public int PiecesOf(ArtCard file) => Value.Design.Pieces.Count(p => p.Art == file.Id);

    /// <summary>
    /// Pieces whose file gives them a colour that no stock in the drawer comes near: which paper is meant is asked. Those that were put
    /// on another stock than the nearest since have their answer.
    /// </summary>
    public IReadOnlyList<(string Colour, string Nearest, ImmutableArray<string> Pieces)> StockQuestions =>
    [
        .. Value.Design.Pieces.Where(p => p.Art is not null && p.Outline.Look.Fill is not null).GroupBy(p => p.Outline.Look.Fill!)
            .Select(g => (Colour: g.Key, Nearest: On.Drawer.StockFor(g.Key), Pieces: g.ToList()))
            .Where(q => Core.Catalogue.StockColours.Difference(q.Colour, On.Drawer.ColourOf(q.Nearest)) > Core.Catalogue.StockColours.FarAway && q.Pieces.All(p => p.Stock == q.Nearest))
            .Select(q => (q.Colour, q.Nearest, q.Pieces.Select(p => p.Id).ToImmutableArray())),
    ];

    /// <summary>Puts pieces of a colour on the stock that was meant.</summary>
    public Task<IActionResult> OnPostMeantAsync(string pieces, string stock, CancellationToken stop) =>
        DoAsync(new SetStock([.. pieces.Split(',')], stock), stop);

    /// <summary>Findings on what was left out, and on lines that lie on no piece.</summary>
    public IEnumerable<(int Number, Finding Finding)> LooseFindings =>
        On.Findings.Select((f, i) => (i + 1, f)).Where(f => Station.IsForArt(f.f));

    protected override async Task LoadAsync(CancellationToken stop)
    {
        Files = await art.FilesAsync(On, stop);
        Rules = await rules.ListAsync(ProjectDesk.Owner, stop);
        Origins = await art.OriginsAsync(stop);
        Others = await art.OthersAsync(On, stop);
        RuleChanges = Working.Changes(Value.Design, [.. Rules.Select(r => r.Rule)]);
        await LoadTracingAsync(stop);
        if (Other is not null) return;
        // A sheet that was just laid beside the project lies open to be chosen from; closed, it stays closed.
        if (_isNewSheet && Shown is { } file) Sheet ??= await art.MotifsAsync(On, file.Id, MotifCut.Usual, 1, MotifsAPage, stop);
        if (_zips is not [var zip, .. var others]) return;
        Zip ??= await zips.ListAsync(On, zip, stop);
        OtherZips = await zips.NamesAsync(On, others, stop);
    }

    protected override Scene BuildScene()
    {
        var scene = SceneBuilder.Pieces(On);
        return scene with { Layouts = [.. scene.Layouts.Reverse()] };
    }

    public Task<IActionResult> OnPostBringInAsync(List<IFormFile> files, string? origin, CancellationToken stop) => ActAsync(async () =>
    {
        if (files.Count == 0) throw new NotDone("No file arrived. Choose an SVG or DXF file, a picture or a ZIP and try once more.");
        var brought = new List<(string Name, byte[] Content)>();
        foreach (var file in files)
        {
            using var content = new MemoryStream();
            await file.CopyToAsync(content, stop);
            brought.Add((Path.GetFileName(file.FileName.Replace('\0', ' ')), content.ToArray()));
        }
        await BringInEachAsync(brought, Hand(origin), stop);
    }, stop);

    private void Show(BroughtIn brought)
    {
        Show(brought.On);
        (_broughtIn, _isNewSheet) = (true, brought.IsSheet);
    }

    /// <summary>
    /// Brings in all that can be read of some files, as one edit. Each file is answered by itself: what cannot be read is told by its
    /// name, and the others come in all the same.
    /// </summary>
    private async Task BringInEachAsync(IReadOnlyList<(string Name, byte[] Content)> files, string? hand, CancellationToken stop)
    {
        On.Project.DemandSeen(SeenHead);
        var (then, edits, keeps) = (On, new List<Edit>(), new List<Func<Task>>());
        var (asked, refused) = (new List<SizeAsked>(), new List<string>());
        void Take(Edit edit, Func<Task>? keep)
        {
            then = then.With(edit);
            edits.Add(edit);
            if (keep is not null) keeps.Add(keep);
        }
        foreach (var (name, content) in files)
        {
            try
            {
                if (ZipFiles.IsZip(content)) _zips.Add(await zips.KeepAsync(On, name, content, hand, stop));
                else if (PictureReader.LooksLikePicture(content))
                {
                    Take(await PictureEditAsync(name, content, null, stop), null);
                    _broughtPicture = then.Value.Design.Pictures[^1].Id;
                }
                else
                {
                    var read = await art.ReadAsync(then, name, content, hand, stop);
                    if (read.Edit is { } edit)
                    {
                        Take(edit, read.Keep);
                        (_broughtPicture, _isNewSheet) = (null, read.IsSheet);
                    }
                    await EmbeddedAsync(name, read.Pictures, e => Take(e, null), refused, stop);
                    if (read.Edit is null) _broughtPicture = then.Value.Design.Pictures.LastOrDefault()?.Id;
                }
            }
            catch (SizeAsked size)
            {
                asked.Add(size);
            }
            catch (Exception e) when (e is ReadRefused or EditRefused)
            {
                refused.Add($"{name} was not brought in. {(e is EditRefused why ? ReasonWords.For(why, Units) : e.Message)}");
            }
        }
        Asked = asked;
        if (edits.Count > 0)
        {
            await DoNowAsync(edits is [var only] ? only : new EditsTogether([.. edits]), stop, async _ =>
            {
                foreach (var keep in keeps) await keep();
            });
            _broughtIn = true;
        }
        if (refused.Count == 0) return;
        var others = files.Count - refused.Count;
        throw new NotDone(string.Join(' ', refused.Take(MostTold)) + (refused.Count > MostTold ? $" Nor were {refused.Count - MostTold} more." : "")
            + (others > 0 && edits.Count > 0 ? " What else was there is in." : ""));
    }

    /// <summary>Files that could not be read which one answer tells by name.</summary>
    private const int MostTold = 5;

    /// <summary>Brings in a file whose size was asked.</summary>
    public Task<IActionResult> OnPostAtSizeAsync(Guid file, double scale, CancellationToken stop) => ActAsync(async () =>
    {
        try
        {
            Show(await art.BringInAsync(On, SeenHead, file, scale, stop));
        }
        catch (ReadRefused e)
        {
            throw new NotDone($"It was not brought in. {e.Message}");
        }
    }, stop);

    /// <summary>The contact sheet of a file, from a motif on.</summary>
    /// <param name="file">The file.</param>
    /// <param name="first">Number of the first motif.</param>
    /// <param name="cut">How it is parted into motifs, as <see cref="MotifCut.Write"/> says it.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<IActionResult> OnGetMotifsAsync(Guid file, int first, string? cut, CancellationToken stop)
    {
        Sheet = await art.MotifsAsync(On, file, MotifCut.Read(cut), first, MotifsAPage, stop);
        await LoadAsync(stop);
        return Partial("_ArtOver", this);
    }

    /// <summary>The contact sheet parted in another way: closer or farther, or with motifs joined or parted by hand.</summary>
    public async Task<IActionResult> OnPostRegroupAsync(Guid file, int first, string? cut, int? level, string? change, int[] motifs, CancellationToken stop)
    {
        var now = MotifCut.Read(cut);
        if (change is "join" or "part") now = motifs.Length == 0 ? now : now.With(change == "join", motifs);
        else if (level is { } to) now = MotifCut.At(to);
        return await OnGetMotifsAsync(file, first, now.Write(), stop);
    }

    /// <summary>The pieces of another project as a contact sheet.</summary>
    public async Task<IActionResult> OnGetOtherAsync(Guid other, int first, CancellationToken stop)
    {
        var (name, motifs) = await art.MotifsOfAsync(other, stop);
        var from = Math.Clamp(first, 1, Math.Max(1, motifs.Length));
        Other = (other, name);
        Sheet = new ContactSheet([.. motifs.Skip(from - 1).Take(MotifsAPage)], motifs.Length, from, null);
        await LoadAsync(stop);
        return Partial("_ArtOver", this);
    }

    public Task<IActionResult> OnPostTakeOtherAsync(Guid other, int[] motifs, CancellationToken stop) => ActAsync(async () =>
        Show(await art.TakeFromAsync(On, SeenHead, other, motifs, stop)), stop);

    /// <summary>Takes motifs of a file, as pieces of their own or as lines on a piece.</summary>
    public Task<IActionResult> OnPostTakeAsync(Guid file, int[] motifs, bool all, string? cut, string? onto, Operation? operation, CancellationToken stop) => ActAsync(async () =>
        Show(await art.TakeAsync(On, SeenHead, file, all ? null : motifs, MotifCut.Read(cut), string.IsNullOrEmpty(onto) ? null : onto, operation, stop)), stop);

    /// <summary>Settles the size of a file that says none.</summary>
    public Task<IActionResult> OnPostSizeAsync(Guid file, double scale, CancellationToken stop) => ActAsync(async () =>
        Show(await art.SettleSizeAsync(On, SeenHead, file, scale, stop)), stop);

    /// <summary>Gives lines that lie on no piece to one: those named, else all.</summary>
    public Task<IActionResult> OnPostGiveLooseAsync(string to, string? lines, CancellationToken stop) => DoAsync(new GiveLines(null, LooseOf(lines), to), stop);

    /// <summary>Takes lines that lie on no piece away, aids excepted: those named, else all.</summary>
    public Task<IActionResult> OnPostDropLooseAsync(string? lines, CancellationToken stop) => DoAsync(new RemoveLoose(LooseOf(lines)), stop);

    private ImmutableArray<string> LooseOf(string? lines) =>
        string.IsNullOrEmpty(lines) ? [.. LooseLines.Wanting(Value.Design).Select(l => l.Id)] : [.. lines.Split(',')];

    /// <summary>The files in a ZIP that was brought, and others beside it to go on to.</summary>
    public async Task<IActionResult> OnGetZipAsync(Guid zip, Guid[] others, CancellationToken stop)
    {
        _zips.AddRange(others.Take(MostZips).Where(o => o != zip).Prepend(zip));
        await LoadAsync(stop);
        return Partial("_ArtOver", this);
    }

    /// <summary>ZIPs that are gone through together.</summary>
    private const int MostZips = 40;

    /// <summary>A small picture of a file in a ZIP.</summary>
    public async Task<IActionResult> OnGetZipPictureAsync(Guid zip, int entry, CancellationToken stop)
    {
        Response.Headers.CacheControl = "private, max-age=86400";
        if (await zips.PictureAsync(On, zip, entry, stop) is { } picture) return await pictures.SmallAsync(picture, SmallSide, stop) is { } png ? File(png, "image/png") : NotFound();
        return await zips.DrawingAsync(On, zip, entry, stop) is { } drawing ? Content(DrawingPicture.Svg(drawing), "image/svg+xml") : NotFound();
    }

    /// <summary>Brings files of a ZIP in.</summary>
    public Task<IActionResult> OnPostTakeZipAsync(Guid zip, int[] entries, CancellationToken stop) => ActAsync(async () =>
    {
        if (entries.Length == 0) throw new NotDone("Touch the files that you want, then bring them in.");
        var files = await zips.TakeAsync(On, zip, entries, stop);
        var origin = await zips.OriginAsync(On, zip, stop);
        await BringInEachAsync(files, origin, stop);
    }, stop);

    public async Task<IActionResult> OnPostForgetAsync(Guid rule, CancellationToken stop)
    {
        await rules.ForgetAsync(ProjectDesk.Owner, rule, stop);
        return await RegionsAsync(stop);
    }

    public async Task<IActionResult> OnPostMoveRuleAsync(Guid rule, bool up, CancellationToken stop)
    {
        await rules.MoveAsync(ProjectDesk.Owner, rule, up, stop);
        return await RegionsAsync(stop);
    }

    /// <summary>A rule as a form; a new one where none is named.</summary>
    public async Task<IActionResult> OnGetRuleAsync(Guid? rule, CancellationToken stop)
    {
        await LoadAsync(stop);
        Editing = Rules.FirstOrDefault(r => r.Id == rule) ?? new RememberedRule(Guid.Empty, new LookRule(Operation.Score, Dashed: true), null);
        return Partial("_ArtOver", this);
    }

    /// <summary>A rule as its form gives it.</summary>
    public sealed record RuleFields(string Operation, string? Stroke, string? Fill, string? Dashed, string? Closed, string? Layer, string? Origin);

    /// <summary>The rule of a form as a sentence.</summary>
    public IActionResult OnGetRuleWords(RuleFields fields)
    {
        var made = Read(fields);
        return Partial("_Words", Wrong.Values.FirstOrDefault() ?? InWords(new RememberedRule(Guid.Empty, made, Hand(fields.Origin))));
    }

    /// <summary>A rule as a sentence, and what it would do with what is on the table.</summary>
    public string InWords(RememberedRule rule)
    {
        var changes = Working.Changes(Value.Design, [rule.Rule])[0];
        return $"{rule.Rule.InWords()}{(rule.Origin is { } hand ? $", in files from {hand}" : "")}. {(changes == 0 ? "It would change nothing here." : $"It would change {Words.Count(changes, "line")} here.")}";
    }

    private LookRule Read(RuleFields fields)
    {
        var made = new LookRule(
            Operation.Score, Colour("stroke", fields.Stroke), Colour("fill", fields.Fill), Either(fields.Dashed, "dashed"), Either(fields.Closed, "closed"),
            string.IsNullOrWhiteSpace(fields.Layer) ? null : fields.Layer.Trim());
        return fields.Operation switch
        {
            "valley" => made with { Fold = FoldDirection.Valley },
            "mountain" => made with { Fold = FoldDirection.Mountain },
            _ when OperationWords.TryRead(fields.Operation ?? "", out var read) => made with { Operation = read },
            _ => throw new BadHttpRequestException("No such operation."),
        };
    }

    public async Task<IActionResult> OnPostRuleAsync(Guid rule, RuleFields fields, bool apply, CancellationToken stop)
    {
        var made = Read(fields);
        if (made.SpeaksOfTheSame(new LookRule(Operation.Cut))) Refuse("layer", fields.Layer, "A rule needs at least one thing that its lines look like.");
        if (fields.Layer?.Length > LookRuleStore.LongestOrigin) Refuse("layer", fields.Layer, "A layer's name is shorter than that.");
        Editing = new RememberedRule(rule, made, Hand(fields.Origin));
        if (Wrong.Count > 0) return await RegionsAsync(stop);
        if (rule == Guid.Empty) await rules.RememberAsync(ProjectDesk.Owner, made, Editing.Origin, stop);
        else await rules.ChangeAsync(ProjectDesk.Owner, rule, made, Editing.Origin, stop);
        Editing = null;
        return apply ? await DoAsync(new ApplyRules([made]), stop) : await RegionsAsync(stop);
    }

    /// <summary>All rules applied to what is on the table, to each file's pieces those that are for its hand.</summary>
    public Task<IActionResult> OnPostApplyRulesAsync(CancellationToken stop) => ActAsync(async () =>
    {
        var files = await art.FilesAsync(On, stop);
        var known = await rules.ListAsync(ProjectDesk.Owner, stop);
        var edits = files.Where(f => PiecesOf(f) > 0)
            .Select(f => (File: f, Rules: known.Where(r => r.IsFor(f.Origin)).Select(r => r.Rule).ToImmutableArray())).Where(f => !f.Rules.IsEmpty)
            .Select(f => (Edit)new ApplyRules(f.Rules, f.File.Id)).ToImmutableArray();
        if (!edits.IsEmpty) await DoNowAsync(edits is [var only] ? only : new EditsTogether(edits), stop);
    }, stop);

    private static string? Hand(string? origin) =>
        string.IsNullOrWhiteSpace(origin) ? null : origin.Trim() is { Length: <= LookRuleStore.LongestOrigin } hand ? hand : origin.Trim()[..LookRuleStore.LongestOrigin];

    /// <summary>"any", "none", or a colour as # and six digits.</summary>
    private string? Colour(string field, string? text)
    {
        var wanted = text?.Trim().ToLowerInvariant();
        if (string.IsNullOrEmpty(wanted) || wanted == "any") return null;
        if (wanted == "none" || (wanted.Length == 7 && wanted[0] == '#' && wanted.Skip(1).All(char.IsAsciiHexDigit))) return wanted == "none" ? wanted : wanted.ToUpperInvariant();
        Refuse(field, text, "Write any, none, or a colour such as #2040E0.");
        return null;
    }

    private static bool? Either(string? word, string yes) => string.IsNullOrEmpty(word) || word == "any" ? null : word == yes;
}
