using System.Collections.Immutable;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry.Overlay;

namespace Falzkunst.Core.Editing;

/// <summary>Pieces made one.</summary>
/// <param name="How">United, taken out, or what they share.</param>
/// <param name="Pieces">Ids of the pieces.</param>
/// <param name="Keeper">Id of that of them whose stock and name remain.</param>
/// <param name="Others">What becomes of the others.</param>
public sealed record CombinePieces(Combination How, ImmutableArray<string> Pieces, string Keeper, WhatCuts Others = WhatCuts.Goes) : Edit
{
    public override string Sentence => How switch
    {
        Combination.Unite => $"United {Pieces.Length} pieces",
        Combination.Subtract => Pieces.Length == 2 ? "Took a piece out of another" : $"Took {Pieces.Length - 1} pieces out of another",
        _ => $"Kept what {Pieces.Length} pieces share",
    };
}

/// <summary>Closed lines of a piece taken as areas: united with it, taken out of it, or all that is kept of it.</summary>
public sealed record CombineLines(Combination How, string Piece, ImmutableArray<string> Lines) : Edit
{
    public override string Sentence => How switch
    {
        Combination.Unite => "United a piece with lines on it",
        Combination.Subtract => "Took lines out of their piece",
        _ => "Cut a piece to lines on it",
    };
}

/// <summary>A piece parted along one of its lines.</summary>
public sealed record PartPiece(string Piece, string Line) : Edit
{
    public override string Sentence => "Parted a piece along a line";
}

/// <summary>Pieces cut to the outline of another, which stays.</summary>
public sealed record CropPieces(ImmutableArray<string> Pieces, string Shape) : Edit
{
    public override string Sentence => "Cut pieces to the outline of another";
}

/// <summary>Openings of a piece made larger, or smaller where negative, while its outline stays; all of them, or some.</summary>
public sealed record GrowOpenings(string Piece, ImmutableArray<string> Lines, double ByMm) : Edit
{
    public override string Sentence => ByMm < 0 ? "Made openings smaller" : "Made openings larger";
}

/// <summary>Papers inside an outline as a stack in which every layer is one piece.</summary>
public sealed record StackColours(string Outline, ImmutableArray<string> Pieces, ColourStackOptions How) : Edit
{
    public override string Sentence => $"Made a stack of {Pieces.Length} papers inside an outline";
}

/// <summary>A piece as nested frames with backings.</summary>
public sealed record StackFrames(string Piece, FrameStackOptions How) : Edit
{
    public override string Sentence => $"Made a stack of {How.Count} frames";
}

/// <summary>Open lines whose ends lie near each other joined to one.</summary>
/// <param name="Lines">The lines, of one piece.</param>
/// <param name="MostMm">Ends farther apart stay apart, mm.</param>
public sealed record JoinEnds(PickedLines Lines, double MostMm) : Edit
{
    public override string Sentence => "Joined the ends of lines";
}
