using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

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
    /// <param name="effort">How long the pieces of each stock are arranged.</param>
    /// <param name="now">Where the pieces lie now; what is pinned there stays.</param>
    /// <exception cref="NestRefused">A stock's pieces are more than can be arranged.</exception>
    public static SheetLayouts Place(
        Design design, IReadOnlyList<Stock> stocks, Machine machine, double spacingMm, int cards, string madeFor, NestEffort effort, SheetLayouts? now = null)
    {
        var sheets = ImmutableArray.CreateBuilder<SheetLayout>();
        var unplaced = ImmutableArray.CreateBuilder<Unplaced>();
        foreach (var group in design.Pieces.GroupBy(p => p.Stock))
        {
            if (stocks.FirstOrDefault(s => s.Key == group.Key) is not { } stock)
            {
                unplaced.AddRange(group.Select(p => new Unplaced(p.Id, p.Quantity * cards, "Its stock is not in the drawer. Give the piece another stock.")));
                continue;
            }
            var job = JobFor(design, stock, machine, spacingMm, cards, now?.Of(stock.Key, design));
            var layout = LayoutOf(Nester.Nest(job, effort), job, stock);
            sheets.AddRange(layout.Sheets);
            unplaced.AddRange(layout.Unplaced);
        }
        return new SheetLayouts(sheets.ToImmutable(), unplaced.ToImmutable(), spacingMm, madeFor);
    }

    /// <summary>The job of one stock's pieces.</summary>
    /// <param name="design">The pieces.</param>
    /// <param name="stock">Whose pieces, and the sheets at hand.</param>
    /// <param name="machine">Its unreachable strips are kept free, and sheets larger than its mat are passed over.</param>
    /// <param name="spacingMm">Distance between pieces.</param>
    /// <param name="cards">Every quantity is taken this often.</param>
    /// <param name="now">Where they lie now; what is pinned there stays, as far as it is still there.</param>
    public static NestJob JobFor(Design design, Stock stock, Machine machine, double spacingMm, int cards, StockLayout? now)
    {
        var sizes = stock.Sheets.Where(s => s.WidthMm <= machine.MatWidthMm && s.HeightMm <= machine.MatHeightMm);
        var job = new NestJob(
            [.. sizes.Select(s => new NestSheet(s.Name, s.WidthMm, s.HeightMm, machine.Unreachable, s.Count))],
            [.. design.Pieces.Where(p => p.Stock == stock.Key).Select(p => PieceOf(p, cards))],
            spacingMm);
        return now is null ? job : job with { Pins = [.. Pins(now, job)] };
    }

    /// <summary>A nester's answer as sheets of a stock, numbered through.</summary>
    public static StockLayout LayoutOf(NestResult result, NestJob job, Stock stock)
    {
        var pinned = job.Pins.Select(p => (p.Piece, p.Copy)).ToHashSet();
        return new StockLayout(
            stock.Key,
            [.. result.Sheets.Select((nested, i) =>
            {
                var size = job.Sheets.First(s => s.Id == nested.Sheet);
                return new SheetLayout(
                    $"{stock.Key}-{i + 1}", stock.Key, i + 1, size.Id, size.Width, size.Height, size.Borders,
                    [.. nested.Placements.Select(p => new Placement(p.Id, p.Copy, p.Place) { Pinned = pinned.Contains((p.Id, p.Copy)) })]);
            })],
            [.. result.Left.Select(l => new Unplaced(l.Id, l.Copies, l.Reason))]);
    }

    /// <summary>A layout as a nester's answer, to be checked as one.</summary>
    public static NestResult ResultOf(StockLayout layout)
    {
        var numbers = NumbersInKind(layout);
        return new NestResult(
            [.. layout.Sheets.Select((s, i) => new NestedSheet(s.SizeName, numbers[i], [.. s.Placements.Select(Placed)]))],
            [.. layout.Unplaced.Select(u => new NotNested(u.Piece, u.Copies, u.Reason))]);

        static NestPlacement Placed(Placement p)
        {
            var (degrees, mirrored) = p.Place.AsTurn();
            return new(p.Piece, p.Copy, p.Place, Math.Round(degrees, 9) % 360, mirrored);
        }
    }

    private static NestPiece PieceOf(Piece piece, int cards)
    {
        var roles = piece.Lines.Zip(piece.Shape.Paths).ToList();
        return new NestPiece(piece.Id, piece.Shape.Paths[0], piece.Quantity * cards)
        {
            Openings = [.. roles.Where(r => IsCutOut(r.First) && r.Second.IsClosed).Select(r => r.Second)],
        };
    }

    /// <summary>The paper inside the line falls out, so that another piece may lie there.</summary>
    private static bool IsCutOut(Line line) =>
        line is { Role: LineRole.Opening, Operation: Operation.Cut, Way: { HalfCut: false, LeftOut: false } };

    private static IEnumerable<NestPin> Pins(StockLayout now, NestJob job)
    {
        var numbers = NumbersInKind(now);
        for (var i = 0; i < now.Sheets.Length; i++)
        {
            var (sheet, number) = (job.Sheets.FirstOrDefault(s => s.Id == now.Sheets[i].SizeName), numbers[i]);
            if (sheet is null || number > sheet.Count) continue;
            foreach (var p in now.Sheets[i].Placements)
            {
                if (p.Pinned && job.Pieces.Any(q => q.Id == p.Piece && p.Copy <= q.Quantity)) yield return new NestPin(p.Piece, p.Copy, sheet.Id, number, p.Place);
            }
        }
    }

    /// <summary>For each sheet, which it is of those of its size, from 1.</summary>
    private static int[] NumbersInKind(StockLayout layout) =>
        [.. layout.Sheets.Select((s, i) => layout.Sheets.Take(i + 1).Count(o => o.SizeName == s.SizeName))];
}
