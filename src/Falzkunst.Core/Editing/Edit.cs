using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>A named change with its parameters. <see cref="Edits.Apply"/> gives the project after it.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "edit")]
[JsonDerivedType(typeof(ChangeSetOut), "settle-set-out")]
[JsonDerivedType(typeof(MakeBase), "make-base")]
[JsonDerivedType(typeof(FitBase), "fit-base")]
[JsonDerivedType(typeof(BringInArt), "bring-in-art")]
[JsonDerivedType(typeof(ScaleArt), "scale-art")]
[JsonDerivedType(typeof(EditsTogether), "together")]
[JsonDerivedType(typeof(BringInLines), "bring-in-lines")]
[JsonDerivedType(typeof(SetOperation), "set-operation")]
[JsonDerivedType(typeof(SetOperationOfLook), "set-operation-of-look")]
[JsonDerivedType(typeof(CloseOutline), "close-outline")]
[JsonDerivedType(typeof(ChangeLineSettings), "change-manner")]
[JsonDerivedType(typeof(DrawOutScores), "draw-out-scores")]
[JsonDerivedType(typeof(SetInk), "set-ink")]
[JsonDerivedType(typeof(UseTool), "use-tool")]
[JsonDerivedType(typeof(ApplyRules), "apply-rules")]
[JsonDerivedType(typeof(MovePicked), "move")]
[JsonDerivedType(typeof(ResizePicked), "resize")]
[JsonDerivedType(typeof(TurnPicked), "turn")]
[JsonDerivedType(typeof(MirrorPicked), "mirror")]
[JsonDerivedType(typeof(DuplicatePicked), "duplicate")]
[JsonDerivedType(typeof(AlignPicked), "align")]
[JsonDerivedType(typeof(DistributePicked), "distribute")]
[JsonDerivedType(typeof(RepeatPicked), "repeat")]
[JsonDerivedType(typeof(RingPicked), "ring")]
[JsonDerivedType(typeof(ReflectPicked), "reflect")]
[JsonDerivedType(typeof(OrderPiece), "order")]
[JsonDerivedType(typeof(HidePieces), "hide")]
[JsonDerivedType(typeof(LockPieces), "lock")]
[JsonDerivedType(typeof(LockSize), "lock-size")]
[JsonDerivedType(typeof(DrawShape), "draw-shape")]
[JsonDerivedType(typeof(BendLine), "bend-line")]
[JsonDerivedType(typeof(RemoveLines), "remove-lines")]
[JsonDerivedType(typeof(AddEdgeLine), "add-edge-line")]
[JsonDerivedType(typeof(AddText), "add-text")]
[JsonDerivedType(typeof(ChangeText), "change-text")]
[JsonDerivedType(typeof(MakePlain), "make-plain")]
[JsonDerivedType(typeof(RemoveLoose), "remove-loose")]
[JsonDerivedType(typeof(TakeApart), "take-apart")]
[JsonDerivedType(typeof(MergePieces), "merge")]
[JsonDerivedType(typeof(GiveLines), "give-lines")]
[JsonDerivedType(typeof(EndAtEdge), "end-at-edge")]
[JsonDerivedType(typeof(KeepArt), "keep-art")]
[JsonDerivedType(typeof(BringInPieces), "bring-in-pieces")]
[JsonDerivedType(typeof(BringInPicture), "bring-in-picture")]
[JsonDerivedType(typeof(AddPictureStep), "picture-step")]
[JsonDerivedType(typeof(DropPictureStep), "drop-picture-step")]
[JsonDerivedType(typeof(ResizePicture), "size-picture")]
[JsonDerivedType(typeof(RemovePicture), "remove-picture")]
[JsonDerivedType(typeof(TakeTrace), "take-trace")]
[JsonDerivedType(typeof(LayPicture), "lay-picture")]
[JsonDerivedType(typeof(PlacePicture), "place-picture")]
[JsonDerivedType(typeof(TakeOffPictures), "take-off-pictures")]
[JsonDerivedType(typeof(ChangeRim), "change-rim")]
[JsonDerivedType(typeof(ChangePrinting), "change-printing")]
[JsonDerivedType(typeof(LayPrinted), "lay-printed")]
[JsonDerivedType(typeof(DrawMarks), "draw-marks")]
[JsonDerivedType(typeof(KeepReading), "keep-reading")]
[JsonDerivedType(typeof(PrintLines), "print-lines")]
[JsonDerivedType(typeof(PrintFills), "print-fills")]
[JsonDerivedType(typeof(PrintBorder), "print-border")]
[JsonDerivedType(typeof(CutOnlyOutside), "cut-only-outside")]
[JsonDerivedType(typeof(FollowPrint), "follow-print")]
[JsonDerivedType(typeof(TurnPicture), "turn-picture")]
[JsonDerivedType(typeof(CoverWithPicture), "cover-with-picture")]
[JsonDerivedType(typeof(KeepVariant), "keep-variant")]
[JsonDerivedType(typeof(TakeVariant), "take-variant")]
[JsonDerivedType(typeof(DropVariant), "drop-variant")]
[JsonDerivedType(typeof(ThickenPieces), "thicken")]
[JsonDerivedType(typeof(KeepThickened), "keep-thickened")]
[JsonDerivedType(typeof(MakeBorders), "make-borders")]
[JsonDerivedType(typeof(ChangeBorder), "change-border")]
[JsonDerivedType(typeof(MakePiecesPlain), "make-pieces-plain")]
[JsonDerivedType(typeof(WordsAsPiece), "words-as-piece")]
[JsonDerivedType(typeof(TieWords), "tie-words")]
[JsonDerivedType(typeof(SetNameList), "set-name-list")]
[JsonDerivedType(typeof(CombinePieces), "combine")]
[JsonDerivedType(typeof(CombineLines), "combine-lines")]
[JsonDerivedType(typeof(PartPiece), "part")]
[JsonDerivedType(typeof(CropPieces), "crop")]
[JsonDerivedType(typeof(JoinEnds), "join-ends")]
[JsonDerivedType(typeof(GrowOpenings), "grow-openings")]
[JsonDerivedType(typeof(StackColours), "stack-colours")]
[JsonDerivedType(typeof(StackFrames), "stack-frames")]
[JsonDerivedType(typeof(TakeSmallThings), "take-small-things")]
[JsonDerivedType(typeof(BridgeIslands), "bridge-islands")]
[JsonDerivedType(typeof(SetLeastWidth), "set-least-width")]
[JsonDerivedType(typeof(SetStock), "set-stock")]
[JsonDerivedType(typeof(SetQuantity), "set-quantity")]
[JsonDerivedType(typeof(RenamePiece), "rename-piece")]
[JsonDerivedType(typeof(RemovePieces), "remove-pieces")]
[JsonDerivedType(typeof(PutOnSheets), "put-on-sheets")]
[JsonDerivedType(typeof(TakeSettled), "take-settled")]
[JsonDerivedType(typeof(PinPlacements), "pin-placements")]
[JsonDerivedType(typeof(MovePlacements), "move-placements")]
[JsonDerivedType(typeof(SendPlacements), "send-placements")]
[JsonDerivedType(typeof(KeepRest), "keep-rest")]
[JsonDerivedType(typeof(SetAllowedTurns), "set-lie")]
public abstract record Edit
{
    /// <summary>What it did, for the history, in the past tense.</summary>
    [JsonIgnore]
    public abstract string Sentence { get; }
}

/// <summary>Card, machine, units and number of cards, all at once.</summary>
public sealed record ChangeSetOut(SetOut SetOut) : Edit
{
    public override string Sentence => "Settled card and machine";
}

/// <summary>The base piece of the card as it is set: its outline and its folds.</summary>
/// <param name="Stock">Key of its stock.</param>
public sealed record MakeBase(string Stock) : Edit
{
    public override string Sentence => "Made the base piece";
}

/// <summary>The base piece changed to the card as it is set now.</summary>
/// <param name="Piece">Id of the base piece.</param>
public sealed record FitBase(string Piece) : Edit
{
    public override string Sentence => "Changed the base piece to fit the card";
}

/// <summary>The pieces of an art file added on top. The design it brings is too large for the edit's record and is found in the revision.</summary>
/// <param name="Art">Id of the art file.</param>
/// <param name="FileName">Its name.</param>
/// <param name="Motifs">Numbers of the motifs taken from it; null for everything in it.</param>
public sealed record BringInArt(Guid Art, string FileName, ImmutableArray<int>? Motifs = null) : Edit
{
    [JsonIgnore]
    public Design? Pieces { get; init; }

    public override string Sentence => Motifs is { } motifs ? $"Took {(motifs.Length == 1 ? "a motif" : $"{motifs.Length} motifs")} from {FileName}" : $"Brought in {FileName}";
}

/// <summary>Pieces of another project added on top. They are found in the revision.</summary>
/// <param name="From">Key of the other project.</param>
/// <param name="ProjectName">Its name.</param>
/// <param name="Motifs">Numbers of what was taken of it.</param>
public sealed record BringInPieces(Guid From, string ProjectName, ImmutableArray<int> Motifs) : Edit
{
    [JsonIgnore]
    public Design? Pieces { get; init; }

    public override string Sentence => $"Took pieces from {ProjectName}";
}

/// <summary>An art file kept beside the project, to take motifs from; no pieces come of it yet.</summary>
public sealed record KeepArt(Guid Art, string FileName) : Edit
{
    public override string Sentence => $"Laid {FileName} beside the project";
}

/// <summary>Another size for an art file that says none; the pieces that came of it are scaled with it.</summary>
/// <param name="Art">Id of the file.</param>
/// <param name="FileName">Its name.</param>
/// <param name="From">What its lengths were multiplied by.</param>
/// <param name="To">What they are multiplied by from now on.</param>
public sealed record ScaleArt(Guid Art, string FileName, double From, double To) : Edit
{
    public override string Sentence => $"Took {FileName} at another size";
}

/// <summary>Motifs of an art file laid on a piece as lines of its own. The lines are found in the revision.</summary>
/// <param name="Art">Id of the file.</param>
/// <param name="FileName">Its name.</param>
/// <param name="Count">How many motifs.</param>
/// <param name="Piece">Id of the piece.</param>
public sealed record BringInLines(Guid Art, string FileName, int Count, string Piece) : Edit
{
    /// <summary>The lines, in the card's coordinates.</summary>
    [JsonIgnore]
    public ImmutableArray<Line> Lines { get; init; } = [];

    public override string Sentence => $"Laid {(Count == 1 ? "a motif" : $"{Count} motifs")} from {FileName} on a piece";
}

/// <summary>An operation for lines, on as many pieces as they lie on.</summary>
/// <param name="Lines">The lines.</param>
/// <param name="Operation">The operation they get.</param>
public sealed record SetOperation(ImmutableArray<PickedLines> Lines, Operation Operation) : Edit
{
    public override string Sentence => $"Set {Picked.OfLines(Lines).InWords()} to {Operation.Word()}";
}

/// <summary>An operation for every line of a look, on all pieces.</summary>
public sealed record SetOperationOfLook(Look Look, Operation Operation) : Edit
{
    public override string Sentence => $"Set all {Look.InWords().ToLowerInvariant()} to {Operation.Word()}";
}

/// <summary>An open cut on a piece closed by a straight way from its end to its start; it becomes an opening.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Line">Id of the line.</param>
public sealed record CloseOutline(string Piece, string Line) : Edit
{
    public override string Sentence => "Closed an open cut";
}

/// <summary>A stock for pieces.</summary>
public sealed record SetStock(ImmutableArray<string> Pieces, string Stock) : Edit
{
    public override string Sentence => $"Put {(Pieces.Length == 1 ? "a piece" : $"{Pieces.Length} pieces")} on {Stock}";
}

/// <summary>How many of a piece one card takes; 0 leaves it out for now.</summary>
public sealed record SetQuantity(string Piece, int Quantity) : Edit
{
    public override string Sentence => Quantity == 0 ? "Left a piece out for now" : $"Set a quantity to {Quantity}";
}

public sealed record RenamePiece(string Piece, string Name) : Edit
{
    public override string Sentence => $"Named a piece {Name}";
}

public sealed record RemovePieces(ImmutableArray<string> Pieces) : Edit
{
    public override string Sentence => Pieces.Length == 1 ? "Removed a piece" : $"Removed {Pieces.Length} pieces";
}

/// <summary>Layouts for all stocks. The layouts are found in the revision.</summary>
/// <param name="SpacingMm">Distance between pieces.</param>
/// <param name="Batch">Key that the ids of new sheets are made of; never used again.</param>
public sealed record PutOnSheets(double SpacingMm, Guid Batch = default) : Edit
{
    public override string Sentence => "Put the pieces on sheets";
}
