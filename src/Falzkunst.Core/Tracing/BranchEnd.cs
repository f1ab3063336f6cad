using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>What is done at an end of a stretch of middle line where it meets others.</summary>
internal static class BranchEnd
{
    /// <summary>Points that are kept whatever lies near.</summary>
    private const int Kept = 3;

    public static Point At(Branch branch, bool atStart) => atStart ? branch.Points[0] : branch.Points[^1];

    /// <summary>Takes out the points within the crossing, which thinning draws aside.</summary>
    public static void Clear(Branch branch, bool atStart, Knot knot)
    {
        if (atStart) branch.Points.Reverse();
        // A stretch between two near knots keeps its middle.
        var most = branch.From >= 0 && branch.To >= 0 ? branch.Points.Count * 2 / 5 : branch.Points.Count;
        while (branch.Points.Count > Kept && most-- > 0 && branch.Points[^1].DistanceTo(knot.At) < knot.Radius * 1.05) branch.Points.RemoveAt(branch.Points.Count - 1);
        if (atStart) branch.Points.Reverse();
    }

    /// <summary>Direction from the end towards the knot, by least squares over a stretch of some dots.</summary>
    public static Point Way(Branch branch, bool atStart, double radius)
    {
        var reach = Math.Max(4, radius * 1.5);
        var points = branch.Points;
        var end = At(branch, atStart);
        var last = end;
        Point sum = default;
        for (var k = 1; k < points.Count; k++)
        {
            var p = atStart ? points[k] : points[^(k + 1)];
            if (p.DistanceTo(end) > reach) break;
            sum += end - p;
            last = p;
        }
        if (sum.Length < 1e-9) sum = end - last;
        return sum.Length < 1e-9 ? new Point(1, 0) : sum * (1 / sum.Length);
    }

    /// <summary>Where lines through the ends meet best, near the knot.</summary>
    public static Point Meeting(IEnumerable<(Point At, Point Way)> ends, Knot knot)
    {
        // The point with the least sum of squares of its distances from the lines; a little weight on the knot itself keeps it there.
        double xx = 0.02, xy = 0, yy = 0.02;
        var (bx, by) = (0.02 * knot.At.X, 0.02 * knot.At.Y);
        foreach (var (at, way) in ends)
        {
            var side = new Point(-way.Y, way.X);
            var d = at.Dot(side);
            (xx, xy, yy) = (xx + side.X * side.X, xy + side.X * side.Y, yy + side.Y * side.Y);
            (bx, by) = (bx + side.X * d, by + side.Y * d);
        }
        var det = xx * yy - xy * xy;
        var met = new Point((bx * yy - by * xy) / det, (by * xx - bx * xy) / det);
        return met.DistanceTo(knot.At) <= knot.Radius * 1.2 ? met : knot.At;
    }

    /// <summary>Where a line from an end meets what goes through the knot.</summary>
    public static Point Onto(Point at, Point way, List<(Point A, Point B)> chords, Knot knot)
    {
        var best = knot.At;
        var least = double.MaxValue;
        foreach (var (a, b) in chords)
        {
            var along = b - a;
            var det = way.Cross(along);
            if (Math.Abs(det) < 1e-9) continue;
            var t = (a - at).Cross(along) / det;
            var u = (a - at).Cross(way) / det;
            if (t < -knot.Radius || u is < -0.2 or > 1.2 || Math.Abs(t) >= least) continue;
            (best, least) = (at + way * t, Math.Abs(t));
        }
        return best;
    }

    public static void Extend(Branch branch, bool atStart, Point to)
    {
        if (atStart) branch.Points.Insert(0, to);
        else branch.Points.Add(to);
    }
}
