using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>The width survey of a piece: its outline, what is cut out of it, and what is cut into it. In the piece's own coordinates.</summary>
public static class PieceWidths
{
    /// <summary>Where no place is narrower than what was asked for, the narrowest is looked for up to this many times it.</summary>
    private const int Farthest = 8;

    /// <summary>Places narrower than a width, narrowest first.</summary>
    public static List<ThinPlace> Below(Piece piece, double leastMm) => [.. Courses(piece, leastMm).Select(c => c.Place)];

    /// <summary>Places narrower than a width, narrowest first, each with the course of the width through it.</summary>
    public static ImmutableArray<WidthCourse> Courses(Piece piece, double leastMm)
    {
        var (rings, slits) = (Sound(piece), WidthSurvey.Flat(Slits(piece), areClosed: false));
        if (rings.Count == 0) return [];
        return
        [
            .. Courses(WidthSurvey.Material(rings, slits, leastMm)).Concat(Courses(WidthSurvey.Air(rings, leastMm))).OrderBy(c => c.Place.WidthMm),
        ];
    }

    private static IEnumerable<WidthCourse> Courses((MedialBalls Balls, List<NarrowPlace> Places) found)
    {
        var (balls, places) = found;
        var of = new int[balls.Samples.Count];
        Array.Fill(of, -1);
        for (var k = 0; k < places.Count; k++)
        {
            foreach (var i in places[k].Samples) of[i] = k;
        }
        var lines = MedialChains.Of(balls, i => of[i] >= 0 && places[of[i]].Place.Kind != ThinKind.Hole)
            .SelectMany(c => MedialChains.Runs(c, i => of[i]))
            .ToLookup(c => of[c[0]], c => MedialChains.Widths(balls, c));
        return places.Select((p, k) => new WidthCourse(p.Place, [.. lines[k]]));
    }

    /// <summary>Width of the narrowest place of the material, mm; null where it is nowhere narrower than 8 times what was asked for.</summary>
    public static double? Narrowest(Piece piece, double leastMm)
    {
        var (rings, slits) = (Sound(piece), WidthSurvey.Flat(Slits(piece), areClosed: false));
        if (rings.Count == 0) return null;
        for (var least = leastMm; least <= leastMm * Farthest; least *= 2)
        {
            // Looked at more coarsely an end may seem a neck; what was wide enough before is so still.
            var widths = WidthSurvey.Material(rings, slits, least).Places.Select(p => p.Place.WidthMm).Where(w => least == leastMm || w >= leastMm).ToList();
            if (widths.Count > 0) return widths.Min();
        }
        return null;
    }

    /// <summary>The lines that bound the paper, in its own coordinates: the outline first, then openings.</summary>
    public static ImmutableArray<Path> Rings(Piece piece) => piece.Paper.Rings;

    /// <summary>All that the survey depends on, as a short text.</summary>
    public static string KeyOf(Piece piece) =>
        Slits(piece) is { IsEmpty: false } slits ? $"{piece.Paper.Hash} {PieceShape.HashOf(slits)}" : piece.Paper.Hash;

    /// <summary>The rings as corners, mended where they cross: a survey of crossing lines finds widths that no paper has.</summary>
    internal static IReadOnlyList<Point[]> Sound(Piece piece) => SoundRings.GetValue(piece.Paper, static paper =>
    {
        List<Point[]> rings = [.. Reshaping.WithExtent(paper.Rings).Select(r => Flattening.Flatten(r, Reshaping.Flatness))];
        return Math.Abs(paper.Outline.SignedArea) < 1e-6 ? [] : Reshaping.Sound(rings, Reshaping.Material(rings));
    });

    private static readonly ConditionalWeakTable<Paper, IReadOnlyList<Point[]>> SoundRings = [];

    /// <summary>Cuts through the paper that do not close.</summary>
    internal static ImmutableArray<Path> Slits(Piece piece) =>
        [.. piece.Drawn.Skip(1).Where(l => l is { IsCutThrough: true, Path.IsClosed: false }).Select(l => l.Path)];
}
