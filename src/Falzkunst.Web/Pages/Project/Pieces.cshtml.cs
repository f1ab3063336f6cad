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
