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
                var band = new Lazy<StrokeCover>(() => new StrokeCover(stroke));
                return p => band.Value.Contains(p);
            case PictureLayer { Picture: var picture }:
                var back = picture.Place.Inverse();
                var box = Box.FromSize(picture.Width, picture.Height);
                return p => picture.IsPattern || box.Contains(back.Apply(p));
            default:
                throw new ArgumentOutOfRangeException(nameof(layer), layer.GetType().Name, "Unknown layer.");
        }
    }

    /// <summary>Whether strokes cover a place, asked of the straight stretches that lie near it: no area is made of them, of which there may be tens of thousands.</summary>
    private sealed class StrokeCover
    {
        private readonly List<(Point A, Point B, bool Begins, bool Ends)> _stretches = [];
        private readonly BoxTree _tree;
        private readonly double _half;
        private readonly bool _isRound;

        public StrokeCover(StrokeLayer stroke)
        {
            (_half, _isRound) = (stroke.WidthMm / 2, stroke.RoundEnds);
            foreach (var path in stroke.Strokes)
            {
                var flat = path.Flat;
                var count = path.IsClosed ? flat.Length : flat.Length - 1;
                for (var i = 0; i < count; i++)
                    _stretches.Add((flat[i], flat[(i + 1) % flat.Length], !path.IsClosed && i == 0, !path.IsClosed && i == count - 1));
            }
            _tree = new BoxTree([.. _stretches.Select(s => Box.Around([s.A, s.B]).Grow(_half))]);
        }

        public bool Contains(Point p) => _tree.Meeting(new Box(p.X, p.Y, p.X, p.Y)).Exists(i => Covers(_stretches[i], p));

        private bool Covers((Point A, Point B, bool Begins, bool Ends) s, Point p)
        {
            if (Polygons.DistanceToStretch(p, s.A, s.B) > _half) return false;
            if (_isRound) return true;
            // A square end reaches no farther than the line.
            var along = s.B - s.A;
            return !(s.Begins && (p - s.A).Dot(along) < 0) && !(s.Ends && (p - s.B).Dot(along) > 0);
        }
    }
}
