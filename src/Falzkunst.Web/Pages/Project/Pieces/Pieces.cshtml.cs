using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Building;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Texts;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Falzkunst.Web.Pictures;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>The pieces: their stock and place, and what each line on them is for.</summary>
public sealed class PiecesModel(ProjectDesk desk, LookRuleStore rules, ArtStore art, DrawerDesk drawer, FaceDesk faces) : BenchPage(desk)
{
    public override Station Station => Station.Pieces;
    public override string Modes => "spread stacked";
    public override string? OverPartial => "_PiecesOver";
    public override string EmptyTable => "Pieces are what comes off the machine: an outline, its openings and the lines on it. Bring in art, or draw a shape.";
    public override bool PicksOnTable => true;

    /// <summary>Findings with their numbers on the table: those about a piece, or those about none.</summary>
    public IEnumerable<(int Number, Finding Finding)> FindingsOf(Piece? piece) =>
        On.Findings.Select((f, i) => (i + 1, f)).Where(f => f.f.Piece == piece?.Id);

    protected override Scene BuildScene() => SceneBuilder.Pieces(On);

    /// <summary>What an edit made is picked after it, so that the next command is about that.</summary>
    protected override void PickAfter(Edit edit, Core.Projects.Project before)
    {
        if (edit is not (DuplicatePicked or DrawShape or TakeApart or AddEdgeLine or AddText or MakePlain or WordsAsPiece) && !IsBuilding(edit)) return;
        if (edit is WordsAsPiece && Value.Design.Pieces.FirstOrDefault(p => before.Design.Find(p.Id) is null && p.Follows is FromWords { Of: null }) is { Follows: FromWords words } cut)
        {
            // The words stay what is worked on.
            Pick(Picked.OfLines(cut.Id, words.Text));
            return;
        }
        if (PickBuilt(edit, before)) return;
        if (((edit as AddEdgeLine)?.Piece ?? (edit as AddText)?.Piece ?? (edit as DrawShape)?.Piece) is { } onto)
        {
            Pick(Picked.OfLines(onto, Value.Design.Require(onto).Items[^1].Id));
            return;
        }
        if (edit is DuplicatePicked { What: { IsLines: true, Lines: var copied } })
        {
            Pick(NewOn(copied));
            return;
        }
        if (edit is MakePlain { Items: var plain })
        {
            Pick(NewOn(plain));
            return;
        }
        var made = Value.Design.Pieces.Where(p => before.Design.Find(p.Id) is null).Select(p => p.Id).ToImmutableArray();
        if (!made.IsEmpty) Pick(Picked.OfPieces(made));

        Picked NewOn(ImmutableArray<PickedLines> lines) => Picked.OfLines([.. lines.Select(l => new PickedLines(
            l.Piece, [.. Value.Design.Require(l.Piece).Lines.Select(n => n.Id).Except(before.Design.Require(l.Piece).Lines.Select(n => n.Id))]))]);
    }

    /// <summary>A rule that a choice suggests for the next files; null where it suggests none, or one says it already.</summary>
    public RuleOffer? Offer { get; private set; }

    /// <summary>An operation chosen for lines of a telling look is offered as a rule for the next file; nothing is remembered without a yes.</summary>
    protected override async Task DoneAsync(Edit edit, Core.Projects.Project before, CancellationToken stop)
    {
        if (edit is not SetOperation { Lines: [var first, ..] } set) return;
        var piece = before.Design.Require(first.Piece);
        if (piece.Find(first.Ids[0])?.Look is not { } look || LookRule.Typical(look, set.Operation) is not { } rule) return;
        var origin = await OriginOf(piece, stop);
        var known = (await rules.ListAsync(ProjectDesk.Owner, stop)).FirstOrDefault(r => r.IsFor(origin) && r.Rule.Fits(look));
        if (known?.Rule.Operation != set.Operation) Offer = new RuleOffer(rule, origin, Working.Changes(Value.Design, [rule])[0]);
    }

    /// <summary>Keeps a rule that was offered.</summary>
    /// <param name="operation">What its lines are for.</param>
    /// <param name="stroke">Colour of the line; none where it does not matter.</param>
    /// <param name="fill">Colour of the fill.</param>
    /// <param name="dashed">Broken strokes only.</param>
    /// <param name="layer">Name of the layer.</param>
    /// <param name="origin">The hand it is for; none for any.</param>
    /// <param name="apply">The lines here are changed by it as well.</param>
    /// <param name="stop">Cancels.</param>
    public async Task<IActionResult> OnPostKeepRuleAsync(
        Operation operation, string? stroke, string? fill, bool dashed, string? layer, string? origin, bool apply, CancellationToken stop)
    {
        var rule = new LookRule(operation, stroke, fill, dashed ? true : null, null, layer);
        if (!LookRule.IsColour(stroke) || !LookRule.IsColour(fill) || layer?.Length > LookRuleStore.LongestOrigin || origin?.Length > LookRuleStore.LongestOrigin || rule.SpeaksOfTheSame(new LookRule(operation)))
            return BadRequest();
        await rules.RememberAsync(ProjectDesk.Owner, rule, origin, stop);
        return apply ? await DoAsync(new ApplyRules([rule]), stop) : await RegionsAsync(stop);
    }

    private async Task<string?> OriginOf(Piece piece, CancellationToken stop) =>
        piece.Art is { } file ? (await art.FindAsync(ProjectDesk.Owner, Id, file, stop))?.Origin : null;

    /// <summary>What drawing scores out to the edges would do, in words; null where none of them stops short.</summary>
    /// <param name="piece">The piece they are on.</param>
    /// <param name="lines">Ids of the lines, scores or others.</param>
    public string? DrawnOut(Piece piece, IReadOnlyCollection<string> lines)
    {
        var clearance = Value.SetOut.ScoreClearanceMm;
        var longer = ScoreEnds.DrawnOut(piece, clearance).Where(l => lines.Contains(l.Key)).Sum(l => l.Value.Length - piece.Find(l.Key)!.Path.Length);
        return longer > 0 ? $"They stop short and run as they are drawn; out to {Length.Show(clearance, Units)} before the cut they get {Length.Show(longer, Units)} longer" : null;
    }

    /// <summary>Lines on other pieces that look like those of a kind and have another operation.</summary>
    public (int Lines, int Pieces) AlikeElsewhere(Piece piece, LineKind kind)
    {
        var alike = Value.Design.Pieces.Where(p => p.Id != piece.Id)
            .Select(p => p.Lines.Count(l => l.Look == kind.Look && l.Operation != kind.Operation)).Where(n => n > 0).ToList();
        return (alike.Sum(), alike.Count);
    }

    /// <summary>
    /// Picks every piece of the same outline as the one picked, or every line that looks like one picked: on the pieces that have
    /// picked lines, or on all.
    /// </summary>
    public Task<IActionResult> OnPostAlikeAsync(bool everywhere, CancellationToken stop)
    {
        if (Picked.IsLines)
        {
            var looks = Picked.Lines.SelectMany(l => Value.Design.Require(l.Piece).Lines.Where(n => l.Ids.Contains(n.Id)).Select(n => n.Look)).ToHashSet();
            var on = Picked.PieceIds.ToHashSet();
            Pick(Picked.OfLines([.. Value.Design.Pieces.Where(p => everywhere || on.Contains(p.Id))
                .Select(p => new PickedLines(p.Id, [.. p.Lines.Where(l => looks.Contains(l.Look)).Select(l => l.Id)])).Where(l => !l.Ids.IsEmpty)]));
        }
        else if (Shown is { } piece)
        {
            Pick(Picked.OfPieces([piece.Id, .. Value.Design.Pieces.Where(p => p != piece && SameShape.Are(p, piece)).Select(p => p.Id)]));
        }
        return RegionsAsync(stop);
    }

    /// <summary>Pens, foils and tips of the drawer that an operation takes.</summary>
    public IEnumerable<CraftTool> ToolsFor(Operation operation) => operation switch
    {
        Operation.Draw => On.Drawer.OfferedTools(CraftToolKind.Pen),
        Operation.Foil => On.Drawer.OfferedTools(CraftToolKind.Foil).Concat(On.Drawer.OfferedTools(CraftToolKind.FoilTip)),
        Operation.Emboss => On.Drawer.OfferedTools(CraftToolKind.EmbossTip),
        _ => [],
    };

    /// <summary>A line has the colour and the width of a tool, as far as that has them.</summary>
    public bool IsWorkedWith(WorkedItem line, CraftTool tool) =>
        (tool.Colour is null || string.Equals(tool.Colour, line.Ink, StringComparison.OrdinalIgnoreCase)) && (tool.WidthMm is not { } width || Math.Abs(width - line.TipMm) < 1e-6);

    /// <summary>The numbers of the picked lines become those of their stock, and the lines follow the stock again.</summary>
    public Task<IActionResult> OnPostKeepForStockAsync(CancellationToken stop) => ActAsync(async () =>
    {
        On.Project.DemandSeen(SeenHead);
        if (PickedLines is not [var (piece, line), ..] || line.EffectiveSettings.Tool is not { } change || line.Operation.ToolFor() is not { } tool) throw new NotDone("These lines have no numbers of their own to keep.");
        var stock = On.Drawer.Stock(piece.Stock);
        await drawer.KeepAsync(stock.Key, change.Over(stock.SettingsFor(tool)), $"from {piece.Name}, {On.Project.Name}", stop);
        var action = new StockSettingsAction();
        await DoNowAsync(action.For(new BenchContext(Value, Picked, On.Drawer)), stop);
        Show((await Desk.OpenAsync(Id, stop))!);
        Notice = $"Kept for {stock.Name}: {ToolWords.Describe(On.Drawer.Stock(stock.Key).SettingsFor(tool))}. All its sheets run so from now on; the drawer's Undo takes it back.";
    }, stop);

    /// <summary>Mends a finding by its place in the list, if it is still the one that the page showed.</summary>
    public async Task<IActionResult> OnPostMendAsync(int number, string code, int way, CancellationToken stop)
    {
        var finding = On.Findings.ElementAtOrDefault(number - 1);
        if (finding?.Code != code || Mend.For(finding, Value.Design).ElementAtOrDefault(way) is not { } mend) return await RegionsAsync(stop);
        return await DoAsync(mend.Edit, stop);
    }

    /// <summary>Takes an aid, or another line on no piece, away.</summary>
    public Task<IActionResult> OnPostRemoveLooseAsync(string line, CancellationToken stop) => DoAsync(new RemoveLoose([line]), stop);

    /// <summary>The one picked text; null for anything else.</summary>
    public TextItem? PickedText => PickedLines is [(_, TextItem text)] ? text : null;

    /// <summary>Ways to cut the picked words as a piece; none for a single-line face.</summary>
    public IReadOnlyList<WordCandidate> WordCandidates => Shown is { } piece && PickedText is { } text
        ? WordCandidate.For(piece, text, LeastWidth.ForStock(Value.SetOut, piece.Stock, On.Drawer).Mm, ColourOf(piece)) : [];

    /// <summary>The letters of the picked words that stand apart from the largest part.</summary>
    public ImmutableArray<string> LooseLetters => Shown is { Follows: FromWords words } piece ? WordShapes.Loose(piece, words) : [];

    /// <summary>How much larger a layer under the picked words is that holds all letters together, mm.</summary>
    public double LayerGrowth => Shown is { Follows: FromWords words } piece ? WordShapes.GrowthToOne(WordShapes.Parts(piece, words)) ?? UsualLayerMm : UsualLayerMm;

    private const double UsualLayerMm = 3;

    /// <summary>Brings a face in, and sets the picked words in it.</summary>
    public Task<IActionResult> OnPostBringFaceAsync(IFormFile? face, CancellationToken stop) => ActAsync(async () =>
    {
        if (face is null) throw new NotDone("Choose a file with a face first.");
        var key = await faces.BringInAsync(face, stop);
        Show((await Desk.OpenAsync(Id, stop))!);
        if (PickedText is null) return;
        await DoNowAsync(new FaceAction(key).For(new BenchContext(Value, Picked, On.Drawer)), stop);
    }, stop);

    /// <summary>Takes a face of the workshop away; words that are set in it keep their form.</summary>
    public Task<IActionResult> OnPostRemoveFaceAsync(string face, CancellationToken stop) => ActAsync(async () =>
    {
        await faces.RemoveAsync(face, stop);
        Show((await Desk.OpenAsync(Id, stop))!);
    }, stop);

    /// <summary>The faces that are offered for what is done along letters: single lines first where a blade goes through nothing.</summary>
    public IEnumerable<FaceName> FacesFor(Operation operation) =>
        On.Drawer.Faces.All.OrderBy(f => f.IsOwn ? -1 : (f.Kind == FaceKind.SingleLine) == (operation is Operation.Draw or Operation.Foil or Operation.Emboss or Operation.Score) ? 0 : 1);

    /// <summary>Picture of a variant; number 0 is what is there now of the piece picked, or of the design.</summary>
    public IActionResult OnGetVariant(int number)
    {
        var pieces = number == 0 ? Shown is { } now ? [now] : Value.Design.Pieces : Value.Variants.FirstOrDefault(v => v.Number == number)?.Pieces;
        if (pieces is not { } shown) return NotFound();
        return Content(ProjectPicture.Svg(Value with { Design = Value.Design with { Pieces = shown } }, On.Drawer), "image/svg+xml");
    }

    /// <summary>The variants of what is picked that are kept aside: a piece's own, or all.</summary>
    public IReadOnlyList<Variant> Kept => [.. Value.Variants.Where(v => v.Of is null || Shown is null || v.Of == Shown.Id)];

    /// <summary>The variants and what is there now, side by side over the table.</summary>
    public IActionResult OnGetSideBySide() => Partial("_SideBySide", this);
}
