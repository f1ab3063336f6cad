using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>Why marks are not taken for read.</summary>
public enum MarkTrouble
{
    /// <summary>Nothing like it is where the others put it.</summary>
    Missing,

    /// <summary>A part of it is there; the rest is covered, smudged or not printed.</summary>
    Covered,

    /// <summary>An L is there that faces another way.</summary>
    Mirrored,

    /// <summary>Another shape of the same form stands by it, so that nobody knows which it is.</summary>
    Decoy,

    /// <summary>What is seen is not as the layout has it: distances, arms, lines, or a mark where none belongs.</summary>
    OtherLayout,

    /// <summary>The marks do not agree with each other: the page is creased or was not moved evenly.</summary>
    Uneven,
}

/// <summary>Marks that are not taken for read.</summary>
/// <param name="Mark">The mark it is about; null for all of them.</param>
/// <param name="Why">What is wrong.</param>
/// <param name="At">Where on the picture, dots; null for nowhere.</param>
public sealed record MarkRefusal(MarkCorner? Mark, MarkTrouble Why, Point? At);

/// <summary>What was read of a page's marks: where every place of the sheet is on the picture, or why that is not known.</summary>
/// <param name="Found">The marks that are sure.</param>
/// <param name="Page">Where the sheet is; null where it is refused.</param>
/// <param name="Refused">Why; null where it is read.</param>
public sealed record MarkReading(ImmutableArray<MarkCorner> Found, ReadPage? Page, MarkRefusal? Refused);

/// <summary>Where a sheet is on a picture.</summary>
/// <param name="Map">From sheet mm to dots of the picture.</param>
/// <param name="DotsPerMm">Dots of the picture to a true millimetre.</param>
/// <param name="ResidualMm">The largest distance between what was measured and what follows from the map: edges, ends and corners of the arms, mm.</param>
/// <param name="UncertainMm">The map is off by no more than this in 95 of 100 cases, at its worst place on the sheet, mm.</param>
/// <param name="SpreadMm">How far ink has spread past the edges of a line, mm.</param>
public sealed record ReadPage(PictureMap Map, double DotsPerMm, double ResidualMm, double UncertainMm, double SpreadMm)
{
    /// <summary>What the map may be off at a place of the sheet, mm, like <see cref="UncertainMm"/>.</summary>
    public required Func<Point, double> UncertainAt { get; init; }

    /// <summary>For what a camera took: the projective map nearest to <see cref="Map"/>, and how far it is from it at worst, mm; null for a scan.</summary>
    public (Projection Map, double OffMm)? Photo { get; init; }

    public bool IsPhoto => Photo is not null;

    /// <summary>From sheet mm to mm of the picture, for a scan.</summary>
    /// <exception cref="InvalidOperationException">It is a photo.</exception>
    public Affine ToScan => Map.Straight.ToAffine().Then(Affine.Scale(1 / DotsPerMm, 1 / DotsPerMm));
}

/// <summary>An affine map in words of a page: what was done to it, in this order: sheared, scaled, turned, moved.</summary>
/// <param name="TurnDegrees">Turn, clockwise, from -180 to 180.</param>
/// <param name="ScaleX">Along the sheet's x.</param>
/// <param name="ScaleY">Along the sheet's y.</param>
/// <param name="SkewDegrees">By how much the angle between the sheet's x and y is less than a right one.</param>
public sealed record PageFaults(double TurnDegrees, double ScaleX, double ScaleY, double SkewDegrees)
{
    /// <summary>The faults of a map from a sheet to where it lies, in one unit of length.</summary>
    public static PageFaults Of(Affine map)
    {
        var (x, y) = (new Point(map.A, map.B), new Point(map.C, map.D));
        var turn = Math.Atan2(x.Y, x.X) * 180 / Math.PI;
        var between = Math.Atan2(x.Cross(y), x.Dot(y)) * 180 / Math.PI;
        return new PageFaults(turn, x.Length, y.Length * Math.Sin(between * Math.PI / 180), 90 - between);
    }
}
