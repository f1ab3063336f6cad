using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;

namespace Falzkunst.Data.Json;

/// <summary>A design as it is stored: the shapes of its pieces are parts of their own, named here by hash.</summary>
internal sealed record StoredDesign(
    ImmutableArray<StoredPiece> Pieces, ImmutableArray<LooseLine> Loose, ImmutableArray<Finding> Findings, int NextPiece)
{
    public static StoredDesign Of(Design design) => new(
        [.. design.Pieces.Select(StoredPiece.Of)],
        design.Loose, design.Findings, design.NextPiece);

    public Design With(IReadOnlyDictionary<string, PieceShape> shapes) => new(
        [.. Pieces.Select(p => p.With(shapes))],
        Loose, Findings, NextPiece);
}

internal sealed record StoredPiece(
    string Id, string Name, string Stock, int Quantity, Affine Place, string Shape, ImmutableArray<Line> Lines,
    bool? Hidden = null, bool? Locked = null, Guid? Art = null, Lie? Lie = null)
{
    public static StoredPiece Of(Piece p) => new(
        p.Id, p.Name, p.Stock, p.Quantity, p.Place, p.Shape.Hash, p.Lines, p.Hidden ? true : null, p.Locked ? true : null, p.Art,
        p.Lie == default ? null : p.Lie);

    public Piece With(IReadOnlyDictionary<string, PieceShape> shapes) => new(Id, Name, Stock, Quantity, Place, shapes[Shape], Lines)
    {
        Hidden = Hidden ?? false, Locked = Locked ?? false, Art = Art, Lie = Lie ?? default,
    };
}

/// <summary>A variant as it is stored.</summary>
internal sealed record StoredVariant(int Number, string Name, string? Of, ImmutableArray<StoredPiece> Pieces)
{
    public static StoredVariant From(Variant v) => new(v.Number, v.Name, v.Of, [.. v.Pieces.Select(StoredPiece.Of)]);

    public Variant With(IReadOnlyDictionary<string, PieceShape> shapes) => new(Number, Name, Of, [.. Pieces.Select(p => p.With(shapes))]);
}

/// <summary>All variants of a project as one part.</summary>
internal sealed record StoredVariants(ImmutableArray<StoredVariant> All);
