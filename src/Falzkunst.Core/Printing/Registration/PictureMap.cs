using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>Where a sheet is on a picture: a projective map, and how a lens bent the picture about its middle after it.</summary>
/// <param name="Straight">From sheet mm to dots, as a lens that bends nothing would show them.</param>
/// <param name="Bend">A straight place lies at r (1 + bend r²) where the picture shows it at r, in halves of its diagonal from the middle; 0 for none.</param>
/// <param name="Middle">Of the picture, dots.</param>
/// <param name="Half">Half the picture's diagonal, dots.</param>
public sealed record PictureMap(Projection Straight, double Bend, Point Middle, double Half)
{
    /// <summary>A map without a lens.</summary>
    public static PictureMap Plain(Projection map) => new(map, 0, new Point(0, 0), 1);

    /// <summary>Bends are a few hundredths, so that each round leaves a hundredth of the error of the last.</summary>
    private const int Rounds = 12;

    private readonly Projection _back = Straight.Inverse();

    /// <summary>The dot at which a place of the sheet is.</summary>
    public Point Apply(Point sheet)
    {
        var straight = Straight.Apply(sheet);
        if (Bend == 0) return straight;
        var from = (straight - Middle) * (1 / Half);
        var at = from;
        for (var k = 0; k < Rounds; k++) at = from * (1 / (1 + Bend * at.Dot(at)));
        return at * Half + Middle;
    }

    /// <summary>The place of the sheet that a dot shows.</summary>
    public Point Back(Point dot) => _back.Apply(Straightened(dot, Bend, Middle, Half));

    /// <summary>Where a dot would be if nothing had bent the picture.</summary>
    internal static Point Straightened(Point dot, double bend, Point middle, double half)
    {
        if (bend == 0) return dot;
        var at = (dot - middle) * (1 / half);
        return at * ((1 + bend * at.Dot(at)) * half) + middle;
    }

    /// <summary>Dots to a millimetre of the sheet at a place.</summary>
    public double ScaleAt(Point sheet) => Straight.ScaleAt(sheet);
}
