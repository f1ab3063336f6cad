using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>One part of how lines are worked.</summary>
public enum LineSettingsPart
{
    Fold,
    HalfCut,
    FromBack,
    LeftOut,
    Dash,
    Gap,
    Tip,

    /// <summary>Its pattern, or that there is none.</summary>
    Fill,
    FillDistance,
    FillAngle,
    Force,
    Speed,
    BladeOut,
    Temperature,
    Times,
    Hold,

    /// <summary>How they are printed.</summary>
    Print,
}

/// <summary>Some parts of how lines are worked; every other part of each line stays as it is.</summary>
/// <param name="Lines">The lines, on as many pieces as they lie on.</param>
/// <param name="Parts">What changes.</param>
/// <param name="To">Holds the new values of those parts; null there is the plain way, or the stock's setting.</param>
public sealed record ChangeLineSettings(ImmutableArray<PickedLines> Lines, ImmutableArray<LineSettingsPart> Parts, LineSettings To) : Edit
{
    public override string Sentence => $"{LineSettingsWords.Sentence(Parts, To)}, {Picked.OfLines(Lines).InWords()}";
}

/// <summary>Scores drawn out to the distance that they keep from cuts.</summary>
public sealed record DrawOutScores(ImmutableArray<PickedLines> Lines) : Edit
{
    public override string Sentence => $"Drew {Picked.OfLines(Lines).InWords()} out to the edge";
}

/// <summary>A pen or foil, by its colour.</summary>
public sealed record SetInk(ImmutableArray<PickedLines> Lines, string Ink) : Edit
{
    public override string Sentence => $"Gave {Picked.OfLines(Lines).InWords()} {ColourWords.Name(Ink)}";
}

/// <summary>A pen, foil or tip of the drawer: what it has of a colour and a width.</summary>
/// <param name="Lines">The lines.</param>
/// <param name="Name">What the tool is called.</param>
/// <param name="Ink">Its colour, #rrggbb; null leaves the lines' own.</param>
/// <param name="TipMm">Width of its line, mm; null leaves the lines' own.</param>
public sealed record UseTool(ImmutableArray<PickedLines> Lines, string Name, string? Ink, double? TipMm) : Edit
{
    public override string Sentence => $"Took {Name} for {Picked.OfLines(Lines).InWords()}";
}

/// <summary>A line along the edge of a piece, which follows its outline.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="InsetMm">Distance from the edge, mm.</param>
/// <param name="Corners">What becomes of corners.</param>
/// <param name="Operation">What is done along it.</param>
public sealed record AddEdgeLine(string Piece, double InsetMm, Corners Corners, Operation Operation) : Edit
{
    public override string Sentence => string.Create(CultureInfo.InvariantCulture, $"Laid a line {InsetMm:0.##} mm inside an edge to {Operation.Word()}");
}

/// <summary>Items that follow from something made plain lines, which follow nothing any more.</summary>
public sealed record MakePlain(ImmutableArray<PickedLines> Items) : Edit
{
    public override string Sentence => $"Made {Picked.OfLines(Items).InWords()} plain";
}

/// <summary>Look rules applied to pieces that are there, the first that fits winning.</summary>
/// <param name="Rules">The rules in their order.</param>
/// <param name="Art">Only to pieces of this file; null for all.</param>
public sealed record ApplyRules(ImmutableArray<LookRule> Rules, Guid? Art = null) : Edit
{
    public override string Sentence => Rules is [var only] ? $"Applied: {only.InWords()}" : $"Applied {Rules.Length} look rules";
}

/// <summary>A shape drawn, in card coordinates.</summary>
/// <param name="Piece">The piece it is drawn on; null for none.</param>
/// <param name="Shape">The shape.</param>
/// <param name="Operation">What is done along it.</param>
public sealed record DrawShape(string? Piece, BasicShape Shape, Operation Operation) : Edit
{
    public override string Sentence => Operation == Operation.Aid ? $"Drew an aid ({Shape.Word})" : $"Drew a {Shape.Word} to {Operation.Word()}";
}

/// <summary>Node work on a line.</summary>
public sealed record BendLine(string Piece, string Line, NodeChange Change) : Edit
{
    public override string Sentence => Change.Sentence;
}

public sealed record RemoveLines(ImmutableArray<PickedLines> Lines) : Edit
{
    public override string Sentence => $"Took {Picked.OfLines(Lines).InWords()} away";
}

/// <summary>Lines on no piece taken away.</summary>
public sealed record RemoveLoose(ImmutableArray<string> Lines) : Edit
{
    public override string Sentence => Lines.Length == 1 ? "Took a loose line away" : $"Took {Lines.Length} loose lines away";
}

/// <summary>Closed lines made pieces of their own.</summary>
/// <param name="Piece">The piece they are on.</param>
/// <param name="Lines">The lines; none for all openings.</param>
/// <param name="KeepOpenings">The piece keeps an opening where each lay.</param>
public sealed record TakeApart(string Piece, ImmutableArray<string> Lines, bool KeepOpenings) : Edit
{
    public override string Sentence => "Took a piece apart";
}

/// <summary>Pieces that lie inside one of them become its openings and lines.</summary>
public sealed record MergePieces(ImmutableArray<string> Pieces) : Edit
{
    public override string Sentence => $"Merged {Pieces.Length} pieces";
}

/// <summary>Lines given to another piece.</summary>
/// <param name="From">The piece they are on; null for lines on none.</param>
/// <param name="Lines">The lines.</param>
/// <param name="To">The piece that gets them.</param>
public sealed record GiveLines(string? From, ImmutableArray<string> Lines, string To) : Edit
{
    public override string Sentence => Lines.Length == 1 ? "Gave a line to another piece" : $"Gave {Lines.Length} lines to another piece";
}

/// <summary>What of a line lies past its piece's edge cut off, or shared out to the pieces under it.</summary>
public sealed record EndAtEdge(string Piece, string Line, bool ShareOut) : Edit
{
    public override string Sentence => ShareOut ? "Shared a line out to the pieces it lies on" : "Ended a line at the edge";
}

/// <summary>A piece, or the whole design where none is named, kept aside.</summary>
public sealed record KeepVariant(string? Piece, string Name) : Edit
{
    public override string Sentence => $"Kept {(Piece is null ? "the design" : "a piece")} aside as {Name}";
}

/// <summary>A variant put where its original was, which is kept aside instead.</summary>
public sealed record TakeVariant(int Variant, string Name) : Edit
{
    public override string Sentence => $"Took up {Name}";
}

public sealed record DropVariant(int Variant, string Name) : Edit
{
    public override string Sentence => $"Let {Name} go";
}
