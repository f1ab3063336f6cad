using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Papers;

/// <summary>Puts the pieces of a design on sheets, stock by stock, as far as the machine reaches.</summary>
public static class PaperPlacing
{
    /// <summary>One layout for all stocks that the design uses, stocks in the order of their first piece.</summary>
    /// <param name="design">The pieces.</param>
    /// <param name="stocks">The stock drawer; a piece of a stock that is not in it stays unplaced.</param>
    /// <param name="machine">Its unreachable strips are kept free, and sheets larger than its mat are passed over.</param>
    /// <param name="spacingMm">Distance between pieces.</param>
    /// <param name="cards">How many cards are made: every quantity is taken this often.</param>
    /// <param name="madeFor">Fingerprint to be kept with the layout.</param>
    /// <param name="effort">How long the pieces of each stock are arranged.</param>
    /// <param name="batch">Key that the ids of new sheets begin with; no other layout of the project has it.</param>
    /// <param name="now">Where the pieces lie now; what is pinned there stays, unless it may not lie so any more. A sheet that comes out as it was keeps its id.</param>
    /// <exception cref="NestRefused">A stock's pieces are more than can be arranged.</exception>
    public static SheetLayouts Place(
        Design design, IReadOnlyList<Stock> stocks, Machine machine, double spacingMm, int cards, string madeFor, NestEffort effort, string batch, SheetLayouts? now = null)
    {
        var papers = SheetLayouts.PapersOf(design);
        var sheets = ImmutableArray.CreateBuilder<SheetLayout>();
        var unplaced = ImmutableArray.CreateBuilder<Unplaced>();
        foreach (var group in design.Pieces.Where(p => p is { Quantity: > 0, IsMade: true }).GroupBy(p => p.Stock))
        {
            unplaced.AddRange(group.Where(p => p.IsScrap).Select(p => new Unplaced(p.Id, p.Quantity * cards, new Unfit(UnfitCode.NoArea))));
            if (group.All(p => p.IsScrap)) continue;
            if (stocks.FirstOrDefault(s => s.Key == group.Key) is not { } stock)
            {
                unplaced.AddRange(group.Where(p => !p.IsScrap).Select(p => new Unplaced(p.Id, p.Quantity * cards, new Unfit(UnfitCode.NoStock))));
                continue;
            }
            var job = PaperJobs.JobFor(design, stock, machine, spacingMm, cards, now?.ForStock(stock.Key, design));
            if (!PaperJobs.PinsStand(job)) job = job with { Pins = [] };
            var layout = OnSmallerSheets(LayoutOf(Nester.Nest(job, effort), job, stock, $"{batch}-{group.Key}"), design, stock, machine, spacingMm);
            sheets.AddRange(layout.Sheets.Select(s => Same(now, s, papers) is { } former ? s with { Id = former.Id } : s));
            unplaced.AddRange(layout.Unplaced);
        }
        return new SheetLayouts(sheets.ToImmutable(), unplaced.ToImmutable(), spacingMm, madeFor) { Papers = papers };
    }

    /// <summary>Copies arranged on a smaller sheet are given up after so long, seconds: what does not fall into place at once is left where it lies.</summary>
    private const double SmallerSheetSeconds = 0.4;

    /// <summary>Sheets are tried so often for a smaller one; of many sheets the first are full anyway.</summary>
    private const int MostTried = 3;

    /// <summary>
    /// The least full sheets on the smallest size at hand that does for what lies on them: the nester counts sheets, a crafter also
    /// their size. Sheets with pinned copies stay.
    /// </summary>
    private static StockLayout OnSmallerSheets(StockLayout layout, Design design, Stock stock, Machine machine, double spacingMm)
    {
        foreach (var sheet in layout.Sheets.Where(s => !s.Placements.Any(p => p.Pinned)).OrderBy(s => s.Utilisation(design) * s.Area).Take(MostTried).ToList())
        {
            var filled = sheet.Utilisation(design) * sheet.Area;
            foreach (var kind in PaperJobs.SheetsFor(stock, machine).Where(k => !k.IsOffcut && k.Width * k.Height < sheet.Area && k.Width * k.Height > filled).OrderBy(k => k.Width * k.Height))
            {
                if (layout.Left(kind.Id, kind.Count) == 0) continue;
                var empty = Empty(kind, stock, sheet.Number, sheet.Id);
                if (Add(empty, sheet.Placements, design, stock, spacingMm, new NestEffort(TimeSpan.FromSeconds(SmallerSheetSeconds))) is not { } smaller) continue;
                // Add numbers the copies of each piece from 1 in the order in which they are given.
                var copies = sheet.Placements.GroupBy(p => p.Piece).ToDictionary(g => g.Key, g => g.Select(p => p.Copy).ToList());
                var renamed = smaller with { Placements = [.. smaller.Placements.GroupBy(p => p.Piece).SelectMany(g => g.Select((p, i) => p with { Copy = copies[g.Key][i], Pinned = false }))] };
                layout = layout with { Sheets = layout.Sheets.Replace(sheet, renamed) };
                break;
            }
        }
        return layout;
    }

    /// <summary>The sheet that was there before with the very same copies of the very same papers in the same places; null where none was.</summary>
    private static SheetLayout? Same(SheetLayouts? now, SheetLayout sheet, ImmutableSortedDictionary<string, string> papers) => now?.Sheets.FirstOrDefault(s =>
        s.Stock == sheet.Stock && s.SizeName == sheet.SizeName && s.RestKept is null && s.Placements.Length == sheet.Placements.Length
        && sheet.Placements.All(p => now.Papers.GetValueOrDefault(p.Piece) == papers[p.Piece])
        && s.Placements.Select(p => p with { Pinned = false }).ToHashSet().SetEquals(sheet.Placements.Select(p => p with { Pinned = false })));

    /// <summary>A nester's answer as sheets of a stock, numbered through.</summary>
    /// <param name="result">The answer.</param>
    /// <param name="job">The job it is of.</param>
    /// <param name="stock">Of the sheets.</param>
    /// <param name="batch">Key that the ids of the sheets begin with; no other layout of the project has it.</param>
    public static StockLayout LayoutOf(NestResult result, NestJob job, Stock stock, string batch)
    {
        var pinned = job.Pins.Select(p => (p.Piece, p.Copy)).ToHashSet();
        return new StockLayout(
            stock.Key,
            [.. result.Sheets.Select((nested, i) =>
            {
                var sheet = Empty(job.Sheets.First(s => s.Id == nested.Sheet), stock, i + 1, $"{batch}-{i + 1}");
                return sheet with { Placements = [.. nested.Placements.Select(p => new Placement(p.Id, p.Copy, p.Place) { Pinned = pinned.Contains((p.Id, p.Copy)) })] };
            })],
            [.. result.Left.Select(l => new Unplaced(l.Id, l.Copies, l.Why))]);
    }

    /// <summary>An empty sheet, or the offcut, of that name, where the drawer has one more than the layout uses; null where it has not.</summary>
    public static SheetLayout? OneMore(StockLayout layout, Stock stock, Machine machine, string size, string id)
    {
        var kind = PaperJobs.SheetsFor(stock, machine).FirstOrDefault(s => s.Id == size);
        return kind is null || layout.Left(size, kind.Count) == 0 ? null : Empty(kind, stock, layout.Sheets.Length + 1, id);
    }

    private static SheetLayout Empty(NestSheet kind, Stock stock, int number, string id) =>
        new(id, stock.Key, number, kind.Id, kind.Width, kind.Height, kind.Borders, []) { Outline = kind.Outline, Blocked = kind.Blocked };

    /// <summary>A sheet with further copies wherever there is room for them, and pinned; null where there is not.</summary>
    /// <param name="sheet">What lies on it stays where it is.</param>
    /// <param name="copies">What is added.</param>
    /// <param name="design">The pieces.</param>
    /// <param name="stock">Of the sheet.</param>
    /// <param name="spacingMm">Distance kept between pieces.</param>
    /// <param name="effort">How long room is looked for.</param>
    /// <param name="stop">Gives up.</param>
    public static SheetLayout? Add(SheetLayout sheet, IReadOnlyList<Placement> copies, Design design, Stock stock, double spacingMm, NestEffort effort, CancellationToken stop = default)
    {
        var numbered = sheet.Placements.Select(p => (Placement: p, Stays: true)).Concat(copies.Select(p => (Placement: p, Stays: false)))
            .GroupBy(p => p.Placement.Piece).SelectMany(g => g.Select((p, i) => (p.Placement, p.Stays, Number: i + 1))).ToList();
        var job = new NestJob(
            [PaperJobs.SheetOf(sheet)],
            [.. numbered.GroupBy(n => n.Placement.Piece).Select(g => design.Require(g.Key)).Select(p => PaperJobs.PieceOf(p, numbered.Count(n => n.Placement.Piece == p.Id), stock.BothSidesAlike, PaperJobs.TurnsOf(p, stock)))],
            PaperJobs.SpacingFor(stock, spacingMm))
        {
            Pins = [.. numbered.Where(n => n.Stays).Select(n => new NestPin(n.Placement.Piece, n.Number, sheet.Id, 1, n.Placement.Place))],
        };
        using var found = CancellationTokenSource.CreateLinkedTokenSource(stop);
        var result = Nester.Nest(job, effort, progress => { if (progress.Best.Left.IsEmpty) found.Cancel(); }, found.Token);
        if (!result.Left.IsEmpty) return null;
        var places = result.Sheets.SelectMany(s => s.Placements).ToDictionary(p => (p.Id, p.Copy), p => p.Place);
        return sheet with
        {
            Placements = [.. sheet.Placements, .. numbered.Where(n => !n.Stays).Select(n => n.Placement with { Place = places[(n.Placement.Piece, n.Number)], Pinned = true })],
        };
    }
}
