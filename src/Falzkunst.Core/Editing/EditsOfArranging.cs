using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Core.Editing;

/// <summary>An edit of whatever is picked.</summary>
/// <param name="What">Pieces, or lines of one piece.</param>
public abstract record PickedEdit(Picked What) : Edit;

/// <summary>Moved on the card, mm. Several nudges in a row are one edit.</summary>
public sealed record MovePicked(Picked What, double Dx, double Dy) : PickedEdit(What)
{
    public override string Sentence => string.Create(CultureInfo.InvariantCulture, $"Moved {What.InWords()} by {Dx:0.##}, {Dy:0.##} mm");
}

/// <summary>Another size, mm.</summary>
public sealed record ResizePicked(Picked What, double Width, double Height) : PickedEdit(What)
{
    public override string Sentence => string.Create(CultureInfo.InvariantCulture, $"Made {What.InWords()} {Width:0.0} × {Height:0.0} mm");
}

/// <summary>Turned; positive is clockwise.</summary>
public sealed record TurnPicked(Picked What, double Degrees) : PickedEdit(What)
{
    public override string Sentence => string.Create(CultureInfo.InvariantCulture, $"Turned {What.InWords()} by {Degrees:0.##}°");
}

/// <summary>As seen from behind.</summary>
public sealed record MirrorPicked(Picked What, bool LeftRight) : PickedEdit(What)
{
    public override string Sentence => $"Mirrored {What.InWords()} {(LeftRight ? "left to right" : "top to bottom")}";
}

/// <summary>A second one like the first.</summary>
public sealed record DuplicatePicked(Picked What) : PickedEdit(What)
{
    public override string Sentence => $"Duplicated {What.InWords()}";
}

public sealed record AlignPicked(Picked What, AlignEdge Edge, AlignTo To) : PickedEdit(What)
{
    public override string Sentence => $"Lined up {What.InWords()}: {Edge.ToString().ToLowerInvariant()}";
}

/// <summary>Equal gaps, across or down.</summary>
public sealed record DistributePicked(Picked What, bool Across) : PickedEdit(What)
{
    public override string Sentence => $"Spread {What.InWords()} evenly {(Across ? "across" : "down")}";
}

/// <summary>Rows and columns; gaps in mm.</summary>
public sealed record RepeatPicked(Picked What, int Rows, int Columns, double GapX, double GapY) : PickedEdit(What)
{
    public override string Sentence => $"Repeated {What.InWords()} in {Rows} × {Columns}";
}

/// <summary>So many around a centre.</summary>
public sealed record RingPicked(Picked What, int Count, Point Centre, bool TurnEach) : PickedEdit(What)
{
    public override string Sentence => $"Set {What.InWords()} {Count} times around a centre";
}

/// <summary>A mirrored copy beyond an edge.</summary>
public sealed record ReflectPicked(Picked What, AlignEdge Edge) : PickedEdit(What)
{
    public override string Sentence => $"Reflected {What.InWords()} across the {Edge.ToString().ToLowerInvariant()} edge";
}

/// <summary>Another layer for a piece; 1 is the lowest.</summary>
public sealed record OrderPiece(string Piece, int Layer) : Edit
{
    public override string Sentence => $"Moved a piece to layer {Layer}";
}

public sealed record HidePieces(ImmutableArray<string> Pieces, bool Hidden) : Edit
{
    public override string Sentence => $"{(Hidden ? "Hid" : "Showed")} {Picked.OfPieces(Pieces).InWords()}";
}

public sealed record LockPieces(ImmutableArray<string> Pieces, bool Locked) : Edit
{
    public override string Sentence => $"{(Locked ? "Locked" : "Unlocked")} {Picked.OfPieces(Pieces).InWords()}";
}

/// <summary>Lines that keep their size however their piece is scaled.</summary>
public sealed record LockSize(ImmutableArray<PickedLines> Lines, bool Locked) : Edit
{
    public override string Sentence => $"{(Locked ? "Locked" : "Freed")} the size of {Picked.OfLines(Lines).InWords()}";
}
