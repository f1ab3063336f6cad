using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>What a job must be before it is worked on.</summary>
public static class NestRules
{
    /// <summary>More copies than this are not searched in one go.</summary>
    public const int MostCopies = 3000;

    private const double LargestMm = 5000;

    /// <exception cref="NestRefused">Something about the job is not so.</exception>
    public static void Demand(NestJob job)
    {
        if (!(job.SpacingMm is >= 0 and <= 100)) throw new NestRefused(NestReason.Spacing, "spacing: must be from 0 to 100 mm");
        foreach (var sheet in job.Sheets)
        {
            if (!(sheet.Width is > 0 and <= LargestMm && sheet.Height is > 0 and <= LargestMm)) throw new NestRefused(NestReason.SheetSize, $"sheet {sheet.Id}: width and height must be above 0 and at most {LargestMm:0} mm");
            if (sheet.Count < 0) throw new NestRefused(NestReason.SheetCount, $"sheet {sheet.Id}: count must not be below 0");
        }
        if (job.Sheets.GroupBy(s => s.Id).FirstOrDefault(g => g.Count() > 1) is { } twice) throw new NestRefused(NestReason.SameSheetId, $"sheet {twice.Key}: the id is used twice");
        if (job.Pieces.GroupBy(p => p.Id).FirstOrDefault(g => g.Count() > 1) is { } again) throw new NestRefused(NestReason.SamePieceId, $"piece {again.Key}: the id is used twice");
        foreach (var piece in job.Pieces)
        {
            if (piece.Quantity < 0) throw new NestRefused(NestReason.Quantity, $"piece {piece.Id}: quantity must not be below 0");
            var bounds = piece.Outline.Bounds;
            if (bounds.IsEmpty || !(bounds.Width > 0 && bounds.Height > 0) || Math.Abs(piece.Outline.SignedArea) < 1e-6) throw new NestRefused(NestReason.NoArea, $"piece {piece.Id}: its outline has no area");
            if (!(bounds.Width <= LargestMm && bounds.Height <= LargestMm)) throw new NestRefused(NestReason.PieceTooLarge, $"piece {piece.Id}: larger than {LargestMm:0} mm");
        }
        var copies = job.Pieces.Sum(p => (long)p.Quantity);
        if (copies > MostCopies) throw new NestRefused(NestReason.TooManyCopies, $"{copies} copies are more than the {MostCopies} that are nested in one go; split them into several jobs");
        foreach (var pin in job.Pins)
        {
            var det = Math.Abs(pin.Place.Determinant);
            if (Math.Abs(det - 1) > 1e-9) throw new NestRefused(NestReason.PinNotRigid, $"pin of {pin.Piece}: its place is not a turn and a move");
            if (!job.Pieces.Any(p => p.Id == pin.Piece && pin.Copy >= 1 && pin.Copy <= p.Quantity)) throw new NestRefused(NestReason.PinWithoutCopy, $"pin of {pin.Piece}: there is no copy {pin.Copy} of it");
            if (!job.Sheets.Any(s => s.Id == pin.Sheet && pin.Number >= 1 && pin.Number <= s.Count)) throw new NestRefused(NestReason.PinWithoutSheet, $"pin of {pin.Piece}: there is no sheet {pin.Number} of {pin.Sheet}");
        }
    }
}
