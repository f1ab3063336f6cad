using System.Collections.Concurrent;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>A piece made ready for nesting: flat, moved to its own middle, larger by what its flattening and the spacing ask for.</summary>
internal sealed class PieceKind
{
    /// <summary>Two copies found apart in single precision are so in truth, mm.</summary>
    private const double Clearance = 0.001;

    /// <summary>Curves are flattened within this, mm, and the shape grown by as much; coarser where spacing leaves room.</summary>
    private const double FinestFlattening = 0.005;

    private const double FlatteningShare = 0.02;
    private const double CoarsestFlattening = 0.04;

    /// <summary>Growing is right to a thousandth of the distance.</summary>
    private const double GrowthShare = 1.0012;

    /// <summary>Edges of a quarter circle of the spacing.</summary>
    private const int QuarterEdges = 3;

    /// <summary>Shapes with more corners than this are made coarser as far as <see cref="CoarsestFlattening"/> allows.</summary>
    private const int ManyCorners = 300;

    private readonly Point[][] _spaced;
    private readonly Point[][] _own;
    private readonly IReadOnlyList<(Point, double)> _spacedPoles;
    private readonly IReadOnlyList<(Point, double)> _ownPoles;
    private readonly ConcurrentDictionary<int, Orientation> _orientations = new();
    private readonly List<(double Degrees, bool Mirrored)> _turns;

    public PieceKind(NestPiece piece, int index, double spacing)
    {
        (Piece, Index) = (piece, index);
        Middle = piece.Outline.Bounds.Centre;
        var home = Affine.Move(Middle * -1);
        var paths = piece.Openings.Prepend(piece.Outline).Select(p => p.Map(home)).ToList();
        IsCurved = paths.Any(p => p.Segments.Any(s => s.IsCubic));
        Area = paths.Select((p, i) => Math.Abs(p.SignedArea) * (i == 0 ? 1 : -1)).Sum();

        var tolerance = IsCurved ? Math.Clamp(spacing * FlatteningShare, FinestFlattening, CoarsestFlattening) : 0;
        var region = Flat(paths, tolerance);
        if (spacing > 0 && region.Rings.Sum(r => r.Length) > ManyCorners)
        {
            // Its own shape stays within the tolerance; what is taken off by it is put on again below.
            tolerance += CoarsestFlattening;
            region = region.Simplified(CoarsestFlattening);
        }
        _own = Rings(tolerance == 0 ? region : region.Grow(tolerance, Corners.Sharp, 1));
        var by = (spacing / 2 + tolerance) * GrowthShare + Clearance;
        _spaced = Rings(spacing < Clearance
            ? region.Grow(by, Corners.Sharp, 1)
            : region.Grow(by, Corners.Tangent, QuarterEdges));
        (_ownPoles, _spacedPoles) = (Poles.Find(_own), Poles.Find(_spaced));
        var hull = Region.FromRings(_spaced[0], []).Hull();
        SpacedArea = _spaced.Select((r, i) => Math.Abs(Polygons.SignedArea(r)) * (i == 0 ? 1 : -1)).Sum();
        HullArea = Math.Abs(Polygons.SignedArea(hull));
        Reach = hull.Max(p => hull.Max(q => p.DistanceTo(q)));
        _turns = DistinctTurns(piece, hull);
        OrientationCount = _turns.Count;
    }

    public NestPiece Piece { get; }

    /// <summary>Place in the job.</summary>
    public int Index { get; }

    /// <summary>The piece's point that lies in the origin here.</summary>
    public Point Middle { get; }

    public bool IsCurved { get; }

    /// <summary>Net area, mm².</summary>
    public double Area { get; }

    /// <summary>Net area with half the spacing round it, mm².</summary>
    public double SpacedArea { get; }

    /// <summary>Area of the convex hull with half the spacing, mm².</summary>
    public double HullArea { get; }

    /// <summary>Largest distance between two of its points, mm.</summary>
    public double Reach { get; }

    /// <summary>How many orientations there are to choose from: 0 to below it.</summary>
    public int OrientationCount { get; }

    /// <summary>The kind in one of its turns; made when first asked for, the same for all who ask.</summary>
    public Orientation this[int orientation] => _orientations.GetOrAdd(orientation, Turned);

    /// <summary>The orientation of a place that was given by hand; not one of those to choose from unless it is one of the allowed turns.</summary>
    public int OrientationOf(Affine place)
    {
        var (degrees, mirrored) = place.AsTurn();
        if (Math.Abs(degrees - Math.Round(degrees)) < 1e-9) degrees = Math.Round(degrees) % 360;
        var known = _turns.FindIndex(t => t.Mirrored == mirrored && Math.Abs(t.Degrees - degrees) < 1e-9);
        if (known >= 0) return known;
        _turns.Add((degrees, mirrored));
        return _turns.Count - 1;
    }

    /// <summary>The number of a orientation of this kind.</summary>
    public int OrientationOf(Orientation orientation) => _turns.IndexOf((orientation.Degrees, orientation.Mirrored));

    /// <summary>The map from the piece's own coordinates to a sheet's.</summary>
    public Affine Place(Orientation orientation, double x, double y) => Linear(orientation.Degrees, orientation.Mirrored, Middle).Then(Affine.Move(x, y));

    /// <summary>The spaced shape of a orientation, smaller all round by so much, mm.</summary>
    public CollisionShape Smaller(int orientation, double by)
    {
        var rings = Rings(Region.FromRings(_spaced[0], _spaced[1..]).Grow(-by, Corners.Sharp, 1));
        if (rings.Length == 0) rings = _spaced;
        var map = Linear(_turns[orientation].Degrees, _turns[orientation].Mirrored, new Point(0, 0));
        return new CollisionShape([.. rings.Select(r => r.Select(map.Apply).ToArray())], [.. Poles.Find(rings).Select(p => (map.Apply(p.Centre), p.Radius))], HullArea);
    }

    private static Affine Linear(double degrees, bool mirrored, Point middle) =>
        Affine.Move(middle * -1).Then(mirrored ? Affine.Scale(-1, 1) : Affine.Identity).Then(Affine.Turn(degrees));

    private Orientation Turned(int orientation)
    {
        var (degrees, mirrored) = _turns[orientation];
        var map = Linear(degrees, mirrored, new Point(0, 0));
        var spaced = Turn(_spaced, _spacedPoles);
        // The true curves' box: the flat own shape lies round them.
        var bounds = Piece.Outline.BoundsUnder(Linear(degrees, mirrored, Middle));
        return new Orientation(degrees, mirrored, spaced, Turn(_own, _ownPoles), bounds);

        CollisionShape Turn(Point[][] rings, IReadOnlyList<(Point Centre, double Radius)> poles) =>
            new([.. rings.Select(r => r.Select(map.Apply).ToArray())], [.. poles.Select(p => (map.Apply(p.Centre), p.Radius))], HullArea);
    }

    /// <summary>Turns in which it looks as in an earlier one are left out.</summary>
    private List<(double, bool)> DistinctTurns(NestPiece piece, Point[] hull)
    {
        var asked = piece.Turns.Degrees.AsEnumerable();
        if (piece.Turns.IsFree) asked = asked.Concat(Level(hull)).Distinct();
        var all = asked.Select(d => (d, false));
        if (piece.MayMirror) all = all.Concat(asked.Select(d => (d, true)));
        if (piece.Turns.IsFree) return [.. all];
        var seen = new HashSet<string>();
        return [.. all.Where(t => seen.Add(Look(t.d, t.Item2)))];
    }

    private string Look(double degrees, bool mirrored)
    {
        var map = Linear(degrees, mirrored, new Point(0, 0));
        var turned = _own.SelectMany(r => r).Select(map.Apply).ToArray();
        var box = Box.Around(turned);
        return string.Join(' ', turned.Select(p => $"{Math.Round(p.X - box.MinX, 2) + 0.0},{Math.Round(p.Y - box.MinY, 2) + 0.0}").Order(StringComparer.Ordinal));
    }

    /// <summary>Turns in which an edge of the hull lies level or upright; those of the longest edges.</summary>
    private static IEnumerable<double> Level(Point[] hull) => hull
        .Select((p, i) => hull[(i + 1) % hull.Length] - p)
        .OrderByDescending(e => e.Length).Take(6)
        .SelectMany(e => Enumerable.Range(0, 4).Select(q => ((-Math.Atan2(e.Y, e.X) * 180 / Math.PI + 90 * q) % 360 + 360) % 360));

    private static Region Flat(List<Path> paths, double tolerance)
    {
        var rings = paths.Select(p => tolerance == 0 ? p.Flat.ToArray() : Flattening.Flatten(p, tolerance)).ToList();
        return Region.FromRings(rings[0], rings[1..]);
    }

    /// <summary>Outer ring first, then openings. A piece that fell into parts is taken by all of their rings.</summary>
    private static Point[][] Rings(Region region) =>
        [.. region.Parts.OrderByDescending(p => Math.Abs(Polygons.SignedArea(p.Outer))).SelectMany(p => p.Openings.Prepend(p.Outer))];
}
