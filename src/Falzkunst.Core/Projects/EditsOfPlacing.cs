using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Projects;

/// <summary>A layout that was settled in the background, in the place of the stock's former one. The layout is found in the revision.</summary>
/// <param name="Stock">Key of the stock.</param>
/// <param name="Sheets">How many sheets it uses.</param>
public sealed record TakeSettled(string Stock, int Sheets) : Edit
{
    /// <summary>What was settled.</summary>
    [JsonIgnore]
    public StockLayout? Layout { get; init; }

    /// <summary>The fingerprint of the pieces and machine that it was settled for.</summary>
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
