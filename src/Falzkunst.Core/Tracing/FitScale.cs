namespace Falzkunst.Core.Tracing;

/// <summary>How near curves keep to a traced line, in dots.</summary>
/// <param name="Tolerance">Largest distance of a curve from the line.</param>
/// <param name="Corner">1 for corners as dots show them, more where lines wobble.</param>
internal readonly record struct FitScale(double Tolerance, double Corner)
{
    /// <summary>A stretch that strays from a straight line by no more is one.</summary>
    public double Straight => Math.Min(Tolerance, 0.2 + Tolerance * 0.4);
}
