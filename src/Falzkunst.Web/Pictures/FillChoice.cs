using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Running;
using Microsoft.Extensions.Caching.Memory;

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

    /// <summary>Choices that were worked out lately, by all that they follow from.</summary>
    private static readonly MemoryCache Known = new(new MemoryCacheOptions { SizeLimit = 20_000_000 });

    /// <summary>Line only, parallel, crossed, inward: for closed lines of one piece that a pen, foil tip or embossing tip runs.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="lines">Ids of the lines.</param>
    /// <param name="settings">Of the tool.</param>
    /// <param name="machine">The machine.</param>
    /// <param name="stop">Whoever asked has left.</param>
    public static IReadOnlyList<FillChoice> For(Piece piece, ImmutableArray<string> lines, ToolSettings settings, Machine machine, CancellationToken stop)
    {
        var ids = lines.ToHashSet();
        var picked = piece.Drawn.Where(l => l.Path.IsClosed && ids.Contains(l.Id)).ToList();
        if (picked.Count == 0) return [];
        var first = picked[0];
        var rings = picked.Select(l => l.Path).ToList();
        var key = (PieceShape.HashOf(rings), first.EffectiveSettings.Fill, first.TipMm, first.Ink, first.Operation, settings, machine.TopSpeed, machine.Acceleration, machine.LiftSeconds);
        if (Known.TryGetValue(key, out IReadOnlyList<FillChoice>? known)) return known!;
        var made = Make(rings, first, settings, machine, stop);
        Known.Set(key, made, new MemoryCacheEntryOptions { Size = 200 + made.Sum(c => c.Picture.Length), SlidingExpiration = TimeSpan.FromMinutes(20) });
        return made;
    }

    private static List<FillChoice> Make(List<Core.Geometry.Path> rings, Line first, ToolSettings settings, Machine machine, CancellationToken stop)
    {
        var (now, tip) = (first.EffectiveSettings.Fill, first.TipMm);
        var outline = new HeadRun(null).Over(rings, settings, machine);
        var choices = new List<FillChoice> { new("line only", new FillAction(), now is null, Draw(rings, [], first, 0), outline.DrawMm, outline.Seconds) };
        try
        {
            var area = AreaFills.AreaOf(rings, stop);
            foreach (var pattern in Enum.GetValues<FillPattern>())
            {
                stop.ThrowIfCancellationRequested();
                if (One(area, new AreaFill(pattern, now?.DistanceMm, now?.AngleDegrees ?? AreaFill.UsualAngleDegrees)) is { } choice) choices.Add(choice);
            }
        }
        catch (EditRefused)
        {
            // Lines that cross too often bound no area that can be filled.
        }
        return choices;

        FillChoice? One(Region area, AreaFill fill)
        {
            try
            {
                var strokes = AreaFills.Strokes(area, fill, tip, stop);
                var work = new HeadRun(null).Over([.. rings, .. strokes], settings, machine);
                return new FillChoice(
                    fill.Pattern.ToString().ToLowerInvariant(), new FillAction(fill.Pattern), now?.Pattern == fill.Pattern, Draw(rings, Shown(rings, area, fill, tip, strokes, stop), first, tip), work.DrawMm, work.Seconds);
            }
            catch (EditRefused)
            {
                // Too many strokes to run: no choice to offer.
                return null;
            }
        }
    }

    /// <summary>The strokes as a small picture shows them: none closer than can be told apart, and of very many some.</summary>
    private static ImmutableArray<Core.Geometry.Path> Shown(List<Core.Geometry.Path> rings, Region area, AreaFill fill, double tip, ImmutableArray<Core.Geometry.Path> strokes, CancellationToken stop)
    {
        var least = LeastShown / SmallPicture.Scale(Around(rings), Width, Height, Edge);
        var shown = fill.DistanceFor(tip) >= least ? strokes : AreaFills.Strokes(area, fill with { DistanceMm = Math.Clamp(least, AreaFill.LeastMm, AreaFill.MostMm) }, tip, stop);
        return Some(shown);
    }

    /// <summary>Of lines with more segments together than a small picture needs, every so many.</summary>
    private static ImmutableArray<Core.Geometry.Path> Some(IReadOnlyCollection<Core.Geometry.Path> lines)
    {
        var each = 1 + lines.Sum(l => l.Segments.Length) / SmallPicture.MostSegments;
        return [.. lines.Where((_, i) => i % each == 0)];
    }

    private static Box Around(List<Core.Geometry.Path> rings) => rings.Aggregate(Box.Empty, (all, r) => all.Include(r.Bounds));

    private static string Draw(List<Core.Geometry.Path> rings, ImmutableArray<Core.Geometry.Path> strokes, Line line, double tip)
    {
        var box = Around(rings);
        var map = SmallPicture.Fit(box, Width, Height, Edge);
        var d = string.Concat(Some(rings).Concat(strokes).Select(path => SmallPicture.Data(path.Map(map))));
        return SmallPicture.Stroke(line, d, Math.Clamp(tip * SmallPicture.Scale(box, Width, Height, Edge), 0.5, 1.2));
    }
}
