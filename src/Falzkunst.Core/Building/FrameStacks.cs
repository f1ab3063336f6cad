using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Building;

/// <summary>A motif as nested frames, each on a backing of another stock.</summary>
/// <param name="Count">How many frames, the innermost whole.</param>
/// <param name="StepMm">By how much each is smaller all round than the one around it, mm.</param>
/// <param name="BackingMm">By how much a backing shows round its frame, mm; 0 for none.</param>
/// <param name="BackingStock">Key of the backings' stock.</param>
/// <param name="GlueMm">How far frames and backings go on under what covers them, mm; null leaves nothing out.</param>
public sealed record FrameStackOptions(int Count, double StepMm, double BackingMm, string BackingStock, double? GlueMm)
{
    public const int Most = 8;
    public const double LeastMm = 1, MostMm = 60;
}

/// <summary>Stacks of frames; all follow the motif, which stays hidden and is not made itself.</summary>
public static class FrameStacks
{
    /// <summary>The design with the frames above the motif, the outermost lowest.</summary>
    /// <exception cref="EditRefused">A number is out of reach, or the frames are more than the motif has room for.</exception>
    public static Design Make(Design design, string piece, FrameStackOptions how, Drawer drawer)
    {
        if (how.Count is < 2 or > FrameStackOptions.Most) throw EditRefused.Range(Measure.Borders, 2, FrameStackOptions.Most, "count");
        if (!(how.StepMm is >= FrameStackOptions.LeastMm and <= FrameStackOptions.MostMm)) throw EditRefused.RangeMm(Measure.BorderDistance, FrameStackOptions.LeastMm, FrameStackOptions.MostMm, "step");
        if (!(how.BackingMm >= 0 && how.BackingMm < how.StepMm)) throw EditRefused.RangeMm(Measure.BorderDistance, 0, how.StepMm, "backing");
        if (how.GlueMm is { } glue && !(glue is >= 0 and <= FrameStackOptions.MostMm)) throw EditRefused.RangeMm(Measure.RingWidth, 0, FrameStackOptions.MostMm, "glue");
        var motif = Mats.Unlocked(design.Require(piece));
        drawer.Stock(how.BackingStock);
        var names = design.Pieces.Select(p => p.Name).ToHashSet();
        var made = new List<Piece>();
        for (var k = 0; k < how.Count; k++)
        {
            var isLast = k == how.Count - 1;
            if (how.BackingMm > 0) made.Add(Frame($"{motif.Name}, backing {k + 1}", new Border(how.BackingMm - k * how.StepMm, how.BackingStock, Corners.Sharp, RingMm: Ring(how.BackingMm, isLast: false))));
            // What shows of a frame reaches to the backing of the next.
            made.Add(Printed(Frame($"{motif.Name}, frame {k + 1}", new Border(-k * how.StepMm, motif.Stock, Corners.Sharp, RingMm: Ring(how.StepMm - how.BackingMm, isLast)))));
        }
        var after = design.Plus(design.Pieces.IndexOf(motif) + 1, made);
        return after.With(piece, p => p with { Hidden = true, Quantity = 0 });

        // All frames show one picture, each its part of it.
        Piece Printed(Piece frame)
        {
            var map = motif.Place.Then(frame.Place.Inverse());
            return frame.Plus(motif.Items.Where(i => i is PictureItem or PrintedFill or WorkedItem { Operation: Operation.Print, StandsFree: true }).Select(i => i.Under(map)));
        }

        double? Ring(double shown, bool isLast) => how.GlueMm is { } margin && !isLast ? Math.Max(Border.LeastRingMm, shown + margin) : null;

        Piece Frame(string name, Border border) => Mats.PieceFor(PieceNaming.Wished(name, names), border.Stock, motif, Borders.Offset(motif, border)[0], new FromBorder(piece, border));
    }
}
