using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// From dots to lines. Stages: ink of every dot; light levelled; noise measured and smoothed; small lettering made larger; threshold;
/// contours to a fraction of a dot, or middle lines; corners and curves (compare Selinger, "Potrace: a polygon-based tracing algorithm",
/// 2003, which works on inked dots alone).
/// </summary>
public static class PictureTrace
{
    private const string Ink = "#24313A";

    /// <summary>Strokes narrower than this, in dots, are traced from a picture twice as large.</summary>
    private const double Narrow = 3.2;

    /// <summary>Larger pictures are not made larger still, dots.</summary>
    private const int MostEnlarged = 6_000_000;

    /// <summary>Traces a picture.</summary>
    /// <param name="image">The picture.</param>
    /// <param name="how">What of it, and how near.</param>
    /// <param name="budget">Work and time are drawn from it.</param>
    /// <exception cref="BudgetSpent">There is more to trace than the budget allows.</exception>
    public static Traced Run(PixelImage image, TraceHow how, Budget budget) => See(image, how, budget).Fit(how.Tolerance, budget);

    /// <summary>What is to be traced of a picture, before curves are fitted: the part that takes most of the time, and is the same however near curves keep to it.</summary>
    /// <inheritdoc cref="Run"/>
    public static SeenLines See(PixelImage image, TraceHow how, Budget budget)
    {
        if (how.Mode == TraceMode.Colours) return ColourPatches.See(image, how, budget);
        var isCutOut = how.Mode == TraceMode.Rim && image.IsTransparent;
        var raster = isCutOut ? InkRaster.OfOpacity(image) : InkRaster.OfDarkness(image);
        budget.Work(raster.Ink.Length / 16);
        if (!isCutOut && PaperLight.Find(raster.Width, raster.Height, (x, y) => 255 - raster.Ink[y * raster.Width + x]) is { } light) raster = InkCleaning.Levelled(raster, light);
        var noise = InkCleaning.Noise(raster);
        var isNoisy = noise >= InkCleaning.Clean;
        if (isNoisy) raster = InkCleaning.Smoothed(raster, InkCleaning.Smoothing(noise));
        var threshold = how.Threshold * 255 ?? InkThreshold.Find(raster);
        var leastArea = isNoisy ? Math.Max(how.LeastArea, InkCleaning.LeastNoisyArea) : how.LeastArea;
        var times = 1;
        if (!isNoisy && raster.Ink.Length * 4 <= MostEnlarged && InkCleaning.StrokeWidth(raster, threshold) < Narrow) (raster, times) = (InkCleaning.Doubled(raster), 2);
        budget.Look();
        FitScale Scale(double tolerance) => FitScale.Of(tolerance * times, how.Corner * times, noise);
        var back = Affine.Scale(1.0 / times, 1.0 / times);
        if (how.Mode == TraceMode.MiddleLines)
        {
            var strokes = MiddleLines.Find(raster, threshold, leastArea * times * times, budget);
            return new SeenLines(strokes.Sum(c => c.Points.Count), (tolerance, b) =>
            {
                b.Work(strokes.Sum(c => c.Points.Count));
                return new Traced([], [.. strokes.Select(c => MiddleLines.Fitted(c, Scale(tolerance))).Select(l => new TracedLine(l.Path.Map(back), l.Width / times))], threshold / 255, 0);
            });
        }
        var contours = Contours.Find(raster, threshold, leastArea * times * times, budget, out var specks);
        if (how.Mode == TraceMode.Rim) contours = Outermost(contours);
        return new SeenLines(contours.Sum(c => c.Length), (tolerance, b) =>
        {
            var paths = new Path[contours.Count];
            Parallel.For(0, contours.Count, OnAllCores.OfCaller, i =>
            {
                b.Work(contours[i].Length);
                paths[i] = OutlineFit.Fit(contours[i], closed: true, Scale(tolerance)).Map(back);
            });
            return new Traced([.. Nested(contours, i => paths[i]).Select(a => new TracedArea(a.Outline, a.Openings, Ink))], [], threshold / 255, specks);
        });
    }

    /// <summary>Outer lines with the openings that lie right in them.</summary>
    internal static IEnumerable<(Path Outline, ImmutableArray<Path> Openings)> Nested(List<Point[]> contours, Func<int, Path> pathOf)
    {
        var around = Around(contours);
        var openings = Enumerable.Range(0, contours.Count).Where(i => around[i] >= 0 && IsOpening(contours[i])).ToLookup(i => around[i]);
        return Enumerable.Range(0, contours.Count).Where(i => !IsOpening(contours[i])).Select(i => (pathOf(i), openings[i].Select(pathOf).ToImmutableArray()));
    }

    private static bool IsOpening(Point[] contour) => Polygons.SignedArea(contour) < 0;

    private static List<Point[]> Outermost(List<Point[]> contours)
    {
        var around = Around(contours);
        return [.. contours.Where((c, i) => !IsOpening(c) && around[i] < 0)];
    }

    /// <summary>The smallest contour around each, of those that bound ink; -1 where there is none.</summary>
    private static int[] Around(List<Point[]> contours)
    {
        var boxes = contours.ConvertAll(c => Box.Around(c));
        var areas = contours.ConvertAll(c => Math.Abs(Polygons.SignedArea(c)));
        var tree = new BoxTree(boxes);
        var found = new int[contours.Count];
        Parallel.For(0, contours.Count, OnAllCores.OfCaller, i =>
        {
            var at = contours[i][0];
            var candidates = tree.Meeting(new Box(at.X, at.Y, at.X, at.Y)).Where(k => k != i && areas[k] > areas[i] && !IsOpening(contours[k]) && boxes[k].Contains(boxes[i])).OrderBy(k => areas[k]);
            found[i] = candidates.Where(k => Polygons.Contains(contours[k], at)).DefaultIfEmpty(-1).First();
        });
        return found;
    }
}
