namespace Falzkunst.Core.Geometry;

/// <summary>Arcs as edges.</summary>
public static class Arcs
{
    /// <summary>Edges of arcs lie this near to them, mm.</summary>
    private const double Tolerance = 0.002;

    /// <summary>Edges of a quarter arc of a radius: n edges of an arc of r stray from it by r(1 − cos(45°/n)).</summary>
    public static int QuarterEdges(double radius) =>
        Math.Clamp((int)Math.Ceiling(Math.PI / 4 / Math.Acos(1 - Math.Min(Tolerance / Math.Max(radius, 1e-6), 0.5))), 4, 64);
}
