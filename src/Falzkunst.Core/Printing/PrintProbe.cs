using System.Collections.Immutable;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Printing;

/// <summary>Which of some layers is seen at a place: the topmost that has colour there.</summary>
public sealed class PrintProbe
{
    private readonly Func<Point, bool>[] _covers;

    /// <param name="layers">The layers, lowest first.</param>
    public PrintProbe(ImmutableArray<PrintLayer> layers) => _covers = [.. layers.Select(Covering)];

    /// <summary>Number of the layer that is seen; -1 where the paper is. Pictures count as opaque.</summary>
    public int TopmostAt(Point p)
    {
        for (var i = _covers.Length - 1; i >= 0; i--)
        {
            if (_covers[i](p)) return i;
        }
        return -1;
    }

    private static Func<Point, bool> Covering(PrintLayer layer)
    {
        switch (layer)
        {
            case FillLayer fill:
                var area = new Lazy<RegionIndex>(() => new RegionIndex([.. fill.Rings.Select(r => r.Flat.ToArray())]));
                return p => fill.EvenOdd ? area.Value.Contains(p) : area.Value.Winding(p) != 0;
            case StrokeLayer stroke:
                var band = new Lazy<RegionIndex>(() => new RegionIndex([.. AreaOf(stroke).Rings]));
                return p => band.Value.Contains(p);
            case PictureLayer { Picture: var picture }:
                var back = picture.Place.Inverse();
                var box = Box.FromSize(picture.Width, picture.Height);
                return p => picture.IsPattern || box.Contains(back.Apply(p));
            default:
                throw new ArgumentOutOfRangeException(nameof(layer), layer.GetType().Name, "Unknown layer.");
        }
    }

    /// <summary>What strokes cover.</summary>
    internal static Region AreaOf(StrokeLayer stroke) => Region.Around(
        stroke.Strokes.Select(s => (IReadOnlyList<Point>)(s.IsClosed ? [.. s.Flat, s.Start] : s.Flat.ToArray())), stroke.WidthMm / 2, Arcs.QuarterEdges(stroke.WidthMm / 2), !stroke.RoundEnds);
}
