using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>One physical bit of one stock: an outline, its openings and the lines on it.</summary>
/// <param name="Id">Unique in its design and never used again.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Stock">Key of its stock.</param>
/// <param name="Quantity">How many are wanted, at least 1.</param>
/// <param name="Place">From the piece's own coordinates to the card's, mm.</param>
/// <param name="Shape">The geometry of its lines in its own coordinates, upper left corner of the outline at 0, 0.</param>
/// <param name="Lines">What each path of the shape is, in the same order; the first is the outline.</param>
public sealed record Piece(
    string Id,
    string Name,
    string Stock,
    int Quantity,
    Affine Place,
    PieceShape Shape,
    ImmutableArray<Line> Lines)
{
    /// <summary>Size of the outline, mm.</summary>
    public Box Size => Shape.Paths[0].Bounds;

    /// <summary>Area of paper in mm²: the outline less its openings.</summary>
    public double Area
    {
        get
        {
            var area = Math.Abs(Shape.Paths[0].SignedArea);
            for (var i = 1; i < Lines.Length; i++)
            {
                if (Lines[i].Role == LineRole.Opening) area -= Math.Abs(Shape.Paths[i].SignedArea);
            }
            return area;
        }
    }

    /// <summary>The lines with their paths in the piece's own coordinates.</summary>
    public IEnumerable<(Line Line, Path Path)> Drawn => Lines.Select((line, i) => (line, Shape.Paths[i]));
}

/// <summary>What a line is to its piece.</summary>
public enum LineRole
{
    Outline,
    Opening,
    Inner,
}

/// <summary>What is known of one line of a piece, apart from where it runs.</summary>
/// <param name="Id">Unique within its piece.</param>
/// <param name="Role">What it is to the piece; stays when the operation changes.</param>
/// <param name="Operation">What a tool does along it.</param>
/// <param name="Look">How it looked in its file.</param>
/// <param name="Name">Its name in the file, if it had one.</param>
/// <param name="Ink">Colour of pen or foil as #rrggbb; null for other operations.</param>
public sealed record Line(string Id, LineRole Role, Operation Operation, Look Look, string? Name, string? Ink)
{
    public const string GoldFoil = "#B98300";
    public const string DefaultPen = "#7B4BA8";

    /// <summary>The same line under another operation, with the pen or foil that goes with it.</summary>
    public Line With(Operation operation) => this with { Operation = operation, Ink = InkFor(operation, Look) };

    public static string? InkFor(Operation operation, Look look) => operation switch
    {
        Operation.Draw => look.Stroke ?? look.Fill ?? DefaultPen,
        Operation.Foil => GoldFoil,
        _ => null,
    };
}
