namespace Falzkunst.Core.Geometry;

/// <summary>A place or a displacement in the plane, in millimetres, y pointing down.</summary>
public readonly record struct Point(double X, double Y)
{
    public static Point operator +(Point a, Point b) => new(a.X + b.X, a.Y + b.Y);
    public static Point operator -(Point a, Point b) => new(a.X - b.X, a.Y - b.Y);
    public static Point operator *(Point a, double k) => new(a.X * k, a.Y * k);

    /// <summary>Distance from the origin, mm.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y);

    public double Dot(Point other) => X * other.X + Y * other.Y;

    /// <summary>Twice the signed area of the triangle (origin, this, other).</summary>
    public double Cross(Point other) => X * other.Y - Y * other.X;

    public double DistanceTo(Point other) => (this - other).Length;

    /// <summary>The point at share <paramref name="t"/> of the way from <paramref name="a"/> to <paramref name="b"/>.</summary>
    public static Point Lerp(Point a, Point b, double t) => new(a.X + (b.X - a.X) * t, a.Y + (b.Y - a.Y) * t);

    /// <summary>Neither coordinate is NaN or infinite.</summary>
    public bool IsFinite => double.IsFinite(X) && double.IsFinite(Y);
}
