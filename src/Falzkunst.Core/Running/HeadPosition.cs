using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Running;

/// <summary>Where the tool is over the sheet.</summary>
public static class HeadPosition
{
    /// <summary>
    /// The place of the tool at a state, mm on the sheet: along the line it runs by share of time, on the way to its start
    /// before that. Null before the first and after the last line.
    /// </summary>
    public static Point? At(RunPlan plan, RunState state)
    {
        if (state.Step >= plan.Steps.Length || plan.Steps[state.Step] is not Pass pass || state.Line >= pass.Lines.Length) return null;
        var line = pass.Lines[state.Line];
        var share = line.Seconds > 0 ? Math.Clamp(state.SecondsInto / line.Seconds, 0, 1) : 0;
        var left = share * line.Strokes.Sum(s => s.Length);
        foreach (var stroke in line.Strokes)
        {
            var length = stroke.Length;
            if (left <= length) return Along(stroke, left);
            left -= length;
        }
        return line.Strokes[^1].End;
    }

    private static Point Along(Path path, double distance)
    {
        var flat = path.Flat;
        var edges = path.IsClosed ? flat.Length : flat.Length - 1;
        for (var i = 0; i < edges; i++)
        {
            var (a, b) = (flat[i], flat[(i + 1) % flat.Length]);
            var edge = a.DistanceTo(b);
            if (edge > 0 && distance <= edge) return Point.Lerp(a, b, distance / edge);
            distance -= edge;
        }
        return path.IsClosed ? path.Start : path.End;
    }
}
