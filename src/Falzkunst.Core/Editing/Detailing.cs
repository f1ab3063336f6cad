using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Fine detail mended: pieces thickened, bordered, rid of small things, islands bridged.</summary>
public static class Detailing
{
    /// <summary>A piece made stronger, with what lies beside it in its layer kept off.</summary>
    public static Thickened Thickened(Design design, string piece, Thicken how)
    {
        var p = design.Require(piece);
        // Refused before the neighbours are looked for, which an amount out of reach would make long.
        if (how.Refusal is { } refusal) throw refusal;
        return Thickening.Grow(p, how, Neighbours.Rings(p, design, how.ReachMm));
    }

    /// <summary>Pieces made stronger, one after the other, so that neighbours keep off each other as they are by then.</summary>
    /// <exception cref="EditRefused">None of them is thin there.</exception>
    public static Design Thicken(Design design, ImmutableArray<string> pieces, Thicken how)
    {
        if (pieces.IsEmpty) throw new EditRefused(Reason.NothingPicked);
        var before = design;
        foreach (var id in pieces)
        {
            Arranging.Unlocked(design.Require(id));
            var grown = Thickened(design, id, how).Piece;
            design = design.With(id, _ => grown);
        }
        return pieces.All(id => ReferenceEquals(before.Require(id), design.Require(id)))
            ? throw (pieces is [var only] ? new EditRefused(Reason.StrongAlready, before.Require(only).Name) : new EditRefused(Reason.StrongAlready))
            : design;
    }

    /// <summary>Small things taken out of pieces; keys only for one piece.</summary>
    public static Design TakeSmall(Design design, ImmutableArray<string> pieces, double sizeMm, ImmutableArray<string> keys)
    {
        if (pieces.IsEmpty || (keys.Length > 0 && pieces.Length != 1)) throw new EditRefused(Reason.OnePieceOnly);
        var found = false;
        foreach (var id in pieces)
        {
            var piece = Arranging.Unlocked(design.Require(id));
            if (pieces.Length > 1 && SmallThings.Find(piece, sizeMm).IsEmpty) continue;
            found = true;
            design = SmallThings.Without(piece, sizeMm, keys) is { } left
                ? design.With(id, _ => left)
                : design with { Pieces = design.Pieces.RemoveAll(p => p.Id == id) };
        }
        return found ? design : throw new EditRefused(Reason.NothingSmall);
    }

    /// <summary>Islands bridged to the pieces that they lie in, of which they become a part.</summary>
    public static Design Bridge(Design design, ImmutableArray<string> pieces, Bridging how)
    {
        if (pieces.IsEmpty) throw new EditRefused(Reason.IslandsOnly);
        if (how.Refusal is { } refusal) throw refusal;
        foreach (var id in pieces)
        {
            var loose = Arranging.Unlocked(design.Require(id));
            var island = Islands.Find(design, loose)
                ?? throw new EditRefused(Reason.NotAnIsland, loose.Name);
            Arranging.Unlocked(island.Host);
            var joined = Islands.Bridged(island, how, design.Pieces.Where(p => p.Stock == loose.Stock));
            design = design.With(island.Host.Id, _ => joined);
            design = design with { Pieces = design.Pieces.RemoveAll(p => p.Id == id) };
        }
        return design;
    }
}
