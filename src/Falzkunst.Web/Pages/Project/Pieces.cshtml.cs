using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>The pieces with their stock, quantity and kinds of lines.</summary>
public sealed class PiecesModel(ProjectDesk desk, LookRuleStore rules) : StationPage(desk)
{
    public override Station Station => Station.Pieces;
    public override string Modes => "spread stacked";
    public override string EmptyTable => "Pieces are what comes off the machine: an outline, its openings and the lines on it. Bring in art first.";

    /// <summary>The piece in the tray: the chosen one, else the first.</summary>
    public Piece? Shown => Value.Design.Pieces.FirstOrDefault(p => p.Id == Selected) ?? Value.Design.Pieces.FirstOrDefault();

    public override string? ShownKey => Shown?.Id;

    public Stock? StockOf(Piece piece) => On.Drawer.Stocks.FirstOrDefault(s => s.Key == piece.Stock);
    public string ColourOf(Piece piece) => On.Drawer.ColourOf(piece.Stock);

    /// <summary>Findings about a piece with their numbers on the table.</summary>
    public IEnumerable<(int Number, Finding Finding)> FindingsOf(Piece piece) =>
        Value.Design.Findings.Select((f, i) => (i + 1, f)).Where(f => f.f.Piece == piece.Id);

    protected override Scene BuildScene() => SceneBuilder.Pieces(On);

    public async Task<IActionResult> OnPostOperationAsync(string piece, string[] lines, Operation operation, CancellationToken stop)
    {
        if (!Enum.IsDefined(operation)) return BadRequest();
        var look = Value.Design.Find(piece)?.Lines.FirstOrDefault(l => l.Id == lines.FirstOrDefault())?.Look;
        var answer = await DoAsync(new SetOperation(piece, [.. lines], operation), stop);
        if (Notice is null && look is not null) await rules.RememberAsync(ProjectDesk.Owner, LookRule.For(look, operation), stop);
        return answer;
    }

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

    public Task<IActionResult> OnPostCloseAsync(string piece, string line, CancellationToken stop) => DoAsync(new CloseOutline(piece, line), stop);

    /// <summary>Width and height; where only one was changed and the ratio is kept, the other follows.</summary>
    public Task<IActionResult> OnPostSizeAsync(string piece, string? width, string? height, bool ratio, CancellationToken stop)
    {
        var (w, h) = (ReadLength("width", width), ReadLength("height", height));
        if (w is < Arranging.LeastMm or > Arranging.MostMm) Refuse("width", width, "That is too small or too large for a piece.");
        if (h is < Arranging.LeastMm or > Arranging.MostMm) Refuse("height", height, "That is too small or too large for a piece.");
        if (Wrong.Count > 0 || Value.Design.Find(piece) is not { } now) return RegionsAsync(stop);
        var (widthTyped, heightTyped) = (width != Length.InField(now.Size.Width, Units), height != Length.InField(now.Size.Height, Units));
        if (!widthTyped && !heightTyped) return RegionsAsync(stop);
        var (newWidth, newHeight) = (widthTyped ? w!.Value : now.Size.Width, heightTyped ? h!.Value : now.Size.Height);
        if (ratio && widthTyped && !heightTyped) newHeight = now.Size.Height * newWidth / now.Size.Width;
        if (ratio && heightTyped && !widthTyped) newWidth = now.Size.Width * newHeight / now.Size.Height;
        return DoAsync(new ResizePiece(piece, newWidth, newHeight), stop);
    }

    public Task<IActionResult> OnPostTurnAsync(string piece, string? degrees, CancellationToken stop)
    {
        if (double.TryParse(degrees?.Trim().TrimEnd('°').Replace(',', '.'), System.Globalization.NumberStyles.Float, System.Globalization.CultureInfo.InvariantCulture, out var by) && Math.Abs(by) <= 3600)
            return by == 0 ? RegionsAsync(stop) : DoAsync(new TurnPiece(piece, by), stop);
        Refuse("degrees", degrees, "Degrees, such as 90 or −12.5; positive is clockwise.");
        return RegionsAsync(stop);
    }

    public Task<IActionResult> OnPostMirrorAsync(string piece, bool leftRight, CancellationToken stop) => DoAsync(new MirrorPiece(piece, leftRight), stop);
    public Task<IActionResult> OnPostDuplicateAsync(string piece, CancellationToken stop) => DoAsync(new DuplicatePiece(piece), stop);

    public Task<IActionResult> OnPostStockAsync(string piece, string stock, CancellationToken stop) =>
        DoAsync(new SetStock([piece], stock), stop);

    public Task<IActionResult> OnPostQuantityAsync(string piece, string? quantity, CancellationToken stop) =>
        ReadCount("quantity", quantity, 1, Edits.MostOfAPiece) is { } number ? DoAsync(new SetQuantity(piece, number), stop) : RegionsAsync(stop);

    public Task<IActionResult> OnPostNameAsync(string piece, string? name, CancellationToken stop)
    {
        if (!string.IsNullOrWhiteSpace(name) && name.Trim().Length <= Edits.LongestName) return DoAsync(new RenamePiece(piece, name.Trim()), stop);
        Refuse("name", name, $"Between 1 and {Edits.LongestName} characters.");
        return RegionsAsync(stop);
    }

    public Task<IActionResult> OnPostRemoveAsync(string piece, CancellationToken stop) => DoAsync(new RemovePieces([piece]), stop);
}
