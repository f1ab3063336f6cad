using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>The width survey of a piece: its outline and what is cut out of it. Open cuts are not looked at.</summary>
public static class PieceWidths
{
    /// <summary>Where no place is narrower than what was asked for, the narrowest is looked for up to this many times it.</summary>
    private const int Farthest = 8;

    /// <summary>Places narrower than a width, narrowest first, in the card's coordinates.</summary>
    public static List<ThinPlace> Below(Piece piece, double leastMm) => WidthSurvey.Of(Rings(piece), leastMm);

    /// <summary>Width of the narrowest place of the material, mm; null where it is nowhere narrower than 8 times what was asked for.</summary>
    public static double? Narrowest(Piece piece, double leastMm)
    {
        for (var least = leastMm; least <= leastMm * Farthest; least *= 2)
        {
            if (WidthSurvey.Of(Rings(piece), least).Find(p => p.Kind is ThinKind.Neck or ThinKind.Strand) is { } found) return found.WidthMm;
        }
        return null;
    }

    private static List<Path> Rings(Piece piece) =>
        [.. piece.Drawn.Where(d => d.Line.Role == LineRole.Outline || d.Line is { Role: LineRole.Opening, Operation: Operation.Cut }).Select(d => d.Path.Map(piece.Place))];
}
