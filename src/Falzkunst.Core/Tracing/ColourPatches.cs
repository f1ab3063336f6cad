using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Core.Tracing;

/// <summary>
/// Every patch of one colour as an area. Borders are a graph: between two places where three patches meet, each border is traced and fitted
/// once and serves the patches at both its sides, so that no gap and no overlap comes between them.
/// </summary>
internal static class ColourPatches
{
    /// <summary>The patches and their borders.</summary>
    public static SeenLines See(PixelImage image, TraceHow how, Budget budget)
    {
        var noise = InkCleaning.Noise(InkRaster.OfDarkness(image));
        var isNoisy = noise >= InkCleaning.Clean;
        if (isNoisy) image = InkCleaning.Smoothed(image, InkCleaning.Smoothing(noise));
        var (labels, colours) = ColourLabels.Find(image, how.Colours, budget);
        var parts = PatchParts.Of(labels, image.Width, image.Height, isNoisy ? Math.Max(how.LeastArea, InkCleaning.LeastNoisyArea) : how.LeastArea, out var specks);
        budget.Work(labels.Length);
        var rings = new PatchBorders(image, parts, colours).Rings(budget).ToList();
        return new SeenLines(rings.Sum(p => p.Rings.Sum(r => r.Sum(b => b.Points.Count))), (tolerance, b) => Fit(rings, parts, colours, specks, FitScale.Of(tolerance, how.Corner, noise), b));
    }

    private static Traced Fit(List<(int Part, List<List<Border>> Rings)> parts, PatchParts of, (byte R, byte G, byte B)[] colours, int specks, FitScale scale, Budget budget)
    {
        var fitted = new Dictionary<int, Path>();
        var areas = new List<TracedArea>();
        foreach (var part in parts)
        {
            var rings = part.Rings.ConvertAll(r => Path(r, fitted, scale));
            var outline = rings.MaxBy(r => Math.Abs(r.SignedArea))!;
            var colour = colours[of.LabelOf[part.Part]];
            areas.Add(new TracedArea(outline, [.. rings.Where(r => !ReferenceEquals(r, outline))], $"#{colour.R:X2}{colour.G:X2}{colour.B:X2}"));
            budget.Work(rings.Sum(r => r.Segments.Length));
        }
        return new Traced([.. areas.OrderByDescending(a => Math.Abs(a.Outline.SignedArea))], [], 0, specks);
    }

    private static Path Path(List<Border> ring, Dictionary<int, Path> fitted, FitScale scale)
    {
        var segments = ImmutableArray.CreateBuilder<Segment>();
        Point? start = null;
        foreach (var border in ring)
        {
            if (!fitted.TryGetValue(border.Key, out var path))
            {
                // As the first patch runs along it; the one at its other side runs the other way.
                fitted[border.Key] = path = OutlineFit.Fit(border.Points, border.IsLoop, scale);
            }
            else
            {
                path = path.Reversed();
            }
            start ??= path.Start;
            segments.AddRange(path.Segments);
        }
        return new Path(start!.Value, segments.ToImmutable(), closed: true);
    }
}
