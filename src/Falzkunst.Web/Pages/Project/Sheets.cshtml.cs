using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Running;
using Falzkunst.Formats.Production;
using Falzkunst.Web.Desk;
using Falzkunst.Web.LightTable;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages.Project;

/// <summary>Pieces on sheets, stock by stock.</summary>
public sealed class SheetsModel(ProjectDesk desk) : StationPage(desk)
{
    public override Station Station => Station.Sheets;
    public override bool SceneFollows => true;
    public override string EmptyTable => Value.Design.Pieces.IsEmpty
        ? "Here pieces are put on sheets of their stock. There are none yet; bring in art first."
        : "Here pieces are put on sheets of their stock. Say how far apart they lie, and put them there.";

    /// <summary>What lies on paper of one stock.</summary>
    public sealed record OnStock(string Key, Stock? Stock, IReadOnlyList<SheetLayout> Sheets, double Utilisation, IReadOnlyList<Unplaced> Left);

    /// <summary>Every stock that the design uses, in order of its first piece.</summary>
    public IReadOnlyList<OnStock> Stocks
    {
        get
        {
            var layouts = Value.Sheets;
            return [.. Value.Design.Pieces.Select(p => p.Stock).Distinct().Select(key =>
            {
                var sheets = layouts?.Sheets.Where(s => s.Stock == key).ToList() ?? [];
                var left = layouts?.Unplaced.Where(u => Value.Design.Find(u.Piece)?.Stock == key).ToList() ?? [];
                var area = sheets.Sum(s => s.Width * s.Height);
                var used = sheets.Sum(s => s.Utilisation(Value.Design) * s.Width * s.Height);
                return new OnStock(key, On.Drawer.Stocks.FirstOrDefault(s => s.Key == key), sheets, area > 0 ? used / area : 0, left);
            })];
        }
    }

    /// <summary>The stock whose sheets are on the table: the chosen one, else the first.</summary>
    public OnStock? Shown => Stocks.FirstOrDefault(s => s.Key == Selected) ?? (Stocks.Count > 0 ? Stocks[0] : null);

    public override string? ShownKey => Shown?.Key;

    public string SpacingField => Field("spacing", Value.SetOut.SpacingMm);

    protected override Scene BuildScene() => SceneBuilder.Sheets(On, Shown?.Sheets ?? []);

    public Task<IActionResult> OnPostPlaceAsync(string? spacing, CancellationToken stop)
    {
        var mm = ReadLength("spacing", spacing);
        if (mm is < 0 or > SetOut.MostSpacingMm) Refuse("spacing", spacing, $"Between 0 and {Length.Show(SetOut.MostSpacingMm, Units)}.");
        return Wrong.Count > 0 ? RegionsAsync(stop) : DoAsync(new PutOnSheets(mm!.Value), stop);
    }

    /// <summary>A sheet as a file: svg (a named group for each pass) or hpgl (a pen for each tool).</summary>
    public IActionResult OnGetFile(string sheet, string format)
    {
        if (Value.Sheets?.Find(sheet) is not { } layout || On.Drawer.Stocks.FirstOrDefault(s => s.Key == layout.Stock) is not { } stock) return NotFound();
        var plan = SheetPlan.For(layout, Value.Design, On.Drawer.Machine(Value.SetOut.Machine), stock, Value.SetOut.ScoreClearanceMm);
        var page = ProductionPage.Of(plan, layout.Width, layout.Height);
        var name = $"{FileWords(On.Project.Name)}-{layout.Id}";
        return format switch
        {
            "svg" => File(Encoding.UTF8.GetBytes(ProductionSvgWriter.Write(page)), "image/svg+xml", $"{name}.svg"),
            "hpgl" => File(Encoding.ASCII.GetBytes(HpglWriter.Write(page).Text), "application/vnd.hp-hpgl", $"{name}.hpgl"),
            _ => NotFound(),
        };
    }

    private static string FileWords(string name)
    {
        var words = new string([.. name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')]).Trim('-');
        return words.Length == 0 ? "card" : words;
    }
}
