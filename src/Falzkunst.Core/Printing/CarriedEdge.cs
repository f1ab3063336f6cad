using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Printing;

/// <summary>A strip of dots beyond the cut, to be painted under the picture that it continues.</summary>
/// <param name="Dots">The dots; transparent where nothing is carried.</param>
/// <param name="Place">From dots to the piece's coordinates, mm.</param>
public sealed record CarriedDots(PixelImage Dots, Affine Place);

/// <summary>
/// The bleed of pictures: every dot beyond the cut takes the colour of the place of the edge that is nearest to it (a distance
/// transform with source labels; Felzenszwalb and Huttenlocher 2012 for the idea, here exact on the edge's stretches, each of which
/// writes the dots about it while it is nearer than what was there), averaged a little along the edge. Nothing is mirrored, so that
/// no motif stands twice.
/// </summary>
public static class CarriedEdge
{
    /// <summary>Colours are taken so far inside the cut, mm: about two dots at 300 to the inch, past what a soft edge mixes.</summary>
    private const double DepthMm = 0.15;

    /// <summary>Where a picture is transparent there, it is looked for farther in, up to this, mm; beyond it the paper is meant to stay white.</summary>
    private const double DeepestMm = 0.6;

    /// <summary>Colours are averaged so far along the edge to both sides, mm.</summary>
    private const double BlurMm = 0.25;

    private const int BlurTaps = 5;

    /// <summary>Dots less opaque than this are no colour to carry.</summary>
    private const int LeastOpaque = 128;

    /// <summary>The strip has no fewer and no more dots to the millimetre: 150 and 300 to the inch.</summary>
    private const double LeastDotsPerMm = 150 / CardPicture.InchMm, MostDotsPerMm = 300 / CardPicture.InchMm;

    /// <summary>No strip has more dots; a piece of two sheets of letter at 300 to the inch has 17 million.</summary>
    private const double MostDots = 24e6;

    /// <summary>Something of a layer's picture is to be carried beyond the cut.</summary>
    public static bool IsWanted(ImmutableArray<EdgeStretch> edge, int layer, double mm) => mm > 0 && edge.Any(s => s.Layer == layer);

    /// <summary>What is carried beyond the cut of one of a piece's pictures; null where none of its edge is seen along the cut.</summary>
    /// <param name="edge">The edge of the piece's paper.</param>
    /// <param name="layer">Number of the picture's layer.</param>
    /// <param name="picture">The picture on the piece.</param>
    /// <param name="dots">Its dots.</param>
    /// <param name="mm">How far print goes past the cut, mm.</param>
    public static CarriedDots? Of(ImmutableArray<EdgeStretch> edge, int layer, PictureItem picture, PixelImage dots, double mm)
    {
        if (!IsWanted(edge, layer, mm)) return null;
        var reach = mm + 0.2;
        var box = Box.Around(edge.Where(s => s.Layer == layer).SelectMany(s => new[] { s.From, s.To })).Grow(reach);
        var perMm = Math.Clamp(dots.Width / Math.Max(picture.Width * picture.Place.MeanScale, 1e-6), LeastDotsPerMm, MostDotsPerMm);
        perMm = Math.Min(perMm, Math.Sqrt(MostDots / Math.Max(box.Area, 1)));
        var (wide, high) = ((int)Math.Ceiling(box.Width * perMm), (int)Math.Ceiling(box.Height * perMm));
        var nearest = new float[wide * high];
        Array.Fill(nearest, float.MaxValue);
        var rgba = new byte[wide * high * PixelImage.BytesEach];
        var toPicture = picture.Place.Inverse();
        foreach (var stretch in edge) Paint(stretch);
        return new CarriedDots(new PixelImage(wide, high, rgba), Affine.Scale(1 / perMm, 1 / perMm).Then(Affine.Move(box.Min)));

        void Paint(EdgeStretch s)
        {
            var (from, along) = (s.From, s.To - s.From);
            var length = along.Length;
            var (way, inward) = (along * (1 / length), s.Inward);
            var about = Box.Around([s.From, s.To]).Grow(reach);
            if (!about.Overlaps(box)) return;
            var (x0, x1) = (Dot(about.MinX - box.MinX, wide), Dot(about.MaxX - box.MinX, wide));
            var (y0, y1) = (Dot(about.MinY - box.MinY, high), Dot(about.MaxY - box.MinY, high));
            for (var y = y0; y <= y1; y++)
            {
                for (var x = x0; x <= x1; x++)
                {
                    var p = box.Min + new Point((x + 0.5) / perMm, (y + 0.5) / perMm);
                    var t = Math.Clamp((p - from).Dot(way), 0, length);
                    var far = (float)p.DistanceTo(from + way * t);
                    var at = y * wide + x;
                    if (far > reach || far >= nearest[at]) continue;
                    nearest[at] = far;
                    if (s.Layer != layer || Colour(from, way, inward, t) is not var (r, g, b)) rgba[at * 4 + 3] = 0;
                    else (rgba[at * 4], rgba[at * 4 + 1], rgba[at * 4 + 2], rgba[at * 4 + 3]) = (r, g, b, 255);
                }
            }
        }

        int Dot(double mmFromStart, int most) => Math.Clamp((int)Math.Floor(mmFromStart * perMm), 0, most - 1);

        (byte R, byte G, byte B)? Colour(Point from, Point way, Point inward, double t)
        {
            for (var depth = DepthMm; depth <= DeepestMm; depth *= 2)
            {
                int r = 0, g = 0, b = 0, taps = 0;
                for (var k = -BlurTaps / 2; k <= BlurTaps / 2; k++)
                {
                    var at = toPicture.Apply(from + way * (t + k * BlurMm / (BlurTaps / 2)) + inward * depth);
                    if (DotAt(at) is not { } i || dots.Rgba[i + 3] < LeastOpaque) continue;
                    (r, g, b, taps) = (r + dots.Rgba[i], g + dots.Rgba[i + 1], b + dots.Rgba[i + 2], taps + 1);
                }
                if (taps > 0) return ((byte)(r / taps), (byte)(g / taps), (byte)(b / taps));
            }
            return null;
        }

        int? DotAt(Point p)
        {
            var (x, y) = ((int)Math.Floor(p.X / picture.Width * dots.Width), (int)Math.Floor(p.Y / picture.Height * dots.Height));
            if (picture.IsPattern) return dots.At(Wrapped(x, dots.Width), Wrapped(y, dots.Height));
            return x >= 0 && y >= 0 && x < dots.Width && y < dots.Height ? dots.At(x, y) : null;
        }

        static int Wrapped(int i, int of) => (i % of + of) % of;
    }
}
