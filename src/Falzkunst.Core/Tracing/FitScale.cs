namespace Falzkunst.Core.Tracing;

/// <summary>How near curves keep to a traced line, in dots.</summary>
/// <param name="Tolerance">Largest distance of a curve from the line.</param>
/// <param name="Corner">1 for corners as dots show them, more where lines wobble or corners are rounded that are meant sharp.</param>
/// <param name="Noise">Noise of the picture, of 255; 0 for none.</param>
/// <remarks>What noise does is tuned by scripts/measure-traces for noise of 13 and 25: least distance from what was drawn, with no more nodes than without it.</remarks>
internal readonly record struct FitScale(double Tolerance, double Corner = 1, double Noise = 0)
{
    /// <summary>The scale for a picture.</summary>
    /// <param name="tolerance">Largest distance of a curve from a line without noise, dots.</param>
    /// <param name="corner">As <see cref="Corner"/>, of a picture without noise.</param>
    /// <param name="noise">As <see cref="Noise"/>.</param>
    public static FitScale Of(double tolerance, double corner, double noise) =>
        noise < InkCleaning.Clean ? new(tolerance, corner) : new(tolerance + noise * 0.002, Math.Max(corner, 1.3 + Math.Min(0.7, noise * 0.03)), noise);

    /// <summary>A stretch that strays from a straight line by no more is one.</summary>
    public double Straight => Math.Min(Tolerance, 0.2 + Tolerance * 0.4);

    /// <summary>Of more noise than this, of 255, no shape is left to keep.</summary>
    private const double MostNoise = 60;

    /// <summary>Noise across a line is averaged over so much of it to both sides, dots; 0 for none.</summary>
    public double Averaged => Noise > 0 ? 4 + Math.Min(Noise, MostNoise) * 0.2 : 0;

    /// <summary>A straight run within a smooth stretch strays by no more: of a clean line so little that a circle taken for straight has a radius of a thousand dots.</summary>
    public double Run => 0.1 + Noise * 0.008;
}
