using System.Globalization;
using System.Text;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Pictures;

/// <summary>What building would make, small: paper in its colour, as it lies on the card.</summary>
public static class BuildPicture
{
    public const double Width = 132, Height = 62;
    private const double Edge = 4;

    /// <summary>Content of an SVG picture of 132 by 62.</summary>
    /// <param name="papers">Rings of each paper on the card with its colour, lowest first.</param>
    public static string Of(IReadOnlyList<(IEnumerable<Path> Rings, string Colour)> papers)
    {
        var rings = papers.Select(p => (Rings: p.Rings.ToList(), p.Colour)).ToList();
        var box = rings.SelectMany(r => r.Rings).Aggregate(Box.Empty, (all, r) => all.Include(r.Bounds));
        if (box.IsEmpty) return "";
        var map = SmallPicture.Fit(box, Width, Height, Edge);
        var picture = new StringBuilder();
        foreach (var (paper, colour) in rings)
        {
            var isLarge = paper.Sum(p => p.Segments.Length) > SmallPicture.MostSegments;
            var d = string.Concat((isLarge ? paper.Take(1) : paper).Select(p => SmallPicture.Data(p.Map(map), isLarge ? 300 : null)));
            picture.Append(CultureInfo.InvariantCulture, $"<path d=\"{d}\" fill=\"{colour}\" fill-rule=\"evenodd\" stroke=\"{Operation.Cut.Colour()}\" stroke-width=\".7\"/>");
        }
        return picture.ToString();
    }

    /// <summary>Pieces as they lie on the card.</summary>
    public static string Of(IEnumerable<Piece> pieces, Func<Piece, string> colour) =>
        Of([.. pieces.Select(p => (p.Paper.Rings.Select(r => r.Map(p.Place)), colour(p)))]);
}
