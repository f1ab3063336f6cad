using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>What is printed on a piece, layer by layer, the lowest first.</summary>
public static class PrintedArt
{
    private static readonly ConditionalWeakTable<Piece, Sides> Known = [];

    private sealed record Sides(ImmutableArray<PrintLayer> Face, ImmutableArray<PrintLayer> Back);

    /// <summary>What is printed on its face, or on its back.</summary>
    public static ImmutableArray<PrintLayer> On(Piece piece, bool back = false)
    {
        var sides = Known.GetValue(piece, p => new Sides([.. Layers(p, back: false)], [.. Layers(p, back: true)]));
        return back ? sides.Back : sides.Face;
    }

    /// <summary>Something is printed on one of its sides.</summary>
    public static bool IsOn(Piece piece) => !On(piece).IsEmpty || !On(piece, back: true).IsEmpty;

    private static IEnumerable<PrintLayer> Layers(Piece piece, bool back)
    {
        var shape = new List<Line>();
        var on = back ? PieceBack.Seen(piece) : piece;
        foreach (var item in piece.Items.Prepend(piece.Outline))
        {
            var lines = item.LinesOn(on).Where(l => l.Operation == Operation.Print && !l.EffectiveSettings.LeftOut && l.EffectiveSettings.FromBack == back).ToList();
            if (lines.Count > 0 && shape.Count > 0 && IsOneShape(shape[^1], lines[0]))
            {
                shape.AddRange(lines);
                continue;
            }
            foreach (var layer in Painted(shape)) yield return layer;
            shape = lines;
            switch (item)
            {
                case PrintedFill fill when fill.OnBack == back:
                    yield return new FillLayer([on.Outline.Path], false, fill.Colour);
                    break;
                case PictureItem { Of: not null } picture when picture.OnBack == back:
                    yield return new PictureLayer(picture);
                    break;
            }
        }
        foreach (var layer in Painted(shape)) yield return layer;
    }

    /// <summary>Two lines of one shape of a file, painted alike: a ring and its hole.</summary>
    private static bool IsOneShape(Line a, Line b) =>
        a.Shape is { } shape && b.Shape == shape && a.Art == b.Art && PrintLook.Of(a) == PrintLook.Of(b);

    private static IEnumerable<PrintLayer> Painted(List<Line> shape)
    {
        if (shape.Count == 0) yield break;
        var look = PrintLook.Of(shape[0]);
        if (look.Fill is { } fill && shape.Where(l => l.Path.IsClosed).Select(l => l.Path).ToImmutableArray() is { IsEmpty: false } rings)
            yield return new FillLayer(rings, look.EvenOdd || shape[0].Shape is null, fill) { Shading = look.Shading };
        foreach (var band in look.Bands)
        {
            yield return new StrokeLayer(
                [.. shape.SelectMany(l => IsDashed(l.Path, band) ? Dashes.Split(l.Path, band.DashMm, band.GapMm).AsEnumerable() : [l.Path])], band.WidthMm, band.RoundEnds, band.Colour);
        }
    }

    /// <summary>Steps that one line's dashes may take; a line of more is printed whole, since no eye would tell its dashes apart.</summary>
    private const double MostDashSteps = 40_000_000;

    private static bool IsDashed(Path path, PrintBand band) =>
        band.IsDashed && path.Length / (band.DashMm + band.GapMm) * path.Flat.Length <= MostDashSteps;
}
