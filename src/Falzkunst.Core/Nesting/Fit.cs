using System.Globalization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>Whether a piece fits a sheet at all, by its box.</summary>
public static class Fit
{
    /// <summary>Boxes of curves carry the rounding of their arithmetic, mm.</summary>
    private const double Rounding = 1e-6;

    /// <summary>The piece fits within a sheet's borders in one of its turns.</summary>
    public static bool Fits(NestPiece piece, NestSheet sheet) => Excess(piece, piece.Turns, sheet) <= Rounding;

    /// <summary>
    /// Why a piece fits none of the sheets at hand, by how much, whether another turn would help, and which kind of sheet would
    /// do if there were one; null where it fits one by its box.
    /// </summary>
    /// <param name="piece">The piece.</param>
    /// <param name="kinds">All kinds of sheet, those of which none is at hand included; of one at least there is one.</param>
    public static string? WhyNot(NestPiece piece, IReadOnlyList<NestSheet> kinds)
    {
        var sheets = kinds.Where(s => s.Count > 0).ToList();
        if (sheets.Any(s => Fits(piece, s))) return null;
        var size = piece.Outline.Bounds;
        var nearest = sheets.MinBy(s => Excess(piece, piece.Turns, s))!;
        var (over, under) = (Excess(piece, piece.Turns, nearest), sheets.Where(s => Excess(piece, Turns.Free, s) <= Rounding).ToList());
        var usable = nearest.Usable;
        var turned = under.Count == 0 ? ""
            : $" Turned {Quarter(piece, under[0])} it would fit {under[0].Id}, but it may not be turned so.";
        var wanted = kinds.FirstOrDefault(s => s.Count == 0 && Fits(piece, s)) is { } other ? $" {other.Id} would do, but none is at hand." : "";
        return string.Create(CultureInfo.InvariantCulture,
            $"It is {size.Width:0.0} × {size.Height:0.0} mm and {over:0.0} mm too large for {nearest.Id}, which leaves {usable.Width:0.0} × {usable.Height:0.0} mm inside its borders.{turned}{wanted}");

        static string Quarter(NestPiece piece, NestSheet sheet)
        {
            var degrees = Turns.Quarters.Degrees.Concat(Turns.Free.Degrees).First(d => Excess(piece, Turns.Of([d]), sheet) <= Rounding);
            return string.Create(CultureInfo.InvariantCulture, $"by {degrees:0}°");
        }
    }

    /// <summary>By how much the piece reaches over the sheet's borders in the turn that suits it best, mm; 0 or less where it fits.</summary>
    private static double Excess(NestPiece piece, Turns turns, NestSheet sheet) => turns.Degrees.Min(d =>
    {
        var box = piece.Outline.BoundsUnder(Affine.Turn(d));
        return Math.Max(box.Width - sheet.Usable.Width, box.Height - sheet.Usable.Height);
    });
}
