using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>A moment that needs a hand: what it does, and what it must not do, as data.</summary>
/// <param name="Kind">Loading paper, something at the tools, turning the sheet over, unloading.</param>
/// <param name="Work">Each thing to do, in order.</param>
/// <param name="MustNot">What must not be done.</param>
/// <param name="WaitSeconds">How long to wait before going on, such as for heat.</param>
public sealed record Stop(StopKind Kind, ImmutableArray<HandWork> Work, StopWarning MustNot, double WaitSeconds) : RunStep(WaitSeconds)
{
    /// <summary>When the pass runs that follows on the same load; null for none.</summary>
    public Stage? Next { get; init; }

    /// <summary>The words of a stop that a former state wrote down as words; null for all others.</summary>
    [JsonPropertyName("told")]
    public StopSentences? Sentence { get; init; }
}

public enum StopKind
{
    LoadPaper,
    Tools,
    Turn,
    Unload,

    /// <summary>The machine looks for the marks of a printed page.</summary>
    Marks,
}

/// <summary>What must not be done at a stop.</summary>
public enum StopWarning
{
    None,

    /// <summary>The paper must not leave the mat: what follows would land beside what is there.</summary>
    Unloading,

    /// <summary>The sheet must not be turned about its level edge: what follows would land upside down.</summary>
    TurningOtherWay,
}

/// <summary>One thing that a hand does at a stop.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "do")]
[JsonDerivedType(typeof(PrintPage), "print-page")]
[JsonDerivedType(typeof(LayPaper), "lay-paper")]
[JsonDerivedType(typeof(FindMarks), "find-marks")]
[JsonDerivedType(typeof(PutToolIn), "put-tool-in")]
[JsonDerivedType(typeof(PeelFoil), "peel-foil")]
[JsonDerivedType(typeof(TapeFoil), "tape-foil")]
[JsonDerivedType(typeof(WarmUp), "warm-up")]
[JsonDerivedType(typeof(TurnSheet), "turn-sheet")]
[JsonDerivedType(typeof(LookAndUnload), "look-and-unload")]
public abstract record HandWork;

/// <summary>The sheet printed as it is laid out, and left until it is dry.</summary>
/// <param name="Sheet">What the sheet is called.</param>
/// <param name="BothSides">Its back is printed too.</param>
public sealed record PrintPage(string Sheet, bool BothSides) : HandWork;

/// <summary>The sheet on the mat, in its corner, and the mat loaded.</summary>
/// <param name="Sheet">What the sheet is called.</param>
/// <param name="FaceDown">With its face on the mat.</param>
public sealed record LayPaper(string Sheet, bool FaceDown) : HandWork;

/// <summary>The marks of a printed page found, so that it is cut where it was printed.</summary>
/// <param name="Sheet">What the sheet is called.</param>
/// <param name="Marks">How the marks look.</param>
/// <param name="Frame">The box whose corners they have, mm, as seen from the sheet's face.</param>
/// <param name="Width">Of the sheet, mm.</param>
/// <param name="Height">Of the sheet, mm.</param>
/// <param name="Printer">Key of the printer; empty for one that is not in the drawer.</param>
/// <param name="BleedMm">How far print goes on past the cuts, mm.</param>
/// <param name="WaitOverMm">Where cut and print may lie farther apart than this, it goes on only when somebody says so, mm.</param>
public sealed record FindMarks(string Sheet, MarkSettings Marks, Box Frame, double Width, double Height, string Printer, double BleedMm, double WaitOverMm) : HandWork
{
    /// <summary>The sheet lies face down; it is the marks of its back that are found.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsBack { get; init; }
}

/// <summary>A tool into a holder.</summary>
/// <param name="Tool">The tool.</param>
/// <param name="Ink">Colour of pen or foil.</param>
/// <param name="TipMm">Width of its tip where that is not the usual one.</param>
/// <param name="Holder">Name of the holder; null where the machine has but one.</param>
/// <param name="Settings">How it is set for what it runs first.</param>
public sealed record PutToolIn(Tool Tool, string? Ink, double? TipMm, string? Holder, ToolSettings Settings) : HandWork;

/// <summary>The foil off, the paper left where it is.</summary>
public sealed record PeelFoil : HandWork;

/// <summary>Foil taped down over an area.</summary>
/// <param name="Ink">Colour of the foil.</param>
/// <param name="Area">What it must cover at least, in the sheet's coordinates.</param>
public sealed record TapeFoil(string Ink, Box Area) : HandWork;

/// <summary>The tip left alone until it is hot.</summary>
public sealed record WarmUp(double Seconds) : HandWork;

/// <summary>The sheet turned over about its upright edge and laid in the same corner.</summary>
public sealed record TurnSheet(string Sheet) : HandWork;

/// <summary>Every piece looked at while the sheet still lies on the mat, which is unloaded then.</summary>
public sealed record LookAndUnload(string Sheet) : HandWork;

/// <summary>A stop in the words that it was frozen with.</summary>
public sealed record StopSentences(string Title, ImmutableArray<string> Actions, string? Warning);
