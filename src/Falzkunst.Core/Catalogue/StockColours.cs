using System.Globalization;
using Falzkunst.Core.Pictures;

namespace Falzkunst.Core.Catalogue;

/// <summary>How far apart two colours of papers are to the eye.</summary>
public static class StockColours
{
    /// <summary>From this distance on a colour is another one, and whoever means it had better be asked.</summary>
    public const double FarAway = 0.12;

    /// <summary>The text is a colour: # and six digits.</summary>
    public static bool IsColour(string? text) => text is { Length: 7 } && text[0] == '#' && text.Skip(1).All(char.IsAsciiHexDigit);

    /// <summary>The distance of two colours #rrggbb; what is none counts as white.</summary>
    public static double Difference(string one, string other) => Lab(one).DistanceTo(Lab(other));

    private static OkLab Lab(string colour)
    {
        var rgb = colour.Length == 7 && int.TryParse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var read) ? read : 0xFFFFFF;
        return OkLab.From((byte)(rgb >> 16 & 255), (byte)(rgb >> 8 & 255), (byte)(rgb & 255));
    }
}
