using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Files brought in, what was not understood of them, their motifs, and the rules that give lines their operation.</summary>
public sealed class ArtModel(ProjectDesk desk, ArtDesk art, LookRuleStore rules) : StationPage(desk)
{
    /// <summary>Motifs on one page of a contact sheet.</summary>
    public const int MotifsAPage = 60;

    public override Station Station => Station.Art;
    public override string? OverPartial => "_ArtOver";
    public override string Modes => "stacked spread";
    public override string EmptyTable => "This station is where drawings come in. Drop an SVG or DXF file here, or choose one below.";

    public IReadOnlyList<ArtCard> Files { get; private set; } = [];
    public IReadOnlyList<RememberedRule> Rules { get; private set; } = [];

    /// <summary>How many lines on the table each rule would change now, in their order.</summary>
    public ImmutableArray<int> RuleChanges { get; private set; } = [];

    /// <summary>The hands that files came from so far.</summary>
    public IReadOnlyList<string> Origins { get; private set; } = [];

    /// <summary>The motifs of the file on show while they are chosen from; null otherwise.</summary>
    public ImmutableArray<Motif>? Sheet { get; private set; }

    /// <summary>Number of the first motif on the page of the contact sheet.</summary>
    public int FirstMotif { get; private set; } = 1;

    /// <summary>The project that pieces are chosen from; null where a file is chosen from, or nothing is.</summary>
    public (Guid Id, string Name)? Other { get; private set; }

    /// <summary>Projects that pieces can be taken from.</summary>
    public IReadOnlyList<ProjectCard> Others { get; private set; } = [];

    /// <summary>The rule that is being written; null where none is.</summary>
    public RememberedRule? Editing { get; private set; }

    /// <summary>Files whose size is asked, since no paper is so large.</summary>
    public IReadOnlyList<SizeAsked> Asked { get; private set; } = [];

    private bool _broughtIn;

    /// <summary>The file whose notes are shown: the one just brought in, the chosen one, else the newest.</summary>
    public ArtCard? Shown => (_broughtIn ? null : Files.FirstOrDefault(f => f.Id.ToString() == Selected)) ?? (Files.Count > 0 ? Files[^1] : null);

    public override string? ShownKey => Shown?.Id.ToString();

    public string ColourOf(Piece piece) => On.Drawer.ColourOf(piece.Stock);

    /// <summary>Pieces on the table that came from a file.</summary>
    public int PiecesOf(ArtCard file) => Value.Design.Pieces.Count(p => p.Art == file.Id);

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
        if (Other is not null) return;
        // A sheet that nothing was taken from yet lies open to be chosen from.
        if (Shown is { Pieces: > ArtDesk.SheetOfMotifs } file && PiecesOf(file) == 0) Sheet ??= await art.MotifsAsync(On, file.Id, stop);
    }

    protected override Scene BuildScene()
    {
        var scene = SceneBuilder.Pieces(On);
        return scene with { Layouts = [.. scene.Layouts.Reverse()] };
    }

    public Task<IActionResult> OnPostBringInAsync(List<IFormFile> files, string? origin, CancellationToken stop) => ActAsync(async () =>
    {
        if (files.Count == 0) throw new NotDone("No file arrived. Choose an SVG or DXF file and try once more.");
        var hand = Hand(origin);
        var head = SeenHead;
        var asked = new List<SizeAsked>();
        foreach (var file in files)
        {
            using var content = new MemoryStream();
            await file.CopyToAsync(content, stop);
            var name = Path.GetFileName(file.FileName.Replace('\0', ' '));
            try
            {
                Show(await art.BringInAsync(On, head, name, content.ToArray(), hand, stop));
                head = On.Project.Head;
                _broughtIn = true;
            }
            catch (SizeAsked size)
            {
                asked.Add(size);
            }
            catch (Exception e) when (e is ReadRefused or EditRefused)
            {
                throw new NotDone($"{name} was not brought in. {(e is EditRefused refused ? ReasonWords.For(refused, Units) : e.Message)}");
            }
        }
        Asked = asked;
    }, stop);

    /// <summary>Brings in a file whose size was asked.</summary>
    public Task<IActionResult> OnPostAtSizeAsync(Guid file, double scale, CancellationToken stop) => ActAsync(async () =>
    {
        try
        {
            Show(await art.BringInAsync(On, SeenHead, file, scale, stop));
            _broughtIn = true;
        }
        catch (ReadRefused e)
        {
            throw new NotDone($"It was not brought in. {e.Message}");
        }
    }, stop);

    /// <summary>The contact sheet of a file, from a motif on.</summary>
    public async Task<IActionResult> OnGetMotifsAsync(Guid file, int first, CancellationToken stop)
    {
        Sheet = await art.MotifsAsync(On, file, stop);
        FirstMotif = Math.Clamp(first, 1, Math.Max(1, Sheet.Value.Length));
        await LoadAsync(stop);
        return Partial("_ArtOver", this);
    }

    /// <summary>The pieces of another project as a contact sheet.</summary>
    public async Task<IActionResult> OnGetOtherAsync(Guid other, int first, CancellationToken stop)
    {
        (var name, Sheet) = await art.MotifsOfAsync(other, stop);
        Other = (other, name);
        FirstMotif = Math.Clamp(first, 1, Math.Max(1, Sheet.Value.Length));
        await LoadAsync(stop);
        return Partial("_ArtOver", this);
    }

    public Task<IActionResult> OnPostTakeOtherAsync(Guid other, int[] motifs, CancellationToken stop) => ActAsync(async () =>
        Show(await art.TakeFromAsync(On, SeenHead, other, motifs, stop)), stop);

    public Task<IActionResult> OnPostTakeAsync(Guid file, int[] motifs, bool all, CancellationToken stop) => ActAsync(async () =>
        Show(await art.TakeAsync(On, SeenHead, file, all ? null : motifs, stop)), stop);

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
        return Partial("_Words", Wrong.Values.FirstOrDefault() ?? made.InWords() + (Hand(fields.Origin) is { } hand ? $", in files from {hand}." : "."));
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
        var head = SeenHead;
        foreach (var file in files.Where(f => PiecesOf(f) > 0))
        {
            var fitting = known.Where(r => r.IsFor(file.Origin)).Select(r => r.Rule).ToImmutableArray();
            if (fitting.IsEmpty) continue;
            Show(await Desk.DoAsync(On, head, new ApplyRules(fitting, file.Id), stop));
            head = On.Project.Head;
        }
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
