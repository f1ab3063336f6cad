using Falzkunst.Core.Designs;
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
    public static Oversize? WhyNot(NestPiece piece, IReadOnlyList<NestSheet> kinds)
    {
        var sheets = kinds.Where(s => s.Count > 0).ToList();
        if (sheets.Any(s => Fits(piece, s))) return null;
        var size = piece.Outline.Bounds;
        var nearest = sheets.MinBy(s => Excess(piece, piece.Turns, s))!;
        var usable = nearest.Usable;
        var turned = sheets.FirstOrDefault(s => Excess(piece, Turns.Free, s) <= Rounding);
        return new Oversize(size.Width, size.Height, Excess(piece, piece.Turns, nearest), nearest.Id, usable.Width, usable.Height)
        {
            TurnDegrees = turned is null ? null : Turns.Quarters.Degrees.Concat(Turns.Free.Degrees).First(d => Excess(piece, Turns.FromDegrees([d]), turned) <= Rounding),
            TurnedSheet = turned?.Id,
            LackingSheet = kinds.FirstOrDefault(s => s.Count == 0 && Fits(piece, s))?.Id,
        };
    }

    /// <summary>By how much the piece reaches over the sheet's borders in the turn that suits it best, mm; 0 or less where it fits.</summary>
    private static double Excess(NestPiece piece, Turns turns, NestSheet sheet) => turns.Degrees.Min(d =>
    {
        var box = piece.Outline.BoundsUnder(Affine.Turn(d));
        return Math.Max(box.Width - sheet.Usable.Width, box.Height - sheet.Usable.Height);
    });
}
