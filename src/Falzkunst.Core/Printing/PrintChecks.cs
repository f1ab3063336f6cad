using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>What is wrong with print before it is on paper.</summary>
public enum PrintFault
{
    /// <summary>An area or a picture ends a little inside the cut, so that a hair of paper shows.</summary>
    FallsShort,

    /// <summary>A printed area reaches past the cut by more than the bleed, and is trimmed there.</summary>
    HangsOver,

    /// <summary>A picture has so few dots to the inch that they show.</summary>
    Coarse,

    /// <summary>The stock is not known to go through a printer.</summary>
    NotForPrinters,

    /// <summary>Front and back may lie apart by more than the bleed hides.</summary>
    SidesApart,
}

/// <summary>A fault with its place.</summary>
/// <param name="Fault">What is wrong.</param>
/// <param name="Piece">Id of the piece; null where it is about a stock.</param>
/// <param name="At">Where on the piece, in its coordinates; null where it is about all of it.</param>
/// <param name="Mm">How far it falls short or hangs over, mm; of coarse pictures the dots to the inch, of sides how far apart.</param>
/// <param name="Item">Id of the item; null where it is about no single one.</param>
public sealed record PrintFinding(PrintFault Fault, string? Piece, Point? At, double Mm, string? Item = null);

/// <summary>Looks printed pieces over.</summary>
public static class PrintChecks
{
    /// <summary>White wider than this at the edge is meant, mm.</summary>
    private const double MeantMm = 1.2;

    /// <summary>White along less of the edge is no fault that anybody sees, mm.</summary>
    private const double LeastAlongMm = 1;

    /// <summary>The white is measured in these steps, mm.</summary>
    private static readonly double[] Depths = [0.2, 0.3, 0.4, 0.6, 0.8, 1, MeantMm];

    /// <summary>What hangs over by no more than this beyond the bleed is cut with it, mm.</summary>
    private const double SlackMm = 0.2;

    private static readonly ConditionalWeakTable<Piece, Known> Looked = [];

    private sealed record Known(double BleedMm, ImmutableArray<PrintFinding> Findings);

    /// <summary>All that is to be said of the pieces of a stock before it is printed.</summary>
    /// <param name="design">The pieces.</param>
    /// <param name="stock">The stock.</param>
    /// <param name="how">How it is printed.</param>
    public static IEnumerable<PrintFinding> Of(Design design, Stock stock, PagePrinting how)
    {
        if (!stock.TakesPrint) yield return new(PrintFault.NotForPrinters, null, null, 0);
        if (how.Flip is not null && how.ApartMm > how.BleedMm) yield return new(PrintFault.SidesApart, null, null, how.ApartMm);
        foreach (var piece in design.Pieces.Where(p => p.Stock == stock.Key && p.Quantity > 0))
        {
            foreach (var finding in Of(piece, how.BleedMm)) yield return finding;
        }
    }

    /// <summary>What is to be said of one piece.</summary>
    public static ImmutableArray<PrintFinding> Of(Piece piece, double bleedMm)
    {
        if (Looked.TryGetValue(piece, out var known) && known.BleedMm == bleedMm) return known.Findings;
        ImmutableArray<PrintFinding> found = [.. Look(piece, bleedMm)];
        Looked.AddOrUpdate(piece, new Known(bleedMm, found));
        return found;
    }

    private static IEnumerable<PrintFinding> Look(Piece piece, double bleedMm)
    {
        var layers = PrintedArt.On(piece);
        if (layers.IsEmpty) yield break;
        if (FallsShort(piece, layers) is { } shortfall) yield return shortfall;
        if (HangsOver(piece, layers, bleedMm) is { } over) yield return over;
        foreach (var item in piece.Items.OfType<PictureItem>().Where(i => i.Of is not null && i.IsCoarse))
            yield return new(PrintFault.Coarse, piece.Id, item.Bounds.Centre, item.DotsPerInch, item.Id);
    }

    private static PrintFinding? FallsShort(Piece piece, ImmutableArray<PrintLayer> layers)
    {
        // Borders and lettering inside the edge are meant; areas and pictures that all but reach it are not.
        var probe = new PrintProbe(layers);
        var areas = new PrintProbe([.. layers.Where(l => l is FillLayer or PictureLayer)]);
        var (along, worst, at) = (0.0, 0.0, default(Point));
        foreach (var s in PaperEdge.Stretches(piece.Paper, probe).SelectMany(r => r).Where(s => s.Layer < 0))
        {
            var count = Math.Max(1, (int)(s.From.DistanceTo(s.To) / 0.5));
            for (var k = 0; k < count; k++)
            {
                var p = Point.Lerp(s.From, s.To, (k + 0.5) / count);
                foreach (var depth in Depths)
                {
                    if (areas.TopmostAt(p + s.Inward * depth) < 0) continue;
                    along += s.From.DistanceTo(s.To) / count;
                    if (depth > worst) (worst, at) = (depth, p);
                    break;
                }
            }
        }
        return along >= LeastAlongMm ? new(PrintFault.FallsShort, piece.Id, at, worst) : null;
    }

    private static PrintFinding? HangsOver(Piece piece, ImmutableArray<PrintLayer> layers, double bleedMm)
    {
        var (worst, at) = (0.0, default(Point));
        var outline = piece.Outline.Path.Flat.ToArray();
        foreach (var p in layers.OfType<FillLayer>().SelectMany(f => f.Rings).Where(r => !piece.Size.Contains(r.Bounds, bleedMm + SlackMm)).SelectMany(r => r.Flat.ToArray()))
        {
            if (piece.Paper.HoldsInOutline(p)) continue;
            var far = Polygons.DistanceToRing(outline, p);
            if (far > worst) (worst, at) = (far, p);
        }
        return worst > bleedMm + SlackMm ? new(PrintFault.HangsOver, piece.Id, at, worst) : null;
    }
}
