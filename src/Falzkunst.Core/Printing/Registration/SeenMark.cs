using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>An L on a picture, to about a dot.</summary>
/// <param name="Corner">Its outer corner, dots.</param>
/// <param name="First">The far end of the arm from which a quarter turn clockwise leads to the other.</param>
/// <param name="Second">The far end of the other.</param>
internal sealed record SeenMark(Point Corner, Point First, Point Second)
{
    /// <summary>Length of its arms, dots.</summary>
    public double Arm => (Corner.DistanceTo(First) + Corner.DistanceTo(Second)) / 2;

    /// <summary>Which way it faces: the middle between its arms less an eighth of a turn, degrees.</summary>
    public double HeadingDegrees
    {
        get
        {
            var (a, b) = ((First - Corner) * (1 / Corner.DistanceTo(First)), (Second - Corner) * (1 / Corner.DistanceTo(Second)));
            return Math.Atan2(a.Y + b.Y, a.X + b.X) * 180 / Math.PI - 45;
        }
    }
}

/// <summary>How large marks may be on a picture, and how far they may be off their form.</summary>
/// <param name="LeastArm">Dots.</param>
/// <param name="MostArm">Dots.</param>
/// <param name="LineOfArm">Width of the line by length of the arm.</param>
/// <param name="Widened">By how much ink that spread, and blur, may have widened a line, dots.</param>
/// <param name="Degrees">How far from a right angle the arms may stand.</param>
/// <param name="Uneven">By what share the arms may differ.</param>
internal sealed record MarkForm(double LeastArm, double MostArm, double LineOfArm, double Widened, double Degrees, double Uneven);

/// <summary>Shapes that look like an L.</summary>
internal static class SeenMarks
{
    /// <summary>No page has so many; more of them is a pattern.</summary>
    private const int Most = 60;

    /// <summary>This share of the dots lies on the two arms.</summary>
    private const double OnArms = 0.93;

    public static List<SeenMark> Find(LocalInk ink, MarkForm form)
    {
        var found = new List<SeenMark>();
        var least = form.LeastArm / ink.Scale;
        foreach (var part in ink.Parts((int)(least * 2)))
        {
            if (FromDots(part, ink, form) is { } mark) found.Add(mark);
            if (found.Count >= Most) break;
        }
        return found;
    }

    /// <summary>
    /// The ends of an L are the two of its dots that lie farthest apart, its corner is farthest from the line between them; all other
    /// dots must lie on the arms then.
    /// </summary>
    private static SeenMark? FromDots(List<int> dots, LocalInk ink, MarkForm form)
    {
        Point At(int i) => new(i % ink.Width + 0.5, i / ink.Width + 0.5);
        var middle = dots.Aggregate(new Point(0, 0), (sum, i) => sum + At(i)) * (1.0 / dots.Count);
        var one = At(dots.MaxBy(i => At(i).DistanceTo(middle)));
        var other = At(dots.MaxBy(i => At(i).DistanceTo(one)));
        var along = other - one;
        if (along.Length < form.LeastArm / ink.Scale) return null;
        var corner = At(dots.MaxBy(i => Math.Abs(along.Cross(At(i) - one))));
        var (a, b) = (one - corner, other - corner);
        var (shorter, longer) = (Math.Min(a.Length, b.Length), Math.Max(a.Length, b.Length));
        if (shorter * ink.Scale < form.LeastArm || longer * ink.Scale > form.MostArm || longer - shorter > longer * form.Uneven + 3) return null;
        var angle = Math.Abs(Math.Atan2(a.Cross(b), a.Dot(b))) * 180 / Math.PI;
        if (Math.Abs(angle - 90) > form.Degrees) return null;
        // The shrunk grid widens a line by a dot and a half on top of ink and blur.
        var line = (shorter + longer) / 2 * form.LineOfArm;
        var most = line + form.Widened / ink.Scale + 1.5;
        if (dots.Count > (shorter + longer) * most || dots.Count < (shorter + longer) * Math.Max(1, line - 1) * 0.7) return null;
        var (ua, ub) = (a * (1 / a.Length), b * (1 / b.Length));
        // The corner lies on the outer side of both arms, so that the arms lie within a line's width of the lines through it.
        var off = most + 1;
        var on = dots.Count(i => At(i) - corner is var p && (Math.Abs(ua.Cross(p)) <= off || Math.Abs(ub.Cross(p)) <= off));
        if (on < dots.Count * OnArms) return null;
        var isClockwise = a.Cross(b) > 0;
        return new SeenMark(corner * ink.Scale, (isClockwise ? one : other) * ink.Scale, (isClockwise ? other : one) * ink.Scale);
    }
}
