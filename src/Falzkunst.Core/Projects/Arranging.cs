using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Projects;

/// <summary>
/// Size, turn and mirroring of pieces. What changes the paper itself (size, mirroring) is carried into the shape, so that it is
/// cut that way; how a piece lies on the card (turn, move) is in its place alone.
/// </summary>
public static class Arranging
{
    /// <summary>A piece measures at least and at most this much each way, mm.</summary>
    public const double LeastMm = 0.5;
    public const double MostMm = 3000;

    /// <summary>The piece at another size; its upper left corner stays.</summary>
    /// <exception cref="EditRefused">The size is out of reach, or the piece has no extent one way.</exception>
    public static Design Resize(Design design, string id, double width, double height)
    {
        if (!(width is >= LeastMm and <= MostMm) || !(height is >= LeastMm and <= MostMm))
            throw new EditRefused($"A piece measures between {LeastMm} and {MostMm} mm each way.");
        return Reshape(design, id, size => Affine.Move(-size.MinX, -size.MinY)
            .Then(Affine.Scale(width / size.Width, height / size.Height)).Then(Affine.Move(size.MinX, size.MinY)));
    }

    /// <summary>The piece as seen from behind, about its own middle.</summary>
    public static Design Mirror(Design design, string id, bool leftRight) => Reshape(design, id, size => leftRight
        ? new Affine(-1, 0, 0, 1, size.MinX + size.MaxX, 0)
        : new Affine(1, 0, 0, -1, 0, size.MinY + size.MaxY));

    /// <summary>The piece turned on the card about its middle.</summary>
    /// <param name="design">The design.</param>
    /// <param name="id">The piece.</param>
    /// <param name="degrees">Positive is clockwise on screen.</param>
    public static Design Turn(Design design, string id, double degrees)
    {
        if (!(Math.Abs(degrees) <= 3600)) throw new EditRefused("Turn by at most 3600 degrees at a time.");
        var piece = design.Require(id);
        var middle = piece.Place.Apply(piece.Size.Centre);
        var turn = Affine.Move(middle * -1).Then(Affine.Turn(degrees)).Then(Affine.Move(middle));
        return design.With(id, p => p with { Place = p.Place.Then(turn) }) with { Findings = Moved(design, id, turn) };
    }

    /// <summary>A second piece like the first, a little aside, on top of it.</summary>
    public static Design Duplicate(Design design, string id, string name)
    {
        const double asideMm = 8;
        var piece = design.Require(id);
        var copy = piece with { Id = $"p{design.NextPiece}", Name = name, Place = piece.Place.Then(Affine.Move(asideMm, asideMm)) };
        return design with { Pieces = design.Pieces.Insert(design.Pieces.IndexOf(piece) + 1, copy), NextPiece = design.NextPiece + 1 };
    }

    private static Design Reshape(Design design, string id, Func<Box, Affine> mapOf)
    {
        var piece = design.Require(id);
        if (piece.Size.Width <= 0 || piece.Size.Height <= 0) throw new EditRefused("A piece without extent cannot change its size.");
        var map = mapOf(piece.Size);
        var onCard = piece.Place.Inverse().Then(map).Then(piece.Place);
        return design.With(id, p => p with { Shape = new PieceShape([.. p.Shape.Paths.Select(path => path.Map(map))]) })
            with { Findings = Moved(design, id, onCard) };
    }

    private static System.Collections.Immutable.ImmutableArray<Finding> Moved(Design design, string id, Affine onCard) =>
        [.. design.Findings.Select(f => f.Piece == id && f.At is { } at ? f with { At = onCard.Apply(at) } : f)];
}
