namespace Falzkunst.Core.Tracing;

/// <summary>How a picture is traced, in the terms of whoever traces it.</summary>
/// <param name="Mode">What is traced.</param>
/// <param name="SmoothMm">How near lines keep to what is seen, mm.</param>
/// <param name="Threshold">From how much ink, 0 to 1, a dot counts; null finds it.</param>
/// <param name="SpeckMm">What is smaller than a square of this side is left out, mm.</param>
/// <param name="Colours">At most so many colours.</param>
/// <param name="BorderMm">Paper left round a rim, mm.</param>
/// <param name="CornerMm">Corners that are rounded within so much are sharp, mm; dots round them anyhow.</param>
public sealed record TraceSettings(TraceMode Mode, double SmoothMm, double? Threshold = null, double SpeckMm = 0.3, int Colours = 6, double BorderMm = 0, double CornerMm = 0)
{
    public const double LeastSmoothMm = 0.01, MostSmoothMm = 5, MostSpeckMm = 20, MostBorderMm = 100, MostCornerMm = 2;

    /// <summary>Lines keep no nearer than this to what is seen, dots: finer would follow the dots.</summary>
    private const double LeastTolerance = 0.2;

    /// <summary>Arms of a corner are several times as long as it is round; longer ones would run past the next corner, dots.</summary>
    private const double MostCornerDots = 12;

    /// <summary>The same in dots of a picture.</summary>
    /// <param name="mmPerDot">Size of a dot, mm.</param>
    public TraceHow InDots(double mmPerDot) => new(Mode)
    {
        Threshold = Threshold,
        LeastArea = Math.Max(4, SpeckMm * SpeckMm / (mmPerDot * mmPerDot)),
        Tolerance = Math.Max(LeastTolerance, SmoothMm / mmPerDot),
        Colours = Colours,
        Corner = Math.Clamp(CornerMm / mmPerDot, 1, MostCornerDots),
    };
}
