using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Tracing;

/// <summary>A place where a traced line turns at once.</summary>
/// <param name="Index">The point of the course that it lies at.</param>
/// <param name="At">Where the ways before and behind it meet, which dots have rounded off.</param>
/// <param name="Before">Direction in which the line arrives, of length 1.</param>
/// <param name="After">Direction in which it goes on, of length 1.</param>
internal sealed record Corner(int Index, Point At, Point Before, Point After)
{
    /// <summary>A turn of more than this between arms of some dots.</summary>
    private const double CoarseTurn = 32 * Math.PI / 180;

    /// <summary>A turn of more than this between short arms, where there is no room for long ones.</summary>
    private const double FineTurn = 55 * Math.PI / 180;

    /// <summary>Of its turn so much is more than the bend of its arms alone would make.</summary>
    private const double OwnShare = 0.5;

    /// <summary>Dots round a corner off within this, so that arms begin there.</summary>
    private const double Rounded = 1.0;

    /// <summary>The corners of a course, in order.</summary>
    /// <param name="course">The course.</param>
    /// <param name="scale">1 for clean lines, more where lines wobble or are wide.</param>
    public static List<Corner> Find(Course course, double scale)
    {
        var turns = new double[course.Count];
        var (coarse, fine) = (Arms(course, Rounded * scale, 4.5 * scale), Arms(course, 0.7 * scale, 2.6 * scale));
        for (var i = 0; i < course.Count; i++)
        {
            var turn = OwnTurn(course, i, coarse);
            if (turn < CoarseTurn) turn = OwnTurn(course, i, fine) is var own && own >= FineTurn ? own : 0;
            turns[i] = turn;
        }
        var reach = course.Paces(2.2 * scale);
        var indices = new List<int>();
        for (var i = 0; i < course.Count; i++)
        {
            if (turns[i] > 0 && IsHighest(i)) indices.Add(i);
        }
        return [.. indices.Select((at, k) => Sharpened(course, at, Room(k, -1), Room(k, 1), scale))];

        bool IsHighest(int i)
        {
            for (var d = 1; d <= reach; d++)
            {
                if (Turn(i - d) >= turns[i] || Turn(i + d) > turns[i]) return false;
            }
            return true;
        }

        double Turn(int i) => course.IsClosed ? turns[(i % course.Count + course.Count) % course.Count] : i >= 0 && i < course.Count ? turns[i] : 0;

        // Points up to the next corner, or the end.
        int Room(int k, int way)
        {
            if (indices.Count == 1 && course.IsClosed) return course.Count;
            var next = k + way;
            if (next >= 0 && next < indices.Count) return Math.Abs(indices[next] - indices[k]);
            if (course.IsClosed) return course.Count - Math.Abs(indices[^1] - indices[0]);
            return way < 0 ? indices[k] : course.Count - 1 - indices[k];
        }
    }

    private readonly record struct ArmLengths(int Near, int Middle, int Far);

    private static ArmLengths Arms(Course course, double near, double far)
    {
        var (n, f) = (course.Paces(near), course.Paces(far));
        f = Math.Max(f, n + 2);
        return new(n, (n + f) / 2, f);
    }

    /// <summary>How far the course turns at a point beyond what the bend of its arms would make of it, where it is a corner; else 0.</summary>
    private static double OwnTurn(Course course, int i, ArmLengths arms)
    {
        if (!course.IsClosed && (i < arms.Far || i + arms.Far >= course.Count)) return 0;
        if (course.IsClosed && course.Count < 2 * arms.Far + 2) return 0;
        Point before2 = course.At(i - arms.Far), before1 = course.At(i - arms.Middle), before0 = course.At(i - arms.Near);
        Point after0 = course.At(i + arms.Near), after1 = course.At(i + arms.Middle), after2 = course.At(i + arms.Far);
        var turn = Angle(before0 - before2, after2 - after0);
        var side = Math.Sign(turn);
        turn = Math.Abs(turn);
        if (turn < CoarseTurn) return 0;
        var bend = Math.Max(0, side * (Angle(before1 - before2, before0 - before1) + Angle(after1 - after0, after2 - after1)) / 2);
        // From the middle of one arm to that of the other, over the length of half an arm.
        var expected = bend * (arms.Near + arms.Far) / Math.Max(1, (arms.Far - arms.Near) / 2.0);
        return turn - expected >= OwnShare * turn ? turn : 0;
    }

    private static double Angle(Point a, Point b) => Math.Atan2(a.Cross(b), a.Dot(b));

    /// <summary>The corner where its arms, gone on as they run, meet.</summary>
    private static Corner Sharpened(Course course, int at, int roomBefore, int roomAfter, double scale)
    {
        var raw = course.At(at);
        var before = Arm.Fit(course, at, -1, roomBefore, Rounded * scale, scale);
        var after = Arm.Fit(course, at, 1, roomAfter, Rounded * scale, scale);
        var (inward, outward) = (before.Way * -1, after.Way);
        if (Arm.Meet(before, after) is not { } met || met.At.DistanceTo(raw) > Farthest(inward, outward) * scale) return new Corner(at, raw, inward, outward);
        return new Corner(at, met.At, met.Before * -1, met.After);
    }

    /// <summary>How far a sharp corner may lie beyond the rounded one, dots.</summary>
    private static double Farthest(Point before, Point after)
    {
        var half = Math.Acos(Math.Clamp(before.Dot(after * -1), -1, 1)) / 2;
        return Math.Min(5, 0.8 + 0.8 / Math.Max(0.15, Math.Sin(half)));
    }
}
