namespace Falzkunst.Core.Geometry;

/// <summary>
/// A projective map by rows: x' = (A·x + B·y + C) / (G·x + H·y + I), y' = (D·x + E·y + F) / (G·x + H·y + I). Places whose divisor is
/// not positive have none; their image is not finite.
/// </summary>
public readonly record struct Projection(double A, double B, double C, double D, double E, double F, double G, double H, double I)
{
    public static Projection From(Affine map) => new(map.A, map.C, map.E, map.B, map.D, map.F, 0, 0, 1);

    public bool IsAffine => G == 0 && H == 0;

    /// <summary>As an affine map, where it is one.</summary>
    /// <exception cref="InvalidOperationException">It is none.</exception>
    public Affine ToAffine() => IsAffine ? new(A / I, D / I, B / I, E / I, C / I, F / I) : throw new InvalidOperationException("The map is not affine.");

    public Point Apply(Point p)
    {
        var by = G * p.X + H * p.Y + I;
        return by > 0 ? new((A * p.X + B * p.Y + C) / by, (D * p.X + E * p.Y + F) / by) : new(double.NaN, double.NaN);
    }

    /// <summary>This map first, <paramref name="next"/> after it.</summary>
    public Projection Then(Projection next) => new(
        next.A * A + next.B * D + next.C * G, next.A * B + next.B * E + next.C * H, next.A * C + next.B * F + next.C * I,
        next.D * A + next.E * D + next.F * G, next.D * B + next.E * E + next.F * H, next.D * C + next.E * F + next.F * I,
        next.G * A + next.H * D + next.I * G, next.G * B + next.H * E + next.I * H, next.G * C + next.H * F + next.I * I);

    /// <summary>The map that takes this one back.</summary>
    /// <exception cref="InvalidOperationException">The map flattens the plane.</exception>
    public Projection Inverse()
    {
        var (a, b, c) = (E * I - F * H, F * G - D * I, D * H - E * G);
        var det = A * a + B * b + C * c;
        if (det == 0 || !double.IsFinite(1 / det)) throw new InvalidOperationException("A map that flattens the plane has no inverse.");
        return new(a / det, (C * H - B * I) / det, (B * F - C * E) / det, b / det, (A * I - C * G) / det, (C * D - A * F) / det, c / det, (B * G - A * H) / det, (A * E - B * D) / det);
    }

    /// <summary>The same map by numbers whose divisor is positive at a place.</summary>
    public Projection Positive(Point at) => G * at.X + H * at.Y + I < 0 ? new(-A, -B, -C, -D, -E, -F, -G, -H, -I) : this;

    /// <summary>How many units of the image one unit at a place is long, on the geometric mean over directions.</summary>
    public double ScaleAt(Point p)
    {
        var by = G * p.X + H * p.Y + I;
        return Math.Sqrt(Math.Abs(A * (E * I - F * H) + B * (F * G - D * I) + C * (D * H - E * G)) / Math.Abs(by * by * by));
    }
}
