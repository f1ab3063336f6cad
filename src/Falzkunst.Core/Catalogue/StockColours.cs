using System.Globalization;

namespace Falzkunst.Core.Catalogue;

/// <summary>How far apart two colours are to the eye, roughly.</summary>
internal static class StockColours
{
    public static (double R, double G, double B) Rgb(string colour) =>
        colour.Length == 7 && int.TryParse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var rgb)
            ? (rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255)
            : (255, 255, 255);

    /// <summary>The "redmean" weighting: Euclidean in RGB, weighted by how the eye sees red, green and blue.</summary>
    public static double Difference((double R, double G, double B) a, (double R, double G, double B) b)
    {
        var mean = (a.R + b.R) / 2;
        var (r, g, bl) = (a.R - b.R, a.G - b.G, a.B - b.B);
        return (2 + mean / 256) * r * r + 4 * g * g + (2 + (255 - mean) / 256) * bl * bl;
    }
}
