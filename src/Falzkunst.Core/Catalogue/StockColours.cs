using System.Globalization;

namespace Falzkunst.Core.Catalogue;

/// <summary>How far apart two colours are to the eye: the distance in OKLab (Ottosson 2020), where black to white is 1.</summary>
public static class StockColours
{
    /// <summary>From this distance on a colour is another one, and whoever means it had better be asked.</summary>
    public const double FarAway = 0.12;

    /// <summary>The text is a colour: # and six digits.</summary>
    public static bool IsColour(string? text) => text is { Length: 7 } && text[0] == '#' && text.Skip(1).All(char.IsAsciiHexDigit);

    /// <summary>The distance of two colours #rrggbb; what is none counts as white.</summary>
    public static double Difference(string one, string other)
    {
        var ((l, a, b), (m, c, d)) = (Lab(one), Lab(other));
        return Math.Sqrt((l - m) * (l - m) + (a - c) * (a - c) + (b - d) * (b - d));
    }

    private static (double L, double A, double B) Lab(string colour)
    {
        var rgb = colour.Length == 7 && int.TryParse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var read) ? read : 0xFFFFFF;
        var (r, g, b) = (Linear(rgb >> 16 & 255), Linear(rgb >> 8 & 255), Linear(rgb & 255));
        var l = Math.Cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
        var m = Math.Cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
        var s = Math.Cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
        return (
            0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
            1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
            0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s);
    }

    /// <summary>A channel of sRGB, 0 to 255, as light.</summary>
    private static double Linear(int channel) => channel / 255.0 is var c && c <= 0.04045 ? c / 12.92 : Math.Pow((c + 0.055) / 1.055, 2.4);
}
