namespace Falzkunst.Core.Geometry.Overlay;

/// <summary>
/// Where two curves meet, which each run one way in x and y. Stretches that lie on each other are looked for first and told by their
/// ends; what is left is parted into halves for as long as boxes and fat lines of both meet (the reject of Bézier clipping: Sederberg
/// and Nishita 1990) and both are not nearly straight, then solved by Newton's method.
/// </summary>
internal sealed class CurveCrossings(List<(double T, double U)> found)
{
    /// <summary>What is nearer than this is one point, mm: a thousandth of what any machine steps.</summary>
    public const double Snap = 1e-6;

    /// <summary>A part that strays from its chord by no more than this share of it is as good as straight for a first guess.</summary>
    private const double NearlyStraight = 0.02;

    /// <summary>
    /// A cubic part turns from its chord by no more than four times the share by which it strays from it: two parts whose chords part
    /// by more than both may turn cross once at most.
    /// </summary>
    private const double TurnOfStray = 4;

    /// <summary>Parts that touch without crossing are asked how near they come once they are so short, mm.</summary>
    private const double Short = 0.01;

    /// <summary>Parts looked at for one pair; ordinary pairs need some dozens.</summary>
    private const int MostSteps = 4000;

    private int _steps;

    /// <summary>Puts down where two parts meet, as parameters of both.</summary>
    public void Find(Curve one, double a0, double a1, Curve other, double b0, double b1)
    {
        _steps = 0;
        var contacts = Contacts(one, a0, a1, other, b0, b1);
        if (contacts.Count > 1 && Overlap(one, other, contacts) is var (from, to))
        {
            found.AddRange(contacts);
            // Before and after the stretch that they share they may meet once more.
            Beside(one, a0, from.T, other, b0, b1, from.U, to.U);
            Beside(one, to.T, a1, other, b0, b1, to.U, from.U);
            return;
        }
        found.AddRange(contacts);
        Seek(one, a0, a1, other, b0, b1);
    }

    private void Beside(Curve one, double a0, double a1, Curve other, double b0, double b1, double near, double far)
    {
        if (a1 - a0 < 1e-9) return;
        var (from, to) = near < far ? (b0, near) : (near, b1);
        if (to - from > 1e-9) Seek(one, a0, a1, other, from, to);
    }

    /// <summary>Ends of one that lie on the other.</summary>
    private static List<(double T, double U)> Contacts(Curve one, double a0, double a1, Curve other, double b0, double b1)
    {
        var contacts = new List<(double T, double U)>(4);
        var (boxOne, boxOther) = (BoxOf(one, a0, a1), BoxOf(other, b0, b1));
        foreach (var t in (ReadOnlySpan<double>)[a0, a1])
        {
            if (!boxOther.Contains(one.At(t))) continue;
            var (u, distance) = other.Nearest(one.At(t), b0, b1);
            if (distance < Snap) contacts.Add((t, u));
        }
        foreach (var u in (ReadOnlySpan<double>)[b0, b1])
        {
            if (!boxOne.Contains(other.At(u))) continue;
            var (t, distance) = one.Nearest(other.At(u), a0, a1);
            if (distance < Snap && !contacts.Exists(c => Math.Abs(c.T - t) < 1e-9 || one.At(c.T).DistanceTo(one.At(t)) < 2 * Snap)) contacts.Add((t, u));
        }
        contacts.Sort((x, y) => x.T.CompareTo(y.T));
        return contacts;
    }

    /// <summary>The box of a part that runs one way, with room for what counts as touching.</summary>
    private static Box BoxOf(Curve curve, double from, double to) => Box.Empty.Include(curve.At(from)).Include(curve.At(to)).Grow(Snap);

    /// <summary>The ends of the stretch that both share; null where they meet in points alone.</summary>
    private static ((double T, double U) From, (double T, double U) To)? Overlap(Curve one, Curve other, List<(double T, double U)> contacts)
    {
        var (from, to) = (contacts[0], contacts[^1]);
        if (one.At(from.T).DistanceTo(one.At(to.T)) < 4 * Snap) return null;
        var (low, high) = (Math.Min(from.U, to.U), Math.Max(from.U, to.U));
        for (var i = 1; i < 6; i++)
        {
            if (other.Nearest(one.At(from.T + (to.T - from.T) * i / 6), low, high).Distance > 2 * Snap) return null;
        }
        return (from, to);
    }

    private void Seek(Curve one, double a0, double a1, Curve other, double b0, double b1)
    {
        if (++_steps > MostSteps) return;
        var (p, q, r, s) = (one.At(a0), one.At(a1), other.At(b0), other.At(b1));
        if (Math.Max(p.X, q.X) + Snap < Math.Min(r.X, s.X) || Math.Max(r.X, s.X) + Snap < Math.Min(p.X, q.X)
            || Math.Max(p.Y, q.Y) + Snap < Math.Min(r.Y, s.Y) || Math.Max(r.Y, s.Y) + Snap < Math.Min(p.Y, q.Y)) return;
        var (strayOne, strayOther) = (Stray(one, a0, a1, p, q), Stray(other, b0, b1, r, s));
        if (IsBeside(p, q, strayOne, r, s, strayOther) || IsBeside(r, s, strayOther, p, q, strayOne)) return;
        var (along, across) = (q - p, s - r);
        var (length, width) = (along.Length, across.Length);
        if (strayOne <= NearlyStraight * length && strayOther <= NearlyStraight * width)
        {
            if (length < Snap || width < Snap || Math.Abs(along.Cross(across)) > TurnOfStray * (strayOne * width + strayOther * length) + Snap * Snap)
            {
                Solve(one, a0, a1, other, b0, b1, p, along, r, across);
                return;
            }
            if (Math.Max(length, width) < Short)
            {
                if (!Solve(one, a0, a1, other, b0, b1, p, along, r, across)) Touch(one, a0, a1, other, b0, b1);
                return;
            }
        }
        // The longer one is halved; straight ones are not bent by that, and get shorter.
        if (length >= width)
        {
            var middle = (a0 + a1) / 2;
            Seek(one, a0, middle, other, b0, b1);
            Seek(one, middle, a1, other, b0, b1);
        }
        else
        {
            var middle = (b0 + b1) / 2;
            Seek(one, a0, a1, other, b0, middle);
            Seek(one, a0, a1, other, middle, b1);
        }
    }

    /// <summary>How far a part may stray from its chord, mm: never less than it does.</summary>
    private static double Stray(Curve curve, double from, double to, Point p, Point q)
    {
        if (!curve.Segment.IsCubic) return 0;
        var part = curve.Between(from, to).Segment;
        return Math.Max(Polygons.DistanceToStretch(part.Handle1, p, q), Polygons.DistanceToStretch(part.Handle2, p, q));
    }

    /// <summary>All of the second part lies beside the fat line about the first.</summary>
    private static bool IsBeside(Point p, Point q, double stray, Point r, Point s, double otherStray)
    {
        var along = q - p;
        var length = along.Length;
        if (length < Snap) return false;
        var (d, e) = (along.Cross(r - p) / length, along.Cross(s - p) / length);
        var room = stray + otherStray + Snap;
        return Math.Min(d, e) > room || Math.Max(d, e) < -room;
    }

    /// <summary>The one place where two nearly straight parts cross.</summary>
    private bool Solve(Curve one, double a0, double a1, Curve other, double b0, double b1, Point p, Point along, Point r, Point across)
    {
        var cross = along.Cross(across);
        var (t, u) = Math.Abs(cross) > 1e-30
            ? (a0 + (a1 - a0) * (r - p).Cross(across) / cross, b0 + (b1 - b0) * (r - p).Cross(along) / cross)
            : ((a0 + a1) / 2, (b0 + b1) / 2);
        for (var round = 0; round < 20; round++)
        {
            (t, u) = (Math.Clamp(t, 0, 1), Math.Clamp(u, 0, 1));
            var off = other.At(u) - one.At(t);
            var (d, e) = (one.Derivative(t), other.Derivative(u));
            var slope = d.Cross(e);
            if (Math.Abs(slope) < 1e-30) break;
            var (dt, du) = (off.Cross(e) / slope, off.Cross(d) / slope);
            (t, u) = (t + dt, u + du);
            if (Math.Abs(dt) < 1e-15 && Math.Abs(du) < 1e-15) break;
        }
        // A little beyond the parts, which the neighbouring parts find as well.
        var (slackT, slackU) = (1e-9 + 0.01 * (a1 - a0), 1e-9 + 0.01 * (b1 - b0));
        if (!(t > a0 - slackT && t < a1 + slackT && u > b0 - slackU && u < b1 + slackU)) return false;
        (t, u) = (Math.Clamp(t, 0, 1), Math.Clamp(u, 0, 1));
        if (one.At(t).DistanceTo(other.At(u)) >= Snap) return false;
        found.Add((t, u));
        return true;
    }

    /// <summary>Short parts that run beside each other: where they come nearest, if that is as good as touching.</summary>
    private void Touch(Curve one, double a0, double a1, Curve other, double b0, double b1)
    {
        var (t, u) = ((a0 + a1) / 2, (b0 + b1) / 2);
        double distance = double.MaxValue;
        for (var round = 0; round < 6; round++)
        {
            (u, _) = other.Nearest(one.At(t), b0, b1);
            (t, distance) = one.Nearest(other.At(u), a0, a1);
        }
        if (distance < Snap) found.Add((t, u));
    }
}
