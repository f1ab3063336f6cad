using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>What a scan or photo of a printed page says of the cut, before any paper is cut.</summary>
public static class PageForecast
{
    /// <summary>What would remain if the page were cut now.</summary>
    /// <param name="page">What was read of its marks.</param>
    /// <param name="printed">The page as it is laid out.</param>
    /// <param name="calibration">What was measured of machine and printer; null where nothing was.</param>
    /// <param name="at">The present moment.</param>
    public static PrintReading Of(ReadPage page, PrintedPage printed, Calibration? calibration, DateTimeOffset at)
    {
        List<(string Piece, int Copy, IEnumerable<Point> Outline)> cuts = [.. printed.Copies.Select(c => (c.Piece, c.Copy, (IEnumerable<Point>)c.What.Piece.Outline.Path.Map(c.Place).Flat.ToArray()))];
        var rest = calibration?.UncertainMm ?? Calibration.UnknownMm;
        var (worst, faults, unread) = page.IsPhoto ? Photo() : Scan();
        return new PrintReading(at, cuts.SelectMany(c => c.Outline).Select(p => page.UncertainAt(p) + rest).DefaultIfEmpty(page.UncertainMm + rest).Max(), unread,
            worst?.Piece ?? "", worst?.Copy ?? 0, worst?.At ?? new Point(0, 0), faults.ScaleX, faults.ScaleY, faults.SkewDegrees, faults.TurnDegrees, page.IsPhoto);

        (CutPlace? Worst, PageFaults Faults, double? Unread) Scan()
        {
            var map = page.ToScan;
            var rigid = CutToPrint.Rigid(map, [.. cuts.SelectMany(c => c.Outline).DefaultIfEmpty(new Point(printed.Width / 2, printed.Height / 2))]);
            var places = CutToPrint.Worst(cuts, p => map.Apply(p).DistanceTo(rigid.Apply(p)));
            return (places.IsEmpty ? null : places[0], PageFaults.Of(map), places.IsEmpty ? 0 : places[0].Mm);
        }

        (CutPlace? Worst, PageFaults Faults, double? Unread) Photo()
        {
            var places = CutToPrint.Worst(cuts, page.UncertainAt);
            return (places.IsEmpty ? null : places[0], new PageFaults(0, 1, 1, 0), null);
        }
    }
}
