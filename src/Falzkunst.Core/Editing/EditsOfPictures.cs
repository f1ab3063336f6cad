using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Tracing;

namespace Falzkunst.Core.Editing;

/// <summary>A picture brought in; its dots are kept under its content.</summary>
public sealed record BringInPicture(string Name, string Content, int PixelsAcross, int PixelsDown, double MmPerDot) : Edit
{
    public override string Sentence => $"Brought in {Name}";
}

/// <summary>Something done to a picture, after what was done before.</summary>
public sealed record AddPictureStep(string Picture, PictureStep Step) : Edit
{
    public override string Sentence => Step switch
    {
        Crop => "Cropped a picture",
        Lay { Way: Orientation.MirrorAcross or Orientation.MirrorDown } => "Mirrored a picture",
        Lay => "Turned a picture",
        Straighten => "Straightened a picture",
        Unfold => "Made a photographed page flat",
        LevelLight => "Levelled the light of a picture",
        Brush { Gives: true } => "Gave back some of a picture",
        Brush => "Took away some of a picture",
        _ => "Took the background of a picture away",
    };
}

/// <summary>One step of a picture taken back; those after it stay.</summary>
public sealed record DropPictureStep(string Picture, int Index) : Edit
{
    public override string Sentence => "Took back a step of a picture";
}

/// <summary>Another size on paper for a picture.</summary>
public sealed record ResizePicture(string Picture, double MmPerDot) : Edit
{
    public override string Sentence => "Changed the size of a picture";
}

/// <summary>A picture that lies on no piece taken out.</summary>
public sealed record RemovePicture(string Picture) : Edit
{
    public override string Sentence => "Took a picture out";
}

/// <summary>Lines traced of a picture become pieces, or lines of one. What was traced is found in the revision.</summary>
/// <param name="Picture">Id of the picture.</param>
/// <param name="Settings">How it was traced.</param>
/// <param name="Operation">What middle lines are for.</param>
/// <param name="Onto">Id of the piece that middle lines are laid on; null for none.</param>
/// <param name="Again">What came of the last trace goes.</param>
public sealed record TakeTrace(string Picture, TraceSettings Settings, Operation Operation, string? Onto, bool Again) : Edit
{
    /// <summary>What was traced, in dots of the picture after its steps.</summary>
    [JsonIgnore]
    public Traced? Traced { get; init; }

    public override string Sentence => Again ? "Traced a picture again" : Settings.Mode switch
    {
        TraceMode.Rim => "Took the rim of a picture",
        TraceMode.MiddleLines => "Took the middle lines of a picture",
        TraceMode.Colours => "Took the colours of a picture",
        _ => "Took the areas of a picture",
    };
}

/// <summary>A picture laid on a piece, clipped to it.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Picture">Id of the picture.</param>
/// <param name="IsPattern">It is repeated over all of the piece.</param>
public sealed record LayPicture(string Piece, string Picture, bool IsPattern) : Edit
{
    public override string Sentence => IsPattern ? "Filled a piece with a pattern" : "Laid a picture on a piece";
}

/// <summary>A picture on a piece is moved, scaled or turned under its outline.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Item">Id of the picture on it.</param>
/// <param name="Place">From the picture's box to the piece.</param>
/// <param name="IsPattern">It is repeated.</param>
public sealed record PlacePicture(string Piece, string Item, Affine Place, bool IsPattern) : Edit
{
    public override string Sentence => "Moved a picture on its piece";
}

/// <summary>Pictures taken off a piece.</summary>
public sealed record TakeOffPictures(string Piece, ImmutableArray<string> Items) : Edit
{
    public override string Sentence => Items.Length == 1 ? "Took a picture off a piece" : "Took pictures off a piece";
}

/// <summary>Other paper round a traced rim, which the piece follows.</summary>
public sealed record ChangeRim(string Piece, double BorderMm) : Edit
{
    public override string Sentence => "Changed the paper round a rim";
}
