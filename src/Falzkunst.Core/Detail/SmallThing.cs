using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>Kinds of small things.</summary>
public enum SmallKind
{
    /// <summary>An opening too small to come out.</summary>
    Opening,

    /// <summary>A piece too small to be handled.</summary>
    Speck,

    /// <summary>A hairline of air between two cuts.</summary>
    Slit,

    /// <summary>A line that lies on another, or has no length.</summary>
    Line,
}

/// <summary>Something small that had better go.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Line">Id of its line; null for slits and specks.</param>
/// <param name="At">Where, in the piece's own coordinates, mm.</param>
/// <param name="SizeMm">Its width at its widest; for slits at their narrowest; 0 for lines.</param>
public sealed record SmallThing(SmallKind Kind, string? Line, Point At, double SizeMm)
{
    /// <summary>Tells it from the others of its piece.</summary>
    public string Key => Kind switch
    {
        SmallKind.Speck => "speck",
        SmallKind.Slit => string.Create(CultureInfo.InvariantCulture, $"slit-{At.X:0.00}-{At.Y:0.00}"),
        _ => Line!,
    };

    /// <summary>What it is, for people.</summary>
    public string Word => Kind switch
    {
        SmallKind.Opening => "small opening",
        SmallKind.Speck => "speck",
        SmallKind.Slit => "hairline slit",
        SmallKind.Line => "doubled or empty line",
        _ => throw new ArgumentOutOfRangeException(nameof(Kind)),
    };
}
