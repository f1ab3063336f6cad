using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Nesting;

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
    /// <param name="effort">How long pieces of each stock are arranged.</param>
    public static SheetLayouts Place(
        Design design, IReadOnlyList<Stock> stocks, Machine machine, double spacingMm, int cards, string madeFor, NestEffort effort)
    {
        var sheets = ImmutableArray.CreateBuilder<SheetLayout>();
        var unplaced = ImmutableArray.CreateBuilder<Unplaced>();
        foreach (var group in design.Pieces.GroupBy(p => p.Stock))
        {
            var stock = stocks.FirstOrDefault(s => s.Key == group.Key);
            if (stock is null)
            {
                unplaced.AddRange(group.Select(p => new Unplaced(p.Id, p.Quantity * cards, "Its stock is not in the drawer. Give the piece another stock.")));
                continue;
            }
            var usable = stock.Sheets.Where(s => s.WidthMm <= machine.MatWidthMm && s.HeightMm <= machine.MatHeightMm).ToList();
            var job = new NestJob(
                [.. usable.Select(s => new NestSheet(s.Name, s.WidthMm, s.HeightMm, machine.Unreachable, s.Count))],
                [.. group.Select(p => new NestPiece(p.Id, p.Shape.Paths[0], p.Quantity * cards))],
                spacingMm);
            var result = Nester.Nest(job, effort);
            for (var i = 0; i < result.Sheets.Length; i++)
            {
                var size = usable.First(s => s.Name == result.Sheets[i].Sheet);
                sheets.Add(new SheetLayout(
                    $"{stock.Key}-{i + 1}", stock.Key, i + 1, size.Name, size.WidthMm, size.HeightMm, machine.Unreachable,
                    [.. result.Sheets[i].Placements.Select(p => new Placement(p.Id, p.Copy, p.Place))]));
            }
            unplaced.AddRange(result.Left.Select(l => new Unplaced(l.Id, l.Copies, l.Reason)));
        }
        return new SheetLayouts(sheets.ToImmutable(), unplaced.ToImmutable(), spacingMm, madeFor);
    }
}
