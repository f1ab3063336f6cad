using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// Time along a line from speed and acceleration: trapezoids with a speed limit at every corner by junction deviation
/// (Jeon, "Improving grbl's cornering algorithm", 2011) and a look-ahead over the whole line, backward and forward.
/// </summary>
public static class MotionTime
{
    /// <summary>How far a corner may be rounded in thought, mm; sets the speed through it.</summary>
    private const double JunctionDeviationMm = 0.02;

    /// <summary>Seconds to go straight from rest to rest.</summary>
    /// <param name="distance">mm.</param>
    /// <param name="speed">Highest speed, mm/s.</param>
    /// <param name="acceleration">mm/s².</param>
    public static double Straight(double distance, double speed, double acceleration)
    {
        if (distance <= 0) return 0;
        return distance < speed * speed / acceleration
            ? 2 * Math.Sqrt(distance / acceleration)
            : distance / speed + speed / acceleration;
    }

    /// <summary>Seconds to run a whole path from rest to rest.</summary>
    /// <param name="path">The path; a closed one is run all round.</param>
    /// <param name="speed">Highest speed, mm/s.</param>
    /// <param name="acceleration">mm/s².</param>
    public static double Along(Path path, double speed, double acceleration)
    {
        var points = path.Flat;
        var count = path.IsClosed ? points.Length : points.Length - 1;
        if (count <= 0) return 0;
        var lengths = new double[count];
        var entry = new double[count + 1];
        for (var i = 0; i < count; i++)
        {
            var (a, b) = (points[i], points[(i + 1) % points.Length]);
            lengths[i] = a.DistanceTo(b);
            if (i > 0) entry[i] = Math.Min(speed, CornerSpeed(points[i - 1], a, b, acceleration));
        }
        for (var i = count - 1; i > 0; i--)
            entry[i] = Math.Min(entry[i], Math.Sqrt(entry[i + 1] * entry[i + 1] + 2 * acceleration * lengths[i]));
        double seconds = 0;
        for (var i = 0; i < count; i++)
        {
            entry[i + 1] = Math.Min(entry[i + 1], Math.Sqrt(entry[i] * entry[i] + 2 * acceleration * lengths[i]));
            seconds += Stretch(lengths[i], entry[i], entry[i + 1], speed, acceleration);
        }
        return seconds;
    }

    private static double Stretch(double length, double from, double to, double speed, double acceleration)
    {
        if (length <= 0) return 0;
        var peak = Math.Min(speed, Math.Sqrt((2 * acceleration * length + from * from + to * to) / 2));
        var ramps = (2 * peak * peak - from * from - to * to) / (2 * acceleration);
        return (2 * peak - from - to) / acceleration + Math.Max(0, length - ramps) / peak;
    }

    private static double CornerSpeed(Point before, Point at, Point after, double acceleration)
    {
        var (u, v) = (at - before, after - at);
        var lengths = u.Length * v.Length;
        if (lengths == 0) return 0;
        var cosTurn = Math.Clamp(u.Dot(v) / lengths, -1, 1);
        var sinHalf = Math.Sqrt((1 + cosTurn) / 2); // of the angle between the two edges: 1 on a straight, 0 on a reversal
        return sinHalf >= 1 - 1e-12
            ? double.PositiveInfinity
            : Math.Sqrt(acceleration * JunctionDeviationMm * sinHalf / (1 - sinHalf));
    }
}
