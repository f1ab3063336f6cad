using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Projects;

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
        if (!(Math.Abs(dx) <= MostMoveMm && Math.Abs(dy) <= MostMoveMm)) throw new EditRefused($"Move by at most {MostMoveMm} mm at a time.");
        return Map(design, what, _ => Affine.Move(dx, dy));
    }

    /// <summary>Another size. One piece is measured along its own edges, however it is turned; its upper left corner stays.</summary>
    /// <exception cref="EditRefused">The size is out of reach.</exception>
    public static Design Resize(Design design, Picked what, double width, double height)
    {
        var least = what.IsLines ? 0 : LeastMm;
        if (!(width >= least && width <= MostMm && height >= least && height <= MostMm))
            throw new EditRefused($"A piece measures between {LeastMm} and {MostMm} mm each way.");
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
        if (!(Math.Abs(degrees) <= 3600)) throw new EditRefused("Turn by at most 3600 degrees at a time.");
        var frame = Frame(design, what);
        var middle = frame.Apply(SizeNow(design, what).Centre);
        return Map(design, what, _ => Affine.Turn(degrees).About(middle));
    }

    /// <summary>Everything picked under a map of its own on the card, given by its place in the pick.</summary>
    /// <exception cref="EditRefused">A piece is locked, or gone.</exception>
    public static Design Map(Design design, Picked what, Func<int, Affine> mapOf)
    {
        if (what.IsEmpty) throw new EditRefused("Nothing is picked. Touch a piece first.");
        if (what.IsLines)
        {
            return design.With(what.OnlyPiece(), piece =>
            {
                var at = piece.Require(what.Lines);
                var back = piece.Place.Inverse();
                var paths = piece.Shape.Paths.ToBuilder();
                for (var i = 0; i < at.Length; i++) paths[at[i]] = Mapped(Unlocked(piece).Lines[at[i]], paths[at[i]], piece.Place.Then(mapOf(i)).Then(back));
                return (piece with { Shape = new PieceShape(paths.ToImmutable()) }).AtHome();
            });
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
        var own = piece.Place.Then(map).Then(piece.Place.Inverse());
        return (piece with { Shape = new PieceShape([.. piece.Drawn.Select(d => Mapped(d.Line, d.Path, own))]) }).AtHome();
    }

    /// <summary>A line whose size is locked goes where the map takes its middle, turned and mirrored but not scaled.</summary>
    private static Path Mapped(Line line, Path path, Affine map)
    {
        if (!line.SizeLocked) return path.Map(map);
        var middle = path.Bounds.Centre;
        return path.Map(Affine.Move(middle * -1).Then(map.Orthogonal()).Then(Affine.Move(map.Apply(middle))));
    }

    /// <exception cref="EditRefused">The piece is locked.</exception>
    internal static Piece Unlocked(Piece piece) => piece.Locked
        ? throw new EditRefused($"{piece.Name} is locked. Unlock it to change its shape or place.")
        : piece;

    /// <summary>From the coordinates that a size is measured in to the card's.</summary>
    private static Affine Frame(Design design, Picked what) =>
        what is { IsLines: false, Pieces: [var only] } ? design.Require(only).Place : Affine.Identity;

    private static double Factor(double wanted, double now) => now > 1e-9
        ? wanted / now
        : wanted <= 1e-9 ? 1 : throw new EditRefused("What has no extent one way cannot be given one by scaling.");
}
