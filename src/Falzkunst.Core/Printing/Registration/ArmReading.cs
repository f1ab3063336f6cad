using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>One arm of a mark as it is on a picture.</summary>
/// <param name="Arm">Which.</param>
/// <param name="Middles">Places half way between its edges, dots.</param>
/// <param name="WidthMm">Width of its line, mm of the sheet.</param>
/// <param name="Seen">The share of it that looks as it should: both edges there and straight.</param>
/// <param name="Contrast">How much darker it is than the paper beside it, of 255.</param>
/// <param name="Ends">Its far end and the mark's outer corner, each where it is met on the centre line: place in dots, and whether it is the far end.</param>
internal sealed record ArmReading(LayoutArm Arm, List<Point> Middles, double WidthMm, double Seen, double Contrast, List<(Point At, bool IsFar)> Ends)
{
    /// <summary>Paper that is looked at on each side of a line, mm and dots, whichever is more; marks are kept clear by a millimetre at least.</summary>
    private const double SideMm = 0.8, SideDots = 5;

    /// <summary>Edges are taken from means over stretches of an arm of this length, mm and dots, whichever is more.</summary>
    private const double StretchMm = 0.5, StretchDots = 4;

    /// <summary>Less than this is no ink, of 255.</summary>
    private const double LeastContrast = 24;

    /// <summary>Nothing is seen of an arm.</summary>
    private static ArmReading Nothing(LayoutArm arm) => new(arm, [], 0, 0, 0, []);

    /// <summary>
    /// Reads an arm near where a map puts it: the line's offset from the mean profile of the whole arm; both edges of each stretch at
    /// half the height between paper and ink; a straight line through each side's edges; the two ends.
    /// </summary>
    /// <param name="picture">The page.</param>
    /// <param name="arm">Which arm.</param>
    /// <param name="map">From sheet mm to dots, as far as it is known.</param>
    /// <param name="searchMm">How far off it may be, mm.</param>
    public static ArmReading Read(InkRaster picture, LayoutArm arm, PictureMap map, double searchMm)
    {
        var dot = 1 / map.ScaleAt(arm.At(arm.Mark.ArmMm / 2, 0));
        var line = arm.Mark.LineMm;
        var side = Math.Max(SideMm, SideDots * dot);
        // Stretches keep off the other arm and off the end by as much as is looked at beside the line.
        var (from, to) = (line + side + line / 2, arm.Mark.ArmMm - side);
        if (to - from < 2 * Math.Max(StretchMm, StretchDots * dot)) (from, to) = (line * 1.5 + 2 * dot, arm.Mark.ArmMm - 2 * dot);
        double Ink(double along, double across) => map.Apply(arm.At(along, across)) is var p ? picture.At(p.X, p.Y) : 0;

        if (Offset(Ink, from, to, line, side, searchMm, dot) is not { } offset) return Nothing(arm);
        var (step, half) = (dot / 2, line / 2 + side);
        var stretches = Math.Max(4, (int)((to - from) / Math.Max(StretchMm, StretchDots * dot)));
        var length = (to - from) / stretches;
        var edges = new List<(double Along, double Near, double Far, double Contrast)>();
        var profile = new double[(int)(2 * half / step) + 1];
        for (var k = 0; k < stretches; k++)
        {
            Profile(Ink, from + k * length, from + (k + 1) * length, offset - half, step, dot, profile);
            if (EdgesOf(profile, line / step, side / step) is { } found) edges.Add((from + (k + 0.5) * length, offset - half + found.Left * step, offset - half + found.Right * step, found.Contrast));
        }
        if (edges.Count < 4) return Nothing(arm);
        var near = RobustLine.Fit([.. edges.Select(e => (e.Along, e.Near))], dot / 8);
        var far = RobustLine.Fit([.. edges.Select(e => (e.Along, e.Far))], dot / 8);
        var good = edges.Where((_, i) => near.IsIn[i] && far.IsIn[i]).ToList();
        if (good.Count < 4) return Nothing(arm);
        var contrast = good.Select(e => e.Contrast).Order().ElementAt(good.Count / 2);
        var middle = (from + to) / 2;
        var centre = (near.At(middle) + far.At(middle)) / 2;
        var slope = (near.Slope + far.Slope) / 2;
        double CentreAt(double along) => centre + slope * (along - middle);
        var ends = new List<(Point, bool)>();
        foreach (var isFar in new[] { true, false })
        {
            if (EndOf(Ink, CentreAt, isFar, arm.Mark.ArmMm, line, side, dot, contrast) is { } end) ends.Add((map.Apply(arm.At(end, CentreAt(end))), isFar));
        }
        return new ArmReading(
            arm, [.. good.Select(e => map.Apply(arm.At(e.Along, (e.Near + e.Far) / 2)))],
            far.At(middle) - near.At(middle), (double)good.Count / stretches, contrast, ends);
    }

    /// <summary>Where across the arm the darkest band of a line's width lies, against the paper on both sides of it; null where none is.</summary>
    private static double? Offset(Func<double, double, double> ink, double from, double to, double line, double side, double search, double dot)
    {
        var step = dot / 2;
        var reach = search + line / 2 + side;
        var mean = new double[(int)(2 * reach / step) + 1];
        Profile(ink, from, to, -reach, step, dot, mean);
        var sums = new double[mean.Length + 1];
        for (var i = 0; i < mean.Length; i++) sums[i + 1] = sums[i] + mean[i];
        var (wide, beside) = (Math.Max(1, (int)(line / step)), Math.Max(1, (int)(side / step)));
        double best = LeastContrast / 2;
        double? at = null;
        for (var i = beside; i + wide + beside < mean.Length; i++)
        {
            var paper = Math.Max(sums[i] - sums[i - beside], sums[i + wide + beside] - sums[i + wide]) / beside;
            var contrast = (sums[i + wide] - sums[i]) / wide - paper;
            if (contrast > best) (best, at) = (contrast, -reach + (i + (wide - 1) / 2.0) * step);
        }
        return at;
    }

    /// <summary>Mean ink across the arm over a stretch of it.</summary>
    private static void Profile(Func<double, double, double> ink, double from, double to, double first, double step, double dot, double[] profile)
    {
        var rows = Math.Max(2, (int)Math.Ceiling((to - from) / dot));
        Array.Clear(profile);
        for (var r = 0; r < rows; r++)
        {
            var along = from + (to - from) * (r + 0.5) / rows;
            for (var i = 0; i < profile.Length; i++) profile[i] += ink(along, first + i * step) / rows;
        }
    }

    /// <summary>Both edges of a line in a profile, in its steps, each at half the height between the paper on its side and the ink.</summary>
    private static (double Left, double Right, double Contrast)? EdgesOf(double[] profile, double line, double side)
    {
        var middle = profile.Length / 2;
        var core = Math.Max(1, (int)(line / 5));
        double dark = 0;
        for (var i = middle - core; i <= middle + core; i++) dark += profile[i] / (2 * core + 1);
        var outer = Math.Max(2, (int)(side * 0.45));
        var (left, right) = (Median(profile.AsSpan(0, outer)), Median(profile.AsSpan(profile.Length - outer)));
        if (dark - Math.Max(left, right) < LeastContrast) return null;
        return Crossing(profile, middle, -1, (left + dark) / 2) is { } a && Crossing(profile, middle, 1, (right + dark) / 2) is { } b ? (a, b, dark - (left + right) / 2) : null;
    }

    /// <summary>From a place outward, where a profile first falls through a level, to a fraction of a step.</summary>
    private static double? Crossing(ReadOnlySpan<double> profile, int from, int step, double level)
    {
        for (var i = from; i + step >= 0 && i + step < profile.Length; i += step)
        {
            if (profile[i] >= level && profile[i + step] < level) return i + step * (profile[i] - level) / (profile[i] - profile[i + step]);
        }
        return null;
    }

    private static double Median(ReadOnlySpan<double> values)
    {
        Span<double> sorted = stackalloc double[values.Length];
        values.CopyTo(sorted);
        sorted.Sort();
        return sorted[values.Length / 2];
    }

    /// <summary>How far along the centre line the ink ends, mm; at the near end that is the other arm's outer edge.</summary>
    private static double? EndOf(Func<double, double, double> ink, Func<double, double> centre, bool isFar, double arm, double line, double side, double dot, double contrast)
    {
        var step = dot / 2;
        var (end, way) = (isFar ? arm : 0, isFar ? 1 : -1);
        // From well inside, where the ink is whole, to the paper beyond.
        var inside = Math.Max(line, 3 * dot) + 0.5;
        var profile = new double[(int)((inside + side + 0.3) / step) + 1];
        var across = Math.Max(1, (int)(line * 0.7 / dot));
        for (var i = 0; i < profile.Length; i++)
        {
            var along = end + way * (i * step - inside);
            for (var k = 0; k < across; k++) profile[i] += ink(along, centre(along) + ((k + 0.5) / across - 0.5) * line * 0.7) / across;
        }
        var few = Math.Max(2, (int)(0.5 / step));
        var (dark, paper) = (Median(profile.AsSpan(0, few)), Median(profile.AsSpan(profile.Length - few)));
        if (dark - paper < contrast / 2) return null;
        return Crossing(profile, 0, 1, (dark + paper) / 2) is { } at ? end + way * (at * step - inside) : null;
    }
}
