using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Detail;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Jobs;

/// <summary>Names for what the Detail station computes: hashes of everything that it depends on, so that any process finds it again.</summary>
public static class DetailKeys
{
    /// <summary>Goes up whenever surveys or thickenings come out otherwise than before; what was found by then is forgotten.</summary>
    private const int Version = 1;

    /// <summary>The survey of a piece for a width.</summary>
    public static string Survey(Piece piece, double leastMm)
    {
        if (Known.TryGetValue(piece, out var known) && known.LeastMm == leastMm) return known.Key;
        var key = ContentHash.Compute(string.Create(CultureInfo.InvariantCulture, $"survey {Version} {PieceWidths.KeyOf(piece)} {leastMm:R}"));
        Known.AddOrUpdate(piece, new Named(leastMm, key));
        return key;
    }

    /// <summary>Every page asks for the names of all pieces; a piece that is not edited stays the same object.</summary>
    private static readonly ConditionalWeakTable<Piece, Named> Known = [];

    private sealed record Named(double LeastMm, string Key);

    /// <summary>The pieces of a project, each with the width that its stock bears and the key of its survey.</summary>
    public static ImmutableArray<(Piece Piece, double LeastMm, string Key)> Surveys(Project project, Drawer drawer) =>
        [.. project.Design.Pieces.Select(p => (p, LeastWidth.ForStock(project.SetOut, p.Stock, drawer).Mm) is var (piece, least) ? (piece, least, Survey(piece, least)) : default)];

    /// <summary>A way to mend a piece, in its design.</summary>
    public static string Candidate(Piece piece, Thicken how, Design design)
    {
        var key = new StringBuilder().Append(CultureInfo.InvariantCulture, $"thicken {Version} {PieceWidths.KeyOf(piece)} {piece.OwnShape.Hash} {how}");
        // What lies beside it matters as well, and where that lies as seen from it.
        if (how.Refusal is null)
        {
            foreach (var other in Neighbours.Pieces(piece, design, how.ReachMm)) key.Append(CultureInfo.InvariantCulture, $" {PieceWidths.KeyOf(other)} {other.Place.Then(piece.Place.Inverse())}");
        }
        return ContentHash.Compute(key.ToString());
    }
}
