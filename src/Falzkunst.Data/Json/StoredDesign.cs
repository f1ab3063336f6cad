using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Data.Json;

/// <summary>A design as it is stored: the shapes of its pieces are parts of their own, named here by hash.</summary>
internal sealed record StoredDesign(
    ImmutableArray<StoredPiece> Pieces, ImmutableArray<LooseLine> Loose, ImmutableArray<Finding> Findings, int NextPiece)
{
    public static StoredDesign Of(Design design) => new(
        [.. design.Pieces.Select(p => new StoredPiece(p.Id, p.Name, p.Stock, p.Quantity, p.Place, p.Shape.Hash, p.Lines))],
        design.Loose, design.Findings, design.NextPiece);

    public Design With(IReadOnlyDictionary<string, PieceShape> shapes) => new(
        [.. Pieces.Select(p => new Piece(p.Id, p.Name, p.Stock, p.Quantity, p.Place, shapes[p.Shape], p.Lines))],
        Loose, Findings, NextPiece);
}

internal sealed record StoredPiece(
    string Id, string Name, string Stock, int Quantity, Affine Place, string Shape, ImmutableArray<Line> Lines);
