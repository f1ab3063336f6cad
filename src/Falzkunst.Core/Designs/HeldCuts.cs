using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>Cuts with holding bridges as they run: in parts, with a tie left between them where it shows least.</summary>
public static class HeldCuts
{
    /// <summary>The way is looked at as a polyline this near to it, mm.</summary>
    private const double Flatness = 0.01;

    /// <summary>In each share of the line so many places are looked at for a tie.</summary>
    private const int LooksEach = 24;

    /// <summary>A tie keeps off corners by so many of its widths.</summary>
    private const double WindowOfWidths = 1.5;

    /// <summary>The parts of a cut that run; the line itself where it is not held, or is too short to be.</summary>
    public static ImmutableArray<Path> Runs(Line line) =>
        line is { Operation: Operation.Cut, Settings.Hold: { } hold } && hold.Count * hold.WidthMm * 2 < line.Path.Length ? Parts(line.Path, hold) : [line.Path];

    /// <summary>Where the middles of the ties lie, by their numbers.</summary>
    public static ImmutableArray<Point> Ties(Path path, HoldingBridges hold)
    {
        var walk = new Walk(path);
        var whole = PathNodes.WrittenOut(path);
        return [.. ByTie(walk, hold).Select(walk.PlaceAt).Select(p => whole.Segments[p.Segment].At(p.Segment == 0 ? whole.Start : whole.Segments[p.Segment - 1].End, p.T))];
    }

    /// <summary>The ties with one of them where the line runs nearest to a place.</summary>
    /// <exception cref="ArgumentOutOfRangeException">There is no tie of this number.</exception>
    public static HoldingBridges Moved(Path path, HoldingBridges hold, int tie, Point to)
    {
        var walk = new Walk(path);
        return MovedTo(walk, hold, tie, walk.LengthAt(PathNearest.Find(PathNodes.WrittenOut(path), to).Place));
    }

    /// <summary>The ties with one of them moved along the line.</summary>
    /// <exception cref="ArgumentOutOfRangeException">There is no tie of this number.</exception>
    public static HoldingBridges Moved(Path path, HoldingBridges hold, int tie, double byMm)
    {
        var walk = new Walk(path);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(tie, hold.Count);
        return MovedTo(walk, hold, tie, Round(ByTie(walk, hold)[tie] + byMm, walk.Length));
    }

    private static HoldingBridges MovedTo(Walk walk, HoldingBridges hold, int tie, double at)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(tie);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(tie, hold.Count);
        return hold.WithMoved(tie, Math.IEEERemainder(at - ByTie(walk, hold with { MovedMm = default })[tie], walk.Length));
    }

    /// <summary>Where the middles of the ties lie, mm along the line, in the line's order.</summary>
    private static double[] Places(Walk walk, HoldingBridges hold) => [.. ByTie(walk, hold).Order()];

    private static double[] ByTie(Walk walk, HoldingBridges hold)
    {
        var each = walk.Length / hold.Count;
        return [.. Enumerable.Range(0, hold.Count).Select(i =>
        {
            // The least bent place of its share, the nearer to the middle of that the better.
            var middle = (i + 0.5) * each;
            var best = Enumerable.Range(0, LooksEach).Select(k => middle + each * 0.8 * ((k + 0.5) / LooksEach - 0.5))
                .MinBy(at => walk.TurnAround(at, hold.WidthMm * WindowOfWidths) + 0.05 * Math.Abs(at - middle) / each);
            return Round(best + hold.ShiftMm + hold.Moved(i), walk.Length);
        })];
    }

    private static double Round(double at, double length) => (at % length + length) % length;

    private static ImmutableArray<Path> Parts(Path path, HoldingBridges hold)
    {
        var whole = PathNodes.WrittenOut(path);
        var walk = new Walk(whole);
        var places = Places(walk, hold);
        var parts = ImmutableArray.CreateBuilder<Path>();
        var half = hold.WidthMm / 2;
        for (var i = 0; i < places.Length; i++)
        {
            var (from, to) = (places[i] + half, i + 1 < places.Length ? places[i + 1] - half : places[0] - half + walk.Length);
            if (to <= from) continue;
            if (path.IsClosed)
            {
                Add(PathPlace.Stretch(whole, walk.PlaceAt(Round(from, walk.Length)), walk.PlaceAt(Round(to, walk.Length))));
            }
            else if (i + 1 < places.Length)
            {
                Add(PathPlace.Stretch(whole, walk.PlaceAt(from), walk.PlaceAt(to)));
            }
        }
        if (!path.IsClosed)
        {
            if (places[0] - half > 0) Add(PathPlace.Stretch(whole, new PathPlace(0, 0), walk.PlaceAt(places[0] - half)));
            if (places[^1] + half < walk.Length) Add(ToEnd(whole, walk.PlaceAt(places[^1] + half)));
        }
        return parts.ToImmutable();

        void Add((Point Start, ImmutableArray<Segment> Segments) stretch) => parts.Add(new Path(stretch.Start, stretch.Segments, closed: false));
    }

    private static (Point, ImmutableArray<Segment>) ToEnd(Path path, PathPlace from)
    {
        var start = from.Segment == 0 ? path.Start : path.Segments[from.Segment - 1].End;
        var (_, rest) = PathNodes.Split(start, path.Segments[from.Segment], from.T);
        return (path.Segments[from.Segment].At(start, from.T), [rest, .. path.Segments.Skip(from.Segment + 1)]);
    }

    /// <summary>A line by lengths along it.</summary>
    private sealed class Walk
    {
        private readonly Point[] _points;
        private readonly PathPlace[] _places;
        private readonly double[] _at;
        private readonly bool _isClosed;

        public Walk(Path path)
        {
            var whole = PathNodes.WrittenOut(path);
            var (points, places) = Flattening.Trace(whole, Flatness);
            _isClosed = path.IsClosed;
            (_points, _places) = _isClosed ? ([.. points, points[0]], [.. places, new PathPlace(whole.Segments.Length, 0)]) : (points, places);
            _at = new double[_points.Length];
            for (var i = 1; i < _points.Length; i++) _at[i] = _at[i - 1] + _points[i].DistanceTo(_points[i - 1]);
        }

        public double Length => _at[^1];

        public PathPlace PlaceAt(double length)
        {
            var i = Index(length);
            var share = _at[i] > _at[i - 1] ? (length - _at[i - 1]) / (_at[i] - _at[i - 1]) : 0;
            var (a, b) = (_places[i - 1], _places[i]);
            var end = b.Segment == a.Segment ? b.T : 1;
            return new PathPlace(a.Segment, a.T + (end - a.T) * share);
        }

        public double LengthAt(PathPlace place)
        {
            var i = 1;
            while (i < _places.Length - 1 && (_places[i].Segment < place.Segment || _places[i].Segment == place.Segment && _places[i].T < place.T)) i++;
            var (a, b) = (_places[i - 1], _places[i]);
            var (from, to) = (a.Segment == place.Segment ? a.T : 0, b.Segment == place.Segment ? b.T : 1);
            return _at[i - 1] + (_at[i] - _at[i - 1]) * (to > from ? Math.Clamp((place.T - from) / (to - from), 0, 1) : 0);
        }

        /// <summary>How far the line turns within a distance of a place to both sides, radians.</summary>
        public double TurnAround(double at, double reach)
        {
            double turn = 0;
            var from = Index(Math.Clamp(at - reach, 0, Length));
            for (var i = from; i < _points.Length - 1 && _at[i] < at + reach; i++)
            {
                var (a, b) = (_points[i] - _points[i - 1], _points[i + 1] - _points[i]);
                turn += Math.Abs(Math.Atan2(a.Cross(b), a.Dot(b)));
            }
            // The joint of a closed line is a place like any other.
            if (_isClosed && (at - reach < 0 || at + reach > Length))
            {
                var (a, b) = (_points[^1] - _points[^2], _points[1] - _points[0]);
                turn += Math.Abs(Math.Atan2(a.Cross(b), a.Dot(b)));
            }
            return turn;
        }

        private int Index(double length)
        {
            var i = Array.BinarySearch(_at, length);
            return Math.Clamp(i < 0 ? ~i : i, 1, _at.Length - 1);
        }
    }
}
