using System.Collections.Immutable;

namespace Falzkunst.Core.Geometry;

/// <summary>
/// One unbroken line in the plane: a start and the segments that follow, immutable, in millimetres.
/// A closed path ends where it starts; its last segment reaches the start explicitly or is the straight way back.
/// </summary>
public sealed class Path : IEquatable<Path>
{
    private readonly Lazy<Box> _bounds;
    private readonly Lazy<Point[]> _flat;

    public Path(Point start, ImmutableArray<Segment> segments, bool closed)
    {
        Start = start;
        Segments = segments;
        IsClosed = closed;
        _bounds = new(() => PathBounds.Compute(this), LazyThreadSafetyMode.PublicationOnly);
        _flat = new(() => Flattening.Flatten(this, Flattening.DefaultTolerance), LazyThreadSafetyMode.PublicationOnly);
    }

    public Point Start { get; }
    public ImmutableArray<Segment> Segments { get; }
    public bool IsClosed { get; }

    /// <summary>Where the last segment ends.</summary>
    public Point End => Segments.IsEmpty ? Start : Segments[^1].End;

    /// <summary>The tight box around the curve itself, not its handles.</summary>
    public Box Bounds => _bounds.Value;

    /// <summary>
    /// The corners of a polyline no farther than <see cref="Flattening.DefaultTolerance"/> from the curve, start first;
    /// a closed path does not repeat its start at the end. Computed once; callers must not write into it.
    /// </summary>
    public ReadOnlySpan<Point> Flat => _flat.Value;

    /// <summary>Length along the curve, mm, the way back to the start of a closed path included.</summary>
    public double Length
    {
        get
        {
            var flat = Flat;
            double sum = 0;
            for (var i = 1; i < flat.Length; i++) sum += flat[i].DistanceTo(flat[i - 1]);
            return IsClosed && flat.Length > 1 ? sum + flat[^1].DistanceTo(flat[0]) : sum;
        }
    }

    /// <summary>The signed area in mm², positive when the path turns from x towards y. 0 for open paths.</summary>
    public double SignedArea => IsClosed ? Polygons.SignedArea(Flat) : 0;

    /// <summary>The tight box around the curve under a map. Under maps that keep upright boxes upright the curve need not be looked at.</summary>
    public Box BoundsUnder(Affine map) => map.KeepsUpright && !Bounds.IsEmpty
        ? Box.Empty.Include(map.Apply(Bounds.Min)).Include(map.Apply(new Point(Bounds.MaxX, Bounds.MaxY)))
        : Map(map).Bounds;

    public Path Map(Affine map) => new(map.Apply(Start), [.. Segments.Select(s => s.Map(map))], IsClosed);

    /// <summary>The same line run the other way round.</summary>
    public Path Reversed()
    {
        var back = ImmutableArray.CreateBuilder<Segment>(Segments.Length);
        for (var i = Segments.Length - 1; i >= 0; i--)
        {
            var s = Segments[i];
            var end = i == 0 ? Start : Segments[i - 1].End;
            back.Add(s.IsCubic ? Segment.Cubic(s.Handle2, s.Handle1, end) : Segment.Straight(end));
        }
        return new Path(End, back.MoveToImmutable(), IsClosed);
    }

    /// <summary>A closed path that begins at the end of its segment number <paramref name="first"/> - 1; open paths stay as they are.</summary>
    public Path StartingAt(int first)
    {
        if (!IsClosed || first <= 0 || first >= Segments.Length) return this;
        var turned = ImmutableArray.CreateBuilder<Segment>(Segments.Length + 1);
        turned.AddRange(Segments.AsSpan()[first..]);
        if (End != Start) turned.Add(Segment.Straight(Start));
        turned.AddRange(Segments.AsSpan()[..first]);
        return new Path(Segments[first - 1].End, turned.ToImmutable(), true);
    }

    public static Path Polyline(IEnumerable<Point> points, bool closed)
    {
        var list = points.ToList();
        if (list.Count == 0) throw new ArgumentException("A path needs at least one point.", nameof(points));
        return new Path(list[0], [.. list.Skip(1).Select(Segment.Straight)], closed);
    }

    public static Path Rectangle(double x, double y, double width, double height) =>
        Polyline([new(x, y), new(x + width, y), new(x + width, y + height), new(x, y + height)], closed: true);

    public bool Equals(Path? other) => other is not null && IsClosed == other.IsClosed && Start == other.Start
        && Segments.AsSpan().SequenceEqual(other.Segments.AsSpan());

    public override bool Equals(object? obj) => Equals(obj as Path);

    public override int GetHashCode() => HashCode.Combine(Start, Segments.Length, IsClosed, End);

    /// <summary>The path as SVG path data with absolute M, L, C and Z, exact to the last bit.</summary>
    public override string ToString() => PathText.Write(this);
}
