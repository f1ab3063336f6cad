using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>A layout that was settled in the background, in the place of the stock's former one. The layout is found in the revision.</summary>
/// <param name="Stock">Key of the stock.</param>
/// <param name="Sheets">How many sheets it uses.</param>
public sealed record TakeSettled(string Stock, int Sheets) : Edit
{
    /// <summary>What was settled.</summary>
    [JsonIgnore]
    public StockLayout? Layout { get; init; }

    /// <summary>The fingerprint of the stock's pieces and the machine that it was settled for (<see cref="Project.LayoutFingerprint(string)"/>).</summary>
    [JsonIgnore]
    public string? MadeFor { get; init; }

    public override string Sentence => Sheets == 1 ? "Took a settled layout on one sheet" : $"Took a settled layout on {Sheets} sheets";
}

/// <summary>Copies on a sheet that stay where they are when the others settle anew, or no longer do.</summary>
/// <param name="Sheet">Id of the sheet.</param>
/// <param name="Copies">Which; empty for all on the sheet.</param>
/// <param name="Pinned">They stay.</param>
public sealed record PinPlacements(string Sheet, ImmutableArray<PlacedCopy> Copies, bool Pinned) : Edit
{
    public override string Sentence => $"{(Pinned ? "Pinned" : "Unpinned")} {(Copies.IsEmpty ? "a sheet" : Copies.Length == 1 ? "a piece on its sheet" : $"{Copies.Length} pieces on their sheet")}";
}

/// <summary>One copy of a piece.</summary>
public sealed record PlacedCopy(string Piece, int Copy);

/// <summary>Copies moved and turned by hand on their sheet, or to a place on another; they are pinned there.</summary>
/// <param name="Sheet">Id of the sheet they lie on.</param>
/// <param name="Copies">Which.</param>
/// <param name="To">Id of the sheet they go to, which may be the same.</param>
/// <param name="Degrees">How far they are turned first, clockwise on screen.</param>
/// <param name="About">The point they are turned about, in the coordinates of the sheet they lie on.</param>
/// <param name="By">How far they are moved then, from the coordinates of one sheet to those of the other.</param>
public sealed record MovePlacements(string Sheet, ImmutableArray<PlacedCopy> Copies, string To, double Degrees, Point About, Point By) : Edit
{
    /// <summary>From where a copy lies to where it shall.</summary>
    [JsonIgnore]
    public Affine Map => Affine.Turn(Degrees).About(About).Then(Affine.Move(By));

    public override string Sentence => $"{(Degrees != 0 && By == default ? "Turned" : "Moved")} {(Copies.Length == 1 ? "a piece" : $"{Copies.Length} pieces")} {(To == Sheet ? "on the sheet" : "to another sheet")}";
}

/// <summary>Copies sent to another sheet, to wherever there is room for them; they are pinned there.</summary>
/// <param name="Sheet">Id of the sheet they lie on.</param>
/// <param name="Copies">Which.</param>
/// <param name="To">Id of the other sheet; null for a new one.</param>
/// <param name="Size">Name of the new sheet's size or offcut in the drawer.</param>
/// <param name="Batch">Key that the id of a new sheet is made of; never used again.</param>
public sealed record SendPlacements(string Sheet, ImmutableArray<PlacedCopy> Copies, string? To, string? Size = null, Guid Batch = default) : Edit
{
    /// <summary>The other sheet with the copies on it, as <see cref="SheetRoom"/> found it.</summary>
    [JsonIgnore]
    public SheetLayout? Filled { get; init; }

    public override string Sentence => $"Sent {(Copies.Length == 1 ? "a piece" : $"{Copies.Length} pieces")} to {(To is null ? "a new sheet" : "another sheet")}";
}

/// <summary>A sheet that is cut, and whose rest was put into the drawer.</summary>
/// <param name="Sheet">Id of the sheet.</param>
/// <param name="Rest">Name of the offcut.</param>
public sealed record KeepRest(string Sheet, string Rest) : Edit
{
    public override string Sentence => "Kept the rest of a sheet";
}

/// <summary>How pieces may be turned on their sheets.</summary>
public sealed record SetAllowedTurns(ImmutableArray<string> Pieces, [property: JsonPropertyName("lie")] AllowedTurns AllowedTurns) : Edit
{
    public override string Sentence => $"Set how {(Pieces.Length == 1 ? "a piece" : $"{Pieces.Length} pieces")} may lie";
}
