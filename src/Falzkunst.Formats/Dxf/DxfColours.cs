using System.Globalization;

namespace Falzkunst.Formats.Dxf;

/// <summary>Colours by index as #rrggbb: seven plain ones, two greys, 24 hues in ten shades each, six greys.</summary>
internal static class DxfColours
{
    private static readonly string[] Plain =
        ["#000000", "#FF0000", "#FFFF00", "#00FF00", "#00FFFF", "#0000FF", "#FF00FF", "#000000", "#808080", "#C0C0C0"];

    private static readonly double[] Values = [1, 0.65, 0.5, 0.3, 0.15];
    private static readonly int[] Greys = [51, 91, 132, 173, 214, 255];

    /// <summary>The colour of an index from 0 to 255; 7 and 0, white on a dark screen, are black on paper.</summary>
    public static string ByIndex(int index)
    {
        if (index is < 0 or > 255) return Plain[0];
        if (index < 10) return Plain[index];
        if (index >= 250) return Hex(Greys[index - 250], Greys[index - 250], Greys[index - 250]);
        var hue = (index - 10) / 10 * 15;
        var value = Values[index % 10 / 2];
        var saturation = index % 2 == 0 ? 1.0 : 0.5;
        double Channel(double n)
        {
            var k = (n + hue / 60.0) % 6;
            return value - value * saturation * Math.Max(0, Math.Min(Math.Min(k, 4 - k), 1));
        }
        return Hex((int)Math.Round(255 * Channel(5)), (int)Math.Round(255 * Channel(3)), (int)Math.Round(255 * Channel(1)));
    }

    /// <summary>A colour written in full; null where there is none.</summary>
    public static string? True(DxfTag? tag) => tag is { } t ? "#" + (t.Integer & 0xFFFFFF).ToString("X6", CultureInfo.InvariantCulture) : null;

    private static string Hex(int r, int g, int b) => $"#{r:X2}{g:X2}{b:X2}";
}
