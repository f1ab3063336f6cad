using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>
/// Where pieces and lines lie, which way round and how large. What changes the paper itself (size, mirroring) is carried into a
/// piece's shape, so that it is cut that way; how a piece lies on the card (turn, move) is in its place alone. Lines lie in
/// their piece's coordinates. All measures are mm on the card.
/// </summary>
public static class Arranging
{
    /// <summary>A piece measures at least and at most this much each way, mm.</summary>
    public const double LeastMm = 0.5;
    public const double MostMm = 3000;

    /// <summary>Nothing is moved farther than this at once, mm.</summary>
    public const double MostMoveMm = 10_000;

    public static Design Move(Design design, Picked what, double dx, double dy)
    {
        if (!(Math.Abs(dx) <= MostMoveMm && Math.Abs(dy) <= MostMoveMm)) throw EditRefused.RangeMm(Measure.MoveDistance, -MostMoveMm, MostMoveMm);
        return Map(design, what, _ => Affine.Move(dx, dy));
    }

    /// <summary>Another size. One piece is measured along its own edges, however it is turned; its upper left corner stays.</summary>
    /// <exception cref="EditRefused">The size is out of reach.</exception>
    public static Design Resize(Design design, Picked what, double width, double height)
    {
        var least = what.IsLines ? 0 : LeastMm;
        if (!(width >= least && width <= MostMm)) throw EditRefused.RangeMm(Measure.PieceSize, least, MostMm, "width");
        if (!(height >= least && height <= MostMm)) throw EditRefused.RangeMm(Measure.PieceSize, least, MostMm, "height");
        var frame = Frame(design, what);
        var box = SizeNow(design, what);
        var grow = Affine.Move(box.Min * -1).Then(Affine.Scale(Factor(width, box.Width), Factor(height, box.Height))).Then(Affine.Move(box.Min));
        return Map(design, what, _ => frame.Inverse().Then(grow).Then(frame));
    }

    /// <summary>The size that a size is compared with: of one piece along its own edges, of anything else on the card.</summary>
    public static Box SizeNow(Design design, Picked what) =>
        what is { IsLines: false, Pieces: [var only] } ? design.Require(only).Size : what.Box(design);

    /// <summary>As seen from behind, about the middle of it all.</summary>
    public static Design Mirror(Design design, Picked what, bool leftRight)
    {
        var frame = Frame(design, what);
        var mirror = Affine.Scale(leftRight ? -1 : 1, leftRight ? 1 : -1).About(SizeNow(design, what).Centre);
        return Map(design, what, _ => frame.Inverse().Then(mirror).Then(frame));
    }

    /// <summary>Turned about the middle of it all.</summary>
    /// <param name="design">The design.</param>
    /// <param name="what">What is turned.</param>
    /// <param name="degrees">Positive is clockwise on screen.</param>
    public static Design Turn(Design design, Picked what, double degrees)
    {
        if (!(Math.Abs(degrees) <= 3600)) throw EditRefused.Range(Measure.TurnDegrees, -3600, 3600, "degrees");
        var frame = Frame(design, what);
        var middle = frame.Apply(SizeNow(design, what).Centre);
        return Map(design, what, _ => Affine.Turn(degrees).About(middle));
    }

    /// <summary>Everything picked under a map of its own on the card, given by its place in the pick.</summary>
    /// <exception cref="EditRefused">A piece is locked, or gone.</exception>
    public static Design Map(Design design, Picked what, Func<int, Affine> mapOf)
    {
        if (what.IsEmpty) throw new EditRefused(Reason.NothingPicked);
        if (what.IsLines)
        {
            var at = 0;
            foreach (var lines in what.Lines)
            {
                var first = at;
                design = design.With(lines.Piece, piece =>
                {
                    Unlocked(piece).RequireWorked(lines.Ids);
                    if (lines.Ids.Any(id => !piece.Worked(id)!.StandsFree)) throw new EditRefused(Reason.FollowsEdge);
                    var back = piece.Place.Inverse();
                    var maps = lines.Ids.Select((id, i) => (id, Map: piece.Place.Then(mapOf(first + i)).Then(back))).ToDictionary(m => m.id, m => m.Map);
                    return piece.EachWorked(lines.Ids, l => (WorkedItem)l.Under(maps[l.Id])).AtHome();
                });
                at += lines.Ids.Length;
            }
            return design;
        }
        for (var i = 0; i < what.Pieces.Length; i++)
        {
            var map = mapOf(i);
            design = design.With(what.Pieces[i], p => Map(Unlocked(p), map));
        }
        return design;
    }

    /// <summary>A piece under a map of the card.</summary>
    public static Piece Map(Piece piece, Affine map)
    {
        if (map.IsRigid) return piece with { Place = piece.Place.Then(map) };
        return piece.Under(piece.Place.Then(map).Then(piece.Place.Inverse())).AtHome();
    }

    /// <exception cref="EditRefused">The piece is locked.</exception>
    internal static Piece Unlocked(Piece piece) => piece.Locked
        ? throw new EditRefused(Reason.Locked, piece.Name)
        : piece;

    /// <summary>From the coordinates that a size is measured in to the card's.</summary>
    private static Affine Frame(Design design, Picked what) =>
        what is { IsLines: false, Pieces: [var only] } ? design.Require(only).Place : Affine.Identity;

    private static double Factor(double wanted, double now) => now > 1e-9
        ? wanted / now
        : wanted <= 1e-9 ? 1 : throw new EditRefused(Reason.NoExtent);
}
