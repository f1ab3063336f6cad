using System.Runtime.CompilerServices;

namespace Falzkunst.Core.Designs;

/// <summary>What follows from a piece's lines and from which of them are openings, found once and kept for as long as the shape object lives.</summary>
/// <param name="find">Finds it; asks the piece for nothing but its shape and the roles of its lines.</param>
internal sealed class PerShape<T>(Func<Piece, T> find) where T : class
{
    private readonly ConditionalWeakTable<PieceShape, Found> _known = [];

    public T Get(Piece piece)
    {
        var openings = string.Concat(piece.Drawn.Select(l => piece.RoleOf(l) == LineRole.Opening ? 'p' : 'i'));
        if (_known.TryGetValue(piece.Shape, out var known) && known.Openings == openings) return known.Value;
        var found = new Found(openings, find(piece));
        _known.AddOrUpdate(piece.Shape, found);
        return found.Value;
    }

    private sealed record Found(string Openings, T Value);
}
