using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>Pieces made stronger.</summary>
public sealed record ThickenPieces(ImmutableArray<string> Pieces, Thicken How) : Edit
{
    public override string Sentence => $"Thickened {Picked.OfPieces(Pieces).InWords()} {How.InWords()}";
}

/// <summary>A stronger form of a piece kept aside; the piece stays as it is.</summary>
public sealed record KeepThickened(string Piece, Thicken How, string Name) : Edit
{
    public override string Sentence => $"Kept a form thickened {How.InWords()} aside as {Name}";
}

/// <summary>Borders of a piece's outline as new pieces.</summary>
public sealed record MakeBorders(string Piece, ImmutableArray<Border> Borders) : Edit
{
    public override string Sentence => Borders.Length == 1 ? "Made a border" : $"Made {Borders.Length} borders";
}

/// <summary>Other numbers for a border that follows its piece.</summary>
public sealed record ChangeBorder(string Piece, Border Border) : Edit
{
    public override string Sentence => string.Create(CultureInfo.InvariantCulture, $"Set a border to {Border.ByMm:0.##} mm");
}

/// <summary>Pieces that followed something stand for themselves.</summary>
public sealed record MakePiecesPlain(ImmutableArray<string> Pieces) : Edit
{
    public override string Sentence => Pieces.Length == 1 ? "Made a piece plain" : $"Made {Pieces.Length} pieces plain";
}

/// <summary>Small things taken out.</summary>
/// <param name="Pieces">Ids of the pieces.</param>
/// <param name="SizeMm">What is narrower is small, mm.</param>
/// <param name="Keys">Keys of those that go; none for all.</param>
public sealed record TakeSmallThings(ImmutableArray<string> Pieces, double SizeMm, ImmutableArray<string> Keys) : Edit
{
    public override string Sentence => Keys.Length == 1 ? "Took a small thing out" : string.Create(CultureInfo.InvariantCulture, $"Took out what is smaller than {SizeMm:0.##} mm");
}

/// <summary>Loose islands joined by bridges to the pieces that they lie in.</summary>
/// <param name="Pieces">Ids of the islands.</param>
/// <param name="How">Width and number of the bridges.</param>
public sealed record BridgeIslands(ImmutableArray<string> Pieces, Bridging How) : Edit
{
    public override string Sentence => Pieces.Length == 1 ? "Bridged an island" : $"Bridged {Pieces.Length} islands";
}

/// <summary>The narrowest part that a stock is trusted with in this project; null for what the catalogue says.</summary>
public sealed record SetLeastWidth(string Stock, double? Mm) : Edit
{
    public override string Sentence => Mm is { } mm ? string.Create(CultureInfo.InvariantCulture, $"Set the narrowest part of {Stock} to {mm:0.##} mm") : $"Went back to what {Stock} bears by the catalogue";
}
