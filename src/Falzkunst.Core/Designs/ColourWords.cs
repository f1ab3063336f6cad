using System.Globalization;

namespace Falzkunst.Core.Designs;

/// <summary>Plain words for colours, so that a rule can be read aloud.</summary>
public static class ColourWords
{
    private static readonly (double UpTo, string Word)[] Hues =
    [
        (15, "red"), (42, "orange"), (68, "yellow"), (165, "green"), (200, "teal"),
        (255, "blue"), (290, "violet"), (335, "pink"), (361, "red"),
    ];

    /// <summary>The word for a colour given as #rrggbb; the text itself where it is not one.</summary>
    public static string Name(string colour)
    {
        if (colour.Length != 7 || !int.TryParse(colour.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture, out var rgb))
            return colour;
        double r = (rgb >> 16 & 255) / 255.0, g = (rgb >> 8 & 255) / 255.0, b = (rgb & 255) / 255.0;
        var (max, min) = (Math.Max(r, Math.Max(g, b)), Math.Min(r, Math.Min(g, b)));
        var light = (max + min) / 2;
        if (light < 0.12) return "black";
        if (light > 0.95) return "white";
        if (max - min < 0.09) return "grey";
        var hue = max == r ? (g - b) / (max - min) * 60 : max == g ? 120 + (b - r) / (max - min) * 60 : 240 + (r - g) / (max - min) * 60;
        if (hue < 0) hue += 360;
        if (hue is > 36 and < 52 && light is > 0.28 and < 0.5 && max - min > 0.5) return "gold";
        var word = Hues.First(h => hue < h.UpTo).Word;
        if (word is "orange" or "yellow" && light < 0.42) word = "brown";
        return light < 0.3 ? $"dark {word}" : light > 0.75 ? $"pale {word}" : word;
    }
}
