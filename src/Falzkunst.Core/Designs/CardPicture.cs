using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;

namespace Falzkunst.Core.Designs;

/// <summary>A picture that was brought in. Its dots are kept apart, under the hash of the file; what is done to it are steps that can be taken back one by one.</summary>
/// <param name="Id">Unique in its design and never used again.</param>
/// <param name="Name">Name of the file.</param>
/// <param name="Content">SHA-256 of the file, lower-case hexadecimal.</param>
/// <param name="PixelsAcross">Its dots across as it came.</param>
/// <param name="PixelsDown">Its dots down as it came.</param>
/// <param name="MmPerDot">Size of a dot on paper, mm.</param>
public sealed record CardPicture(string Id, string Name, string Content, int PixelsAcross, int PixelsDown, double MmPerDot)
{
    /// <summary>Where nothing else is said a picture is taken at so many dots to the inch.</summary>
    public const double UsualDotsPerInch = 300;

    /// <summary>Printed with fewer dots to the inch it shows them.</summary>
    public const double LeastDotsPerInch = 200;

    public const double InchMm = 25.4;

    /// <summary>No picture has more dots, as it comes or after its steps: turned again and again it would grow without end.</summary>
    public const long MostDots = 60_000_000;

    /// <summary>No picture is narrower or wider, mm.</summary>
    public const double LeastMm = 1, MostMm = 3000;

    /// <summary>What was done to it, in order.</summary>
    public ImmutableArray<PictureStep> Steps { get; init; } = [];

    /// <summary>What was traced of it last, so that it can be done again; null where nothing was.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public TraceRecord? Trace { get; init; }

    /// <summary>Dots across and down after its steps.</summary>
    [JsonIgnore]
    public (int Across, int Down) Pixels => PictureSize.After(PixelsAcross, PixelsDown, Steps);

    /// <summary>Size on paper after its steps, mm.</summary>
    [JsonIgnore]
    public (double Width, double Height) SizeMm => Pixels is var (across, down) ? (across * MmPerDot, down * MmPerDot) : default;

    [JsonIgnore]
    public double DotsPerInch => InchMm / MmPerDot;

    /// <summary>It as an item of a piece.</summary>
    /// <param name="id">Id of the item.</param>
    /// <param name="place">From its box to the piece.</param>
    public PictureItem On(string id, Affine place)
    {
        var ((across, down), (width, height)) = (Pixels, SizeMm);
        return new PictureItem(id, Content, across, down, place, width, height) { Of = Id, Key = Key };
    }

    /// <summary>A short text that is the same for the same picture after the same steps.</summary>
    [JsonIgnore]
    public string Key => ContentHash.Short(Content + JsonSerializer.Serialize(Steps), 16);
}

/// <summary>What was traced of a picture, and what came of it.</summary>
/// <param name="Settings">How it was traced.</param>
/// <param name="Made">Ids of the pieces that were made, with the hash of their shape as it was then.</param>
/// <param name="Onto">Id of the piece that lines were laid on; null for pieces.</param>
/// <param name="Lines">Ids of those lines.</param>
public sealed record TraceRecord(TraceSettings Settings, ImmutableArray<TracedPiece> Made, string? Onto, ImmutableArray<string> Lines);

/// <summary>A piece that came of a trace.</summary>
public sealed record TracedPiece(string Piece, string Shape);
