using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting;

/// <summary>What is wrong with a copy's place.</summary>
public enum NestFaultKind
{
    /// <summary>It reaches over the sheet's borders.</summary>
    OverBorder,

    /// <summary>It enters a blocked zone, or leaves an offcut's outline.</summary>
    OnBlocked,

    /// <summary>It overlaps another copy.</summary>
    Overlaps,

    /// <summary>It lies nearer to another copy than the spacing.</summary>
    TooNear,

    /// <summary>Its turn or mirroring is not allowed.</summary>
    Turned,
}

/// <summary>A fault of a layout.</summary>
/// <param name="Kind">What is wrong.</param>
/// <param name="Sheet">Place of the sheet in the result.</param>
/// <param name="Placement">Place of the copy on it.</param>
/// <param name="Other">The other copy, where one is concerned.</param>
/// <param name="Mm">By how much, or the distance that is left, mm.</param>
public sealed record NestFault(NestFaultKind Kind, int Sheet, int Placement, int? Other, double Mm);

/// <summary>Whether a layout is valid, on the true curves and in double precision, without anything that the search uses.</summary>
public static class NestCheck
{
    /// <summary>Curves are flattened within this, mm.</summary>
    private const double Flat = 0.001;

    /// <summary>What reaches less far over an edge than this only touches it, mm.</summary>
    public const double Touching = 0.002;

    /// <summary>Every fault of a layout; none for a valid one.</summary>
    public static IEnumerable<NestFault> Faults(NestJob job, NestResult result) =>
        Faults(job, result, job.Pieces.ToDictionary(p => p.Id, FlatShape.Flatten), _ => true);

    /// <summary>The faults that some copies have a part in.</summary>
    /// <param name="job">The job.</param>
    /// <param name="result">Its answer.</param>
    /// <param name="shapes">The job's pieces made flat, by id.</param>
    /// <param name="concerns">Tells the copies, by their place on their sheet; a pair is told by its later one.</param>
    internal static IEnumerable<NestFault> Faults(NestJob job, NestResult result, IReadOnlyDictionary<string, FlatShape> shapes, Func<int, bool> concerns)
    {
        var sheets = job.Sheets.ToDictionary(s => s.Id);
        var pieces = job.Pieces.ToDictionary(p => p.Id);
        for (var s = 0; s < result.Sheets.Length; s++)
        {
            var sheet = sheets[result.Sheets[s].Sheet];
            var placed = result.Sheets[s].Placements.Select(p => shapes[p.Id].Map(p.Place)).ToList();
            var zones = sheet.Blocked.Select(b => FlatShape.Flatten([b])).ToList();
            var paper = sheet.Outline is { } o ? FlatShape.Flatten([o]) : null;
            for (var i = 0; i < placed.Count; i++)
            {
                if (!concerns(i)) continue;
                if (OverBorder(sheet, placed[i].Bounds) is > Touching and var over) yield return new(NestFaultKind.OverBorder, s, i, null, over);
                if (zones.Any(z => placed[i].Overlaps(z, Touching))) yield return new(NestFaultKind.OnBlocked, s, i, null, 0);
                if (paper is not null && LeavesPaper(placed[i], paper, sheet.OutlineBorderMm) is { } short_) yield return new(NestFaultKind.OnBlocked, s, i, null, short_);
                if (!IsAllowed(pieces[result.Sheets[s].Placements[i].Id], result.Sheets[s].Placements[i]) && !IsPinned(result.Sheets[s].Placements[i], job)) yield return new(NestFaultKind.Turned, s, i, null, 0);
                for (var k = 0; k < i; k++)
                {
                    if (!placed[i].Bounds.Grow(job.SpacingMm + Touching).Overlaps(placed[k].Bounds)) continue;
                    if (placed[i].Overlaps(placed[k], Touching)) yield return new(NestFaultKind.Overlaps, s, i, k, 0);
                    else if (job.SpacingMm > 0 && placed[i].Distance(placed[k], job.SpacingMm) is var apart && apart < job.SpacingMm - Touching) yield return new(NestFaultKind.TooNear, s, i, k, apart);
                }
            }
        }
    }

    private static double OverBorder(NestSheet sheet, Box box)
    {
        var usable = sheet.Usable;
        return Math.Max(Math.Max(usable.MinX - box.MinX, box.MaxX - usable.MaxX), Math.Max(usable.MinY - box.MinY, box.MaxY - usable.MaxY));
    }

    /// <summary>How near a copy comes to the outline of its offcut where that is nearer than the border, or 0 where it leaves it.</summary>
    private static double? LeavesPaper(FlatShape shape, FlatShape paper, double border)
    {
        if (shape.Crosses(paper, Touching) || !paper.Holds(shape.Corner)) return 0;
        var apart = border > 0 ? shape.Distance(paper, border) : border;
        return apart < border - Touching ? apart : null;
    }

    private static bool IsPinned(NestPlacement placement, NestJob job) => job.Pins.Any(p => p.Piece == placement.Id && p.Copy == placement.Copy);

    /// <summary>A piece may be turned, or laid on its face, like that.</summary>
    public static bool IsAllowed(NestPiece piece, NestPlacement placement)
    {
        if (!placement.Mirrored == placement.Place.Determinant < 0 || placement.Mirrored && !piece.MayMirror) return false;
        return piece.Turns.IsFree || piece.Turns.Degrees.Any(d => Math.Abs(d - placement.Degrees) < 1e-9);
    }

    /// <summary>Rings with straight edges.</summary>
    internal sealed class FlatShape
    {
        private readonly Point[][] _rings;

        private FlatShape(Point[][] rings)
        {
            _rings = rings;
            Bounds = Box.Around(rings[0]);
        }

        public Box Bounds { get; }
        public Point Corner => _rings[0][0];

        public static FlatShape Flatten(NestPiece piece) => Flatten([piece.Outline, .. piece.Openings]);

        public static FlatShape Flatten(IEnumerable<Path> paths) =>
            new([.. paths.Select(p => p.Segments.Any(s => s.IsCubic) ? Flattening.Flatten(p, Flat) : p.Flat.ToArray())]);

        public FlatShape Map(Affine map) => new([.. _rings.Select(r => r.Select(map.Apply).ToArray())]);

        public bool Holds(Point p) => Polygons.Contains(_rings, p);

        /// <summary>They have more in common than a touch.</summary>
        public bool Overlaps(FlatShape other, double touch)
        {
            if (!Bounds.Overlaps(other.Bounds)) return false;
            return Crosses(other, touch) || AnyDeepIn(other, touch) || other.AnyDeepIn(this, touch);
        }

        /// <summary>A corner, or the middle of an edge, of this one lies well within the other; edges that only touch cross nothing.</summary>
        private bool AnyDeepIn(FlatShape other, double touch)
        {
            foreach (var ring in _rings)
            {
                for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
                {
                    if (IsDeep(ring[i]) || IsDeep(Point.Lerp(ring[j], ring[i], 0.5))) return true;
                }
            }
            return Polygons.InteriorPoint(_rings[0]) is { } p && Holds(p) && IsDeep(p);

            bool IsDeep(Point p) => other.Bounds.Contains(p) && other.Holds(p) && other._rings.All(r => Polygons.DistanceToRing(r, p) > touch);
        }

        /// <summary>Edges cross by more than a touch.</summary>
        public bool Crosses(FlatShape other, double touch)
        {
            foreach (var (a, b) in EdgesNear(other.Bounds, 0))
            {
                foreach (var (c, d) in other.EdgesNear(new Box(Math.Min(a.X, b.X), Math.Min(a.Y, b.Y), Math.Max(a.X, b.X), Math.Max(a.Y, b.Y)), 0))
                {
                    if (Parted(a, b, c, d) && Parted(c, d, a, b)) return true;
                }
            }
            return false;

            bool Parted(Point a, Point b, Point c, Point d)
            {
                var along = b - a;
                var length = along.Length;
                if (length == 0) return false;
                var (one, two) = (along.Cross(c - a) / length, along.Cross(d - a) / length);
                return one > touch && two < -touch || one < -touch && two > touch;
            }
        }

        /// <summary>Least distance between their edges, or <paramref name="most"/> where it is larger, mm.</summary>
        public double Distance(FlatShape other, double most)
        {
            var best = most;
            foreach (var (a, b) in EdgesNear(other.Bounds, most))
            {
                foreach (var (c, d) in other.EdgesNear(new Box(Math.Min(a.X, b.X), Math.Min(a.Y, b.Y), Math.Max(a.X, b.X), Math.Max(a.Y, b.Y)), best))
                {
                    best = Math.Min(best, Polygons.DistanceBetween(a, b, c, d));
                }
            }
            return best;
        }

        private IEnumerable<(Point, Point)> EdgesNear(Box box, double within)
        {
            var (minX, minY, maxX, maxY) = (box.MinX - within, box.MinY - within, box.MaxX + within, box.MaxY + within);
            foreach (var ring in _rings)
            {
                for (int i = 0, j = ring.Length - 1; i < ring.Length; j = i++)
                {
                    var (a, b) = (ring[j], ring[i]);
                    if (Math.Max(a.X, b.X) >= minX && Math.Min(a.X, b.X) <= maxX && Math.Max(a.Y, b.Y) >= minY && Math.Min(a.Y, b.Y) <= maxY) yield return (a, b);
                }
            }
        }
    }
}
