using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>A place where cut and print differ.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Copy">Which copy.</param>
/// <param name="At">On the sheet, mm.</param>
/// <param name="Mm">By how much, mm.</param>
public sealed record CutPlace(string Piece, int Copy, Point At, double Mm);

/// <summary>How far the cut and the print of a page lie apart.</summary>
public static class CutToPrint
{
    /// <summary>So many places are told.</summary>
    public const int Told = 3;

    /// <summary>The worst place of each copy, the worst of them first; so many as are told.</summary>
    /// <param name="outlines">What is cut of each copy, mm of the sheet.</param>
    /// <param name="apart">How far cut and print are apart at a place, mm.</param>
    public static ImmutableArray<CutPlace> Worst(IEnumerable<(string Piece, int Copy, IEnumerable<Point> Outline)> outlines, Func<Point, double> apart) =>
    [
        .. outlines.Select(o => o.Outline.Select(p => new CutPlace(o.Piece, o.Copy, p, apart(p))).MaxBy(c => c.Mm)).OfType<CutPlace>().OrderByDescending(c => c.Mm).Take(Told),
    ];

    /// <summary>
    /// The map nearest to another that only turns and moves: how a machine cuts that knows where a page lies, and not how its printer has
    /// scaled it. The orthogonal Procrustes problem (Schönemann 1966), which in the plane has a closed form.
    /// </summary>
    /// <param name="map">From sheet mm to true mm.</param>
    /// <param name="on">Places of the sheet that shall fit.</param>
    public static Affine Rigid(Affine map, IReadOnlyCollection<Point> on)
    {
        var middle = on.Aggregate(new Point(0, 0), (sum, p) => sum + p) * (1.0 / on.Count);
        return map.KeepingSizeAt(middle);
    }

    /// <summary>
    /// How far the print of the back lies from that of the face at the worst corner of the sheet, mm, but for shift and turn: marks alone
    /// do not tell those of the print from how the sheet was laid each time.
    /// </summary>
    /// <param name="width">Of the sheet, mm.</param>
    /// <param name="height">Of the sheet, mm.</param>
    /// <param name="face">Where the print of the face lies: from sheet mm as seen from there to mm from the mat's corner.</param>
    /// <param name="back">The same of the back, as seen from behind.</param>
    public static double SidesApart(double width, double height, Affine face, Affine back)
    {
        var flip = Affine.FromBehind(width);
        var through = face.Inverse().Then(flip).Then(back).Then(flip);
        Point[] corners = [.. new Point[] { new(0, 0), new(width, 0), new(0, height), new(width, height) }.Select(face.Apply)];
        var laid = Rigid(through, corners);
        return corners.Max(p => through.Apply(p).DistanceTo(laid.Apply(p)));
    }
}
