using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Editing;

/// <summary>How the sheets of a stock are printed, null for not at all; its pieces are laid anew where that leaves them other room.</summary>
/// <param name="Stock">Key of the stock.</param>
/// <param name="How">How.</param>
/// <param name="Batch">Key that the ids of new sheets are made of; never used again.</param>
public sealed record ChangePrinting(string Stock, PagePrinting? How, Guid Batch = default) : Edit
{
    public override string Sentence => How switch
    {
        null => $"Printed nothing on {Stock} any more",
        { IsCut: true } => $"Settled how {Stock} is printed and cut",
        _ => $"Settled how {Stock} is printed, to be trimmed by hand",
    };
}

/// <summary>How many of a printed piece there are, laid on pages at once.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Quantity">How many one card takes.</param>
/// <param name="Batch">Key that the ids of new sheets are made of; never used again.</param>
public sealed record LayPrinted(string Piece, int Quantity, Guid Batch) : Edit
{
    public override string Sentence => $"Laid {Quantity} of a piece on pages";
}

/// <summary>The registration marks of a sheet drawn in as near as its pieces let them, or out to the page's corners again.</summary>
public sealed record DrawMarks(string Sheet, bool In) : Edit
{
    public override string Sentence => In ? "Drew the marks of a page in" : "Drew the marks of a page out to its corners";
}

/// <summary>What was read of a printed page's marks, kept with its sheet.</summary>
public sealed record KeepReading(string Sheet, PrintReading Reading) : Edit
{
    public override string Sentence => "Read the marks of a printed page";
}

/// <summary>How lines are printed; those that were not are from now on.</summary>
public sealed record PrintLines(ImmutableArray<PickedLines> Lines, PrintLook Look) : Edit
{
    public override string Sentence => $"Settled how {Picked.OfLines(Lines).InWords()} {(Lines is [{ Ids.Length: 1 }] ? "is" : "are")} printed";
}

/// <summary>A colour printed all over pieces; null takes it off.</summary>
public sealed record PrintFills(ImmutableArray<string> Pieces, string? Colour, bool OnBack) : Edit
{
    public override string Sentence => (Colour is null ? "Printed no ground on " : $"Printed {ColourWords.Name(Colour)} all over ") + (Pieces.Length == 1 ? "a piece" : $"{Pieces.Length} pieces");
}

/// <summary>A printed line along the edge of pieces, which follows them.</summary>
/// <param name="Pieces">The pieces.</param>
/// <param name="InsetMm">From the edge to the middle of the line, mm.</param>
/// <param name="Band">How it is printed.</param>
public sealed record PrintBorder(ImmutableArray<string> Pieces, double InsetMm, PrintBand Band) : Edit
{
    public override string Sentence => Band.IsDashed ? "Printed a dashed border" : "Printed a border";
}

/// <summary>Everything inside pieces is printed and only their outer edges are cut; several pieces become one.</summary>
public sealed record CutOnlyOutside(ImmutableArray<string> Pieces) : Edit
{
    public override string Sentence => Pieces.Length == 1 ? "Left only the outer edge of a piece to be cut" : $"Made one printed piece of {Pieces.Length}";
}

/// <summary>The outline grown round printed areas that hang over it.</summary>
public sealed record FollowPrint(string Piece) : Edit
{
    public override string Sentence => "Let an outline follow what is printed";
}

/// <summary>A picture put on the other side of its piece.</summary>
public sealed record TurnPicture(string Piece, string Item, bool OnBack) : Edit
{
    public override string Sentence => OnBack ? "Put a picture on the back" : "Put a picture on the face";
}

/// <summary>A picture made so large that it covers all of its piece and its bleed.</summary>
public sealed record CoverWithPicture(string Piece, string Item, double BleedMm) : Edit
{
    public override string Sentence => "Let a picture cover its piece";
}
