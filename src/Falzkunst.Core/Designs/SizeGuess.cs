using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>A size that a file without one of its own may have been meant at.</summary>
/// <param name="UnitsToInch">How many of its units make an inch then.</param>
/// <param name="Scale">What its lengths, as they were read, are multiplied by.</param>
/// <param name="Width">Width of its page then, mm.</param>
/// <param name="Height">Height of its page, mm.</param>
/// <param name="Score">How much speaks for it: the sum of how unlikely it is that its lengths come out as even by chance.</param>
public sealed record SizeCandidate(double UnitsToInch, double Scale, double Width, double Height, double Score);

/// <summary>
/// Guesses the size of a file that says none. Drawing programs take 72, 90, 96 or 100 units to the inch, or millimetres; at the right
/// one of these the page is a sheet that there is, or the card, and lengths come out in whole millimetres or eighths of an inch. Each
/// such hit counts by the logarithm of how seldom chance brings it about.
/// </summary>
public static class SizeGuess
{
    /// <summary>Units to the inch that are thought of, the usual ones first: of equal scores the first wins.</summary>
    private static readonly double[] Known = [96, 72, 90, 100, 25.4];

    /// <summary>At these, whatever is drawn in whole units or in tens of them comes out even: only a sheet or the card speaks for them.</summary>
    private static readonly double[] EvenByChance = [100, 25.4];

    /// <summary>Both sides within this of a sheet's or the card's are that size, mm.</summary>
    private const double SameMm = 0.2;

    /// <summary>A side within this of a whole step is even, mm.</summary>
    private const double EvenMm = 0.04;

    /// <summary>So many shapes, the largest, are looked at besides the page.</summary>
    private const int MostShapes = 40;

    /// <summary>Shapes speak with one voice: whoever draws on a grid of units has them even at one candidate, meant or not.</summary>
    private const double MostShapesScore = 4;

    /// <summary>About one page in three thousand comes within the tolerance of a listed sheet by chance; of the card even fewer.</summary>
    private const double SheetScore = 8;
    private const double CardScore = 9;

    /// <summary>A page that no sheet holds, or that is smaller than a stamp, was not meant, mm.</summary>
    private const double LargestMm = 1300;
    private const double SmallestMm = 15;
    private const double OutOfReachScore = -12;

    /// <summary>Widths and heights of sheets and cards that are sold, mm.</summary>
    private static readonly (double Width, double Height)[] Sheets =
    [
        (210, 297), (148, 210), (105, 148), (297, 420), (420, 594), (99, 210), (148, 148),
        (215.9, 279.4), (215.9, 355.6), (279.4, 431.8), (304.8, 304.8), (304.8, 609.6), (152.4, 152.4), (203.2, 203.2), (127, 177.8), (107.95, 139.7), (139.7, 215.9),
        (330.2, 330.2), (330.2, 609.6), (609.6, 609.6), (300, 300),
    ];

    /// <summary>The candidates, the likeliest first.</summary>
    /// <param name="drawing">The drawing as it was read.</param>
    /// <param name="cards">Width and height of the card that it may be for, open and folded, mm.</param>
    public static ImmutableArray<SizeCandidate> Candidates(Drawing drawing, params (double Width, double Height)[] cards)
    {
        if (drawing.UnitsToInch is not { } read) return [];
        var boxes = drawing.Shapes.Select(s => s.Paths.Aggregate(Box.Empty, (all, p) => all.Include(p.Bounds)))
            .Where(b => !b.IsEmpty).OrderByDescending(b => b.Area).Take(MostShapes).Select(b => (b.Width, b.Height)).Distinct().ToList();
        return [.. Known.Select(units =>
        {
            var scale = read / units;
            var (width, height) = (drawing.Width * scale, drawing.Height * scale);
            var even = EvenByChance.Contains(units) ? 0 : EvenScore(width) + EvenScore(height) + Math.Min(MostShapesScore, boxes.Sum(b => EvenScore(b.Width * scale) + EvenScore(b.Height * scale)));
            return new SizeCandidate(units, scale, width, height, PageScore(width, height, cards) + even);
        }).OrderByDescending(c => Math.Round(c.Score, 6))];
    }

    private static double PageScore(double width, double height, (double, double)[] cards)
    {
        var score = Array.Exists(cards, c => IsSame(width, height, c)) ? CardScore : Array.Exists(Sheets, s => IsSame(width, height, s)) ? SheetScore : 0;
        return Math.Max(width, height) is > LargestMm or < SmallestMm ? score + OutOfReachScore : score;
    }

    private static bool IsSame(double width, double height, (double Width, double Height) size) =>
        (Math.Abs(width - size.Width) < SameMm && Math.Abs(height - size.Height) < SameMm) || (Math.Abs(height - size.Width) < SameMm && Math.Abs(width - size.Height) < SameMm);

    /// <summary>Whole millimetres, or eighths of an inch, the better of the two.</summary>
    private static double EvenScore(double mm) => mm < SmallestMm / 3 ? 0 : Math.Max(Hit(mm, 1), Hit(mm, 25.4 / 8));

    private static double Hit(double mm, double step) =>
        Math.Abs(mm - step * Math.Round(mm / step)) < EvenMm ? Math.Log(step / (2 * EvenMm)) : 0;
}
