using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Papers;

/// <summary>Designs, drawers and layouts in the words of the nester.</summary>
public static class PaperJobs
{
    /// <summary>Nothing lies nearer to the edge of an offcut, which was cut by hand or knife, mm.</summary>
    public const double OffcutBorderMm = 2;

    /// <summary>Pages that are trimmed by hand are no truer than this, so that two halves lie on a whole however lengths are rounded, mm.</summary>
    private const double PaperSlackMm = 0.01;

    /// <summary>The job of one stock's pieces.</summary>
    /// <param name="design">The pieces.</param>
    /// <param name="stock">Whose pieces, and the sheets and offcuts at hand.</param>
    /// <param name="machine">Its unreachable strips are kept free, and sheets larger than its mat are passed over.</param>
    /// <param name="spacingMm">Distance between pieces.</param>
    /// <param name="cards">Every quantity is taken this often.</param>
    /// <param name="now">Where they lie now; what is pinned there stays, as far as it is still there.</param>
    public static NestJob JobFor(Design design, Stock stock, Machine machine, double spacingMm, int cards, StockLayout? now)
    {
        var job = new NestJob(
            SheetsFor(stock, machine),
            [.. design.Pieces.Where(p => p.Stock == stock.Key && p is { Quantity: > 0, IsMade: true, IsScrap: false }).Select(p => PieceOf(p, p.Quantity * cards, stock.BothSidesAlike, TurnsOf(p, stock)))],
            SpacingFor(stock, spacingMm));
        // What lies on sheets that are cut is no longer wanted there.
        return now is null ? job : job with { Pins = [.. Pins(now with { Sheets = [.. now.Uncut] }, job)] };
    }

    /// <summary>The distance that pieces of a stock keep: what is asked for, and more where their print needs it; trimmed by hand they need no other.</summary>
    public static double SpacingFor(Stock stock, double spacingMm) => stock.Room?.Spacing(spacingMm) ?? spacingMm;

    internal static ImmutableArray<NestSheet> SheetsFor(Stock stock, Machine machine)
    {
        if (stock.Room is { } room) return PagesFor(stock, room, machine);
        var whole = stock.Sheets.Select(s => Fits(s.WidthMm, s.HeightMm) || !Fits(s.HeightMm, s.WidthMm)
            ? new NestSheet(s.Name, s.WidthMm, s.HeightMm, machine.Unreachable, s.Count)
            : new NestSheet(s.Name, s.HeightMm, s.WidthMm, machine.Unreachable, s.Count));
        return [.. whole.Concat(stock.Offcuts.Select(o => SheetOf(o, machine))).Where(s => Fits(s.Width, s.Height))];

        // A sheet that goes on the mat one way only is laid that way.
        bool Fits(double width, double height) => width <= machine.MatWidthMm && height <= machine.MatHeightMm;
    }

    /// <summary>Whole sheets as pages: a printer takes no offcuts, and marks keep their zones.</summary>
    private static ImmutableArray<NestSheet> PagesFor(Stock stock, PageRoom room, Machine machine)
    {
        var strips = room.How.IsCut ? machine.Unreachable.AtLeast(room.EdgeMm)
            : room.EdgeMm > 0 ? new Borders(room.EdgeMm, room.EdgeMm, room.EdgeMm, room.EdgeMm) : new Borders(-PaperSlackMm, -PaperSlackMm, -PaperSlackMm, -PaperSlackMm);
        return [.. stock.Sheets.Where(s => room.How.Size is null || s.Name == room.How.Size)
            .Where(s => !room.How.IsCut || (s.WidthMm <= machine.MatWidthMm && s.HeightMm <= machine.MatHeightMm))
            .Select(s => new NestSheet(s.Name, s.WidthMm, s.HeightMm, strips, s.Count) { Blocked = Zones(room, null, s.WidthMm, s.HeightMm) })];
    }

    /// <summary>What no piece may enter so that marks stay clear, of print that goes past a cut too.</summary>
    /// <param name="room">The room that printing leaves.</param>
    /// <param name="frame">The box whose corners the marks have; null for the page's.</param>
    /// <param name="width">Of the page, mm.</param>
    /// <param name="height">Of the page, mm.</param>
    public static ImmutableArray<Path> Zones(PageRoom room, Box? frame, double width, double height) => room.How.Marks is not { } marks
        ? [] : [.. marks.Zones(frame ?? marks.Frame(width, height), width, height).Select(z => z.Grow(room.SpacingMm / 2)).Select(z => Path.Rectangle(z.MinX, z.MinY, z.Width, z.Height))];

    /// <summary>
    /// A layout as a job in which everything is pinned where it lies, each sheet by its id: to look at what may be done by hand,
    /// where turns are free unless the paper has a direction.
    /// </summary>
    public static NestJob JobOf(StockLayout layout, Design design, double spacingMm)
    {
        var most = layout.Sheets.SelectMany(s => s.Placements).GroupBy(p => p.Piece).ToDictionary(g => g.Key, g => g.Max(p => p.Copy));
        return new NestJob(
            [.. layout.Sheets.Select(SheetOf)],
            [.. design.Pieces.Where(p => most.ContainsKey(p.Id)).Select(p => PieceOf(p, most[p.Id], mayMirror: true, TurnsByHand(p)))],
            spacingMm)
        {
            Pins = [.. layout.Sheets.SelectMany(s => s.Placements.Where(p => design.Find(p.Piece) is not null).Select(p => new NestPin(p.Piece, p.Copy, s.Id, 1, p.Place)))],
        };
    }

    /// <summary>A sheet of a layout as one of a job, named by its id there.</summary>
    public static NestSheet SheetOf(SheetLayout sheet) => new(sheet.Id, sheet.Width, sheet.Height, sheet.Borders, 1)
    {
        Outline = sheet.Outline,
        Blocked = sheet.Blocked,
        OutlineBorderMm = sheet.Outline is null ? 0 : OffcutBorderMm,
        IsOffcut = sheet.Outline is not null,
    };

    /// <summary>An offcut as a sheet of a job.</summary>
    private static NestSheet SheetOf(Offcut offcut, Machine machine)
    {
        var (size, strips) = (offcut.Outline.Bounds, machine.Unreachable);
        // Smaller than what the tools reach, it is laid where they reach all of it.
        var across = size.Width + strips.Left + strips.Right > machine.MatWidthMm;
        var down = size.Height + strips.Top + strips.Bottom > machine.MatHeightMm;
        var borders = new Borders(down ? strips.Top : 0, across ? strips.Right : 0, down ? strips.Bottom : 0, across ? strips.Left : 0);
        return new NestSheet(offcut.Name, size.Width, size.Height, borders, 1)
        {
            Outline = offcut.Outline,
            Blocked = offcut.Holes,
            OutlineBorderMm = OffcutBorderMm,
            IsOffcut = true,
        };
    }

    /// <summary>Every copy of a layout lies in a turn that a hand may give its piece.</summary>
    public static bool AllowsTurns(StockLayout layout, Design design) => layout.Sheets.SelectMany(s => s.Placements).GroupBy(p => p.Piece).All(copies =>
    {
        var piece = design.Require(copies.Key);
        var nested = PieceOf(piece, copies.Count(), mayMirror: true, TurnsByHand(piece));
        return copies.All(p => NestCheck.IsAllowed(nested, Placed(p.Piece, p.Copy, p.Place)));
    });

    /// <summary>How a piece may be turned where nobody turns it by hand: paper with a grain or a pattern keeps pieces upright unless something else is said of them.</summary>
    internal static Turns TurnsOf(Piece piece, Stock stock) =>
        stock.Direction != StockDirection.None && piece.AllowedTurns == AllowedTurns.Quarters ? Turns.Half : TurnsOf(piece);

    private static Turns TurnsOf(Piece piece) => piece.AllowedTurns switch
    {
        AllowedTurns.AsDrawn => Turns.None,
        AllowedTurns.AlongGrain => Turns.Half,
        AllowedTurns.AnyAngle => Turns.Free,
        _ => Turns.Quarters,
    };

    private static Turns TurnsByHand(Piece piece) => piece.AllowedTurns is AllowedTurns.AsDrawn or AllowedTurns.AlongGrain ? TurnsOf(piece) : Turns.Free;

    /// <summary>A layout as a nester's answer, to be checked as one.</summary>
    public static NestResult ResultOf(StockLayout layout)
    {
        var numbers = NumbersInKind(layout);
        return new NestResult(
            [.. layout.Sheets.Select((s, i) => new NestedSheet(s.SizeName, numbers[i], [.. s.Placements.Select(p => Placed(p.Piece, p.Copy, p.Place))]))],
            [.. layout.Unplaced.Select(u => new NotNested(u.Piece, u.Copies, u.Why))]);
    }

    /// <summary>A copy at a place, with the turn that is in it.</summary>
    public static NestPlacement Placed(string piece, int copy, Affine place)
    {
        var (degrees, mirrored) = place.AsTurn();
        return new(piece, copy, place, Math.Round(degrees, 9) % 360, mirrored);
    }

    /// <summary>A piece as one of a job.</summary>
    internal static NestPiece PieceOf(Piece piece, int quantity, bool mayMirror, Turns turns)
    {
        return new NestPiece(piece.Id, piece.Outline.Path, quantity)
        {
            Openings = piece.Paper.Openings,
            Turns = turns,
            MayMirror = mayMirror && piece.IsOnlyCut,
        };
    }

    /// <summary>What is pinned may lie as it does: its shapes or the spacing may have changed.</summary>
    internal static bool PinsStand(NestJob job) => job.Pins.IsEmpty || !NestCheck.Faults(job, new NestResult(
        [.. job.Pins.GroupBy(p => (p.Sheet, p.Number)).Select(g => new NestedSheet(g.Key.Sheet, g.Key.Number, [.. g.Select(p => Placed(p.Piece, p.Copy, p.Place))]))], [])).Any();

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
