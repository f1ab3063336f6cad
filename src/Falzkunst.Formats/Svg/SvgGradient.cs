using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Formats.Svg;

/// <summary>A gradient as its file states it, what it takes from others included (SVG 2, 14.2).</summary>
/// <param name="Kind">Linear or radial.</param>
/// <param name="Stops">Its stops; two at least.</param>
/// <param name="IsOfBox">Its numbers are shares of the box of what it fills; else lengths in user units.</param>
/// <param name="Map">What it is moved by; in the units of its numbers.</param>
/// <param name="Numbers">x1, y1, x2, y2, cx, cy, r, fx, fy, as they are written.</param>
internal sealed record SvgGradient(ShadingKind Kind, ImmutableArray<ShadingStop> Stops, bool IsOfBox, Affine Map, IReadOnlyDictionary<string, string> Numbers)
{
    /// <summary>A focus on the circle has no inside to begin in.</summary>
    private const double FarthestFocus = 0.99;

    /// <summary>Beyond this a shading says nothing of a drawing, mm.</summary>
    private const double Far = 1e6;

    /// <summary>As it lies over a shape; null where it has no extent there.</summary>
    /// <param name="box">The shape's, in user units.</param>
    /// <param name="width">What percentages of x are of, user units.</param>
    /// <param name="height">What percentages of y are of, user units.</param>
    /// <param name="toPage">From user units to mm.</param>
    public Shading? Over(Box box, double width, double height, Affine toPage)
    {
        if (IsOfBox && !(box.Width > 0 && box.Height > 0)) return null;
        var (across, down) = IsOfBox ? (1, 1) : (width, height);
        double X(string name, string usual) => SvgLength.Read(Numbers.GetValueOrDefault(name, usual), across) ?? 0;
        double Y(string name, string usual) => SvgLength.Read(Numbers.GetValueOrDefault(name, usual), down) ?? 0;
        Affine own;
        var focus = new Point(0, 0);
        if (Kind == ShadingKind.Linear)
        {
            var (from, to) = (new Point(X("x1", "0%"), Y("y1", "0%")), new Point(X("x2", "100%"), Y("y2", "0%")));
            var along = to - from;
            own = new Affine(along.X, along.Y, -along.Y, along.X, from.X, from.Y);
        }
        else
        {
            var (centre, radius) = (new Point(X("cx", "50%"), Y("cy", "50%")), SvgLength.Read(Numbers.GetValueOrDefault("r", "50%"), Math.Sqrt((across * across + down * down) / 2)) ?? 0);
            own = new Affine(radius, 0, 0, radius, centre.X, centre.Y);
            if (radius > 0 && (Numbers.ContainsKey("fx") || Numbers.ContainsKey("fy")))
            {
                focus = (new Point(Numbers.ContainsKey("fx") ? X("fx", "50%") : centre.X, Numbers.ContainsKey("fy") ? Y("fy", "50%") : centre.Y) - centre) * (1 / radius);
                if (focus.Length > FarthestFocus) focus *= FarthestFocus / focus.Length;
            }
        }
        var place = own.Then(Map).Then(IsOfBox ? new Affine(box.Width, 0, 0, box.Height, box.MinX, box.MinY) : Affine.Identity).Then(toPage);
        double[] all = [place.A, place.B, place.C, place.D, place.E, place.F];
        if (!Array.TrueForAll(all, n => Math.Abs(n) < Far) || !(Math.Abs(place.Determinant) > 1e-9)) return null;
        return new Shading(Kind, place, Stops) { FocusX = focus.X, FocusY = focus.Y };
    }
}
