using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>Some lines, or other items that tools run along, of one piece.</summary>
/// <param name="Piece">Id of the piece.</param>
/// <param name="Ids">Ids of the items, at least one.</param>
public sealed record PickedLines(string Piece, ImmutableArray<string> Ids);

/// <summary>What an edit is done to: whole pieces, or lines of one piece or several.</summary>
/// <param name="Pieces">Ids of the pieces, first picked first; empty where lines are picked.</param>
/// <param name="Lines">The lines, piece by piece; empty for whole pieces.</param>
public sealed record Picked(ImmutableArray<string> Pieces, ImmutableArray<PickedLines> Lines)
{
    public static readonly Picked Nothing = new([], []);

    public static Picked OfPieces(params ImmutableArray<string> pieces) => new(pieces, []);

    public static Picked OfLines(params ImmutableArray<PickedLines> lines) => new([], lines);

    public static Picked OfLines(string piece, params ImmutableArray<string> ids) => new([], [new(piece, ids)]);

    [JsonIgnore]
    public bool IsEmpty => Pieces.IsEmpty && Lines.IsEmpty;

    [JsonIgnore]
    public bool IsLines => !Lines.IsEmpty;

    /// <summary>The pieces that are picked, or have picked lines.</summary>
    [JsonIgnore]
    public ImmutableArray<string> PieceIds => IsLines ? [.. Lines.Select(l => l.Piece)] : Pieces;

    /// <summary>How many pieces or lines.</summary>
    [JsonIgnore]
    public int Count => IsLines ? Lines.Sum(l => l.Ids.Length) : Pieces.Length;

    /// <summary>The one piece that lines are on, or that alone is picked.</summary>
    /// <exception cref="EditRefused">None is picked, or several are.</exception>
    public string OnlyPiece() => PieceIds is [var only] ? only : throw new EditRefused(IsEmpty ? Reason.NothingPicked : Reason.OnePieceOnly);

    /// <summary>The one piece with picked lines, and the lines.</summary>
    /// <exception cref="EditRefused">No lines are picked, or lines of several pieces.</exception>
    public PickedLines OnlyLines() => Lines is [var only] ? only : throw new EditRefused(IsLines ? Reason.OnePieceOnly : Reason.LinesOnly);

    /// <summary>The one line that is picked.</summary>
    /// <exception cref="EditRefused">There is none, or there are several.</exception>
    public (string Piece, string Line) OnlyLine() =>
        OnlyLines() is { Piece: var piece, Ids: [var line] } ? (piece, line) : throw new EditRefused(Reason.OneLineOnly);

    /// <summary>The pieces that are picked.</summary>
    /// <exception cref="EditRefused">Nothing is picked.</exception>
    public ImmutableArray<string> SomePieces() => IsEmpty ? throw new EditRefused(Reason.NothingPicked) : PieceIds;

    /// <summary>The lines that are picked.</summary>
    /// <exception cref="EditRefused">No lines are picked.</exception>
    public ImmutableArray<PickedLines> SomeLines() => IsLines ? Lines : throw new EditRefused(Reason.LinesOnly);

    /// <summary>Pick once more from what is still there.</summary>
    public Picked In(Design design)
    {
        var pieces = design.Pieces.ToDictionary(p => p.Id);
        return new(
            [.. Pieces.Where(pieces.ContainsKey).Distinct()],
            [
                .. Lines.Where(l => pieces.ContainsKey(l.Piece)).GroupBy(l => l.Piece)
                    .Select(g => new PickedLines(g.Key, [.. g.SelectMany(l => l.Ids).Distinct().Where(id => pieces[g.Key].Worked(id) is not null)]))
                    .Where(l => !l.Ids.IsEmpty),
            ]);
    }

    /// <summary>The upright boxes on the card of what is picked, one each, in order.</summary>
    /// <exception cref="EditRefused">Something of it is no longer there.</exception>
    public ImmutableArray<Box> Boxes(Design design)
    {
        if (IsEmpty) throw new EditRefused(Reason.NothingPicked);
        if (!IsLines) return [.. Pieces.Select(design.Require).Select(p => p.Outline.Path.BoundsUnder(p.Place))];
        return [.. Lines.SelectMany(l =>
        {
            var piece = design.Require(l.Piece);
            piece.RequireWorked(l.Ids);
            return l.Ids.Select(id => BoxOf(piece, id));
        })];
    }

    /// <summary>The box round all of it, on the card.</summary>
    public Box Box(Design design) => Boxes(design).Aggregate(Geometry.Box.Empty, (all, b) => all.Include(b));

    /// <summary>"a piece", "3 pieces", "a line", "2 lines".</summary>
    public string InWords() => Count is var n && n == 1
        ? IsLines ? "a line" : "a piece"
        : $"{n} {(IsLines ? "lines" : "pieces")}";

    private static Box BoxOf(Piece piece, string item) => piece.Find(item) is { } line
        ? line.Path.BoundsUnder(piece.Place)
        : piece.Drawn.Where(l => l.Id == item).Aggregate(Geometry.Box.Empty, (all, l) => all.Include(l.Path.BoundsUnder(piece.Place)));
}
