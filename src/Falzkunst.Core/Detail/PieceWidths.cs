using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Detail;

/// <summary>The width survey of a piece: its outline, what is cut out of it, and what is cut into it. In the piece's own coordinates.</summary>
public static class PieceWidths
{
    /// <summary>Where no place is narrower than what was asked for, the narrowest is looked for up to this many times it.</summary>
    private const int Farthest = 8;

    /// <summary>
    /// Steps of one survey, about a second on two cores; the finest lace that was met takes a fortieth of it. What asks for more
    /// is looked at more coarsely.
    /// </summary>
    private const long MostWork = 500_000_000;

    /// <summary>Samples about one piece; longer cuts are looked at more coarsely.</summary>
    private const double MostSamples = 300_000;

    /// <summary>How much coarser a survey is made that was too much, and how often.</summary>
    private const double Coarser = 4;
    private const int Attempts = 3;

    /// <summary>Places narrower than a width, narrowest first.</summary>
    public static List<ThinPlace> Below(Piece piece, double leastMm, Budget? budget = null) => [.. Survey(piece, leastMm, budget).Courses.Select(c => c.Place)];

    /// <summary>Places narrower than a width, narrowest first, each with the course of the width through it.</summary>
    public static ImmutableArray<WidthCourse> Courses(Piece piece, double leastMm) => Survey(piece, leastMm).Courses;

    /// <summary>Looks for places narrower than a width; as finely as that asks, or more coarsely where the piece is too long or too intricate.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="leastMm">The width, mm.</param>
    /// <param name="budget">What ends the search altogether; null for nothing.</param>
    /// <exception cref="OperationCanceledException">Nobody waits for it any more.</exception>
    public static PieceSurvey Survey(Piece piece, double leastMm, Budget? budget = null)
    {
        var fine = WidthSurvey.StepFor(leastMm);
        for (var attempt = 0; attempt < Attempts; attempt++)
        {
            var part = Budget.OfWork(MostWork, budget);
            try
            {
                var (rings, slits) = (Sound(piece), WidthSurvey.Flat(Slits(piece), areClosed: false));
                if (rings.Count == 0) return new PieceSurvey([], fine, fine, IsComplete: true);
                var step = Math.Max(fine, CoarsestFor(rings, slits)) * Math.Pow(Coarser, attempt);
                return new PieceSurvey(
                    [.. Courses(WidthSurvey.Material(rings, slits, leastMm, part, step)).Concat(Courses(WidthSurvey.Air(rings, leastMm, part, step))).OrderBy(c => c.Place.WidthMm)],
                    step, fine, IsComplete: true);
            }
            catch (BudgetSpent)
            {
                // Once more with fewer samples, unless there is no more time for anything.
                budget?.Look();
            }
        }
        return new PieceSurvey([], fine, fine, IsComplete: false);
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
        var lines = MedialChains.Trace(balls, i => of[i] >= 0 && places[of[i]].Place.Kind != ThinKind.Hole)
            .SelectMany(c => MedialChains.Runs(c, i => of[i]))
            .ToLookup(c => of[c[0]], c => MedialChains.Widths(balls, c));
        return places.Select((p, k) => new WidthCourse(p.Place, [.. lines[k]]));
    }

    /// <summary>Width of the narrowest place of the material, mm; null where it is nowhere narrower than 8 times what was asked for.</summary>
    /// <exception cref="BudgetSpent">It takes more than a survey may.</exception>
    public static double? Narrowest(Piece piece, double leastMm, Budget? budget = null)
    {
        var (rings, slits) = (Sound(piece), WidthSurvey.Flat(Slits(piece), areClosed: false));
        if (rings.Count == 0) return null;
        var part = Budget.OfWork(MostWork, budget);
        var step = CoarsestFor(rings, slits);
        for (var least = leastMm; least <= leastMm * Farthest; least *= 2)
        {
            // Looked at more coarsely an end may seem a neck; what was wide enough before is so still.
            var widths = WidthSurvey.Material(rings, slits, least, part, step).Places.Select(p => p.Place.WidthMm).Where(w => least == leastMm || w >= leastMm).ToList();
            if (widths.Count > 0) return widths.Min();
        }
        return null;
    }

    /// <summary>Distance between samples below which there would be too many, mm.</summary>
    private static double CoarsestFor(IReadOnlyList<Point[]> rings, List<Point[]> slits) => rings.Concat(slits).Sum(BoundarySamples.LengthOf) / MostSamples;

    /// <summary>What looking at one piece may take.</summary>
    internal static Budget BudgetOfSurvey() => Budget.OfWork(MostWork);

    /// <summary>What mending one piece may take.</summary>
    internal static Budget BudgetOfMending(Budget? within) => Budget.OfWork(3 * MostWork, within);

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
