using System.Globalization;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Running;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Runs;
using Falzkunst.Formats.Production;

namespace Falzkunst.Web.Desk;

/// <summary>One side of a sheet as a file for a machine.</summary>
/// <param name="Content">The file.</param>
/// <param name="MediaType">Its kind.</param>
/// <param name="Name">Its name, which says side, pens and whether it is corrected.</param>
/// <param name="IsBack">The sheet lies face down.</param>
/// <param name="Pens">What each pen number of an HPGL file is; empty for others.</param>
/// <param name="CorrectedAt">When the marks were read that it is corrected by; null where it is as laid out.</param>
public sealed record ProductionFile(byte[] Content, string MediaType, string Name, bool IsBack, IReadOnlyDictionary<int, string> Pens, DateTimeOffset? CorrectedAt)
{
    /// <summary>A name as files bear it: letters, digits and hyphens.</summary>
    public static string InFileName(string name)
    {
        var words = new string([.. name.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : '-')]).Trim('-');
        return words.Length == 0 ? "card" : words;
    }
}

/// <summary>Sheets as files for machines, a file for each side, corrected where the marks of a printed one were read.</summary>
public sealed class FilesDesk(RunStore runs, ProjectStore projects, PlanCache plans)
{
    /// <summary>Longest name of a file without its end.</summary>
    private const int LongestName = 140;

    /// <summary>Something on a sheet is worked from the back.</summary>
    public static bool HasBack(OnDesk on, SheetLayout sheet)
    {
        var placed = sheet.Placements.Select(p => p.Piece).ToHashSet();
        return on.Value.Made.Pieces.Any(p => placed.Contains(p.Id) && p.Drawn.Any(l => l.EffectiveSettings.FromBack && LawOfPaper.StageOf(l, isOutline: false) is not null));
    }

    /// <summary>The files of a sheet, one for each side that something is run on; none where there is no such sheet as it is now.</summary>
    /// <param name="on">The project.</param>
    /// <param name="sheet">Id of the sheet.</param>
    /// <param name="format">svg (a named group for each pass) or hpgl (a pen for each way of working).</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="NotDone">The machine cannot run it.</exception>
    public async Task<IReadOnlyList<ProductionFile>> OfAsync(OnDesk on, string sheet, MachineFormat format, CancellationToken stop)
    {
        // A sheet that is out of date would be cut as the pieces were.
        if (!on.Value.SheetsAreCurrent || on.Value.Sheets?.Find(sheet) is not { } layout || on.Drawer.Stocks.All(s => s.Key != layout.Stock)) return [];
        var (plan, refusal) = plans.Get(on, layout);
        if (plan is null) throw new NotDone(refusal!);
        var readings = await ReadingsAsync(on, layout, stop);
        var page = ProductionPage.FromPlan(plan, layout.Width, layout.Height);
        // What is worked from the back runs first.
        List<(bool IsBack, ProductionPage Page)> sides = [];
        if (page.OfSide(isFaceDown: true) is { } back) sides.Add((true, back));
        if (page.OfSide(isFaceDown: false) is { } face) sides.Add((false, face));
        return [.. sides.Select(side =>
        {
            var read = readings.Find(r => r.IsBack == side.IsBack);
            var corrected = read.Cut is { } cut ? side.Page.Under(cut) : side.Page;
            return Write(on, layout, format, corrected, side.IsBack, sides.Count > 1, read.Cut is null ? null : read.At);
        })];
    }

    private static ProductionFile Write(OnDesk on, SheetLayout layout, MachineFormat format, ProductionPage page, bool isBack, bool isOneOfTwo, DateTimeOffset? corrected)
    {
        var name = $"{ProductionFile.InFileName(on.Project.Name)}-{layout.Stock}-{layout.Number}{(isOneOfTwo ? isBack ? "-back" : "-face" : "")}{(corrected is null ? "" : "-corrected")}";
        if (format == MachineFormat.Svg) return new(Encoding.UTF8.GetBytes(ProductionSvgWriter.Write(page)), "image/svg+xml", $"{name}.svg", isBack, new Dictionary<int, string>(), corrected);
        var way = on.Drawer.Machine(on.Value.SetOut.Machine).Files.FirstOrDefault(f => f.Format == MachineFormat.Hpgl);
        var (text, pens) = HpglWriter.Write(page, way: way);
        var legend = string.Concat(pens.Select(p => string.Create(CultureInfo.InvariantCulture, $"-{p.Key}-{ProductionFile.InFileName(p.Value)}")));
        return new(Encoding.ASCII.GetBytes(text), "application/vnd.hp-hpgl", $"{(name + legend is { Length: > LongestName } whole ? whole[..LongestName] : name + legend)}.hpgl", isBack, pens, corrected);
    }

    /// <summary>For each side the last reading of its marks, if the sheet that was laid then is the one that lies there now.</summary>
    private async Task<List<(bool IsBack, Affine? Cut, DateTimeOffset At)>> ReadingsAsync(OnDesk on, SheetLayout layout, CancellationToken stop)
    {
        if (on.Value.SetOut.Printing.GetValueOrDefault(layout.Stock)?.Marks is null) return [];
        var card = (await runs.ListAsync(ProjectDesk.Owner, on.Project.Id, stop)).FirstOrDefault(c => c.SheetId == layout.Id);
        if (card is null || await runs.OpenAsync(ProjectDesk.Owner, card.Id, stop) is not { } run) return [];
        var then = run.Revision == on.Project.Head ? on.Value : await projects.RevisionAsync(ProjectDesk.Owner, on.Project.Id, run.Revision, stop);
        if (then?.Sheets?.Find(layout.Id) is not { } laid || !laid.Equals(layout)) return [];
        return [.. run.State.Readings.Reverse().Where(r => r.Refused is null && r.Cut is not null)
            .Select(r => (IsBack: run.Plan.Steps.ElementAtOrDefault(r.Step) is Stop stop && stop.Work.OfType<FindMarks>().Any(m => m.IsBack), r.Cut, At: run.OverAt ?? run.BegunAt))
            .DistinctBy(r => r.IsBack)];
    }
}
