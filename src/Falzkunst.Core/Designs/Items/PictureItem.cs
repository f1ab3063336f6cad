using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>A picture on a piece, clipped to its paper. It is printed and never run by a tool.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Content">SHA-256 of the picture's bytes, lower-case hexadecimal.</param>
/// <param name="PixelsAcross">Width in pixels.</param>
/// <param name="PixelsDown">Height in pixels.</param>
/// <param name="Place">From the picture's box to the piece.</param>
/// <param name="Width">Width of the box, mm.</param>
/// <param name="Height">Height of the box, mm.</param>
public sealed record PictureItem(
    string Id, string Content, int PixelsAcross, int PixelsDown, Affine Place, double Width, double Height) : PlacedItem(Id, Place, Width, Height)
{
    /// <summary>Id of the picture of the design that it shows, with all that was done to that; null on items of former times.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Of { get; init; }

    /// <summary>A short text that is another for every other look of that picture.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Key { get; init; }

    /// <summary>It is repeated side by side over all of the piece.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsPattern { get; init; }

    /// <summary>It is printed on the piece's back.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool OnBack { get; init; }

    /// <summary>How wide it lies on its piece, mm.</summary>
    [JsonIgnore]
    public double WidthOnPieceMm => Width * Place.MeanScale;

    /// <summary>Dots to the inch as it lies on its piece.</summary>
    [JsonIgnore]
    public double DotsPerInch => PixelsAcross * CardPicture.InchMm / WidthOnPieceMm;

    /// <summary>It is laid so large that its dots show; half a dot to the inch is for rounding.</summary>
    [JsonIgnore]
    public bool IsCoarse => DotsPerInch < CardPicture.LeastDotsPerInch - 0.5;

    public override ImmutableArray<Line> LinesOn(Piece piece) => [];
}
