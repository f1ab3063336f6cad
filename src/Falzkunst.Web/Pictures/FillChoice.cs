using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;

namespace Falzkunst.Web.Pictures;

/// <summary>One way to work an area, as it would come out: a small true picture, its length and its time.</summary>
/// <param name="Words">What it is called.</param>
/// <param name="Action">The action that chooses it.</param>
/// <param name="IsChosen">It is what is chosen now.</param>
/// <param name="Picture">Content of an SVG picture of 84 by 46.</param>
/// <param name="LengthMm">With the tool down.</param>
/// <param name="Seconds">On the project's machine.</param>
public sealed record FillChoice(string Words, FillAction Action, bool IsChosen, string Picture, double LengthMm, double Seconds)
{
    public const double Width = 84;
    public const double Height = 46;
    private const double Edge = 3;

    /// <summary>A picture shows no strokes closer than this, in its own units; closer ones are shown as if farther apart.</summary>
    private const double LeastShown = 1.3;

    /// <summary>Line only, parallel, crossed, inward: for closed lines of one piece that a pen, foil tip or embossing tip runs.</summary>
    public static IReadOnlyList<FillChoice> For(Piece piece, ImmutableArray<string> lines, ToolSettings settings, Machine machine)
    {
        var picked = piece.Drawn.Where(l => lines.Contains(l.Id) && l.Path.IsClosed).ToList();
        if (picked.Count == 0) return [];
        var first = picked[0];
        var rings = picked.Select(l => l.Path).ToList();
        var (now, tip) = (first.EffectiveSettings.Fill, first.TipMm);
        var distance = now?.DistanceMm;
        var outline = new HeadRun(null).Over(rings, settings, machine);
        var choices = new List<FillChoice> { new("line only", new FillAction(), now is null, Draw(rings, [], first, 0), outline.DrawMm, outline.Seconds) };
        foreach (var pattern in Enum.GetValues<FillPattern>())
        {
            var fill = new AreaFill(pattern, distance, now?.AngleDegrees ?? AreaFill.UsualAngleDegrees);
            var word = pattern.ToString().ToLowerInvariant();
            try
            {
                var strokes = AreaFills.Strokes(rings, fill, tip);
                var work = new HeadRun(null).Over([.. rings, .. strokes], settings, machine);
                choices.Add(new FillChoice(word, new FillAction(pattern), now?.Pattern == pattern, Draw(rings, Shown(rings, fill, tip, strokes), first, tip), work.DrawMm, work.Seconds));
            }
            catch (EditRefused)
            {
                // Too many strokes to run: no choice to offer.
            }
        }
        return choices;
    }

    private static ImmutableArray<Core.Geometry.Path> Shown(List<Core.Geometry.Path> rings, AreaFill fill, double tip, ImmutableArray<Core.Geometry.Path> strokes)
    {
        var least = LeastShown / SmallPicture.Scale(Around(rings), Width, Height, Edge);
        return fill.DistanceFor(tip) >= least ? strokes : AreaFills.Strokes(rings, fill with { DistanceMm = Math.Clamp(least, AreaFill.LeastMm, AreaFill.MostMm) }, tip);
    }

    private static Box Around(List<Core.Geometry.Path> rings) => rings.Aggregate(Box.Empty, (all, r) => all.Include(r.Bounds));

    private static string Draw(List<Core.Geometry.Path> rings, ImmutableArray<Core.Geometry.Path> strokes, Line line, double tip)
    {
        var box = Around(rings);
        var map = SmallPicture.Fit(box, Width, Height, Edge);
        var d = string.Concat(rings.Concat(strokes).Select(path => SmallPicture.Data(path.Map(map))));
        return SmallPicture.Stroke(line, d, Math.Clamp(tip * SmallPicture.Scale(box, Width, Height, Edge), 0.5, 1.2));
    }
}
