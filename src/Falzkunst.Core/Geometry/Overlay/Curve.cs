namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>One segment with where it begins, as curves are crossed, split and walked.</summary>
/// <param name="Start">Where it begins.</param>
/// <param name="Segment">The way from there.</param>
internal readonly record struct Curve(Point Start, Segment Segment)
{
    public Point End => Segment.End;

    public Point At(double t) => t <= 0 ? Start : t >= 1 ? Segment.End : Segment.At(Start, t);

    /// <summary>The derivative by the parameter; of length 0 where handles lie on their nodes.</summary>
    public Point Derivative(double t)
    {
        if (!Segment.IsCubic) return Segment.End - Start;
        var u = 1 - t;
        return (Segment.Handle1 - Start) * (3 * u * u) + (Segment.Handle2 - Segment.Handle1) * (6 * u * t) + (Segment.End - Segment.Handle2) * (3 * t * t);
    }

    /// <summary>The direction in which it runs at a parameter, also where its derivative vanishes.</summary>
    public Point Tangent(double t)
    {
        var d = Derivative(t);
        if (d.Length > 1e-9) return d;
        var (before, after) = (At(Math.Max(0, t - 1e-4)), At(Math.Min(1, t + 1e-4)));
        return after - before;
    }

    /// <summary>The part between two parameters; all of it stays as it is, to the last bit (blossoming of de Casteljau's construction).</summary>
    public Curve Between(double from, double to)
    {
        if (from <= 0 && to >= 1) return this;
        var (begin, end) = (At(from), At(to));
        if (!Segment.IsCubic) return new Curve(begin, Segment.Straight(end));
        var whole = this;
        // The polar form of the cubic: handles of the part are its values at two thirds from either end.
        return new Curve(begin, Segment.Cubic(Polar(from, from, to), Polar(from, to, to), end));

        Point Polar(double a, double b, double c)
        {
            var (p0, p1, p2, p3) = (whole.Start, whole.Segment.Handle1, whole.Segment.Handle2, whole.Segment.End);
            var (q0, q1, q2) = (Point.Lerp(p0, p1, a), Point.Lerp(p1, p2, a), Point.Lerp(p2, p3, a));
            return Point.Lerp(Point.Lerp(q0, q1, b), Point.Lerp(q1, q2, b), c);
        }
    }

    public Curve Reversed() => new(End, Segment.IsCubic ? Segment.Cubic(Segment.Handle2, Segment.Handle1, Start) : Segment.Straight(Start));

    /// <summary>Parameters between which it runs one way in x and in y, 0 and 1 included.</summary>
    public List<double> MonotoneCuts()
    {
        var cuts = new List<double> { 0, 1 };
        if (!Segment.IsCubic) return cuts;
        AddTurns(cuts, Start.X, Segment.Handle1.X, Segment.Handle2.X, Segment.End.X);
        AddTurns(cuts, Start.Y, Segment.Handle1.Y, Segment.Handle2.Y, Segment.End.Y);
        cuts.Sort();
        for (var i = cuts.Count - 1; i > 0; i--)
        {
            if (cuts[i] - cuts[i - 1] < 1e-9) cuts.RemoveAt(i == cuts.Count - 1 ? i - 1 : i);
        }
        return cuts;
    }

    /// <summary>Where one coordinate turns: the roots of its derivative.</summary>
    private static void AddTurns(List<double> cuts, double p0, double p1, double p2, double p3)
    {
        var (a, b, c) = (p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0);
        var size = Math.Abs(a) + Math.Abs(b) + Math.Abs(c);
        if (size == 0) return;
        if (Math.Abs(a) < 1e-12 * size)
        {
            if (Math.Abs(b) > 1e-12 * size) Add(-c / b);
            return;
        }
        var under = b * b - 4 * a * c;
        if (under < 0) return;
        // The root of larger size first, the other by their product: no digits are lost.
        var q = -0.5 * (b + Math.CopySign(Math.Sqrt(under), b));
        Add(q / a);
        if (q != 0) Add(c / q);

        void Add(double t)
        {
            if (t is > 1e-9 and < 1 - 1e-9) cuts.Add(t);
        }
    }

    /// <summary>The parameter within a range at which it comes nearest to a point, and how near.</summary>
    public (double T, double Distance) Nearest(Point p, double from, double to)
    {
        if (!Segment.IsCubic)
        {
            var along = End - Start;
            var length = along.Dot(along);
            var on = Math.Clamp(length > 0 ? (p - Start).Dot(along) / length : from, from, to);
            return (on, At(on).DistanceTo(p));
        }
        const int looks = 8;
        var (best, least) = (from, double.MaxValue);
        for (var i = 0; i <= looks; i++)
        {
            var t = from + (to - from) * i / looks;
            var d = At(t).DistanceTo(p);
            if (d < least) (best, least) = (t, d);
        }
        for (var round = 0; round < 12; round++)
        {
            var (off, d) = (At(best) - p, Derivative(best));
            var bend = Second(best);
            var slope = d.Dot(d) + off.Dot(bend);
            if (slope <= 0) slope = d.Dot(d);
            if (slope <= 0) break;
            var next = Math.Clamp(best - off.Dot(d) / slope, from, to);
            var distance = At(next).DistanceTo(p);
            if (distance > least || next == best) break;
            (best, least) = (next, distance);
        }
        return (best, least);
    }

    private Point Second(double t) => (Segment.Handle2 - Segment.Handle1 * 2 + Start) * (6 * (1 - t)) + (Segment.End - Segment.Handle2 * 2 + Segment.Handle1) * (6 * t);
}
