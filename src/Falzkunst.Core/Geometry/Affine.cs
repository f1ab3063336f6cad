namespace Falzkunst.Core.Geometry;

/// <summary>
/// An affine map in the order of SVG's <c>matrix(a,b,c,d,e,f)</c>:
/// x' = A·x + C·y + E, y' = B·x + D·y + F. Positive turns go from x towards y, clockwise on screen.
/// </summary>
public readonly record struct Affine(double A, double B, double C, double D, double E, double F)
{
    public static readonly Affine Identity = new(1, 0, 0, 1, 0, 0);

    public static Affine Move(double x, double y) => new(1, 0, 0, 1, x, y);
    public static Affine Move(Point by) => Move(by.X, by.Y);
    public static Affine Scale(double x, double y) => new(x, 0, 0, y, 0, 0);

    /// <summary>A turn about the origin; quarter turns are exact.</summary>
    /// <param name="degrees">Positive is clockwise on screen.</param>
    public static Affine Turn(double degrees)
    {
        var quarter = degrees / 90;
        if (quarter == Math.Floor(quarter) && Math.Abs(quarter) < 1e9)
        {
            var (cos, sin) = (((long)quarter % 4 + 4) % 4) switch { 0 => (1, 0), 1 => (0, 1), 2 => (-1, 0), _ => (0, -1) };
            return new(cos, sin, -sin, cos, 0, 0);
        }
        var (s, c) = Math.SinCos(degrees * Math.PI / 180);
        return new(c, s, -s, c, 0, 0);
    }

    /// <summary>Left to right within a width: what lies from 0 to there is seen from behind.</summary>
    public static Affine FromBehind(double width) => Scale(-1, 1).Then(Move(width, 0));

    /// <summary>The map that takes three points to three others.</summary>
    /// <param name="from">Three points, not on one line.</param>
    /// <param name="to">Where they go.</param>
    /// <exception cref="InvalidOperationException">The three lie on one line.</exception>
    public static Affine Through((Point A, Point B, Point C) from, (Point A, Point B, Point C) to)
    {
        var (p, q, u, v) = (from.B - from.A, from.C - from.A, to.B - to.A, to.C - to.A);
        return Move(from.A * -1).Then(new Affine(p.X, p.Y, q.X, q.Y, 0, 0).Inverse()).Then(new Affine(u.X, u.Y, v.X, v.Y, 0, 0)).Then(Move(to.A));
    }

    /// <summary>This map first, <paramref name="next"/> after it.</summary>
    public Affine Then(Affine next) => new(
        next.A * A + next.C * B, next.B * A + next.D * B,
        next.A * C + next.C * D, next.B * C + next.D * D,
        next.A * E + next.C * F + next.E, next.B * E + next.D * F + next.F);

    public Point Apply(Point p) => new(A * p.X + C * p.Y + E, B * p.X + D * p.Y + F);

    /// <summary>The map that takes this one back.</summary>
    /// <exception cref="InvalidOperationException">The map flattens the plane and cannot be taken back.</exception>
    public Affine Inverse()
    {
        var d = Determinant;
        if (d == 0 || !double.IsFinite(1 / d)) throw new InvalidOperationException("A map that flattens the plane has no inverse.");
        return new(D / d, -B / d, -C / d, A / d, (C * F - D * E) / d, (B * E - A * F) / d);
    }

    /// <summary>The map turns and moves, and neither scales nor mirrors.</summary>
    public bool IsRigid => Math.Abs(A - D) < 1e-12 && Math.Abs(B + C) < 1e-12 && Math.Abs(A * A + B * B - 1) < 1e-12;

    /// <summary>
    /// The turn, or turn and mirroring, that comes nearest to the map's linear part: its orthogonal factor in the polar
    /// decomposition (Higham 1986), which for two dimensions has a closed form.
    /// </summary>
    public Affine Orthogonal()
    {
        var (x, y) = Determinant >= 0 ? (A + D, B - C) : (A - D, B + C);
        var length = Math.Sqrt(x * x + y * y);
        if (length == 0) return Identity;
        var (cos, sin) = (x / length, y / length);
        return Determinant >= 0 ? new(cos, sin, -sin, cos, 0, 0) : new(cos, sin, sin, -cos, 0, 0);
    }

    /// <summary>The map that takes a point where this one does, and turns and mirrors like it, but scales nothing.</summary>
    public Affine KeepingSizeAt(Point middle) => Move(middle * -1).Then(Orthogonal()).Then(Move(Apply(middle)));

    /// <summary>This map done about a point instead of the origin.</summary>
    public Affine About(Point centre) => Move(centre * -1).Then(this).Then(Move(centre));

    /// <summary>A rigid map said as a turn, after x has become -x where it mirrors; from 0 to below 360 degrees, clockwise on screen.</summary>
    public (double Degrees, bool Mirrored) AsTurn()
    {
        // The first column is where (1, 0) goes, of which mirroring made (-1, 0).
        var mirrored = Determinant < 0;
        return ((Math.Atan2(mirrored ? -B : B, mirrored ? -A : A) * 180 / Math.PI % 360 + 360) % 360, mirrored);
    }

    /// <summary>Upright rectangles stay upright: moves, scales, mirroring, quarter turns.</summary>
    public bool KeepsUpright => (B == 0 && C == 0) || (A == 0 && D == 0);

    public double Determinant => A * D - B * C;

    /// <summary>The factor by which lengths grow on the geometric mean; used for stroke widths.</summary>
    public double MeanScale => Math.Sqrt(Math.Abs(Determinant));
}
