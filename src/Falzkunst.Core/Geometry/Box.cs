namespace Falzkunst.Core.Geometry;

/// <summary>An upright rectangle in millimetres; <see cref="Empty"/> holds nothing and grows by <see cref="Include(Point)"/>.</summary>
public readonly record struct Box(double MinX, double MinY, double MaxX, double MaxY)
{
    public static readonly Box Empty = new(
        double.PositiveInfinity, double.PositiveInfinity, double.NegativeInfinity, double.NegativeInfinity);

    public static Box FromSize(double width, double height) => new(0, 0, width, height);

    /// <summary>The tight box around points; empty for none.</summary>
    public static Box Around(IEnumerable<Point> points) => points.Aggregate(Empty, (box, p) => box.Include(p));

    public bool IsEmpty => MinX > MaxX || MinY > MaxY;
    public double Width => IsEmpty ? 0 : MaxX - MinX;
    public double Height => IsEmpty ? 0 : MaxY - MinY;
    public double Area => Width * Height;
    public Point Min => new(MinX, MinY);
    public Point Centre => new((MinX + MaxX) / 2, (MinY + MaxY) / 2);

    public Box Include(Point p) =>
        new(Math.Min(MinX, p.X), Math.Min(MinY, p.Y), Math.Max(MaxX, p.X), Math.Max(MaxY, p.Y));

    public Box Include(Box other) => other.IsEmpty
        ? this
        : new(Math.Min(MinX, other.MinX), Math.Min(MinY, other.MinY), Math.Max(MaxX, other.MaxX), Math.Max(MaxY, other.MaxY));

    public Box Grow(double by) => IsEmpty ? this : new(MinX - by, MinY - by, MaxX + by, MaxY + by);

    public Box Move(double x, double y) => new(MinX + x, MinY + y, MaxX + x, MaxY + y);

    public bool Contains(Point p) => p.X >= MinX && p.X <= MaxX && p.Y >= MinY && p.Y <= MaxY;

    /// <summary>Every point of <paramref name="other"/> lies in this box, give or take <paramref name="slack"/> mm.</summary>
    public bool Contains(Box other, double slack = 0) =>
        other.MinX >= MinX - slack && other.MaxX <= MaxX + slack && other.MinY >= MinY - slack && other.MaxY <= MaxY + slack;

    public bool Overlaps(Box other) =>
        MinX <= other.MaxX && other.MinX <= MaxX && MinY <= other.MaxY && other.MinY <= MaxY;
}
