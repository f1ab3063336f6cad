using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Copies of pieces and lines: one aside, in rows and columns, around a centre, reflected across an edge.</summary>
public static class Copying
{
    /// <summary>So many copies of what is picked may come of one edit.</summary>
    public const int MostCopies = 400;

    private const double AsideMm = 8;

    /// <summary>A copy of each, a little aside.</summary>
    public static Design Duplicate(Design design, Picked what) => Copy(design, what, [Affine.Move(AsideMm, AsideMm)]);

    /// <summary>What is picked as the first of so many rows and columns.</summary>
    /// <param name="design">The design.</param>
    /// <param name="what">What is repeated.</param>
    /// <param name="rows">Rows in all, at least 1.</param>
    /// <param name="columns">Columns in all, at least 1.</param>
    /// <param name="gapX">Between the boxes of two columns, mm; negative lets them overlap.</param>
    /// <param name="gapY">Between the boxes of two rows, mm.</param>
    public static Design Repeat(Design design, Picked what, int rows, int columns, double gapX, double gapY)
    {
        if (rows < 1 || columns < 1 || rows * (long)columns is < 2 or > MostCopies) throw EditRefused.Range(Measure.Places, 2, MostCopies, "rows");
        var box = what.Box(design);
        var places = from row in Enumerable.Range(0, rows)
                     from column in Enumerable.Range(0, columns)
                     where row + column > 0
                     select Affine.Move(column * (box.Width + gapX), row * (box.Height + gapY));
        return Copy(design, what, [.. places]);
    }

    /// <summary>What is picked as the first of so many, evenly around a point.</summary>
    public static Design Ring(Design design, Picked what, int count, Point centre, bool turnEach)
    {
        if (count is < 2 or > MostCopies) throw EditRefused.Range(Measure.AroundCount, 2, MostCopies, "count");
        var middle = what.Box(design).Centre;
        return Copy(design, what, [.. Enumerable.Range(1, count - 1).Select(i =>
        {
            var turn = Affine.Turn(360.0 * i / count).About(centre);
            return turnEach ? turn : Affine.Move(turn.Apply(middle) - middle);
        })]);
    }

    /// <summary>A mirrored copy beyond an edge of the box of it all.</summary>
    /// <exception cref="EditRefused">Not an edge of a box.</exception>
    public static Design Reflect(Design design, Picked what, AlignEdge edge)
    {
        var box = what.Box(design);
        return Copy(design, what, [edge switch
        {
            AlignEdge.Left => Affine.Scale(-1, 1).About(new(box.MinX, 0)),
            AlignEdge.Right => Affine.Scale(-1, 1).About(new(box.MaxX, 0)),
            AlignEdge.Top => Affine.Scale(1, -1).About(new(0, box.MinY)),
            AlignEdge.Bottom => Affine.Scale(1, -1).About(new(0, box.MaxY)),
            _ => throw new EditRefused(Reason.NotAnEdge),
        }]);
    }

    /// <summary>One copy of each thing picked for every map of the card. Copies of a piece lie right on top of it.</summary>
    private static Design Copy(Design design, Picked what, ImmutableArray<Affine> maps)
    {
        if (what.IsEmpty) throw new EditRefused(Reason.NothingPicked);
        if (what.Count * maps.Length > MostCopies) throw EditRefused.Range(Measure.Copies, 1, MostCopies);
        if (what.IsLines) return what.Lines.Aggregate(design, (d, lines) => d.With(lines.Piece, p => CopyLines(Arranging.Unlocked(p), lines.Ids, maps)));
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var copyOf = new Dictionary<(string Piece, int Map), string>();
        foreach (var piece in what.Pieces.Select(design.Require).ToList())
        {
            var copies = maps.Select(map => Arranging.Map(piece, map) with { Name = PieceNaming.Free(piece.Name, names), Locked = false }).ToList();
            for (var i = 0; i < maps.Length; i++) copyOf[(piece.Id, i)] = Design.PieceId(design.NextPiece + i);
            design = design.Plus(design.Pieces.IndexOf(piece) + 1, copies);
        }
        return copyOf.Aggregate(design, (d, copy) => d.With(copy.Value, p => p.Follows is { } follows ? p with { Follows = follows.Renamed(id => Followed(follows, id, copy.Key.Map)) } : p));

        // A copy follows the copy of what it followed, where that was copied too; a part of words without its words follows nothing.
        string? Followed(Derivation follows, string id, int map) => copyOf.GetValueOrDefault((id, map)) ?? (follows is FromWords ? null : id);
    }

    private static Piece CopyLines(Piece piece, ImmutableArray<string> ids, ImmutableArray<Affine> maps)
    {
        var lines = piece.Require(ids);
        if (lines.Any(l => l.Id == piece.Outline.Id)) throw new EditRefused(Reason.OutlineNotCopied);
        var back = piece.Place.Inverse();
        return piece.Plus(maps.Select(map => piece.Place.Then(map).Then(back)).SelectMany(own => lines.Select(l => l with { Path = l.Path.Map(own) })));
    }
}
