using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>
/// What a tool's way over the sheet costs: ways between strokes, strokes, lifts and times over are counted here and nowhere else.
/// </summary>
/// <param name="Head">Where the head stands; null where it begins at the first stroke.</param>
/// <param name="DrawMm">Length with the tool down, times over counted, mm.</param>
/// <param name="TravelMm">Length with the tool up, mm.</param>
/// <param name="Seconds">From the first way to the last lift.</param>
public readonly record struct HeadRun(Point? Head, double DrawMm = 0, double TravelMm = 0, double Seconds = 0)
{
    /// <summary>The strokes of one line, all of them as often as the settings say: way, down, stroke, up.</summary>
    /// <param name="strokes">In order and direction; a closed one ends where it begins.</param>
    /// <param name="settings">Speed and times over.</param>
    /// <param name="machine">Top speed, acceleration and the time of a lift.</param>
    public HeadRun Over(IReadOnlyList<Path> strokes, ToolSettings settings, Machine machine)
    {
        var speed = Math.Min(settings.SpeedMmPerSecond, machine.TopSpeed);
        var run = this;
        for (var time = 0; time < settings.Times; time++)
        {
            foreach (var stroke in strokes)
            {
                var way = run.Head?.DistanceTo(stroke.Start) ?? 0;
                run = new HeadRun(
                    stroke.IsClosed ? stroke.Start : stroke.End, run.DrawMm + stroke.Length, run.TravelMm + way,
                    run.Seconds + MotionTime.Straight(way, machine.TopSpeed, machine.Acceleration) + MotionTime.Along(stroke, speed, machine.Acceleration) + 2 * machine.LiftSeconds);
            }
        }
        return run;
    }
}
