using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>One physical bit of one stock: an outline, its openings and the lines on it.</summary>
/// <param name="Id">Unique in its design and never used again.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Stock">Key of its stock.</param>
/// <param name="Quantity">How many are wanted, at least 1.</param>
/// <param name="Place">From the piece's own coordinates to the card's, mm.</param>
/// <param name="Shape">The geometry of its lines in its own coordinates; a new piece has the upper left corner of its outline at 0, 0, a reworked one near it.</param>
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
    /// <summary>Not shown on the light table; it is made all the same.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Hidden { get; init; }

    /// <summary>Its shape and place cannot be changed until it is unlocked.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Locked { get; init; }

    /// <summary>How it may be turned on its sheet.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public Lie Lie { get; init; }

    /// <summary>It is cut through and nothing else, so that its face and its back are the same.</summary>
    public bool IsOnlyCut => Lines.All(l => l is { Operation: Operation.Cut or Operation.Aid } or { Way.LeftOut: true } && !l.Way.HalfCut);

    /// <summary>The art file it came from; null for pieces drawn here.</summary>
    public Guid? Art { get; init; }

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

    /// <summary>Index of a line; -1 where it is not on the piece.</summary>
    public int IndexOf(string line)
    {
        for (var i = 0; i < Lines.Length; i++)
        {
            if (Lines[i].Id == line) return i;
        }
        return -1;
    }

    /// <exception cref="EditRefused">One of the lines is not on the piece, or there are none.</exception>
    public ImmutableArray<int> Require(ImmutableArray<string> lines)
    {
        var at = lines.Select(IndexOf).ToImmutableArray();
        return at.IsEmpty || at.Contains(-1)
            ? throw new EditRefused("Those lines are no longer on the piece. Reload the page to see what is there now.")
            : at;
    }

    /// <summary>An id that no line of the piece has.</summary>
    public string NextLine => $"l{1 + Lines.Max(l => int.TryParse(l.Id.AsSpan(1), NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : 0)}";

    /// <summary>The piece with a further line, on top of the others.</summary>
    public Piece With(Line line, Path path) => this with { Lines = Lines.Add(line), Shape = new PieceShape(Shape.Paths.Add(path)) };

    /// <summary>The piece with lines changed one by one.</summary>
    public Piece With(ImmutableArray<int> at, Func<Line, Line> change) =>
        this with { Lines = [.. Lines.Select((l, i) => at.Contains(i) ? change(l) : l)] };

    /// <summary>The piece without some of its lines.</summary>
    public Piece Without(ImmutableArray<int> at) => this with
    {
        Lines = [.. Lines.Where((_, i) => !at.Contains(i))],
        Shape = new PieceShape([.. Shape.Paths.Where((_, i) => !at.Contains(i))]),
    };

    /// <summary>The same piece in the same place, with the upper left corner of its outline at 0, 0 of its own coordinates.</summary>
    public Piece AtHome()
    {
        var corner = Size.Min;
        if (corner == default) return this;
        var home = Affine.Move(corner * -1);
        return this with { Shape = new PieceShape([.. Shape.Paths.Select(p => p.Map(home))]), Place = Affine.Move(corner).Then(Place) };
    }
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
    /// <summary>How its operation is done; null for the plain way.</summary>
    public Manner? Manner { get; init; }

    /// <summary>It keeps its size when its piece is scaled: an opening that must grip something.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool SizeLocked { get; init; }

    /// <summary>How its operation is done, the plain way included.</summary>
    [JsonIgnore]
    public Manner Way => Manner ?? Manner.Plain;

    /// <summary>Width of the tip that runs it, mm.</summary>
    [JsonIgnore]
    public double TipMm => Manner?.TipMm ?? Tips.UsualMm(Operation);

    public const string GoldFoil = "#B98300";
    public const string DefaultPen = "#7B4BA8";

    /// <summary>The same line under another operation, with the pen or foil that goes with it.</summary>
    public Line With(Operation operation) => this with { Operation = operation, Ink = InkFor(operation, Look), Manner = Manner?.Under(operation) };

    /// <summary>The same line worked in another manner, as far as that has a meaning under its operation.</summary>
    public Line With(Manner manner) => this with { Manner = manner.Under(Operation) };

    public static string? InkFor(Operation operation, Look look) => operation switch
    {
        Operation.Draw => look.Stroke ?? look.Fill ?? DefaultPen,
        Operation.Foil => GoldFoil,
        _ => null,
    };
}
