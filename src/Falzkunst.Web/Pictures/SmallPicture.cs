using System.Globalization;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Path = Falzkunst.Core.Geometry.Path;

namespace Falzkunst.Web.Pictures;

/// <summary>What small pictures of pieces, motifs and fills have in common.</summary>
internal static class SmallPicture
{
    /// <summary>A picture of this many segments needs no more path data; larger things are shown by their outlines, coarsely.</summary>
    public const int MostSegments = 1500;

    /// <summary>The scale at which a box fits into a picture with an edge kept free.</summary>
    public static double Scale(Box box, double width, double height, double edge) =>
        Math.Min((width - 2 * edge) / Math.Max(box.Width, 1e-6), (height - 2 * edge) / Math.Max(box.Height, 1e-6));

    /// <summary>The map that puts a box into the middle of a picture, as large as it fits.</summary>
    public static Affine Fit(Box box, double width, double height, double edge)
    {
        var scale = Scale(box, width, height, edge);
        return Affine.Move(box.Centre * -1).Then(Affine.Scale(scale, scale)).Then(Affine.Move(width / 2, height / 2));
    }

    /// <summary>Path data of a line; of a coarse one that goes through so many points where that is wanted.</summary>
    public static string Data(Path path, int? coarsePoints = null) => PathText.Write(
        coarsePoints is { } n ? Path.Polyline(Sampling.Midpoints(path, path.Length / n, n), path.IsClosed) : path, 1);

    /// <summary>A line in the colour of its pen, foil or operation.</summary>
    public static string Stroke(Line line, string data, double width) => string.Create(CultureInfo.InvariantCulture,
        $"<path d=\"{data}\" fill=\"none\" stroke=\"{line.Ink ?? line.Operation.Colour()}\" stroke-width=\"{width:0.##}\"/>");
}
