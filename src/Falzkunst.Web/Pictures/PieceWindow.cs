using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;

namespace Falzkunst.Web.Pictures;

/// <summary>A true picture of a part of a piece, enlarged.</summary>
internal static class PieceWindow
{
    public const double Width = 150;
    public const double Height = 52;

    /// <summary>The picture by itself.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="window">The part of it to show, in its own coordinates, mm.</param>
    /// <param name="colour">Colour of its stock.</param>
    public static string Svg(Piece piece, Box window, string colour)
    {
        var map = SmallPicture.Fit(window, Width, Height, 2);
        var paper = new StringBuilder();
        var near = window.Grow(window.Width);
        paper.Append(SmallPicture.Data(piece.Outline.Path.Map(map)));
        foreach (var opening in piece.Paper.Openings.Where(o => o.Bounds.Overlaps(near))) paper.Append(SmallPicture.Data(opening.Map(map)));
        return string.Create(CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{Width}\" height=\"{Height}\" viewBox=\"0 0 {Width} {Height}\"><path d=\"{paper}\" fill=\"{colour}\" fill-rule=\"evenodd\" stroke=\"{Operation.Cut.Colour()}\" stroke-width=\".6\"/></svg>");
    }
}
