namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>
/// In which areas a place beside a stretch lies, by winding: a ray is sent from a point of the stretch away from it, and every line that
/// it meets is counted with its sense. The stretch itself is not: on its other side its own lines count once more.
/// </summary>
internal sealed class Sides
{
    /// <summary>What passes nearer to the point than this makes the ray a bad one, mm.</summary>
    private const double Clear = 1e-5;

    /// <summary>Shares of a stretch that are tried for a ray's beginning.</summary>
    private static readonly double[] Shares = [0.5, 0.41, 0.62, 0.29, 0.73, 0.17, 0.86];

    private const int MostBins = 4096;

    private readonly Arrangement _all;
    private readonly int _areas;
    private readonly Span[] _acrossX;
    private readonly Span[] _acrossY;
    private readonly Bins _byX;
    private readonly Bins _byY;
    private readonly int[] _windings;
    private readonly List<int> _touched = [];

    public Sides(Arrangement all, int areas)
    {
        (_all, _areas) = (all, areas);
        _acrossX = [.. all.Parts.Select(p => SpanOf(p, vertical: true))];
        _acrossY = [.. all.Parts.Select(p => SpanOf(p, vertical: false))];
        (_byX, _byY) = (new Bins(_acrossX), new Bins(_acrossY));
        _windings = new int[all.Rings.Count];
    }

    /// <summary>
    /// For both sides of an edge the areas that hold it: first that towards which its first stretch's direction is turned by a quarter
    /// from x towards y.
    /// </summary>
    public (bool[] Turned, bool[] Other) Of(List<Stretch> edge)
    {
        var (ray, clearest) = (default(Ray), -1.0);
        foreach (var share in Shares)
        {
            var tried = RayFrom(edge[0], share);
            var clear = Cast(tried, edge);
            if (clear > clearest) (ray, clearest) = (tried, clear);
            if (clear > Clear) break;
        }
        // Where every ray begins close to something, the one that keeps farthest from it tells.
        if (clearest <= Clear) Cast(ray, edge);
        var here = Inside();
        foreach (var own in edge)
        {
            var curve = _all.Curves[own.Curve];
            var (t, _) = curve.Nearest(ray.From, own.From, own.To);
            Count(_all.RingOf[own.Curve], ray.Sense(curve.Tangent(t)));
        }
        var beyond = Inside();
        return ray.IsTurnedSide ? (here, beyond) : (beyond, here);
    }

    /// <summary>A ray towards greater x, or greater y where the stretch runs rather level.</summary>
    /// <param name="From">Where it begins.</param>
    /// <param name="Vertical">It runs towards greater y.</param>
    /// <param name="IsTurnedSide">It leaves the stretch to the side that its direction is turned to by a quarter from x towards y.</param>
    private readonly record struct Ray(Point From, bool Vertical, bool IsTurnedSide)
    {
        /// <summary>How a line in some direction counts that the ray meets.</summary>
        public int Sense(Point direction) => Vertical ? -Math.Sign(direction.X) : Math.Sign(direction.Y);
    }

    private Ray RayFrom(Stretch stretch, double share)
    {
        var t = stretch.From + (stretch.To - stretch.From) * share;
        var curve = _all.Curves[stretch.Curve];
        var d = curve.Tangent(t);
        var vertical = Math.Abs(d.X) > Math.Abs(d.Y);
        // Turned by a quarter from x towards y, the direction is (-y, x).
        return new Ray(curve.At(t), vertical, vertical ? d.X > 0 : -d.Y > 0);
    }

    /// <summary>Counts all lines that the ray meets; gives how near the nearest of them passes by its beginning.</summary>
    private double Cast(Ray ray, List<Stretch> edge)
    {
        foreach (var ring in _touched) _windings[ring] = 0;
        _touched.Clear();
        var (level, from) = ray.Vertical ? (ray.From.X, ray.From.Y) : (ray.From.Y, ray.From.X);
        var clear = double.MaxValue;
        foreach (var index in (ray.Vertical ? _byX : _byY).At(level))
        {
            ref readonly var span = ref (ray.Vertical ? _acrossX : _acrossY)[index];
            if (level < span.Low || level >= span.High || span.Far < from - Clear) continue;
            var (c, t0, t1) = _all.Parts[index];
            // What lies wholly before the ray is met somewhere; only near its beginning it matters where.
            if (span.Near <= from + Clear)
            {
                var curve = _all.Curves[c];
                var t = ParameterAt(curve, t0, t1, level, ray.Vertical, span.Sense);
                var met = ray.Vertical ? curve.At(t).Y : curve.At(t).X;
                if (IsOwn(edge, c, t)) continue;
                clear = Math.Min(clear, Math.Abs(met - from));
                if (met <= from) continue;
            }
            Count(_all.RingOf[c], ray.Vertical ? -span.Sense : span.Sense);
        }
        return clear;

        bool IsOwn(List<Stretch> own, int c, double t)
        {
            foreach (var s in own)
            {
                if (s.Curve == c && t > s.From - 1e-9 && t < s.To + 1e-9 && _all.Curves[c].At(t).DistanceTo(ray.From) < 8 * CurveCrossings.Snap) return true;
            }
            return false;
        }
    }

    /// <summary>A part as rays see it: the levels that it passes, which way, and between which places of the ray.</summary>
    private readonly record struct Span(double Low, double High, double Near, double Far, int Sense);

    private Span SpanOf((int Curve, double From, double To) part, bool vertical)
    {
        var (a, b) = (_all.Curves[part.Curve].At(part.From), _all.Curves[part.Curve].At(part.To));
        return vertical
            ? new Span(Math.Min(a.X, b.X), Math.Max(a.X, b.X), Math.Min(a.Y, b.Y), Math.Max(a.Y, b.Y), Math.Sign(b.X - a.X))
            : new Span(Math.Min(a.Y, b.Y), Math.Max(a.Y, b.Y), Math.Min(a.X, b.X), Math.Max(a.X, b.X), Math.Sign(b.Y - a.Y));
    }

    /// <summary>Where a part that runs one way passes a level, to the last bits.</summary>
    private static double ParameterAt(Curve curve, double t0, double t1, double level, bool vertical, int sense)
    {
        double Value(double t) => vertical ? curve.At(t).X : curve.At(t).Y;
        if (!curve.Segment.IsCubic)
        {
            var (from, to) = vertical ? (curve.Start.X, curve.End.X) : (curve.Start.Y, curve.End.Y);
            return Math.Clamp((level - from) / (to - from), 0, 1);
        }
        var rises = sense > 0;
        var (a, b) = (t0, t1);
        for (var i = 0; i < 60 && b - a > 1e-14; i++)
        {
            var t = (a + b) / 2;
            if (i > 3)
            {
                var d = curve.Derivative(t);
                var slope = vertical ? d.X : d.Y;
                var next = t - (Value(t) - level) / slope;
                if (next > a && next < b)
                {
                    if (Math.Abs(next - t) < 1e-14) return next;
                    t = next;
                }
            }
            if (Value(t) > level == rises) b = t;
            else a = t;
        }
        return (a + b) / 2;
    }

    private void Count(int ring, int sense)
    {
        if (_windings[ring] == 0) _touched.Add(ring);
        _windings[ring] += sense;
    }

    private bool[] Inside()
    {
        var inside = new bool[_areas];
        foreach (var ring in _touched)
        {
            if (_windings[ring] != 0 && !_all.Rings[ring].IsOpening) inside[_all.Rings[ring].Area] = true;
        }
        foreach (var ring in _touched)
        {
            if (_windings[ring] != 0 && _all.Rings[ring].IsOpening) inside[_all.Rings[ring].Area] = false;
        }
        return inside;
    }

    /// <summary>Parts by the strips of x or y that they pass.</summary>
    private sealed class Bins
    {
        private readonly List<int>[] _bins;
        private readonly double _least;
        private readonly double _width;

        public Bins(Span[] spans)
        {
            _least = spans.Length == 0 ? 0 : spans.Min(s => s.Low);
            var most = spans.Length == 0 ? 0 : spans.Max(s => s.High);
            _bins = new List<int>[Math.Clamp(spans.Length / 2, 1, MostBins)];
            _width = Math.Max((most - _least) / _bins.Length, 1e-9);
            for (var i = 0; i < _bins.Length; i++) _bins[i] = [];
            for (var i = 0; i < spans.Length; i++)
            {
                for (var bin = BinOf(spans[i].Low); bin <= BinOf(spans[i].High); bin++) _bins[bin].Add(i);
            }
        }

        public List<int> At(double level) => _bins[BinOf(level)];

        private int BinOf(double level) => Math.Clamp((int)((level - _least) / _width), 0, _bins.Length - 1);
    }
}
