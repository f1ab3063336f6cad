using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Projects;

/// <summary>A named change with its parameters. <see cref="Edits.Apply"/> gives the project after it.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "edit")]
[JsonDerivedType(typeof(SettleSetOut), "settle-set-out")]
[JsonDerivedType(typeof(BringInArt), "bring-in-art")]
[JsonDerivedType(typeof(SetOperation), "set-operation")]
[JsonDerivedType(typeof(SetOperationOfLook), "set-operation-of-look")]
[JsonDerivedType(typeof(CloseOutline), "close-outline")]
[JsonDerivedType(typeof(ResizePiece), "resize-piece")]
[JsonDerivedType(typeof(MirrorPiece), "mirror-piece")]
[JsonDerivedType(typeof(TurnPiece), "turn-piece")]
[JsonDerivedType(typeof(DuplicatePiece), "duplicate-piece")]
[JsonDerivedType(typeof(SetStock), "set-stock")]
[JsonDerivedType(typeof(SetQuantity), "set-quantity")]
[JsonDerivedType(typeof(RenamePiece), "rename-piece")]
[JsonDerivedType(typeof(RemovePieces), "remove-pieces")]
[JsonDerivedType(typeof(PutOnSheets), "put-on-sheets")]
public abstract record Edit
{
    /// <summary>What it did, for the history, in the past tense.</summary>
    [JsonIgnore]
    public abstract string Sentence { get; }
}

/// <summary>Card, machine, units and number of cards, all at once.</summary>
public sealed record SettleSetOut(SetOut SetOut) : Edit
{
    public override string Sentence => "Settled card and machine";
}

/// <summary>The pieces of an art file added on top. The design it brings is too large for the edit's record and is found in the revision.</summary>
/// <param name="Art">Id of the art file.</param>
/// <param name="FileName">Its name.</param>
public sealed record BringInArt(Guid Art, string FileName) : Edit
{
    [JsonIgnore]
    public Design? Pieces { get; init; }

    public override string Sentence => $"Brought in {FileName}";
}

/// <summary>An operation for lines of one piece.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Lines">Ids of the lines.</param>
/// <param name="Operation">The operation they get.</param>
public sealed record SetOperation(string Piece, ImmutableArray<string> Lines, Operation Operation) : Edit
{
    public override string Sentence => $"Set {(Lines.Length == 1 ? "a line" : $"{Lines.Length} lines")} to {Operation.Word()}";
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

/// <summary>Another size for a piece, mm.</summary>
public sealed record ResizePiece(string Piece, double Width, double Height) : Edit
{
    public override string Sentence => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"Made a piece {Width:0.0} × {Height:0.0} mm");
}

/// <summary>A piece as seen from behind.</summary>
public sealed record MirrorPiece(string Piece, bool LeftRight) : Edit
{
    public override string Sentence => LeftRight ? "Mirrored a piece left to right" : "Mirrored a piece top to bottom";
}

/// <summary>A piece turned on the card; positive is clockwise.</summary>
public sealed record TurnPiece(string Piece, double Degrees) : Edit
{
    public override string Sentence => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"Turned a piece by {Degrees:0.##}°");
}

/// <summary>A second piece like the first.</summary>
public sealed record DuplicatePiece(string Piece) : Edit
{
    public override string Sentence => "Duplicated a piece";
}

/// <summary>A stock for pieces.</summary>
public sealed record SetStock(ImmutableArray<string> Pieces, string Stock) : Edit
{
    public override string Sentence => $"Put {(Pieces.Length == 1 ? "a piece" : $"{Pieces.Length} pieces")} on {Stock}";
}

/// <summary>How many of a piece one card takes.</summary>
public sealed record SetQuantity(string Piece, int Quantity) : Edit
{
    public override string Sentence => $"Set a quantity to {Quantity}";
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
public sealed record PutOnSheets(double SpacingMm) : Edit
{
    public override string Sentence => "Put the pieces on sheets";
}
