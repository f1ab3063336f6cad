using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>What lines cost before anyone chooses them: length with the tool down, and time.</summary>
public static class WorkTime
{
    /// <summary>Lines in the order given, from one to the next the straight way.</summary>
    /// <param name="lines">The lines, mm.</param>
    /// <param name="settings">The tool's settings.</param>
    /// <param name="machine">The machine.</param>
    /// <returns>Length with the tool down in mm, times over counted, and seconds.</returns>
    public static (double LengthMm, double Seconds) Compute(IReadOnlyList<Path> lines, ToolSettings settings, Machine machine)
    {
        var speed = Math.Min(settings.SpeedMmPerSecond, machine.TopSpeed);
        double length = 0, seconds = 0;
        Point? head = null;
        foreach (var line in lines)
        {
            if (head is { } at) seconds += MotionTime.Straight(at.DistanceTo(line.Start), machine.TopSpeed, machine.Acceleration);
            seconds += settings.Times * MotionTime.Along(line, speed, machine.Acceleration) + 2 * machine.LiftSeconds;
            length += settings.Times * line.Length;
            head = line.IsClosed ? line.Start : line.End;
        }
        return (length, seconds);
    }
}
