using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing.Registration;

/// <summary>How far what is seen may be off the layout while it is the layout.</summary>
/// <param name="Scale">Dots to a millimetre; 0 where nothing tells.</param>
/// <param name="ScaleOff">Share by which distances may differ from that.</param>
/// <param name="Degrees">By how much the headings of marks may differ.</param>
/// <param name="PlaceOff">How far a mark may be from where two others put it, as a share of the page's diagonal.</param>
internal sealed record MatchSlack(double Scale, double ScaleOff, double Degrees, double PlaceOff);

/// <summary>Which shape is which mark.</summary>
/// <param name="Marks">The shape of each mark that has one.</param>
/// <param name="Page">A similar map from the sheet to the picture through two of them.</param>
/// <param name="Off">How far the marks are from where it puts them and their arms from the length it gives them, dots, on the mean.</param>
internal sealed record MarkMatch(Dictionary<MarkCorner, SeenMark> Marks, Affine Page, double Off)
{
    /// <summary>
    /// Every two shapes as every two marks give a map from the sheet, where they face as the marks do and lie as far apart; the other
    /// marks are looked for where it puts them. The best comes first: most marks, least off.
    /// </summary>
    public static List<MarkMatch> All(List<SeenMark> seen, MarkLayout layout, MatchSlack slack)
    {
        var found = new List<MarkMatch>();
        for (var a = 0; a < layout.Marks.Length; a++)
        {
            for (var b = a + 1; b < layout.Marks.Length; b++)
            {
                foreach (var one in seen)
                {
                    foreach (var other in seen)
                    {
                        if (!ReferenceEquals(one, other) && Through(one, layout.Marks[a], other, layout.Marks[b], slack) is { } page) found.Add(Fill(seen, layout, slack, page, (layout.Marks[a].Corner, one), (layout.Marks[b].Corner, other)));
                    }
                }
            }
        }
        return [.. found.OrderByDescending(m => m.Marks.Count).ThenBy(m => m.Off)];
    }

    /// <summary>By how much a shape is turned against a mark, from -180 to 180 degrees.</summary>
    public static double Turn(SeenMark seen, LayoutMark mark) => Signed(seen.HeadingDegrees - mark.HeadingDegrees);

    /// <summary>An angle from -180 to below 180 degrees.</summary>
    public static double Signed(double degrees) => (degrees % 360 + 540) % 360 - 180;

    private static Affine? Through(SeenMark one, LayoutMark first, SeenMark other, LayoutMark second, MatchSlack slack)
    {
        var turn = Turn(one, first);
        if (Math.Abs(Signed(Turn(other, second) - turn)) > slack.Degrees) return null;
        var (on, off) = (second.Outer - first.Outer, other.Corner - one.Corner);
        var scale = off.Length / on.Length;
        var scales = new[] { slack.Scale > 0 ? scale / slack.Scale : 1, one.Arm / first.ArmMm / scale, other.Arm / second.ArmMm / scale };
        // Arms are short: their length is known to a few dots only.
        if (Math.Abs(scales[0] - 1) > slack.ScaleOff || scales[1..].Any(s => Math.Abs(s - 1) > slack.ScaleOff + 4 / Math.Min(one.Arm, other.Arm))) return null;
        var degrees = Math.Atan2(off.Y, off.X) * 180 / Math.PI - Math.Atan2(on.Y, on.X) * 180 / Math.PI;
        if (Math.Abs(Signed(degrees - turn)) > slack.Degrees) return null;
        return Affine.Move(first.Outer * -1).Then(Affine.Scale(scale, scale)).Then(Affine.Turn(degrees)).Then(Affine.Move(one.Corner));
    }

    private static MarkMatch Fill(List<SeenMark> seen, MarkLayout layout, MatchSlack slack, Affine page, params ReadOnlySpan<(MarkCorner Corner, SeenMark Seen)> pair)
    {
        var marks = new Dictionary<MarkCorner, SeenMark>();
        foreach (var (corner, shape) in pair) marks[corner] = shape;
        double off = 0;
        var turn = page.AsTurn().Degrees;
        foreach (var mark in layout.Marks.Where(m => !marks.ContainsKey(m.Corner)))
        {
            var at = page.Apply(mark.Outer);
            var near = seen.Where(s => !marks.ContainsValue(s) && Math.Abs(Signed(Turn(s, mark) - turn)) <= slack.Degrees).MinBy(s => s.Corner.DistanceTo(at));
            if (near is null || near.Corner.DistanceTo(at) > slack.PlaceOff * layout.Diagonal * page.MeanScale) continue;
            marks[mark.Corner] = near;
            off += near.Corner.DistanceTo(at);
        }
        off += layout.Marks.Where(m => marks.ContainsKey(m.Corner)).Sum(m => Math.Abs(marks[m.Corner].Arm - m.ArmMm * page.MeanScale));
        return new MarkMatch(marks, page, off / marks.Count);
    }
}
