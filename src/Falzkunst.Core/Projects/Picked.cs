using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Projects;

/// <summary>What an arrangement is done to: whole pieces, or some lines of one piece.</summary>
/// <param name="Pieces">Ids of the pieces, first picked first.</param>
/// <param name="Lines">Ids of lines of the one piece; empty for whole pieces.</param>
public sealed record Picked(ImmutableArray<string> Pieces, ImmutableArray<string> Lines)
{
    public static readonly Picked Nothing = new([], []);

    public static Picked Whole(params ImmutableArray<string> pieces) => new(pieces, []);

    [JsonIgnore]
    public bool IsEmpty => Pieces.IsEmpty;

    [JsonIgnore]
    public bool IsLines => !Lines.IsEmpty;

    /// <summary>The one piece that lines are on, or that alone is picked.</summary>
    /// <exception cref="EditRefused">None is picked, or several are.</exception>
    public string OnlyPiece() => Pieces is [var only] ? only : throw new EditRefused(IsEmpty ? "Nothing is picked. Touch a piece first." : "This is done to one piece at a time. Pick one.");

    /// <summary>Pick once more from what is still there.</summary>
    public Picked In(Design design)
    {
        var pieces = Pieces.Where(p => design.Find(p) is not null).Distinct().ToImmutableArray();
        if (!IsLines) return new(pieces, []);
        var lines = pieces is [var only] ? Lines.Where(l => design.Find(only)!.IndexOf(l) >= 0).Distinct().ToImmutableArray() : [];
        return new(pieces, lines);
    }

    /// <summary>The upright boxes on the card of what is picked, one each, in order.</summary>
    /// <exception cref="EditRefused">Something of it is no longer there.</exception>
    public ImmutableArray<Box> Boxes(Design design)
    {
        if (IsEmpty) throw new EditRefused("Nothing is picked. Touch a piece first.");
        if (!IsLines) return [.. Pieces.Select(design.Require).Select(p => p.Shape.Paths[0].BoundsUnder(p.Place))];
        var piece = design.Require(OnlyPiece());
        return [.. piece.Require(Lines).Select(i => piece.Shape.Paths[i].BoundsUnder(piece.Place))];
    }

    /// <summary>The box round all of it, on the card.</summary>
    public Box Box(Design design) => Boxes(design).Aggregate(Geometry.Box.Empty, (all, b) => all.Include(b));

    /// <summary>"a piece", "3 pieces", "a line", "2 lines".</summary>
    public string InWords() => (IsLines ? Lines.Length : Pieces.Length) is var n && n == 1
        ? IsLines ? "a line" : "a piece"
        : $"{n} {(IsLines ? "lines" : "pieces")}";
}
