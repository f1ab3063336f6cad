using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Nesting.Search;

/// <summary>A kind of piece in one turn.</summary>
/// <param name="Degrees">The turn, clockwise on screen.</param>
/// <param name="Mirrored">x became -x before it.</param>
/// <param name="Spaced">With half the spacing round it: what keeps off other copies.</param>
/// <param name="Own">The piece itself: what keeps out of blocked zones.</param>
/// <param name="Bounds">Of the piece itself, exact.</param>
internal sealed record Orientation(double Degrees, bool Mirrored, CollisionShape Spaced, CollisionShape Own, Box Bounds)
{
    /// <summary>Where its origin may lie so that it stays within a box; empty where it does not fit.</summary>
    public Box Within(Box usable) =>
        new(usable.MinX - Bounds.MinX, usable.MinY - Bounds.MinY, usable.MaxX - Bounds.MaxX, usable.MaxY - Bounds.MaxY);
}
