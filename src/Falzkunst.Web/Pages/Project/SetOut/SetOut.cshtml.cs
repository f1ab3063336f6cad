using System.Globalization;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Card, machine, units, how many.</summary>
public sealed class SetOutModel(ProjectDesk desk) : CommandPage(desk)
{
    public override Station Station => Station.SetOut;

    protected override Scene BuildScene() => SceneBuilder.Card(On);

    /// <summary>The base piece; null where none was made.</summary>
    public Core.Designs.Piece? Base => BasePiece.Of(Value.Design);

    /// <summary>The base piece has the outline and the folds of the card as it is set.</summary>
    public bool BaseIsAsSet => Base is { } made && BasePiece.IsAsSet(made, Value.SetOut.Card);

    /// <summary>The stock that a base is most often of: the thickest of those that a sheet at hand lets the open card lie on.</summary>
    public string? UsualBaseStock => On.Drawer.Stocks.OrderByDescending(s => s.Sheets.Any(Holds)).ThenByDescending(s => s.ThicknessMm).FirstOrDefault()?.Key;

    private bool Holds(Core.Catalogue.SheetSize sheet)
    {
        var card = Value.SetOut.Card;
        return (sheet.WidthMm >= card.OpenWidth && sheet.HeightMm >= card.OpenHeight) || (sheet.HeightMm >= card.OpenWidth && sheet.WidthMm >= card.OpenHeight);
    }

    /// <summary>Makes the base piece, or changes it to the card as it is set now.</summary>
    public Task<IActionResult> OnPostBaseAsync(string? stock, CancellationToken stop) =>
        DoAsync(Base is { } made ? new FitBase(made.Id) : new MakeBase(stock ?? ""), stop);

    public string Field(string name, int count) => Typed.GetValueOrDefault(name) ?? count.ToString(CultureInfo.InvariantCulture);

    /// <summary>What was understood of a field that held more than a plain number.</summary>
    public Dictionary<string, string> Understood { get; } = new(StringComparer.Ordinal);

    public Task<IActionResult> OnPostCardAsync(string? width, string? height, CardFold fold, CancellationToken stop)
    {
        var (w, h) = (ReadLength("width", width), ReadLength("height", height));
        Within("width", width, w);
        Within("height", height, h);
        if (Wrong.Count > 0) return RegionsAsync(stop);
        Echo("width", width, w!.Value);
        Echo("height", height, h!.Value);
        var card = Value.SetOut.Card;
        return SettleAsync(Value.SetOut with { Card = CardFormat.Sized(Length.Kept(w.Value, card.FoldedWidth, Units), Length.Kept(h.Value, card.FoldedHeight, Units), fold) }, stop);
    }

    public Task<IActionResult> OnPostCommonAsync(string name, CancellationToken stop)
    {
        var common = CardFormat.Common.FirstOrDefault(c => c.Name == name);
        return common is null
            ? RegionsAsync(stop)
            : SettleAsync(Value.SetOut with { Card = common with { Fold = Value.SetOut.Card.Fold } }, stop);
    }

    public Task<IActionResult> OnPostMachineAsync(string machine, CancellationToken stop) =>
        SettleAsync(Value.SetOut with { Machine = machine }, stop);

    public Task<IActionResult> OnPostUnitsAsync(Units units, CancellationToken stop) =>
        SettleAsync(Value.SetOut with { Units = units }, stop);

    public Task<IActionResult> OnPostCardsAsync(string? cards, CancellationToken stop) =>
        ReadCount("cards", cards, 1, Edits.MostCards) is { } number
            ? SettleAsync(Value.SetOut with { Cards = number }, stop)
            : RegionsAsync(stop);

    public Task<IActionResult> OnPostClearanceAsync(string? clearance, CancellationToken stop)
    {
        var mm = ReadLength("clearance", clearance);
        if (mm is < 0 or > SetOut.MostClearanceMm) Refuse("clearance", clearance, $"Between 0 and {Length.Show(SetOut.MostClearanceMm, Units)}.");
        return Wrong.Count > 0 ? RegionsAsync(stop) : SettleAsync(Value.SetOut with { ScoreClearanceMm = mm!.Value }, stop);
    }

    // What is so already needs no edit, unless the page does not know it.
    private Task<IActionResult> SettleAsync(SetOut setOut, CancellationToken stop) =>
        setOut == Value.SetOut && SeenHead == On.Project.Head ? RegionsAsync(stop) : DoAsync(new ChangeSetOut(setOut), stop);

    private void Within(string field, string? text, double? mm)
    {
        if (mm is < CardFormat.LeastMm or > CardFormat.MostMm)
            Refuse(field, text, $"That is {Length.Show(mm.Value, Units)}. A card measures between {Length.Show(CardFormat.LeastMm, Units)} and {Length.Show(CardFormat.MostMm, Units)} each way.");
    }

    private void Echo(string field, string? text, double mm)
    {
        if (text is not null && !string.Equals(text.Trim(), Length.InField(mm, Units), StringComparison.OrdinalIgnoreCase))
            Understood[field] = $"“{text.Trim()}” is {Length.Show(mm, Units)}";
    }
}
