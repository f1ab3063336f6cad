using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>The pieces: their stock and place, and what each line on them is for.</summary>
public sealed class PiecesModel(ProjectDesk desk, LookRuleStore rules, ArtStore art) : BenchPage(desk)
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
        if (edit is not (DuplicatePicked or DrawShape or TakeApart)) return;
        if (edit is DrawShape { Piece: { } onto })
        {
            Pick(new Picked([onto], [Value.Design.Require(onto).Lines[^1].Id]));
            return;
        }
        if (Picked.IsLines && edit is DuplicatePicked && Shown is { } piece)
        {
            var former = before.Design.Require(piece.Id);
            Pick(new Picked([piece.Id], [.. piece.Lines.Where(l => former.IndexOf(l.Id) < 0).Select(l => l.Id)]));
            return;
        }
        var made = Value.Design.Pieces.Where(p => before.Design.Find(p.Id) is null).Select(p => p.Id).ToImmutableArray();
        if (!made.IsEmpty) Pick(Picked.Whole(made));
    }

    public async Task<IActionResult> OnPostOperationAsync(string piece, string[] lines, Operation operation, CancellationToken stop)
    {
        if (!Enum.IsDefined(operation)) return BadRequest();
        var owner = Value.Design.Find(piece);
        var look = owner?.Lines.FirstOrDefault(l => l.Id == lines.FirstOrDefault())?.Look;
        var answer = await DoAsync(new SetOperation(piece, [.. lines], operation), stop);
        if (Notice is null && look is { IsDrawnHere: false }) await rules.RememberAsync(ProjectDesk.Owner, LookRule.For(look, operation), await OriginOf(owner!, stop), stop);
        return answer;
    }

    private async Task<string?> OriginOf(Piece piece, CancellationToken stop) =>
        piece.Art is { } file ? (await art.FindAsync(ProjectDesk.Owner, Id, file, stop))?.Origin : null;

    /// <summary>Lines on other pieces that look like those of a kind and have another operation.</summary>
    public (int Lines, int Pieces) AlikeElsewhere(Piece piece, LineKind kind)
    {
        var alike = Value.Design.Pieces.Where(p => p != piece)
            .Select(p => p.Lines.Count(l => l.Look == kind.Look && l.Operation != kind.Operation)).Where(n => n > 0).ToList();
        return (alike.Sum(), alike.Count);
    }

    public async Task<IActionResult> OnPostOperationOfLookAsync(string piece, string line, CancellationToken stop)
    {
        if (Value.Design.Find(piece)?.Lines.FirstOrDefault(l => l.Id == line) is not { } model) return await RegionsAsync(stop);
        return await DoAsync(new SetOperationOfLook(model.Look, model.Operation), stop);
    }

    /// <summary>Picks every piece of the same outline as the one picked, or every line of the piece that looks like one picked.</summary>
    public Task<IActionResult> OnGetAlikeAsync(CancellationToken stop)
    {
        if (Shown is { } piece)
        {
            if (Picked.IsLines)
            {
                var looks = piece.Lines.Where(l => Picked.Lines.Contains(l.Id)).Select(l => l.Look).ToHashSet();
                Pick(new Picked([piece.Id], [.. piece.Lines.Where(l => looks.Contains(l.Look)).Select(l => l.Id)]));
            }
            else
            {
                Pick(Picked.Whole([piece.Id, .. Value.Design.Pieces.Where(p => p != piece && SameShape.Are(p, piece)).Select(p => p.Id)]));
            }
        }
        return RegionsAsync(stop);
    }

    /// <summary>Mends a finding by its place in the list, if it is still the one that the page showed.</summary>
    public async Task<IActionResult> OnPostMendAsync(int number, string code, int way, CancellationToken stop)
    {
        var finding = On.Findings.ElementAtOrDefault(number - 1);
        if (finding?.Code != code || Mend.For(finding, Value.Design).ElementAtOrDefault(way) is not { } mend) return await RegionsAsync(stop);
        return await DoAsync(mend.Edit, stop);
    }

    /// <summary>Takes an aid, or another line on no piece, away.</summary>
    public Task<IActionResult> OnPostRemoveLooseAsync(string line, CancellationToken stop) => DoAsync(new RemoveLoose([line]), stop);

    /// <summary>Width and height; where only one was changed and the ratio is kept, the other follows.</summary>
    public Task<IActionResult> OnPostSizeAsync(string? width, string? height, bool ratio, CancellationToken stop)
    {
        var (w, h) = (ReadLength("width", width), ReadLength("height", height));
        if (w is < 0 or > Arranging.MostMm) Refuse("width", width, "That is too small or too large for a piece.");
        if (h is < 0 or > Arranging.MostMm) Refuse("height", height, "That is too small or too large for a piece.");
        if (Wrong.Count > 0 || Picked.IsEmpty) return RegionsAsync(stop);
        var now = Arranging.SizeNow(Value.Design, Picked);
        var (widthTyped, heightTyped) = (width != Length.InField(now.Width, Units), height != Length.InField(now.Height, Units));
        if (!widthTyped && !heightTyped) return RegionsAsync(stop);
        var (newWidth, newHeight) = (widthTyped ? w!.Value : now.Width, heightTyped ? h!.Value : now.Height);
        if (ratio && widthTyped && !heightTyped && now.Width > 0) newHeight = now.Height * newWidth / now.Width;
        if (ratio && heightTyped && !widthTyped && now.Height > 0) newWidth = now.Width * newHeight / now.Height;
        return DoAsync(new ResizePicked(Picked, newWidth, newHeight), stop);
    }

    /// <summary>Distances from the card's left and upper edge.</summary>
    public Task<IActionResult> OnPostPlaceAsync(string? left, string? top, CancellationToken stop)
    {
        var (x, y) = (ReadLength("left", left), ReadLength("top", top));
        if (Wrong.Count > 0 || Picked.IsEmpty) return RegionsAsync(stop);
        var corner = Picked.Box(Value.Design).Min;
        var dx = left == Length.InField(corner.X, Units) ? 0 : x!.Value - corner.X;
        var dy = top == Length.InField(corner.Y, Units) ? 0 : y!.Value - corner.Y;
        return dx == 0 && dy == 0 ? RegionsAsync(stop) : DoAsync(new MovePicked(Picked, dx, dy), stop);
    }

    public Task<IActionResult> OnPostStockAsync(string stock, CancellationToken stop) =>
        Picked.IsEmpty ? RegionsAsync(stop) : DoAsync(new SetStock(Picked.Pieces, stock), stop);

    /// <summary>A stock dragged onto a piece, or a piece dragged onto a stock.</summary>
    public Task<IActionResult> OnPostStockOfAsync(string piece, string stock, CancellationToken stop) => DoAsync(new SetStock([piece], stock), stop);

    /// <summary>A row of the ledger dragged to another layer.</summary>
    public Task<IActionResult> OnPostLayerAsync(string piece, int layer, CancellationToken stop) => DoAsync(new OrderPiece(piece, layer), stop);

    public Task<IActionResult> OnPostQuantityAsync(string piece, string? quantity, CancellationToken stop) =>
        ReadCount("quantity", quantity, 1, Edits.MostOfAPiece) is { } number ? DoAsync(new SetQuantity(piece, number), stop) : RegionsAsync(stop);

    public Task<IActionResult> OnPostNameAsync(string piece, string? name, CancellationToken stop)
    {
        if (!string.IsNullOrWhiteSpace(name) && name.Trim().Length <= Edits.LongestName) return DoAsync(new RenamePiece(piece, name.Trim()), stop);
        Refuse("name", name, $"Between 1 and {Edits.LongestName} characters.");
        return RegionsAsync(stop);
    }

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
