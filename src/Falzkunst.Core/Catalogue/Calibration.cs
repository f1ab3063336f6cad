using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Catalogue;

/// <summary>How far a machine's blade lands from where its reader sees the marks of pages that one printer prints, as it was measured.</summary>
/// <param name="Printer">Key of the printer; empty for one that is not in the drawer.</param>
/// <param name="At">When it was measured.</param>
/// <param name="Error">From where the blade is sent to where it lands, mm from the mat's corner.</param>
/// <param name="UncertainMm">What is left after it is corrected is no more than this in 95 of 100 cases at the worst place of a page, mm.</param>
/// <param name="BeforeMm">How far off the blade was at the worst place of the page when it was measured, mm.</param>
public sealed record Calibration(string Printer, DateTimeOffset At, Affine Error, double UncertainMm, double BeforeMm)
{
    /// <summary>What a machine that was never calibrated may be off, mm.</summary>
    public const double UnknownMm = 0.8;

    /// <summary>A blade that lands farther off than this was not read right, mm.</summary>
    public const double MostMm = 5;

    /// <summary>A blade's axes are off by no more than this share; a printer's paper that shrinks is no part of it.</summary>
    public const double MostShare = 0.03;

    /// <summary>It is such an error as machines have: all numbers finite, near the identity in scale and skew, shifted by some millimetres.</summary>
    public bool IsSound =>
        double.IsFinite(Error.A + Error.B + Error.C + Error.D + Error.E + Error.F)
        && Math.Abs(Error.A - 1) <= MostShare && Math.Abs(Error.D - 1) <= MostShare && Math.Abs(Error.B) <= MostShare && Math.Abs(Error.C) <= MostShare
        && Math.Abs(Error.E) <= MostShiftMm && Math.Abs(Error.F) <= MostShiftMm
        && UncertainMm is >= 0 and <= MostMm && BeforeMm is >= 0 and <= MostMm && Printer.Length <= 100;

    /// <summary>The shift at the mat's corner goes with scale and skew measured up to a page's width away, mm.</summary>
    private const double MostShiftMm = 25;

    /// <summary>So many are kept of a machine, the newest of each printer in use.</summary>
    public const int Most = 12;
}
