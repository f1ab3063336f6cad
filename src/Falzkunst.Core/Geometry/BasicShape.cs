using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Falzkunst.Core.Geometry;

/// <summary>A shape by its numbers, mm.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "shape")]
[JsonDerivedType(typeof(RectangleShape), "rectangle")]
[JsonDerivedType(typeof(EllipseShape), "ellipse")]
[JsonDerivedType(typeof(PolygonShape), "polygon")]
[JsonDerivedType(typeof(StarShape), "star")]
[JsonDerivedType(typeof(ArchShape), "arch")]
[JsonDerivedType(typeof(SlotShape), "slot")]
[JsonDerivedType(typeof(StraightShape), "line")]
[JsonDerivedType(typeof(CurveShape), "curve")]
public abstract record BasicShape
{
    /// <summary>Corners of polygons and stars are at most this many.</summary>
    public const int MostCorners = 200;

    /// <summary>The word for it.</summary>
    [JsonIgnore]
    public abstract string Word { get; }

    /// <summary>Its line; closed but for lines and curves.</summary>
    public abstract Path ToPath();
}

/// <summary>A rectangle with a radius at each corner, from the upper left clockwise; radii that do not fit are all made smaller alike.</summary>
public sealed record RectangleShape(double X, double Y, double Width, double Height, double UpperLeft = 0, double UpperRight = 0, double LowerRight = 0, double LowerLeft = 0) : BasicShape
{
    public override string Word => "rectangle";

    public override Path ToPath()
    {
        var fit = new[]
        {
            1, Width / (UpperLeft + UpperRight), Width / (LowerLeft + LowerRight), Height / (UpperLeft + LowerLeft), Height / (UpperRight + LowerRight),
        }.Where(double.IsFinite).Min();
        var (a, b, c, d) = (UpperLeft * fit, UpperRight * fit, LowerRight * fit, LowerLeft * fit);
        var (right, bottom) = (X + Width, Y + Height);
        var start = new Point(X + a, Y);
        var segments = ImmutableArray.CreateBuilder<Segment>();
        var at = start;
        void To(double x, double y, double radius, double cornerX, double cornerY)
        {
            Point edge = new(x, y), corner = new(cornerX, cornerY);
            if (edge != at) segments.Add(Segment.Straight(edge));
            if (radius > 0) segments.AddRange(EllipticArc.FromEndpoints(edge, radius, radius, 0, false, true, corner));
            at = corner;
        }
        To(right - b, Y, b, right, Y + b);
        To(right, bottom - c, c, right - c, bottom);
        To(X + d, bottom, d, X, bottom - d);
        To(X, Y + a, a, X + a, Y);
        return new Path(start, segments.ToImmutable(), closed: true);
    }
}

public sealed record EllipseShape(double X, double Y, double Width, double Height) : BasicShape
{
    public override string Word => "ellipse";
    public override Path ToPath() => EllipticArc.Ellipse(new Point(X + Width / 2, Y + Height / 2), Width / 2, Height / 2);
}

/// <summary>A regular polygon, a corner at the top, stretched so that it fills its box.</summary>
public sealed record PolygonShape(double X, double Y, double Width, double Height, int Corners) : BasicShape
{
    public override string Word => "polygon";
    public override Path ToPath() => InBox(Enumerable.Range(0, Corners).Select(i => OnCircle(i / (double)Corners, 1)), X, Y, Width, Height);

    /// <summary>A point of the unit circle, from its top clockwise.</summary>
    /// <param name="turn">The share of a whole turn.</param>
    /// <param name="share">How far out, 0 to 1.</param>
    internal static Point OnCircle(double turn, double share)
    {
        var (sin, cos) = Math.SinCos(2 * Math.PI * turn - Math.PI / 2);
        return new Point(share * cos, share * sin);
    }

    /// <summary>A closed polyline stretched so that its own box is the one given.</summary>
    internal static Path InBox(IEnumerable<Point> corners, double x, double y, double width, double height)
    {
        var around = corners.ToList();
        var box = around.Aggregate(Box.Empty, (all, p) => all.Include(p));
        return Path.Polyline(around.Select(p => new Point(x + width * (p.X - box.MinX) / box.Width, y + height * (p.Y - box.MinY) / box.Height)), closed: true);
    }
}

/// <summary>A star, a point at the top, stretched so that it fills its box.</summary>
/// <param name="X">Left edge.</param>
/// <param name="Y">Upper edge.</param>
/// <param name="Width">Width of the box.</param>
/// <param name="Height">Height of the box.</param>
/// <param name="Points">How many points.</param>
/// <param name="Inner">How far out the inner corners lie, 0 to 1.</param>
public sealed record StarShape(double X, double Y, double Width, double Height, int Points, double Inner = 0.45) : BasicShape
{
    public override string Word => "star";
    public override Path ToPath() => PolygonShape.InBox(
        Enumerable.Range(0, 2 * Points).Select(i => PolygonShape.OnCircle(i / (2.0 * Points), i % 2 == 0 ? 1 : Inner)), X, Y, Width, Height);
}

/// <summary>A doorway: straight sides under half an ellipse, flat below.</summary>
public sealed record ArchShape(double X, double Y, double Width, double Height) : BasicShape
{
    public override string Word => "arch";

    public override Path ToPath()
    {
        var rise = Math.Min(Width / 2, Height);
        Point left = new(X, Y + rise), right = new(X + Width, Y + rise);
        return new Path(left,
        [
            .. EllipticArc.FromEndpoints(left, Width / 2, rise, 0, false, true, right),
            Segment.Straight(new Point(X + Width, Y + Height)), Segment.Straight(new Point(X, Y + Height)), Segment.Straight(left),
        ], closed: true);
    }
}

/// <summary>A slot with round ends along its longer side.</summary>
public sealed record SlotShape(double X, double Y, double Width, double Height) : BasicShape
{
    public override string Word => "slot";

    public override Path ToPath()
    {
        var radius = Math.Min(Width, Height) / 2;
        return new RectangleShape(X, Y, Width, Height, radius, radius, radius, radius).ToPath();
    }
}

public sealed record StraightShape(Point From, Point To) : BasicShape
{
    public override string Word => "line";
    public override Path ToPath() => Path.Polyline([From, To], closed: false);

    /// <summary>The end moved so that the line runs level, upright or at 45 degrees, whichever is nearest.</summary>
    public StraightShape Held()
    {
        var by = To - From;
        var eighths = Math.Round(Math.Atan2(by.Y, by.X) / (Math.PI / 4));
        if (eighths % 2 != 0)
        {
            var side = (Math.Abs(by.X) + Math.Abs(by.Y)) / 2;
            return this with { To = From + new Point(Math.CopySign(side, by.X), Math.CopySign(side, by.Y)) };
        }
        return this with { To = eighths % 4 == 0 ? new Point(To.X, From.Y) : new Point(From.X, To.Y) };
    }
}

public sealed record CurveShape(Point From, Point Handle1, Point Handle2, Point To) : BasicShape
{
    public override string Word => "curve";
    public override Path ToPath() => new(From, [Segment.Cubic(Handle1, Handle2, To)], closed: false);
}
